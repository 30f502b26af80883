/** What a place in the plan would break: a window that has shut, a hold without room. */
import { earliestBefore } from '../model/dryingClock';
import { nextFit } from '../model/openHours';
import { startFor } from '../model/startFor';
import type { Schedule } from './schedule';
import type { Minute, OperationIndex } from '../model/units';

/**
 * Is there something that `i` at `start` breaks: a window that has shut, a hold without room?
 * @returns which operation must start when at the soonest, or null when all is well
 */
export function goBack(
  schedule: Schedule,
  i: OperationIndex,
  start: Minute,
  end: Minute,
): { operation: OperationIndex; start: Minute } | null {
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
  // A hold that can't have room in the end has none now.
  for (const stretch of schedule.reach.over[i]!) {
    const { hold } = stretch;
    if (schedule.isPlaced(hold.to) || (hold.from !== i && !schedule.isPlaced(hold.from))) continue;
    const from = hold.from === i ? end : schedule.end[hold.from]!;
    const blocked = schedule.holdBlockedAt(hold, from, schedule.reach.soonest(stretch, end));
    if (blocked >= 0) return { operation: hold.from, start: startFor(model, hold.from, blocked + 1) };
  }
  return null;
}

/** Earliest start (minutes) from `low` on with which the holds that begin with `i` find room, as far as they reach at the least. */
export function roomFrom(schedule: Schedule, i: OperationIndex, low: Minute): number {
  const { model, reach } = schedule;
  const minutes = model.minutes[i]!;
  if (model.pausable[i]) return low;
  for (let isFree = false; !isFree;) {
    isFree = true;
    for (const stretch of reach.over[i]!) {
      const { hold } = stretch;
      if (hold.from !== i || schedule.isPlaced(hold.to)) continue;
      if (minutes > 0) low = nextFit(model.open[i]!, low, 0, minutes);
      if (low > model.horizon) return low;
      const end = low + minutes;
      const blocked = schedule.holdBlockedAt(hold, end, reach.soonest(stretch, end));
      if (blocked < 0) continue;
      low = blocked + 1 - minutes;
      isFree = false;
    }
  }
  return low;
}

/** Does `i`, placed so, miss a window that is open or leave a hold without room? */
export function isBroken(schedule: Schedule, i: OperationIndex, start: Minute, end: Minute): boolean {
  return goBack(schedule, i, start, end) !== null;
}
