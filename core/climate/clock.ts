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

/** Ticks at a minute. */
export function ticksAt(points: ClockPoints, minute: number): number {
  if (points.length === 1) return minute;
  let k = 0;
  while (k < points.length - 2 && points[k + 1]![0] <= minute) k++;
  const [t0, c0] = points[k]!;
  const [t1, c1] = points[k + 1]!;
  return c0 + ((c1 - c0) * (minute - t0)) / (t1 - t0);
}

/** The minute (a fraction) by which so many ticks have gone by since `from`. */
export function minuteAfter(points: ClockPoints, from: number, ticks: number): number {
  const goal = ticksAt(points, from) + ticks;
  if (points.length === 1) return goal;
  let k = 0;
  while (k < points.length - 2 && points[k + 1]![1] <= goal) k++;
  const [t0, c0] = points[k]!;
  const [t1, c1] = points[k + 1]!;
  return t0 + ((goal - c0) * (t1 - t0)) / (c1 - c0);
}
