/** A drying clock as a table of ticks by minute, so that both directions are a look-up. */
import type { Minute, Ticks } from './units';
export type DryingClock = Float64Array;

/** Half of rule 4's tolerance and a little more: the solver stays inside what the judge accepts. */
const TOLERANCE = 9e-7;

type Points = readonly (readonly [number, number])[];

/** Tables that were made of points, the longest of each: one problem is modelled many times over, and its clocks are the same each time. */
const made = new WeakMap<Points, DryingClock>();

/** Ticks at every minute from 0 to the horizon (linear between points, rule in docs/formats.md). */
export function dryingClock(points: Points, horizon: Minute): DryingClock {
  const known = made.get(points);
  if (known && known.length > horizon) return known.subarray(0, horizon + 1);
  const table = filled(points, horizon);
  made.set(points, table);
  return table;
}

function filled(points: Points, horizon: Minute): DryingClock {
  const table = new Float64Array(horizon + 1);
  if (points.length === 1) return table.map((_, t) => t);
  for (let k = 0; k < points.length - 1; k++) {
    const [t0, c0] = points[k]!;
    const [t1, c1] = points[k + 1]!;
    const rise = c1 - c0;
    const span = t1 - t0;
    // The last two points go on beyond the last.
    const end = k === points.length - 2 ? horizon : Math.min(horizon, Math.ceil(t1) - 1);
    for (let t = k === 0 ? 0 : Math.ceil(t0); t <= end; t++) table[t] = c0 + (rise * (t - t0)) / span;
  }
  return table;
}

/** First minute whose ticks reach `ticks`; the table's length if none does. The search begins around a guess and widens. */
function firstReaching(table: DryingClock, ticks: Ticks, guess: number): number {
  const last = table.length - 1;
  if (table[last]! < ticks) return table.length;
  let low = 0;
  let high = last;
  const at = guess < 0 ? 0 : guess > last ? last : Math.trunc(guess);
  if (table[at]! >= ticks) {
    high = at;
    for (let step = 16; ; step *= 4) {
      const t = at - step;
      if (t <= 0) break;
      if (table[t]! < ticks) {
        low = t + 1;
        break;
      }
      high = t;
    }
  } else {
    low = at + 1;
    for (let step = 16; ; step *= 4) {
      const t = at + step;
      if (t >= last) break;
      if (table[t]! >= ticks) {
        high = t;
        break;
      }
      low = t + 1;
    }
  }
  while (low < high) {
    const mid = (low + high) >> 1;
    if (table[mid]! >= ticks) high = mid;
    else low = mid + 1;
  }
  return low;
}

/** Earliest minute at least `ticks` after minute `from`. */
export function earliestAfter(clock: DryingClock | null, from: Minute, ticks: Ticks): Minute {
  if (clock === null) return from + ticks;
  return firstReaching(clock, clock[from]! + ticks - TOLERANCE, from + ticks);
}

/** Latest minute at most `ticks` after minute `from`. */
export function latestAfter(clock: DryingClock | null, from: Minute, ticks: Ticks): Minute {
  if (clock === null) return from + ticks;
  const limit = clock[from]! + ticks + TOLERANCE;
  const at = firstReaching(clock, limit, from + ticks);
  return at < clock.length && clock[at]! <= limit ? at : at - 1;
}

/** Latest minute at least `ticks` before minute `to`; negative if none. */
export function latestBefore(clock: DryingClock | null, to: Minute, ticks: Ticks): Minute {
  if (clock === null) return to - ticks;
  const limit = clock[to]! - ticks + TOLERANCE;
  const at = firstReaching(clock, limit, to - ticks);
  return at < clock.length && clock[at]! <= limit ? at : at - 1;
}

/** Earliest minute at most `ticks` before minute `to`. */
export function earliestBefore(clock: DryingClock | null, to: Minute, ticks: Ticks): Minute {
  if (clock === null) return to - ticks;
  return firstReaching(clock, clock[to]! - ticks - TOLERANCE, to - ticks);
}

/** Ticks from minute `from` to minute `to`. */
export function ticksBetween(clock: DryingClock | null, from: Minute, to: Minute): Ticks {
  return clock === null ? to - from : clock[to]! - clock[from]!;
}
