/**
 * The minutes in which every calendar of an operation is open, and the questions the solver asks of them.
 * `null` intervals mean: always open.
 */
import type { Minute } from './units';
export interface OpenHours {
  readonly from: Int32Array;
  readonly to: Int32Array;
  /** for every stretch of `1 << STRETCH` minutes the first interval that ends after its beginning */
  readonly first: Int32Array;
}

const STRETCH = 8;

/** No start was found. Larger than every horizon. */
export const NEVER = 0x3fffffff;

export function openHours(intervals: readonly (readonly [number, number])[]): OpenHours {
  const to = Int32Array.from(intervals, ([, b]) => b);
  const last = to.length > 0 ? to[to.length - 1]! : 0;
  const first = new Int32Array((last >> STRETCH) + 1);
  for (let k = 0, i = 0; k < first.length; k++) {
    while (to[i]! <= k << STRETCH) i++;
    first[k] = i;
  }
  return { from: Int32Array.from(intervals, ([a]) => a), to, first };
}

/** The minutes open in both. */
export function intersect(a: OpenHours, b: OpenHours): OpenHours {
  const result: [number, number][] = [];
  let i = 0;
  let j = 0;
  while (i < a.from.length && j < b.from.length) {
    const from = Math.max(a.from[i]!, b.from[j]!);
    const to = Math.min(a.to[i]!, b.to[j]!);
    if (from < to) result.push([from, to]);
    if (a.to[i]! < b.to[j]!) i++;
    else j++;
  }
  return openHours(result);
}

/** Index of the first interval that ends after minute `t`. */
export function intervalAfter(open: OpenHours, t: Minute): number {
  const { to, first } = open;
  const k = t < 0 ? 0 : Math.trunc(t) >> STRETCH;
  if (!(t < NEVER) || k >= first.length) return to.length;
  let i = first[k]!;
  while (i < to.length && to[i]! <= t) i++;
  return i;
}

/** Minutes of the longest interval; 1 where there is none. */
export function longestInterval({ from, to }: OpenHours): number {
  return from.reduce((most, begin, k) => Math.max(most, to[k]! - begin), 1);
}

/** Earliest start >= t with `[start - setup, start + minutes)` in one interval, or NEVER. */
export function nextFit(open: OpenHours | null, t: Minute, setup: number, minutes: number): Minute {
  if (open === null) return Math.max(t, setup);
  const { from, to } = open;
  for (let i = intervalAfter(open, t - setup); i < from.length; i++) {
    const start = Math.max(t, from[i]! + setup);
    if (start + minutes <= to[i]!) return start;
  }
  return NEVER;
}

/** Latest start with `[start - setup, start + minutes)` in one interval and its end <= t, or -1. */
export function previousFit(open: OpenHours | null, t: Minute, minutes: number, setup = 0): Minute {
  if (open === null) return t - minutes;
  const { from, to } = open;
  for (let i = Math.min(intervalAfter(open, t), from.length - 1); i >= 0; i--) {
    const start = Math.min(t, to[i]!) - minutes;
    if (start - setup >= from[i]!) return start;
  }
  return -1;
}

/** Earliest open minute >= t from which `[start - setup, start)` is in the same interval, or NEVER. */
export function nextOpen(open: OpenHours | null, t: Minute, setup: number): Minute {
  return nextFit(open, t, setup, 1);
}

/** When work of `minutes` that begins in the open minute `start` and pauses while closed is done, or NEVER. */
export function pausableEnd(open: OpenHours | null, start: Minute, minutes: number): Minute {
  if (open === null) return start + minutes;
  let left = minutes;
  for (let i = intervalAfter(open, start); i < open.from.length; i++) {
    const from = Math.max(open.from[i]!, start);
    if (left <= open.to[i]! - from) return from + left;
    left -= open.to[i]! - from;
  }
  return NEVER;
}

/** Latest open start from which pausable work of `minutes` ends by `t`, or -1. */
export function pausableStart(open: OpenHours | null, t: Minute, minutes: number): Minute {
  if (open === null) return t - minutes;
  let left = minutes;
  for (let i = Math.min(intervalAfter(open, t), open.from.length - 1); i >= 0; i--) {
    const to = Math.min(open.to[i]!, t);
    if (to <= open.from[i]!) continue;
    if (left <= to - open.from[i]!) return to - left;
    left -= to - open.from[i]!;
  }
  return -1;
}
