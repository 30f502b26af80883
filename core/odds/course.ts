/** A plan as numbers, to be played: what each operation takes, waits for and holds, in the order in which the plan does it. */
import type { Problem, Solution } from '#core/kernel';

export interface Lag {
  readonly from: number;
  readonly to: number;
  readonly min: number;
  /** Infinity: it never closes */
  readonly max: number;
  /** −1: plain minutes */
  readonly clock: number;
}

export interface Clock {
  readonly minutes: Float64Array;
  readonly ticks: Float64Array;
}

export interface Course {
  readonly ids: readonly string[];
  /** hands-on minutes as planned, and set-up before */
  readonly minutes: Float64Array;
  readonly setup: Float64Array;
  readonly start: Float64Array;
  readonly end: Float64Array;
  readonly earliest: Float64Array;
  readonly isPausable: Uint8Array;
  /** history: it keeps its times */
  readonly isFixed: Uint8Array;
  /** by operation, flat: resource and amount in turn */
  readonly uses: readonly (readonly number[])[];
  readonly family: Int32Array;
  readonly before: readonly (readonly Lag[])[];
  readonly after: readonly (readonly Lag[])[];
  /** holds that end with the operation’s start, and that begin with its end: resource and amount in turn */
  readonly lets: readonly (readonly number[])[];
  readonly takes: readonly (readonly number[])[];
  readonly capacity: Float64Array;
  /** by resource: open intervals, flat; null: always open */
  readonly open: readonly (Float64Array | null)[];
  readonly tools: readonly (Tool | null)[];
  readonly clocks: readonly Clock[];
  /** operations that are not history, in the order of the plan */
  readonly order: Int32Array;
  /** the minute by which an operation has to begin if what must follow it is to be ready by its date, hands being free; Infinity: no date */
  readonly latest: Float64Array;
  readonly units: readonly { readonly id: string; readonly ready: number; readonly due: number }[];
  /** the intervals in which somebody is at the bench, flat */
  readonly sessions: Float64Array;
}

/** A tool that has to be set up. */
export interface Tool {
  readonly minutes: number;
  readonly between: ReadonlyMap<number, number>;
  readonly idle: number;
}

/** Families as numbers: the clean tool is 0. */
export const CLEAN = 0;

/**
 * @param sessions when somebody is at the bench: from, to in minutes, in turn
 * @throws Error where the solution has no plan for the problem
 */
export function courseOf(
  problem: Problem,
  solution: Solution,
  sessions: readonly (readonly [number, number])[],
): Course {
  const n = problem.operations.length;
  const index = new Map(problem.operations.map((o, i) => [o.id, i]));
  const placed = new Map(solution.operations.map((o) => [o.id, o]));
  const fixed = new Set((problem.fixed ?? []).map((f) => f.id));
  const families = new Map<string, number>([['', CLEAN]]);
  const familyOf = (name: string): number => {
    const known = families.get(name);
    if (known !== undefined) return known;
    families.set(name, families.size);
    return families.size - 1;
  };
  const resources = problem.resources ?? [];
  const resource = new Map(resources.map((r, i) => [r.id, i]));
  const calendars = new Map((problem.calendars ?? []).map((c) => [c.id, Float64Array.from(c.open.flat())]));
  const clock = new Map((problem.clocks ?? []).map((c, i) => [c.id, i]));
  const numbers = (of: (i: number) => number): Float64Array =>
    Float64Array.from({ length: n }, (_, i) => of(i));
  const at = problem.operations.map((o) => {
    const p = placed.get(o.id);
    if (!p) throw new Error(`There is no plan for “${o.id}”: odds are of a plan.`);
    return p;
  });
  const lags = (problem.lags ?? []).map((l): Lag => ({
    from: index.get(l.from)!,
    to: index.get(l.to)!,
    min: l.min,
    max: l.max ?? Infinity,
    clock: l.clock === undefined ? -1 : clock.get(l.clock)!,
  }));
  const lists = <T>(of: (add: (i: number, item: T) => void) => void): T[][] => {
    const list: T[][] = Array.from({ length: n }, () => []);
    of((i, item) => list[i]!.push(item));
    return list;
  };
  const holds = problem.holds ?? [];
  const after = lists<Lag>((add) => lags.forEach((l) => add(l.from, l)));
  const before = lists<Lag>((add) => lags.forEach((l) => add(l.to, l)));
  const minutes = numbers((i) => problem.operations[i]!.minutes);
  const units = (problem.units ?? []).map((u) => ({ id: u.id, ready: index.get(u.ready)!, due: u.due }));
  const order = problem.operations
    .map((_, i) => i)
    .filter((i) => !fixed.has(problem.operations[i]!.id))
    .sort(
      (a, b) =>
        at[a]!.start - at[a]!.setup - (at[b]!.start - at[b]!.setup) || at[a]!.end - at[b]!.end || a - b,
    );
  return {
    ids: problem.operations.map((o) => o.id),
    minutes,
    setup: numbers((i) => at[i]!.setup),
    start: numbers((i) => at[i]!.start),
    end: numbers((i) => at[i]!.end),
    earliest: numbers((i) => problem.operations[i]!.earliest ?? 0),
    isPausable: Uint8Array.from(problem.operations, (o) => (o.pausable ? 1 : 0)),
    isFixed: Uint8Array.from(problem.operations, (o) => (fixed.has(o.id) ? 1 : 0)),
    uses: problem.operations.map((o) => (o.uses ?? []).flatMap((u) => [resource.get(u.resource)!, u.amount])),
    family: Int32Array.from(problem.operations, (o) => familyOf(o.family ?? '')),
    before,
    after,
    lets: lists<number>((add) =>
      holds.forEach(
        (h) => (add(index.get(h.to)!, resource.get(h.resource)!), add(index.get(h.to)!, h.amount)),
      ),
    ),
    takes: lists<number>((add) =>
      holds.forEach(
        (h) => (add(index.get(h.from)!, resource.get(h.resource)!), add(index.get(h.from)!, h.amount)),
      ),
    ),
    capacity: Float64Array.from(resources, (r) => r.capacity),
    open: resources.map((r) => (r.calendar === undefined ? null : calendars.get(r.calendar)!)),
    tools: resources.map((r) =>
      r.setup
        ? {
            minutes: r.setup.minutes,
            idle: r.setup.idle ?? Infinity,
            between: new Map(
              (r.setup.between ?? []).map(([from, to, minutes]) => [
                pair(familyOf(from), familyOf(to)),
                minutes,
              ]),
            ),
          }
        : null,
    ),
    clocks: (problem.clocks ?? []).map((c) => ({
      minutes: Float64Array.from(c.points, (p) => p[0]),
      ticks: Float64Array.from(c.points, (p) => p[1]),
    })),
    order: Int32Array.from(order),
    latest: latestStarts(minutes, before, units, sessions),
    units,
    sessions: Float64Array.from(sessions.flat()),
  };
}

/** Backwards from each date, through what must be dry before and the hours in which somebody is at the bench. */
function latestStarts(
  minutes: Float64Array,
  before: readonly (readonly Lag[])[],
  units: Course['units'],
  sessions: readonly (readonly [number, number])[],
): Float64Array {
  const latest = new Float64Array(minutes.length).fill(Infinity);
  const todo: number[] = [];
  const pull = (i: number, end: number): void => {
    const start = minutes[i] === 0 ? end : lastFit(sessions, end, minutes[i]!);
    if (start >= latest[i]!) return;
    latest[i] = start;
    todo.push(i);
  };
  for (const u of units) pull(u.ready, u.due);
  while (todo.length > 0) {
    const i = todo.pop()!;
    for (const lag of before[i]!) pull(lag.from, latest[i]! - lag.min);
  }
  return latest;
}

/** The last start of so many minutes that ends by a minute and within a session; where none is long enough, without any. */
function lastFit(sessions: readonly (readonly [number, number])[], end: number, minutes: number): number {
  const at = sessions.findLast(([from, to]) => Math.min(to, end) - from >= minutes);
  return (at ? Math.min(at[1], end) : end) - minutes;
}

/** Both families of a change as one number. */
export function pair(from: number, to: number): number {
  return from * 65_536 + to;
}
