/** Bounds within which nobody is late. */
import type { Model } from './model';
import { propagate, type Bounds } from './propagate';

/** A minute of lateness must cost at least so many minutes of an earlier end, or it may be worth its price. */
const DEAR = 100;

/**
 * Earliest and latest times of every operation in plans without lateness; null when somebody is late in any case, or when
 * lateness is so cheap that a good plan may have some.
 */
export function inTime(model: Model): Bounds | null {
  if (model.weights.tardiness < DEAR * model.weights.completion) return null;
  const latest = model.latest.slice();
  for (const { ready, due, weight } of model.dues)
    if (weight > 0) latest[ready] = Math.min(latest[ready]!, Math.floor(due));
  const propagation = propagate({ ...model, latest });
  return propagation.ok ? propagation.bounds : null;
}
