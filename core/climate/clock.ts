/** Drying clocks: ticks at every change of the air, one tick being one minute at the reference climate. */
import type { Drying } from '#core/materials';
import { dryingRate, type Air } from './rates';

/** From this minute on, this air. */
export interface Spell {
  readonly from: number;
  readonly air: Air;
}

/** [minute, ticks], linear between points: the kernel's form of a clock. */
export type ClockPoints = [number, number][];

/**
 * @param spells sorted by `from`, the first at minute 0
 * @param horizon last minute, after the last spell's beginning
 */
export function clockPoints(drying: Drying, spells: readonly Spell[], horizon: number): ClockPoints {
  const points: ClockPoints = [[0, 0]];
  let ticks = 0;
  spells.forEach((spell, i) => {
    const until = spells[i + 1]?.from ?? horizon;
    if (until <= spell.from) return;
    ticks += (until - spell.from) * dryingRate(drying, spell.air);
    points.push([until, Math.round(ticks * 1000) / 1000]);
  });
  return points;
}

/** The segment, by its first point, in which a minute (0) or a number of ticks (1) lies; beyond the last point the last. */
function segmentAt(points: ClockPoints, by: 0 | 1, value: number): number {
  let low = 0;
  let high = points.length - 2;
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (points[mid]![by] <= value) low = mid;
    else high = mid - 1;
  }
  return low;
}

/** Ticks at a minute. */
export function ticksAt(points: ClockPoints, minute: number): number {
  if (points.length === 1) return minute;
  const k = segmentAt(points, 0, minute);
  const [t0, c0] = points[k]!;
  const [t1, c1] = points[k + 1]!;
  return c0 + ((c1 - c0) * (minute - t0)) / (t1 - t0);
}

/** The minute (a fraction) by which so many ticks have gone by since `from`. */
export function minuteAfter(points: ClockPoints, from: number, ticks: number): number {
  const goal = ticksAt(points, from) + ticks;
  if (points.length === 1) return goal;
  const k = segmentAt(points, 1, goal);
  const [t0, c0] = points[k]!;
  const [t1, c1] = points[k + 1]!;
  return t0 + ((goal - c0) * (t1 - t0)) / (c1 - c0);
}
