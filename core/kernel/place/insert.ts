/**
 * Places a list of operations into a schedule, each as early as it goes. Where a window would be missed or a hold finds
 * no room, the operation it began with is taken out again and placed later: coupled layers go in whole or not at all.
 */
import { place } from './setups';
import { findSlot } from './earlySlots';
import { goBack, roomFrom } from './broken';
import { startFor } from '../model/startFor';
import type { CloseGaps } from './closeGaps';
import type { Bounds } from '../prove/propagate';
import type { Schedule } from './schedule';

export interface Manner {
  /** minutes an operation may start later than its earliest slot when that saves setups */
  readonly patience: number;
  /** how many minutes of setup a minute of delay is worth */
  readonly haste: number;
  /** minutes by which the first operation is held back */
  readonly delay: number;
  /** nothing begins sooner than in the plan to keep close to */
  readonly isHomeward?: boolean;
  /** bounds that an operation must keep beside those of the schedule */
  readonly within?: Bounds | null;
  /** asked where an operation would miss a session for want of one long gap */
  readonly closeGaps?: CloseGaps | null;
}

export const PROMPT: Manner = { patience: 0, haste: 1, delay: 0 };

/** In one insertion gaps are closed so often at most. */
const MOST_CLOSED = 8;
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
  const home = manner.isHomeward ? (schedule.calm?.start ?? null) : null;
  const marks: number[] = [];
  /** by place in the list */
  const notBefore = operations.map(() => 0);
  if (manner.delay > 0) notBefore[0] = schedule.startLow(operations[0]!) + manner.delay;
  let retries = RETRIES * (operations.length + 4);
  let closings = manner.closeGaps ? MOST_CLOSED : 0;
  let k = 0;
  while (k < operations.length) {
    const i = operations[k]!;
    marks[k] = schedule.mark();
    const early = Math.max(
      schedule.startLow(i),
      notBefore[k]!,
      startFor(model, i, schedule.endLow(i)),
      home === null ? 0 : home[i]!,
    );
    const low = roomFrom(schedule, i, early);
    const endHigh = Math.min(schedule.endHigh(i), within.endHigh[i]!);
    // Looked for beyond the window's end on purpose: a slot too late tells how much later the window must begin.
    let slot = findSlot(schedule, i, low, within.startHigh[i]!, endHigh, manner.patience, manner.haste);
    if (closings > 0 && model.minutes[i]! > 0) {
      const sooner = manner.closeGaps!(i, low, slot?.start ?? Infinity, within);
      if (sooner !== null) {
        slot = sooner;
        closings--;
      }
    }
    if (slot === null) {
      schedule.undoTo(begin);
      return i;
    }
    const back = goBack(schedule, i, slot.start, slot.end);
    if (back === null) {
      place(schedule, i, slot);
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
