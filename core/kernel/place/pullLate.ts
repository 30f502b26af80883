/**
 * Pulls placed operations as late as what follows them allows, so that pieces wait in their box and not on the rack.
 * Nothing that a unit's completion hangs on moves, and the cost never rises. Coupled operations move together or not at all.
 */
import { findLateSlot } from './lateSlots';
import { mendAfter, place } from './setups';
import { earliestBefore, latestAfter } from '../model/dryingClock';
import type { Model } from '../model/model';
import { UNPLACED, type Schedule } from './schedule';
import type { Minute, OperationIndex } from '../model/units';

/** How often a coupled group may try an earlier end before it stays where it is. */
const RETRIES = 6;

/**
 * @param operations placed operations in a topological order, every operation that a window ties to one of them included
 * @param blockOf for every operation the number of its coupled group
 */
export function pullLate(schedule: Schedule, operations: readonly number[], blockOf: Int32Array): void {
  let to = operations.length;
  while (to > 0) {
    let from = to - 1;
    const block = blockOf[operations[from]!]!;
    while (from > 0 && blockOf[operations[from - 1]!] === block) from--;
    pullGroup(schedule, operations, from, to);
    to = from;
  }
}

/** Moves operations [from, to) of the list, the last first. */
function pullGroup(schedule: Schedule, operations: readonly number[], from: Minute, to: Minute): void {
  const { model } = schedule;
  const last = operations[to - 1]!;
  if (!canMove(schedule, last, to - from === 1)) return;
  // What leads to something that has no place yet is not to decide how late that will be.
  for (let k = from; k < to; k++)
    if (model.isFixed[operations[k]!] || leadsNowhere(schedule, operations[k]!)) return;
  const mark = schedule.mark();
  const before = schedule.cost();
  const was: number[] = [];
  for (let k = from; k < to; k++) was.push(schedule.start[operations[k]!]!);
  for (let k = from; k < to; k++) schedule.remove(operations[k]!);
  for (let k = from; k < to; k++)
    if (!mendAfter(schedule, operations[k]!, was[k - from]!)) return schedule.undoTo(mark);
  const high = new Map<number, number>();
  let retries = RETRIES;
  const base = schedule.mark();
  for (let k = to - 1; k >= from; k--) {
    const i = operations[k]!;
    const slot = lateSlot(schedule, i, was[k - from]!, high.get(i) ?? Infinity);
    if (slot === null) return schedule.undoTo(mark);
    const tight = missed(schedule, model, i, slot.end);
    if (tight >= 0) {
      const limit = Math.min(high.get(tight) ?? Infinity, soonEnough(model, i, tight, slot.end));
      if (retries-- <= 0) return schedule.undoTo(mark);
      high.set(tight, limit);
      schedule.undoTo(base);
      k = to;
      continue;
    }
    place(schedule, i, slot);
  }
  if (schedule.cost() > before + 1e-9) schedule.undoTo(mark);
}

/** Is there any room behind the operation? A quick look before anything is taken out. */
function canMove(schedule: Schedule, i: OperationIndex, isAlone: boolean): boolean {
  const endHigh = schedule.endHigh(i);
  if (schedule.model.lagsOut[i]!.length === 0 || endHigh <= schedule.end[i]!) return false;
  return !isAlone || schedule.startHigh(i) > schedule.start[i]!;
}

function leadsNowhere(schedule: Schedule, i: OperationIndex): boolean {
  return schedule.model.lagsOut[i]!.some((lag) => schedule.start[lag.to] === UNPLACED);
}

/** The follower whose window would already have shut when `i` ends at `end`, or -1. */
function missed(schedule: Schedule, model: Model, i: OperationIndex, end: Minute): number {
  for (const lag of model.lagsOut[i]!)
    if (
      lag.max !== Infinity &&
      schedule.start[lag.to] !== UNPLACED &&
      end < earliestBefore(lag.clock, schedule.start[lag.to]!, lag.max)
    )
      return lag.to;
  return -1;
}

function soonEnough(model: Model, from: OperationIndex, to: OperationIndex, end: Minute): number {
  let latest = Infinity;
  for (const lag of model.lagsOut[from]!)
    if (lag.to === to && lag.max !== Infinity)
      latest = Math.min(latest, latestAfter(lag.clock, end, lag.max));
  return latest;
}

/** Latest slot not before `low` in which holds that end, or begin, with the operation find room too. */
function lateSlot(schedule: Schedule, i: OperationIndex, low: Minute, high: Minute) {
  const { model } = schedule;
  const endHigh = schedule.endHigh(i);
  let startHigh = Math.min(high, schedule.startHigh(i));
  search: for (;;) {
    const slot = findLateSlot(schedule, i, low, startHigh, endHigh);
    if (slot === null) return null;
    for (const hold of model.holdsOf[i]!) {
      // Its far end may have been moved just before. The latest slot leaves the shortest hold: if that finds no room, none does.
      if (
        hold.from === i &&
        schedule.isPlaced(hold.to) &&
        schedule.holdBlockedFrom(hold, slot.end, schedule.start[hold.to]!) >= 0
      )
        return null;
      if (hold.to !== i || schedule.start[hold.from] === UNPLACED) continue;
      const blocked = schedule.holdBlockedFrom(hold, schedule.end[hold.from]!, slot.start);
      if (blocked >= 0) {
        startHigh = Math.min(blocked, slot.start - 1);
        continue search;
      }
    }
    return slot;
  }
}
