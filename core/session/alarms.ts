/** What is worth a sound: a window about to open, open, about to shut, and a coat that may be touched. */
import type { Resting, ShelfRow } from './shelf';

export interface Alarm {
  /** the same for the same event, whoever asks */
  readonly id: string;
  /** minutes since the plan's origin */
  readonly at: number;
  readonly text: string;
  /** a window shuts: it must not be overheard */
  readonly isUrgent: boolean;
}

/** A warning comes so many minutes before a window opens, and before it shuts. */
const BEFORE_OPENING = 2;
const BEFORE_SHUTTING = 5;

/** What happens to one coat, and when. */
interface Event {
  readonly name: string;
  readonly at: number;
  readonly words: string;
  readonly isUrgent: boolean;
}

/** The alarms of a shelf by time, those that are over with among them. Pieces of one row ring once for the same moment. */
export function alarmsOf(rows: readonly ShelfRow[]): Alarm[] {
  return rows.flatMap(alarmsOfRow).sort((a, b) => a.at - b.at || a.id.localeCompare(b.id));
}

function alarmsOfRow(row: ShelfRow): Alarm[] {
  const together = new Map<string, { readonly event: Event; readonly on: Resting[] }>();
  for (const { resting } of row.pieces)
    for (const event of eventsOf(resting)) {
      const moment = `${event.name} ${Math.round(event.at)}`;
      const known = together.get(moment);
      if (known) known.on.push(resting);
      else together.set(moment, { event, on: [resting] });
    }
  return [...together.values()].map(({ event: { name, at, words, isUrgent }, on }) => ({
    // Named by the coat and not by the minute: a plan made again may move that a little, and nothing is to ring twice.
    id: `${on[0]!.step.id} ${Math.round(on[0]!.ended)} ${name}`,
    at,
    text: `${on[0]!.step.layer.name}, ${whichOf(on, row.pieces.length)}: ${words}`,
    isUrgent,
  }));
}

function eventsOf({ gate, isFoundDry, touchAt, dryAt }: Resting): Event[] {
  if (gate) {
    const { opens, closes } = gate;
    const soon = `opens in ${BEFORE_OPENING} min`;
    const shuts = `shuts in ${BEFORE_SHUTTING} min`;
    return [
      { name: 'soon', at: opens - BEFORE_OPENING, words: soon, isUrgent: false },
      { name: 'opens', at: opens, words: 'open now', isUrgent: true },
      { name: 'shuts', at: Math.max(opens, closes - BEFORE_SHUTTING), words: shuts, isUrgent: true },
    ];
  }
  if (isFoundDry) return [];
  return [
    { name: 'touch', at: touchAt, words: 'may be touched', isUrgent: false },
    { name: 'dry', at: dryAt, words: 'ready for what follows: look', isUrgent: false },
  ];
}

/** Which pieces of a row it is about: one by name, several by their number. */
function whichOf(on: readonly Resting[], all: number): string {
  if (on.length === 1) return on[0]!.step.piece.name;
  return on.length === all ? `${all} pieces` : `${on.length} of ${all} pieces`;
}

/** What is long past rings no more: nobody wants to hear of last night in the morning. */
const STALE = 30;

/** The alarms that should sound at minute `now` and have not. @param rung ids of those that have */
export function dueAlarms(alarms: readonly Alarm[], now: number, rung: ReadonlySet<string>): Alarm[] {
  return alarms.filter((a) => a.at <= now && a.at > now - STALE && !rung.has(a.id));
}

/** The next that will sound; null when there is none. */
export function nextAlarm(alarms: readonly Alarm[], now: number): Alarm | null {
  return alarms.find((a) => a.at > now) ?? null;
}
