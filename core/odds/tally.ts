/** What futures have come to, counted and summed: tallies of different futures add up to the tally of all of them. */
import type { Course } from './course';
import type { Outcome } from './play';
import type { Risks } from './risks';

/** What happens in a future, counted. */
export const EVENTS = ['pace', 'lost', 'absent', 'again', 'mended', 'short'] as const;

/** Plain data, so that it can be sent. */
export interface Tally {
  futures: number;
  /** futures in which every date holds */
  all: number;
  /** by unit: when it was ready in each future, in minutes; Infinity: not within the plan’s time */
  readonly ready: number[][];
  /** by session, and by supply: futures in which it overran, or ran out */
  readonly overruns: Float64Array;
  readonly ranOut: Float64Array;
  /** by driver: sums of it and its square */
  readonly x: Float64Array;
  readonly xx: Float64Array;
  /** by unit: sums of its day and its square; and by driver of both multiplied */
  readonly y: Float64Array;
  readonly yy: Float64Array;
  readonly xy: readonly Float64Array[];
}

export function emptyTally(course: Course, risks: Risks): Tally {
  const drivers = risks.products.length + risks.works.length + EVENTS.length;
  const units = course.units.length;
  return {
    futures: 0,
    all: 0,
    ready: course.units.map(() => []),
    overruns: new Float64Array(course.sessions.length / 2),
    ranOut: new Float64Array(risks.supplies.length),
    x: new Float64Array(drivers),
    xx: new Float64Array(drivers),
    y: new Float64Array(units),
    yy: new Float64Array(units),
    xy: course.units.map(() => new Float64Array(drivers)),
  };
}

/** Counts one future more. */
export function countIn(tally: Tally, outcome: Outcome, { units, sessions }: Course): void {
  const latest = Math.max(1, sessions.at(-1) ?? 0) + 1440;
  const drawn = [...outcome.products, ...outcome.works, ...EVENTS.map((e) => outcome[e])];
  let allHold = true;
  drawn.forEach((d, j) => {
    tally.x[j]! += d;
    tally.xx[j]! += d * d;
  });
  units.forEach((u, i) => {
    const ready = outcome.ready[i]!;
    tally.ready[i]!.push(ready);
    if (ready > u.due) allHold = false;
    const day = Math.min(ready, latest);
    tally.y[i]! += day;
    tally.yy[i]! += day * day;
    const xy = tally.xy[i]!;
    for (let j = 0; j < drawn.length; j++) xy[j]! += drawn[j]! * day;
  });
  outcome.overrun.forEach((o, s) => (tally.overruns[s]! += o));
  outcome.ranOut.forEach((o, s) => (tally.ranOut[s]! += o));
  tally.futures++;
  if (allHold) tally.all++;
}

/** Adds the futures of another tally of the same plan; none may be in both. */
export function addTally(tally: Tally, other: Tally): void {
  tally.futures += other.futures;
  tally.all += other.all;
  other.ready.forEach((ready, i) => tally.ready[i]!.push(...ready));
  const sum = (to: Float64Array, from: Float64Array): void => from.forEach((v, k) => (to[k]! += v));
  sum(tally.overruns, other.overruns);
  sum(tally.ranOut, other.ranOut);
  sum(tally.x, other.x);
  sum(tally.xx, other.xx);
  sum(tally.y, other.y);
  sum(tally.yy, other.yy);
  other.xy.forEach((xy, i) => sum(tally.xy[i]!, xy));
}
