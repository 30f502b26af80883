/**
 * Places a list of operations into a schedule, each as early as it goes. Where a window would be missed or a hold finds
 * no room, the operation it began with is taken out again and placed later: coupled layers go in whole or not at all.
 */
import { earliestBefore } from './dryingClock';
import { pausableEnd, pausableStart } from './openHours';
import type { Model } from './model';
import type { Bounds } from './propagate';
import type { Schedule } from './schedule';

export interface Manner {
  /** minutes an operation may start later than its earliest slot when that saves setups */
  readonly patience: number;
  /** how many minutes of setup a minute of delay is worth */
  readonly haste: number;
  /** minutes by which the first operation is held back */
  readonly delay: number;
  /** bounds that an operation must keep beside those of the schedule */
  readonly within?: Bounds | null;
}

export const PROMPT: Manner = { patience: 0, haste: 1, delay: 0 };

/** How often one insertion may go back before it gives up, for each operation in it. */
const RETRIES = 12;

/**
 * Inserts the operations, given in an order in which every lag between them points forward.
 * On failure the schedule is as it was.
 * @returns -1 when all are placed, otherwise the operation that found no place
 */
export function insert(schedule: Schedule, operations: readonly number[], manner: Manner = PROMPT): number {
  const { model } = schedule;
  const begin = schedule.mark();
  const within = manner.within ?? schedule.bounds;
  const marks: number[] = [];
  /** by place in the list */
  const notBefore = operations.map(() => 0);
  if (manner.delay > 0) notBefore[0] = schedule.startLow(operations[0]!) + manner.delay;
  let retries = RETRIES * (operations.length + 4);
  let k = 0;
  while (k < operations.length) {
    const i = operations[k]!;
    marks[k] = schedule.mark();
    const low = Math.max(schedule.startLow(i), notBefore[k]!, startFor(model, i, schedule.endLow(i)));
    const endHigh = Math.min(schedule.endHigh(i), within.endHigh[i]!);
    // Looked for beyond the window's end on purpose: a slot too late tells how much later the window must begin.
    const slot = schedule.findSlot(i, low, within.startHigh[i]!, endHigh, manner.patience, manner.haste);
    if (slot === null) {
      schedule.undoTo(begin);
      return i;
    }
    const back = goBack(schedule, i, slot.start, slot.end);
    if (back === null) {
      schedule.place(i, slot);
      k++;
      continue;
    }
    const from = back.operation === i ? k : operations.lastIndexOf(back.operation, k);
    const later = Math.max(back.start, from < 0 ? 0 : notBefore[from]! + 1);
    if (from < 0 || retries-- <= 0 || later > within.startHigh[back.operation]!) {
      schedule.undoTo(begin);
      return i;
    }
    notBefore[from] = later;
    schedule.undoTo(marks[from]!);
    k = from;
  }
  return -1;
}

/**
 * Is there something that `i` at `start` breaks: a window that has shut, a hold without room?
 * @returns which operation must start when at the soonest, or null when all is well
 */
function goBack(
  schedule: Schedule,
  i: number,
  start: number,
  end: number,
): { operation: number; start: number } | null {
  const { model } = schedule;
  for (const lag of model.lagsIn[i]!) {
    if (lag.max === Infinity || !schedule.isPlaced(lag.from)) continue;
    const soonest = earliestBefore(lag.clock, start, lag.max);
    if (schedule.end[lag.from]! < soonest)
      return { operation: lag.from, start: startFor(model, lag.from, soonest) };
  }
  for (const hold of model.holdsOf[i]!) {
    if (hold.to === i && schedule.isPlaced(hold.from)) {
      const blocked = schedule.holdBlockedAt(hold, schedule.end[hold.from]!, start);
      if (blocked >= 0) return { operation: hold.from, start: startFor(model, hold.from, blocked + 1) };
    } else if (hold.from === i && schedule.isPlaced(hold.to)) {
      const blocked = schedule.holdBlockedAt(hold, end, schedule.start[hold.to]!);
      if (blocked >= 0) return { operation: i, start: startFor(model, i, blocked + 1) };
    }
  }
  return null;
}

/** Does `i`, placed so, miss a window that is open or leave a hold without room? */
export function isBroken(schedule: Schedule, i: number, start: number, end: number): boolean {
  return goBack(schedule, i, start, end) !== null;
}

/** Earliest start with which an operation ends at or after `end`. */
export function startFor(model: Model, i: number, end: number): number {
  const minutes = model.minutes[i]!;
  if (minutes === 0 || !model.pausable[i]) return Math.max(0, end - minutes);
  const open = model.open[i]!;
  const start = pausableStart(open, end, minutes);
  if (start < 0) return 0;
  return pausableEnd(open, start, minutes) >= end ? start : start + 1;
}
