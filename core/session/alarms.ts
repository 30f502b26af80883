/** What is worth a sound: a window about to open, open, about to shut, and a coat that may be touched. */
import type { ShelfRow } from './shelf';

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

/** The alarms of a shelf by time, those that are over with among them. Pieces of one row ring once for the same moment. */
export function alarmsOf(rows: readonly ShelfRow[]): Alarm[] {
  const alarms = new Map<string, Alarm>();
  for (const row of rows)
    for (const { resting } of row.pieces) {
      const what = `${resting.step.layer.name}, ${row.pieces.length === 1 ? resting.step.piece.name : `${row.pieces.length} pieces`}`;
      const put = (event: string, at: number, words: string, isUrgent = false): void => {
        const moment = `${row.key} ${event} ${Math.round(at)}`;
        if (alarms.has(moment)) return;
        // Named by the coat and not by the minute: a plan made again may move that a little, and nothing is to ring twice.
        const id = `${resting.step.id} ${Math.round(resting.ended)} ${event}`;
        alarms.set(moment, { id, at, text: `${what}: ${words}`, isUrgent });
      };
      if (resting.gate) {
        const { opens, closes } = resting.gate;
        put('soon', opens - BEFORE_OPENING, `opens in ${BEFORE_OPENING} min`);
        put('opens', opens, 'open now', true);
        put('shuts', Math.max(opens, closes - BEFORE_SHUTTING), `shuts in ${BEFORE_SHUTTING} min`, true);
      } else if (!resting.isFoundDry) {
        put('touch', resting.touchAt, 'may be touched');
        put('dry', resting.dryAt, 'ready for what follows: look');
      }
    }
  return [...alarms.values()].sort((a, b) => a.at - b.at || a.id.localeCompare(b.id));
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
