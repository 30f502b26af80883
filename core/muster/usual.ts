/** A bench as it is when nothing else is said: evenings, air and minutes that most can live with. */
import type { Bench } from './document';

export interface Evening {
  /** 1 = Monday … 7 = Sunday */
  readonly weekday: number;
  readonly from: string;
  readonly to: string;
}

/** How rooms are in which models are painted. Common practice, no source. */
export const ROOMS = [
  { id: 'heated', name: 'Heated room', day: [21, 45], night: [18, 50] },
  { id: 'cool', name: 'Cool room or workshop', day: [17, 55], night: [14, 60] },
  { id: 'cellar', name: 'Cellar, damp', day: [15, 70], night: [15, 70] },
  { id: 'warm', name: 'Warm and dry, under the roof', day: [26, 40], night: [22, 45] },
] as const;
export type RoomId = (typeof ROOMS)[number]['id'];

export const EVENINGS: readonly Evening[] = [
  { weekday: 2, from: '19:00', to: '21:30' },
  { weekday: 4, from: '19:00', to: '21:30' },
  { weekday: 6, from: '14:00', to: '18:00' },
];

/** Places on the rack for each piece that is in work, with some to spare. */
const RACK = 40;
const AIRBRUSH = { loadMinutes: 3, changeMinutes: 5, cleanMinutes: 10, idleMinutes: 40 };

/** A bench as it is when nothing else is said. */
export function benchOf(
  timeZone: string,
  evenings: readonly Evening[] = EVENINGS,
  hasAirbrush = true,
  room: RoomId = 'heated',
): Bench {
  const { day, night } = ROOMS.find((r) => r.id === room)!;
  const air = ([celsius, humidityPercent]: readonly [number, number]) => ({ celsius, humidityPercent });
  return {
    timeZone,
    people: [{ id: 'me', name: 'Me' }],
    airbrush: AIRBRUSH,
    ...(hasAirbrush ? {} : { hasAirbrush }),
    layoutMinutes: 2,
    rackPlaces: RACK,
    weekly: evenings.map(({ weekday, from, to }) => ({ id: `w${weekday}`, weekday, from, to })),
    exceptions: [],
    climate: { day: air(day), night: air(night), dayFrom: '08:00', nightFrom: '22:00' },
  };
}

/** What a bottle of paint holds that says nothing of it, in millilitres (common practice, no source). */
export const USUAL_BOTTLE_ML = 17;
