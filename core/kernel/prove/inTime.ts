/** Bounds within which nobody is late. */
import type { Model } from '../model/model';
import { latestAfter } from '../model/dryingClock';
import { propagate, type Bounds } from './propagate';

/** A minute of lateness must cost at least so many minutes of an earlier end, or it may be worth its price. */
const DEAR = 100;

/**
 * Earliest and latest times of every operation in plans in which nobody is later than the bounds make unavoidable; null when lateness
 * is so cheap that a good plan may have some, or when these dates contradict one another.
 * @param bounds of plans at all
 */
export function inTime(model: Model, bounds: Bounds): Bounds | null {
  if (model.weights.tardiness < DEAR * model.weights.completion) return null;
  const latest = model.latest.slice();
  for (const { ready, due, weight } of model.dues)
    if (weight > 0)
      latest[ready] = Math.min(latest[ready]!, Math.max(Math.floor(due), bounds.endLow[ready]!));
  const propagation = propagate({ ...model, latest });
  return propagation.ok ? propagation.bounds : null;
}

/**
 * As `inTime`, and every unit ready before the last of its soft closings too (its margin) where it can be; null when no unit has any, or when
 * they contradict one another.
 * @param timely bounds within which nobody is late
 */
export function withMargin(model: Model, timely: Bounds): Bounds | null {
  const latest = model.latest.slice();
  let isAny = false;
  for (const { ready } of model.dues) {
    const last = lastClosing(model, ready);
    if (last === Infinity) continue;
    isAny = true;
    latest[ready] = Math.min(timely.endHigh[ready]!, Math.max(last, timely.endLow[ready]!));
  }
  if (!isAny) return null;
  for (let i = 0; i < model.count; i++) latest[i] = Math.min(latest[i]!, timely.endHigh[i]!);
  const propagation = propagate({ ...model, latest });
  return propagation.ok ? propagation.bounds : null;
}

/** The last minute at which a milestone passes none but the tighter of what closes softly behind fixed moments. */
function lastClosing(model: Model, milestone: number): number {
  let last = -Infinity;
  for (const { from, prefer, clock } of model.lagsIn[milestone]!)
    if (prefer !== Infinity && model.isFixed[from])
      last = Math.max(last, latestAfter(clock, model.fixedEnd[from]!, prefer));
  return last === -Infinity ? Infinity : last;
}

/** Lateness as a cost, its factor included, of these ends; of the earliest ends it is what no plan avoids, as far as the bounds show. */
export function latenessOf(model: Model, end: ArrayLike<number>): number {
  let sum = 0;
  for (const { ready, due, weight } of model.dues) sum += weight * Math.max(0, end[ready]! - due);
  return model.weights.tardiness * sum;
}
