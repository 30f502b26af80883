/** When a layer may go on besides the sessions: quiet hours of the compressor, daylight and dry air for what is done outdoors. */
import { daylight } from '#core/climate';
import {
  addDays,
  instantAfter,
  minutesOfDay,
  minutesSince,
  minutesUntil,
  originOf,
  type LocalDate,
  type Muster,
  merged,
  without,
  type Minutes,
} from '#core/muster';

/** The minutes in which no compressor may run. */
export function quietSpans(muster: Muster, days: number): [number, number][] {
  const origin = originOf(muster);
  const spans: Minutes[] = [];
  for (let day = -1; day < days; day++) {
    const date = addDays(origin.date, day);
    for (const { from, to } of muster.bench.quiet ?? []) {
      const isOver = minutesOfDay(to) <= minutesOfDay(from);
      const end = isOver ? addDays(date, 1) : date;
      spans.push([minutesSince(origin, `${date}T${from}`), minutesSince(origin, `${end}T${to}`)]);
    }
  }
  return merged(spans, days * 1440);
}

/** While nobody has said where the bench is: as far north, and as far south; the shorter of the two days is dark for neither. */
const UNTOLD_LATITUDES = [50, -50];

/**
 * The daylight of a date, in minutes since the plan's origin: from sunrise to sunset where the place of the bench is known, else the shortest
 * that its time of the year has at 50° of latitude, around noon by the bench's clock.
 * @returns null where the sun does not rise
 */
export function daylightOn(muster: Muster, date: LocalDate): Minutes | null {
  const origin = originOf(muster);
  const { place } = muster.bench;
  const noon = Date.parse(instantAfter(origin, minutesSince(origin, `${date}T12:00`)));
  const noonByNow = (noon / MINUTE_MS) % DAY_MINUTES;
  const longitude = place?.longitude ?? (DAY_MINUTES / 2 - noonByNow) / MINUTES_A_DEGREE;
  const latitudes = place ? [place.latitude] : UNTOLD_LATITUDES;
  const minute = (ms: number): number => minutesUntil(origin, new Date(ms).toISOString());
  const light = latitudes.flatMap((latitude) => daylight(noon, latitude, longitude) ?? []);
  if (light.length < latitudes.length) return null;
  return [
    Math.ceil(Math.max(...light.map((sun) => minute(sun.from)))),
    Math.floor(Math.min(...light.map((sun) => minute(sun.to)))),
  ];
}

const MINUTE_MS = 60_000;
const DAY_MINUTES = 1440;
/** The sun goes round once a day. */
const MINUTES_A_DEGREE = 4;

/** The minutes of daylight of so many days. */
export function daylightSpans(muster: Muster, days: number): [number, number][] {
  const { date } = originOf(muster);
  const spans = Array.from({ length: days }, (_, day) => daylightOn(muster, addDays(date, day)));
  return merged(
    spans.filter((span) => span !== null),
    days * DAY_MINUTES,
  );
}

/** Sessions in which the compressor may run. */
export function compressorOpen(
  sessions: readonly Minutes[],
  muster: Muster,
  days: number,
): [number, number][] {
  return without(sessions, quietSpans(muster, days));
}
