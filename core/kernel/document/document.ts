/**
 * The two documents of the kernel, as docs/formats.md describes them: the problem that goes in and the
 * solution that comes out. All times are whole minutes from the horizon's start; intervals are [start, end).
 */
import * as z from 'zod';
import { toDotPath } from 'zod/v4/core';
import type { Conflict } from './conflict';

/** Longest horizon that is read: nineteen years. */
const MOST_MINUTES = 10_000_000;

/** The most of a resource that is ever counted together. */
const MOST_AMOUNT = 2 ** 31 - 1;

const id = z.string().min(1);
const minute = z.int().min(0);
const factor = z.number().min(0);

const calendar = z.strictObject({ id, open: z.array(z.tuple([z.int(), z.int()])) });
const clock = z.strictObject({ id, points: z.array(z.tuple([z.int(), z.number()])).min(1) });
const setup = z.strictObject({
  minutes: minute,
  between: z.array(z.tuple([z.string(), z.string(), minute])).optional(),
  idle: minute.optional(),
});
const resource = z.strictObject({
  id,
  capacity: z.int().min(1),
  calendar: z.string().optional(),
  setup: setup.optional(),
  runs: z.boolean().optional(),
});
const use = z.strictObject({ resource: z.string(), amount: z.int().min(1) });
const operation = z.strictObject({
  id,
  minutes: minute,
  uses: z.array(use).optional(),
  family: z.string().optional(),
  pausable: z.boolean().optional(),
  earliest: minute.optional(),
  latest: minute.optional(),
});
const lag = z.strictObject({
  from: z.string(),
  to: z.string(),
  min: z.number().min(0),
  max: z.number().optional(),
  prefer: z.number().optional(),
  clock: z.string().optional(),
});
const hold = z.strictObject({
  resource: z.string(),
  amount: z.int().min(1),
  from: z.string(),
  to: z.string(),
});
const unit = z.strictObject({ id, ready: z.string(), due: z.int(), weight: factor });
const objective = z.strictObject({
  tardiness: factor.optional(),
  setup: factor.optional(),
  overrun: factor.optional(),
  runs: factor.optional(),
  completion: factor.optional(),
  makespan: factor.optional(),
});
const fixed = z.strictObject({ id, start: minute, end: minute });

const problemSchema = z.strictObject({
  format: z.literal('muster-problem/1'),
  horizon: z.int().min(1).max(MOST_MINUTES, `is longer than ${MOST_MINUTES} minutes`),
  calendars: z.array(calendar).optional(),
  clocks: z.array(clock).optional(),
  resources: z.array(resource).optional(),
  operations: z.array(operation),
  lags: z.array(lag).optional(),
  holds: z.array(hold).optional(),
  units: z.array(unit).optional(),
  objective,
  fixed: z.array(fixed).optional(),
});

export type Problem = z.infer<typeof problemSchema>;
export type ProblemOperation = z.infer<typeof operation>;
export type ProblemResource = z.infer<typeof resource>;
export type ProblemLag = z.infer<typeof lag>;

export interface PlacedOperation {
  readonly id: string;
  readonly start: number;
  readonly end: number;
  /** minutes of set-up directly before `start` */
  readonly setup: number;
}

/** The six sums before their factors, and the total after them (rule 8). */
export interface Cost {
  readonly total: number;
  readonly tardiness: number;
  readonly setup: number;
  readonly overrun: number;
  /** how often one begins something else on a resource whose runs count (rule 9) */
  readonly runs: number;
  readonly completion: number;
  readonly makespan: number;
}

export type { Conflict, ConflictKind, Lift } from './conflict';

export type Status = 'optimal' | 'feasible' | 'infeasible' | 'unknown';

export interface Solution {
  readonly format: 'muster-solution/1';
  readonly status: Status;
  readonly operations: readonly PlacedOperation[];
  readonly cost: Cost | null;
  /** a proven lower bound on the total cost */
  readonly bound: number | null;
  readonly conflict: Conflict | null;
}

export interface Fault {
  /** where in the document, such as `operations[3].uses[0].resource` */
  readonly path: string;
  readonly text: string;
}

/** Thrown where a document is not a problem; every fault names its path. */
export class ProblemError extends Error {
  constructor(readonly faults: readonly Fault[]) {
    super(faults.map((f) => `${f.path}: ${f.text}`).join('\n'));
    this.name = 'ProblemError';
  }
}

/**
 * Reads an unknown value as a problem document.
 * @throws ProblemError naming the path of everything that is wrong
 */
export function parseProblem(value: unknown): Problem {
  const read = problemSchema.safeParse(value);
  if (!read.success) {
    throw new ProblemError(
      read.error.issues.map((issue) => ({ path: toDotPath(issue.path) || 'problem', text: issue.message })),
    );
  }
  const faults = crossCheck(read.data);
  if (faults.length > 0) throw new ProblemError(faults);
  return read.data;
}

/** Sums that could pass what the numbers hold: the most a plan could take up of a resource, or cost. */
function tooMuch(p: Problem): Fault[] {
  const faults: Fault[] = [];
  const taken = new Map<string, number>();
  const take = (resource: string, amount: number, path: string): void => {
    const sum = (taken.get(resource) ?? 0) + amount;
    if (sum > MOST_AMOUNT && (taken.get(resource) ?? 0) <= MOST_AMOUNT)
      faults.push({ path, text: `with this more than ${MOST_AMOUNT} of "${resource}" would be counted` });
    taken.set(resource, sum);
  };
  p.operations.forEach((o, i) =>
    (o.uses ?? []).forEach((u, j) => take(u.resource, u.amount, `operations[${i}].uses[${j}].amount`)),
  );
  (p.holds ?? []).forEach((h, i) => take(h.resource, h.amount, `holds[${i}].amount`));
  const sum = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0);
  const units = p.units ?? [];
  const setups = (p.resources ?? []).flatMap((r) =>
    r.setup ? [r.setup.minutes, ...(r.setup.between ?? []).map((b) => b[2])] : [],
  );
  const ticks = (p.clocks ?? []).map((c) => c.points[c.points.length - 1]![1] + p.horizon);
  const most: Record<keyof Problem['objective'], number> = {
    tardiness: sum(units.map((u) => u.weight * (p.horizon + Math.abs(u.due)))),
    completion: sum(units.map((u) => u.weight * p.horizon)),
    setup: p.operations.length * Math.max(0, ...setups),
    overrun: (p.lags ?? []).length * Math.max(p.horizon, ...ticks),
    runs: p.operations.length,
    makespan: p.horizon,
  };
  for (const [key, worst] of Object.entries(most)) {
    const cost = worst * (p.objective[key as keyof Problem['objective']] ?? 0);
    if (!(cost <= Number.MAX_SAFE_INTEGER))
      faults.push({ path: `objective.${key}`, text: 'a plan could cost more than can be counted exactly' });
  }
  return faults;
}

/** What a schema of single fields can't see: references, duplicates, order. */
function crossCheck(p: Problem): Fault[] {
  const faults: Fault[] = [];
  const at = (path: string, text: string): void => void faults.push({ path, text });
  const names = (key: string, list: readonly { id: string }[]): Set<string> => {
    const seen = new Set<string>();
    list.forEach((x, i) => {
      if (seen.has(x.id)) at(`${key}[${i}].id`, `"${x.id}" occurs twice`);
      seen.add(x.id);
    });
    return seen;
  };
  const known = (path: string, name: string, table: Set<string>, what: string): boolean => {
    if (!table.has(name)) at(path, `${JSON.stringify(name)} is no ${what}`);
    return table.has(name);
  };

  const calendars = names('calendars', p.calendars ?? []);
  (p.calendars ?? []).forEach((c, i) =>
    c.open.forEach(([from, to], j) => {
      const path = `calendars[${i}].open[${j}]`;
      if (from < 0 || from >= to) at(path, `[${from}, ${to}] is empty or before 0`);
      const before = c.open[j - 1];
      if (before && from <= before[1])
        at(path, `[${from}, ${to}] overlaps, touches or precedes the one before`);
    }),
  );

  const clocks = names('clocks', p.clocks ?? []);
  (p.clocks ?? []).forEach((c, i) =>
    c.points.forEach(([t, ticks], j) => {
      const path = `clocks[${i}].points[${j}]`;
      const before = c.points[j - 1];
      if (!before && (t !== 0 || ticks !== 0)) at(path, 'is not [0, 0]');
      if (before && (t <= before[0] || ticks <= before[1])) at(path, 'does not strictly increase');
    }),
  );

  const resources = names('resources', p.resources ?? []);
  const withSetup = new Set<string>();
  (p.resources ?? []).forEach((r, i) => {
    const path = `resources[${i}]`;
    if (r.calendar !== undefined) known(`${path}.calendar`, r.calendar, calendars, 'calendar');
    if (r.runs === true && r.capacity !== 1) at(`${path}.runs`, 'on a resource whose capacity is not 1');
    if (!r.setup) return;
    withSetup.add(r.id);
    if (r.capacity !== 1) at(`${path}.setup`, 'on a resource whose capacity is not 1');
    const pairs = new Set<string>();
    (r.setup.between ?? []).forEach(([from, to, minutes], j) => {
      const key = JSON.stringify([from, to]);
      if (pairs.has(key)) at(`${path}.setup.between[${j}]`, `${key} occurs twice`);
      pairs.add(key);
      if (from === to && minutes !== 0)
        at(`${path}.setup.between[${j}]`, 'a family to itself takes 0 minutes');
    });
  });

  const operations = names('operations', p.operations);
  p.operations.forEach((o, i) => {
    const used = new Set<string>();
    let setups = 0;
    (o.uses ?? []).forEach((u, j) => {
      const path = `operations[${i}].uses[${j}].resource`;
      if (!known(path, u.resource, resources, 'resource')) return;
      if (used.has(u.resource)) at(path, `"${u.resource}" occurs twice`);
      used.add(u.resource);
      if (withSetup.has(u.resource)) setups++;
    });
    if (setups > 1) at(`operations[${i}].uses`, 'more than one resource with a setup');
  });

  (p.lags ?? []).forEach((l, i) => {
    const path = `lags[${i}]`;
    known(`${path}.from`, l.from, operations, 'operation');
    known(`${path}.to`, l.to, operations, 'operation');
    if (l.clock !== undefined) known(`${path}.clock`, l.clock, clocks, 'clock');
    else
      for (const key of ['min', 'max', 'prefer'] as const) {
        const value = l[key];
        if (value !== undefined && !Number.isInteger(value))
          at(`${path}.${key}`, `${value} is no whole number`);
      }
    if (l.max !== undefined && l.max < l.min)
      at(`${path}.max`, `${l.max} is shorter than the minimum ${l.min}`);
    if (l.prefer !== undefined && (l.prefer < l.min || (l.max !== undefined && l.prefer > l.max)))
      at(`${path}.prefer`, `${l.prefer} is outside ${l.min}..${l.max ?? ''}`);
  });
  (p.holds ?? []).forEach((h, i) => {
    known(`holds[${i}].resource`, h.resource, resources, 'resource');
    known(`holds[${i}].from`, h.from, operations, 'operation');
    known(`holds[${i}].to`, h.to, operations, 'operation');
  });
  names('units', p.units ?? []);
  (p.units ?? []).forEach((u, i) => known(`units[${i}].ready`, u.ready, operations, 'operation'));
  tooMuch(p).forEach(({ path, text }) => at(path, text));
  names('fixed', p.fixed ?? []);
  (p.fixed ?? []).forEach((f, i) => {
    known(`fixed[${i}].id`, f.id, operations, 'operation');
    if (f.end < f.start || f.end > p.horizon)
      at(`fixed[${i}].end`, `${f.end} is outside ${f.start}..${p.horizon}`);
  });
  return faults;
}
