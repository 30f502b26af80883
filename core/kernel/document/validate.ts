/**
 * The kernel's own judge: checks a solution against a problem rule by rule, straight from the documents.
 * It shares nothing with the solver on purpose, so that a mistake there can't hide here.
 */
import type { Cost, Problem, Solution } from './document';

export interface Violation {
  /** number of the rule in docs/formats.md, 1 to 9; 0 for a malformed solution */
  readonly rule: number;
  readonly where: string;
  readonly text: string;
}

export interface Judgement {
  readonly violations: readonly Violation[];
  /** recomputed from the times alone; null where the solution is too incomplete for it */
  readonly cost: Cost | null;
}

type Interval = readonly [number, number];

const TICK_TOLERANCE = 1e-6;
const COST_TOLERANCE = 1e-6;

/** Checks a `feasible` or `optimal` solution. Never throws on a parsed problem. */
export function validateSolution(problem: Problem, solution: Solution): Judgement {
  const violations: Violation[] = [];
  const bad = (rule: number, where: string, text: string): void =>
    void violations.push({ rule, where, text });
  const operations = new Map(problem.operations.map((o) => [o.id, o]));
  const resources = new Map((problem.resources ?? []).map((r) => [r.id, r]));
  const calendars = new Map((problem.calendars ?? []).map((c) => [c.id, c.open]));
  const clocks = new Map((problem.clocks ?? []).map((c) => [c.id, c.points]));
  const fixed = new Map((problem.fixed ?? []).map((f) => [f.id, f]));
  const at = new Map<string, { start: number; end: number; setup: number }>();

  for (const placed of solution.operations) {
    if (!operations.has(placed.id)) bad(0, placed.id, 'no such operation');
    else if (at.has(placed.id)) bad(0, placed.id, 'occurs twice');
    else if (![placed.start, placed.end, placed.setup].every(Number.isInteger))
      bad(0, placed.id, 'times are not whole minutes');
    else at.set(placed.id, placed);
  }
  for (const id of operations.keys()) if (!at.has(id)) bad(0, id, 'is not in the solution');
  if (violations.length > 0) return { violations, cost: null };
  const time = (id: string) => at.get(id)!;

  // Rule 3: which setup each operation must have
  const setups = new Map<string, number>();
  for (const r of resources.values()) {
    if (!r.setup) continue;
    const rule = r.setup;
    const between = (from: string, to: string): number =>
      from === to ? 0 : (rule.between?.find(([a, b]) => a === from && b === to)?.[2] ?? rule.minutes);
    const users = problem.operations
      .filter((o) => o.minutes > 0 && o.uses?.some((u) => u.resource === r.id))
      .sort((a, b) => time(a.id).start - time(b.id).start || time(a.id).end - time(b.id).end);
    users.forEach((o, i) => {
      if (fixed.has(o.id)) return;
      const family = o.family ?? '';
      const before = users[i - 1];
      const clean = between('', family);
      if (!before) return void setups.set(o.id, clean);
      const s = between(before.family ?? '', family);
      const idle = time(o.id).start - s - time(before.id).end;
      setups.set(o.id, rule.idle !== undefined && idle > rule.idle ? clean : s);
    });
  }
  for (const id of operations.keys()) {
    const right = setups.get(id) ?? 0;
    if (time(id).setup !== right) bad(3, id, `setup is ${time(id).setup}, should be ${right} minutes`);
  }

  // Rules 1, 3 and 7: durations, calendars, history
  const openHours = new Map<string, Interval[] | null>();
  const openFor = (ids: readonly string[]): Interval[] | null => {
    const key = JSON.stringify(ids);
    let open = openHours.get(key);
    if (open === undefined) {
      open = intersectAll(ids.map((id) => calendars.get(id) ?? []));
      openHours.set(key, open);
    }
    return open;
  };
  for (const o of problem.operations) {
    const { start, end } = time(o.id);
    const setup = setups.get(o.id) ?? 0;
    const pin = fixed.get(o.id);
    if (pin) {
      if (pin.start !== start || pin.end !== end)
        bad(7, o.id, `is fixed at ${pin.start}..${pin.end}, not ${start}..${end}`);
      continue;
    }
    if (start < (o.earliest ?? 0) || start - setup < 0) bad(1, o.id, `starts too early, at ${start}`);
    if (end > Math.min(o.latest ?? problem.horizon, problem.horizon))
      bad(1, o.id, `ends too late, at ${end}`);
    if (o.minutes === 0) {
      if (start !== end) bad(1, o.id, 'is a milestone that takes time');
      continue;
    }
    const shared = new Set((o.uses ?? []).flatMap((u) => resources.get(u.resource)?.calendar ?? []));
    const open = openFor([...shared].sort());
    if (o.pausable) {
      const right = open === null ? start + o.minutes : pausableEnd(open, start, o.minutes);
      if (right !== end) bad(1, o.id, `should end at ${right ?? 'no time'}, not ${end}`);
      if (setup > 0 && open !== null && !within(open, start - setup, start))
        bad(3, o.id, 'its setup is outside the open hours');
    } else {
      if (end !== start + o.minutes) bad(1, o.id, `takes ${o.minutes} minutes, not ${start}..${end}`);
      if (open !== null && !within(open, start - setup, end))
        bad(1, o.id, `[${start - setup}, ${end}) is not within one open interval`);
    }
  }

  // Rule 4: lags
  let overrun = 0;
  for (const lag of problem.lags ?? []) {
    if (fixed.has(lag.from) && fixed.has(lag.to)) continue;
    const from = time(lag.from).end;
    const to = time(lag.to).start;
    const points = lag.clock === undefined ? null : (clocks.get(lag.clock) ?? null);
    const gap = points === null ? to - from : ticksAt(points, to) - ticksAt(points, from);
    const tolerance = points === null ? 0 : TICK_TOLERANCE;
    if (lag.prefer !== undefined) overrun += Math.max(0, gap - lag.prefer);
    if (gap < lag.min - tolerance || (lag.max !== undefined && gap > lag.max + tolerance))
      bad(4, `${lag.from} -> ${lag.to}`, `lag is ${gap}, must be ${lag.min}..${lag.max ?? ''}`);
  }

  // Rules 2 and 5: capacities
  const loads = new Map<string, { from: number; to: number; amount: number }[]>();
  const load = (resource: string, from: number, to: number, amount: number): void => {
    if (from >= to) return;
    const list = loads.get(resource) ?? [];
    list.push({ from, to, amount });
    loads.set(resource, list);
  };
  for (const o of problem.operations) {
    if (o.minutes === 0) continue;
    const { start, end } = time(o.id);
    for (const u of o.uses ?? []) load(u.resource, start - (setups.get(o.id) ?? 0), end, u.amount);
  }
  for (const h of problem.holds ?? []) load(h.resource, time(h.from).end, time(h.to).start, h.amount);
  for (const [resource, list] of loads) {
    const changes = list
      .flatMap(({ from, to, amount }) => [
        [from, amount],
        [to, -amount],
      ])
      .sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
    const capacity = resources.get(resource)!.capacity;
    let sum = 0;
    for (const [minute, amount] of changes) {
      sum += amount!;
      if (sum > capacity) {
        bad(2, resource, `carries ${sum} of ${capacity} at minute ${minute}`);
        break;
      }
    }
  }

  // Rule 9: runs
  let runs = 0;
  for (const r of resources.values()) {
    if (r.runs !== true) continue;
    const open = r.calendar === undefined ? null : (calendars.get(r.calendar) ?? []);
    let before: string | null = null;
    problem.operations
      .filter((o) => o.minutes > 0 && o.uses?.some((u) => u.resource === r.id))
      .sort((a, b) => time(a.id).start - time(b.id).start || time(a.id).end - time(b.id).end)
      .forEach((o) => {
        const { start } = time(o.id);
        const session = open === null ? 0 : open.findIndex(([a, b]) => a <= start && start < b);
        // What began outside every open interval stands alone.
        const here = session < 0 ? null : JSON.stringify([session, o.family ?? '']);
        if (!fixed.has(o.id) && (here === null || here !== before)) runs++;
        before = here;
      });
  }

  // Rule 8: cost
  const sums = { tardiness: 0, setup: 0, overrun, runs, completion: 0, makespan: 0 };
  for (const s of setups.values()) sums.setup += s;
  for (const { end } of at.values()) sums.makespan = Math.max(sums.makespan, end);
  for (const u of problem.units ?? []) {
    const done = time(u.ready).end;
    sums.tardiness += u.weight * Math.max(0, done - u.due);
    sums.completion += u.weight * done;
  }
  const keys = ['tardiness', 'setup', 'overrun', 'runs', 'completion', 'makespan'] as const;
  const total = keys.reduce((sum, k) => sum + (problem.objective[k] ?? 0) * sums[k], 0);
  const cost: Cost = { ...sums, total };
  for (const k of [...keys, 'total'] as const)
    if (solution.cost === null || !near(solution.cost[k], cost[k]))
      bad(8, `cost.${k}`, `is ${solution.cost?.[k]}, should be ${cost[k]}`);
  if (solution.bound !== null && solution.bound > total && !near(solution.bound, total))
    bad(8, 'bound', `${solution.bound} is above the total ${total}`);
  if (solution.status === 'optimal' && (solution.bound === null || !near(solution.bound, total)))
    bad(8, 'bound', 'an optimal solution needs a bound equal to its total');
  return { violations, cost };
}

function near(a: number, b: number): boolean {
  return Math.abs(a - b) <= COST_TOLERANCE * Math.max(1, Math.abs(a), Math.abs(b));
}

/** The minutes open in every list; null when no list was given (always open). */
function intersectAll(lists: readonly (readonly Interval[])[]): Interval[] | null {
  let result: Interval[] | null = null;
  for (const list of lists) {
    if (result === null) {
      result = [...list];
      continue;
    }
    const both: Interval[] = [];
    let k = 0;
    for (const [a, b] of result) {
      // Both lists are sorted: what ends before this one begins meets none that follows either.
      while (k < list.length && list[k]![1] <= a) k++;
      for (let j = k; j < list.length && list[j]![0] < b; j++) {
        const [c, d] = list[j]!;
        both.push([Math.max(a, c), Math.min(b, d)]);
      }
    }
    result = both;
  }
  return result;
}

function within(open: readonly Interval[], from: number, to: number): boolean {
  return open.some(([a, b]) => a <= from && to <= b);
}

function pausableEnd(open: readonly Interval[], start: number, minutes: number): number | null {
  if (!open.some(([a, b]) => a <= start && start < b)) return null;
  let left = minutes;
  for (const [a, b] of open) {
    if (b <= start) continue;
    const from = Math.max(a, start);
    if (left <= b - from) return from + left;
    left -= b - from;
  }
  return null;
}

function ticksAt(points: readonly Interval[], t: number): number {
  if (points.length === 1) return t;
  let k = 0;
  while (k < points.length - 2 && points[k + 1]![0] <= t) k++;
  const [t0, c0] = points[k]!;
  const [t1, c1] = points[k + 1]!;
  return c0 + ((c1 - c0) * (t - t0)) / (t1 - t0);
}
