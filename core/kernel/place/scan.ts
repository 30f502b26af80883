/** Looks for room by the minute, neighbours on the tool not asked. */
import { NEVER, nextFit, nextOpen, pausableEnd, pausableStart, previousFit } from '../model/openHours';
import { type Schedule, type Slot } from './schedule';
import type { Minute, OperationIndex } from '../model/units';

/** Latest minute of [from, to) in which a resource of `i` has no room for it, or -1. */
export function blockedAt(schedule: Schedule, i: OperationIndex, from: Minute, to: Minute): number {
  const { useAt, useResource, useLimit } = schedule.demand;
  let last = -1;
  for (let u = useAt[i]!; u < useAt[i + 1]!; u++) {
    const at = schedule.profiles[useResource[u]!]!.lastAbove(from, to, useLimit[u]!);
    if (at > last) last = at;
  }
  return last;
}

/** Earliest slot in [low, high] with a given setup, neighbours on the tool not asked. */
export function scan(
  schedule: Schedule,
  i: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  const { model } = schedule;
  const minutes = model.minutes[i]!;
  const open = model.open[i]!;
  let t = Math.max(low, setup);
  for (;;) {
    if (t > high) return null;
    let start = t;
    let end = t;
    if (minutes > 0) {
      if (model.pausable[i]) {
        start = nextOpen(open, t, setup);
        end = start >= NEVER ? NEVER : pausableEnd(open, start, minutes);
      } else {
        start = nextFit(open, t, setup, minutes);
        end = start + minutes;
      }
    }
    if (start > high || end > endHigh) return null;
    const blocked = blockedAt(schedule, i, start - setup, end);
    if (blocked < 0) return { start, end, setup };
    t = blocked + 1 + setup;
  }
}

/** Latest slot in [low, high] with a given setup, neighbours on the tool not asked. */
export function scanLate(
  schedule: Schedule,
  i: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  const { model } = schedule;
  const minutes = model.minutes[i]!;
  const open = model.open[i]!;
  const { useAt, useResource, useLimit } = schedule.demand;
  if (model.pausable[i] && setup > 0) return null;
  let limit = model.pausable[i] ? endHigh : Math.min(endHigh, high + minutes);
  for (;;) {
    let start: Minute;
    let end: Minute;
    if (minutes === 0) start = end = limit;
    else if (model.pausable[i]) {
      start = pausableStart(open, limit, minutes);
      if (start > high) start = previousFit(open, high + 1, 1, 0);
      end = start < 0 ? 0 : pausableEnd(open, start, minutes);
    } else {
      start = previousFit(open, limit, minutes, setup);
      end = start + minutes;
    }
    if (start < low || start - setup < 0) return null;
    let blocked = end > endHigh ? endHigh : -1;
    for (let u = useAt[i]!; u < useAt[i + 1]!; u++) {
      const at = schedule.profiles[useResource[u]!]!.firstAbove(start - setup, end, useLimit[u]!);
      if (at >= 0 && (blocked < 0 || at < blocked)) blocked = at;
    }
    if (blocked < 0) return { start, end, setup };
    limit = Math.min(blocked, end - 1);
    if (model.pausable[i]) high = Math.min(high, start - 1);
  }
}
