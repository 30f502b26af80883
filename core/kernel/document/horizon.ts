/** How far ahead a search has to look: by the work there is, not by the length of the horizon. */
import type { Problem, Solution } from './document';

/** Up to so far the whole horizon is searched at once. */
export const LONG_MINUTES = 300_000;
/** The first look ahead, beyond what has happened and what may not begin before. */
const FIRST_LOOK = 150_000;

/** The problem with a shorter horizon; its own when that is shorter still. */
export function upTo(problem: Problem, minute: number): Problem {
  return minute >= problem.horizon ? problem : { ...problem, horizon: minute };
}

/** The last minute of a solution and of the past. */
export function lastMinute(problem: Problem, solution: Solution): number {
  const past = (problem.fixed ?? []).reduce((most, f) => Math.max(most, f.end), 1);
  return solution.operations.reduce((most, o) => Math.max(most, o.end), past);
}

/**
 * The problem with all of its horizon that can matter. Behind the last opening of a calendar, change of a clock, date and past event nothing
 * depends on the time any more. A moment there in which nothing is worked, nothing dries that must, and no tool stands that is still to get
 * clean can be cut out of a plan: what is later comes sooner, no set-up changes, nothing costs more. So there is a best plan that
 * takes up, behind that minute, no longer than all work, waits and standing together.
 */
export function withinReach(problem: Problem): Problem {
  const fixed = new Set((problem.fixed ?? []).map((f) => f.id));
  const open = problem.operations.filter((o) => !fixed.has(o.id));
  let last = 0;
  const reaches = (minute: number): void => void (last = Math.max(last, minute));
  for (const c of problem.calendars ?? []) reaches(c.open[c.open.length - 1]?.[1] ?? 0);
  for (const c of problem.clocks ?? []) reaches(c.points[c.points.length - 1]?.[0] ?? 0);
  for (const o of open) reaches(o.earliest ?? 0);
  for (const f of problem.fixed ?? []) reaches(f.end);
  const tools = (problem.resources ?? []).flatMap((r) => r.setup ?? []);
  const longestSetup = Math.max(
    0,
    ...tools.flatMap((t) => [t.minutes, ...(t.between ?? []).map((b) => b[2])]),
  );
  const longestIdle = Math.max(0, ...tools.map((t) => t.idle ?? 0));
  for (const o of open) last += o.minutes + 1 + longestSetup + longestIdle + 1;
  const slopes = new Map((problem.clocks ?? []).map((c) => [c.id, lastSlope(c.points)]));
  for (const l of problem.lags ?? [])
    last += Math.ceil(l.clock === undefined ? l.min : l.min / slopes.get(l.clock)!) + 1;
  return upTo(problem, Math.ceil(last) + 1);
}

function lastSlope(points: readonly (readonly [number, number])[]): number {
  if (points.length === 1) return 1;
  const [t0, c0] = points[points.length - 2]!;
  const [t1, c1] = points[points.length - 1]!;
  return (c1 - c0) / (t1 - t0);
}

/** Horizons to search one after the other until there is a plan: each twice as far ahead, the whole one last. */
export function looks(problem: Problem): number[] {
  const past = (problem.fixed ?? []).reduce((most, f) => Math.max(most, f.end), 0);
  const dates = problem.operations.reduce((most, o) => Math.max(most, o.earliest ?? 0), past);
  const least = workedOff(problem);
  const list: number[] = [];
  for (let look = FIRST_LOOK; dates + look < problem.horizon; look *= 2)
    if (dates + look >= SPARE * least) list.push(dates + look);
  return [...list, problem.horizon];
}

/** Work never fits without any gap: so much more time than the least is looked at. */
const SPARE = 1.25;

/** The minute before which the calendars of the resources are not open for as long as the work on them takes. */
function workedOff(problem: Problem): number {
  const fixed = new Set((problem.fixed ?? []).map((f) => f.id));
  const work = new Map<string, number>();
  for (const o of problem.operations)
    if (!fixed.has(o.id))
      for (const { resource, amount } of o.uses ?? [])
        work.set(resource, (work.get(resource) ?? 0) + o.minutes * amount);
  const calendars = new Map((problem.calendars ?? []).map((c) => [c.id, c.open]));
  let least = 0;
  for (const { id, capacity, calendar } of problem.resources ?? []) {
    let left = (work.get(id) ?? 0) / capacity;
    if (calendar === undefined) least = Math.max(least, left);
    else
      for (const [from, to] of calendars.get(calendar) ?? []) {
        if (left <= 0) break;
        least = Math.max(least, Math.min(to, from + left));
        left -= to - from;
      }
  }
  return least;
}
