import type { Model } from './model';
import { pausableEnd, pausableStart } from './openHours';
import type { Minute, OperationIndex } from './units';

/** Earliest start with which an operation ends at or after `end`. */
export function startFor(model: Model, i: OperationIndex, end: Minute): Minute {
  const minutes = model.minutes[i]!;
  if (minutes === 0 || !model.pausable[i]) return Math.max(0, end - minutes);
  const open = model.open[i]!;
  const start = pausableStart(open, end, minutes);
  if (start < 0) return 0;
  return pausableEnd(open, start, minutes) >= end ? start : start + 1;
}
