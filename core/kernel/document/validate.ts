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
  const { at, malformed } = timesOf(problem, solution);
  if (malformed.length > 0) return { violations: malformed, cost: null };
  const docs = byName(problem, at);
  const setups = rightSetups(docs);
  const { overrun, violations: ofLags } = checkLags(docs);
  const cost = costOf(docs, setups, overrun, countRuns(docs));
  const violations = [
    ...checkSetups(docs, setups),
    ...checkTimes(docs, setups),
    ...ofLags,
    ...checkCapacities(docs, setups),
    ...checkCost(solution, cost),
  ];
  return { violations, cost };
}

interface Placed {
  readonly start: number;
  readonly end: number;
  readonly setup: number;
}

/** Both documents by id. */
interface Docs {
  readonly problem: Problem;
  readonly time: (id: string) => Placed;
  readonly resources: ReadonlyMap<string, NonNullable<Problem['resources']>[number]>;
  readonly calendars: ReadonlyMap<string, readonly Interval[]>;
  readonly clocks: ReadonlyMap<string, readonly Interval[]>;
  readonly fixed: ReadonlyMap<string, { readonly start: number; readonly end: number }>;
}

function timesOf(
  problem: Problem,
  solution: Solution,
): { readonly at: ReadonlyMap<string, Placed>; readonly malformed: readonly Violation[] } {
  const known = new Set(problem.operations.map((o) => o.id));
  const at = new Map<string, Placed>();
  const malformed: Violation[] = [];
  const bad = (where: string, text: string): void => void malformed.push({ rule: 0, where, text });
  for (const placed of solution.operations) {
    if (!known.has(placed.id)) bad(placed.id, 'no such operation');
    else if (at.has(placed.id)) bad(placed.id, 'occurs twice');
    else if (![placed.start, placed.end, placed.setup].every(Number.isInteger))
      bad(placed.id, 'times are not whole minutes');
    else at.set(placed.id, placed);
  }
  for (const id of known) if (!at.has(id)) bad(id, 'is not in the solution');
  return { at, malformed };
}

function byName(problem: Problem, at: ReadonlyMap<string, Placed>): Docs {
  return {
    problem,
    time: (id) => at.get(id)!,
    resources: new Map((problem.resources ?? []).map((r) => [r.id, r])),
    calendars: new Map((problem.calendars ?? []).map((c) => [c.id, c.open])),
    clocks: new Map((problem.clocks ?? []).map((c) => [c.id, c.points])),
    fixed: new Map((problem.fixed ?? []).map((f) => [f.id, f])),
  };
}

/** What works on a resource, by time. */
function usersOf({ problem, time }: Docs, resource: string): Problem['operations'] {
  return problem.operations
    .filter((o) => o.minutes > 0 && o.uses?.some((u) => u.resource === resource))
    .sort((a, b) => time(a.id).start - time(b.id).start || time(a.id).end - time(b.id).end);
}

/** Rule 3: which set-up each operation must have, minutes; none where it is not named. */
function rightSetups(docs: Docs): ReadonlyMap<string, number> {
  const { time, resources, fixed } = docs;
  const setups = new Map<string, number>();
  for (const { id, setup: rule } of resources.values()) {
    if (!rule) continue;
    const between = (from: string, to: string): number =>
      from === to ? 0 : (rule.between?.find(([a, b]) => a === from && b === to)?.[2] ?? rule.minutes);
    const users = usersOf(docs, id);
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
  return setups;
}

function checkSetups({ problem, time }: Docs, setups: ReadonlyMap<string, number>): Violation[] {
  return problem.operations.flatMap(({ id }) => {
    const right = setups.get(id) ?? 0;
    const { setup } = time(id);
    return setup === right
      ? []
      : [{ rule: 3, where: id, text: `setup is ${setup}, should be ${right} minutes` }];
  });
}

/** Rules 1, 3 and 7: durations, open hours, history. */
function checkTimes(docs: Docs, setups: ReadonlyMap<string, number>): Violation[] {
  const openFor = openHours(docs);
  return docs.problem.operations.flatMap((o) =>
    checkTime(docs, o, setups.get(o.id) ?? 0, openFor).map(([rule, text]) => ({ rule, where: o.id, text })),
  );
}

function checkTime(
  { problem, time, resources, fixed }: Docs,
  o: Problem['operations'][number],
  setup: number,
  openFor: (calendars: readonly string[]) => Interval[] | null,
): (readonly [rule: number, text: string])[] {
  const { start, end } = time(o.id);
  const pin = fixed.get(o.id);
  if (pin)
    return pin.start === start && pin.end === end
      ? []
      : [[7, `is fixed at ${pin.start}..${pin.end}, not ${start}..${end}`]];
  const found: [number, string][] = [];
  if (start < (o.earliest ?? 0) || start - setup < 0) found.push([1, `starts too early, at ${start}`]);
  if (end > Math.min(o.latest ?? problem.horizon, problem.horizon))
    found.push([1, `ends too late, at ${end}`]);
  if (o.minutes === 0) {
    if (start !== end) found.push([1, 'is a milestone that takes time']);
    return found;
  }
  const shared = new Set((o.uses ?? []).flatMap((u) => resources.get(u.resource)?.calendar ?? []));
  const open = openFor([...shared].sort());
  if (o.pausable) {
    const right = open === null ? start + o.minutes : pausableEnd(open, start, o.minutes);
    if (right !== end) found.push([1, `should end at ${right ?? 'no time'}, not ${end}`]);
    if (setup > 0 && open !== null && !within(open, start - setup, start))
      found.push([3, 'its setup is outside the open hours']);
    return found;
  }
  if (end !== start + o.minutes) found.push([1, `takes ${o.minutes} minutes, not ${start}..${end}`]);
  if (open !== null && !within(open, start - setup, end))
    found.push([1, `[${start - setup}, ${end}) is not within one open interval`]);
  return found;
}

/** The minutes that are open in all of some calendars; null: always. */
function openHours({ calendars }: Docs): (ids: readonly string[]) => Interval[] | null {
  const known = new Map<string, Interval[] | null>();
  return (ids) => {
    const key = JSON.stringify(ids);
    let open = known.get(key);
    if (open === undefined) {
      open = intersectAll(ids.map((id) => calendars.get(id) ?? []));
      known.set(key, open);
    }
    return open;
  };
}

/** Rule 4: lags; and by how much in all the preferred ones are overrun. */
function checkLags({ problem, time, clocks, fixed }: Docs): {
  readonly overrun: number;
  readonly violations: readonly Violation[];
} {
  let overrun = 0;
  const violations: Violation[] = [];
  for (const lag of problem.lags ?? []) {
    if (fixed.has(lag.from) && fixed.has(lag.to)) continue;
    const from = time(lag.from).end;
    const to = time(lag.to).start;
    const points = lag.clock === undefined ? null : (clocks.get(lag.clock) ?? null);
    const gap = points === null ? to - from : ticksAt(points, to) - ticksAt(points, from);
    const tolerance = points === null ? 0 : TICK_TOLERANCE;
    if (lag.prefer !== undefined) overrun += Math.max(0, gap - lag.prefer);
    if (gap < lag.min - tolerance || (lag.max !== undefined && gap > lag.max + tolerance))
      violations.push({
        rule: 4,
        where: `${lag.from} -> ${lag.to}`,
        text: `lag is ${gap}, must be ${lag.min}..${lag.max ?? ''}`,
      });
  }
  return { overrun, violations };
}

interface Load {
  readonly resource: string;
  readonly from: number;
  readonly to: number;
  readonly amount: number;
}

/** Rules 2 and 5: nothing carries more than it can. */
function checkCapacities(docs: Docs, setups: ReadonlyMap<string, number>): Violation[] {
  const { problem, time, resources } = docs;
  const loads: Load[] = [
    ...problem.operations
      .filter((o) => o.minutes > 0)
      .flatMap((o) => {
        const { start, end } = time(o.id);
        const from = start - (setups.get(o.id) ?? 0);
        return (o.uses ?? []).map((u) => ({ resource: u.resource, from, to: end, amount: u.amount }));
      }),
    ...(problem.holds ?? []).map((h) => ({
      resource: h.resource,
      from: time(h.from).end,
      to: time(h.to).start,
      amount: h.amount,
    })),
  ];
  const byResource = new Map<string, Load[]>();
  for (const load of loads) {
    const list = byResource.get(load.resource);
    if (list) list.push(load);
    else byResource.set(load.resource, [load]);
  }
  return [...byResource].flatMap(([where, list]) => {
    const { capacity } = resources.get(where)!;
    const over = firstOver(list, capacity);
    return over
      ? [{ rule: 2, where, text: `carries ${over.sum} of ${capacity} at minute ${over.minute}` }]
      : [];
  });
}

function firstOver(
  loads: readonly Load[],
  capacity: number,
): { readonly minute: number; readonly sum: number } | null {
  const changes = loads
    .filter(({ from, to }) => from < to)
    .flatMap(({ from, to, amount }): [number, number][] => [
      [from, amount],
      [to, -amount],
    ])
    .sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  let sum = 0;
  for (const [minute, amount] of changes) {
    sum += amount;
    if (sum > capacity) return { minute, sum };
  }
  return null;
}

/** Rule 9: how often another task is taken up. */
function countRuns(docs: Docs): number {
  const { resources, calendars, time, fixed } = docs;
  let runs = 0;
  for (const r of resources.values()) {
    if (!r.runs) continue;
    const open = r.calendar === undefined ? null : (calendars.get(r.calendar) ?? []);
    let before: string | null = null;
    for (const o of usersOf(docs, r.id)) {
      const { start } = time(o.id);
      const session = open === null ? 0 : open.findIndex(([a, b]) => a <= start && start < b);
      // What began outside every open interval stands alone.
      const here = session < 0 ? null : JSON.stringify([session, o.family ?? '']);
      if (!fixed.has(o.id) && (here === null || here !== before)) runs++;
      before = here;
    }
  }
  return runs;
}

/** Rule 8: every sum, and what all of them come to. */
function costOf(
  { problem, time }: Docs,
  setups: ReadonlyMap<string, number>,
  overrun: number,
  runs: number,
): Cost {
  const sums = { tardiness: 0, setup: 0, overrun, runs, completion: 0, makespan: 0 };
  for (const s of setups.values()) sums.setup += s;
  for (const { id } of problem.operations) sums.makespan = Math.max(sums.makespan, time(id).end);
  for (const u of problem.units ?? []) {
    const done = time(u.ready).end;
    sums.tardiness += u.weight * Math.max(0, done - u.due);
    sums.completion += u.weight * done;
  }
  const total = SUMS.reduce((sum, k) => sum + (problem.objective[k] ?? 0) * sums[k], 0);
  return { ...sums, total };
}

const SUMS = ['tardiness', 'setup', 'overrun', 'runs', 'completion', 'makespan'] as const;

function checkCost({ cost: said, bound, status }: Solution, cost: Cost): Violation[] {
  const found: Violation[] = [...SUMS, 'total' as const].flatMap((k) =>
    said !== null && near(said[k], cost[k])
      ? []
      : [{ rule: 8, where: `cost.${k}`, text: `is ${said?.[k]}, should be ${cost[k]}` }],
  );
  const { total } = cost;
  if (bound !== null && bound > total && !near(bound, total))
    found.push({ rule: 8, where: 'bound', text: `${bound} is above the total ${total}` });
  if (status === 'optimal' && (bound === null || !near(bound, total)))
    found.push({ rule: 8, where: 'bound', text: 'an optimal solution needs a bound equal to its total' });
  return found;
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
