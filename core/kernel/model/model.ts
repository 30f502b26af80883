/**
 * The problem in the solver's own shape: numbers for names, arrays for lists. Built once, never changed.
 * Reading order: operations by index, their lags and holds as index lists, one open-hours table for each
 * set of calendars.
 */
import type { Problem } from '../document/document';
import { dryingClock, type DryingClock } from './dryingClock';
import { intersect, openHours, type OpenHours } from './openHours';
import type { Minute, OperationIndex, ResourceIndex, Ticks } from './units';

export interface Lag {
  readonly index: number;
  readonly from: OperationIndex;
  readonly to: OperationIndex;
  readonly min: Ticks;
  /** Infinity when the lag never closes */
  readonly max: Ticks;
  /** Infinity when nothing is preferred */
  readonly prefer: Ticks;
  /** it closes, or should: the two are placed together. What is to be sooner after a fixed moment is free of it. */
  readonly isWindow: boolean;
  readonly clock: DryingClock | null;
}

export interface Hold {
  readonly index: number;
  readonly resource: ResourceIndex;
  readonly amount: number;
  readonly from: OperationIndex;
  readonly to: OperationIndex;
}

export interface Use {
  readonly resource: ResourceIndex;
  readonly amount: number;
}

/** A resource with set-ups: minutes from family to family, family 0 being the clean tool. */
export interface Tool {
  readonly families: number;
  /** `change[from * families + to]` */
  readonly change: Int32Array;
  /** Infinity: never gets dirty by standing */
  readonly idle: number;
}

export interface Due {
  readonly unit: number;
  readonly ready: OperationIndex;
  readonly due: number;
  readonly weight: number;
}

export interface Model {
  readonly problem: Problem;
  readonly count: number;
  readonly horizon: Minute;
  readonly ids: readonly string[];
  readonly minutes: Int32Array;
  readonly earliest: Int32Array;
  readonly latest: Int32Array;
  readonly pausable: Uint8Array;
  readonly isFixed: Uint8Array;
  readonly fixedStart: Int32Array;
  readonly fixedEnd: Int32Array;
  readonly uses: readonly (readonly Use[])[];
  /** `uses` without the resources that can never be full when another of the same operation is not */
  readonly binding: readonly (readonly Use[])[];
  /** resource with a setup that the operation uses, or -1 */
  readonly tool: Int32Array;
  /** number of the operation's family on its tool */
  readonly family: Int32Array;
  readonly open: readonly (OpenHours | null)[];
  readonly capacity: Int32Array;
  readonly tools: readonly (Tool | null)[];
  /** resources whose runs count, of those that the operation uses */
  readonly runsOn: readonly (readonly number[])[];
  /** when a resource is there, by its own calendar alone; null: always */
  readonly openOn: readonly (OpenHours | null)[];
  readonly resourceIds: readonly string[];
  readonly lags: readonly Lag[];
  readonly lagsOut: readonly (readonly Lag[])[];
  readonly lagsIn: readonly (readonly Lag[])[];
  readonly holdsOf: readonly (readonly Hold[])[];
  readonly holds: readonly Hold[];
  readonly dues: readonly Due[];
  readonly duesOf: readonly (readonly Due[])[];
  readonly weights: {
    readonly tardiness: number;
    readonly setup: number;
    readonly overrun: number;
    readonly runs: number;
    readonly completion: number;
    readonly makespan: number;
  };
}

/** Builds the model of a parsed problem. Lags between two fixed operations are history and left out. */
export function buildModel(problem: Problem): Model {
  const { operations, horizon } = problem;
  const count = operations.length;
  const indexOf = new Map(operations.map((o, i) => [o.id, i]));
  const op = (id: string): OperationIndex => indexOf.get(id)!;
  const resources = problem.resources ?? [];
  const resourceOf = new Map(resources.map((r, i) => [r.id, i]));
  const calendars = new Map((problem.calendars ?? []).map((c) => [c.id, openHours(c.open)]));
  const clocks = new Map((problem.clocks ?? []).map((c) => [c.id, dryingClock(c.points, horizon)]));

  const isFixed = new Uint8Array(count);
  const fixedStart = new Int32Array(count);
  const fixedEnd = new Int32Array(count);
  for (const f of problem.fixed ?? []) {
    isFixed[op(f.id)] = 1;
    fixedStart[op(f.id)] = f.start;
    fixedEnd[op(f.id)] = f.end;
  }

  const families = new Map<string, number>([['', 0]]);
  for (const o of operations) if (!families.has(o.family ?? '')) families.set(o.family ?? '', families.size);
  const tools = resources.map((r): Tool | null => {
    if (!r.setup) return null;
    const n = families.size;
    const change = new Int32Array(n * n).fill(Math.min(r.setup.minutes, horizon + 1));
    for (const [from, to, minutes] of r.setup.between ?? []) {
      const a = families.get(from);
      const b = families.get(to);
      if (a !== undefined && b !== undefined) change[a * n + b] = Math.min(minutes, horizon + 1);
    }
    for (let f = 0; f < n; f++) change[f * n + f] = 0;
    return { families: n, change, idle: r.setup.idle ?? Infinity };
  });

  const merged = new Map<string, OpenHours | null>();
  const openOf = (calendarIds: readonly string[]): OpenHours | null => {
    const key = JSON.stringify(calendarIds);
    let open = merged.get(key);
    if (open === undefined) {
      open = calendarIds
        .map((id) => calendars.get(id)!)
        .reduce<OpenHours | null>((all, one) => (all === null ? one : intersect(all, one)), null);
      merged.set(key, open);
    }
    return open;
  };

  const uses = operations.map((o) =>
    o.minutes === 0
      ? []
      : (o.uses ?? []).map((u) => ({ resource: resourceOf.get(u.resource)!, amount: u.amount })),
  );
  const open = uses.map((list) =>
    openOf([...new Set(list.flatMap((u) => resources[u.resource]!.calendar ?? []))].sort()),
  );

  const lags: Lag[] = (problem.lags ?? [])
    .filter((l) => !(isFixed[op(l.from)] && isFixed[op(l.to)]))
    .map((l, index) => ({
      index,
      from: op(l.from),
      to: op(l.to),
      min: l.min,
      max: l.max ?? Infinity,
      prefer: l.prefer ?? Infinity,
      isWindow: l.max !== undefined || (l.prefer !== undefined && !isFixed[op(l.from)]),
      clock: l.clock === undefined ? null : clocks.get(l.clock)!,
    }));
  const holds: Hold[] = (problem.holds ?? []).map((h, index) => ({
    index,
    resource: resourceOf.get(h.resource)!,
    amount: h.amount,
    from: op(h.from),
    to: op(h.to),
  }));
  const dues: Due[] = (problem.units ?? []).map((u, unit) => ({
    unit,
    ready: op(u.ready),
    due: u.due,
    weight: u.weight,
  }));

  return {
    problem,
    count,
    horizon,
    ids: operations.map((o) => o.id),
    // What is longer than the horizon fits nowhere, however long it is.
    minutes: Int32Array.from(operations, (o) => Math.min(o.minutes, horizon + 1)),
    earliest: Int32Array.from(operations, (o) => Math.min(o.earliest ?? 0, horizon + 1)),
    latest: Int32Array.from(operations, (o) => Math.min(o.latest ?? horizon, horizon)),
    pausable: Uint8Array.from(operations, (o) => (o.pausable && o.minutes > 0 ? 1 : 0)),
    isFixed,
    fixedStart,
    fixedEnd,
    uses,
    binding: bindingUses(
      uses,
      holds,
      isFixed,
      resources.map((r) => r.capacity),
    ),
    tool: Int32Array.from(uses, (list) => list.find((u) => tools[u.resource] !== null)?.resource ?? -1),
    family: Int32Array.from(operations, (o) => families.get(o.family ?? '')!),
    open,
    capacity: Int32Array.from(resources, (r) => Math.min(r.capacity, 2 ** 31 - 1)),
    tools,
    runsOn: uses.map((list) => list.map((u) => u.resource).filter((r) => resources[r]!.runs === true)),
    openOn: resources.map((r) => (r.calendar === undefined ? null : openOf([r.calendar]))),
    resourceIds: resources.map((r) => r.id),
    lags,
    lagsOut: grouped(count, lags, (l) => [l.from]),
    lagsIn: grouped(count, lags, (l) => [l.to]),
    holdsOf: grouped(count, holds, (h) => (h.from === h.to ? [] : [h.from, h.to])),
    holds,
    dues,
    duesOf: grouped(count, dues, (d) => [d.ready]),
    weights: {
      tardiness: problem.objective.tardiness ?? 0,
      setup: problem.objective.setup ?? 0,
      overrun: problem.objective.overrun ?? 0,
      runs: problem.objective.runs ?? 0,
      completion: problem.objective.completion ?? 0,
      makespan: problem.objective.makespan ?? 0,
    },
  };
}

function grouped<T>(count: number, list: readonly T[], keys: (item: T) => readonly number[]): T[][] {
  const groups: T[][] = Array.from({ length: count }, () => []);
  for (const item of list) for (const key of keys(item)) groups[key]!.push(item);
  return groups;
}

/** Minutes of setup on `tool` from a family (0 = clean) to another. */
export function change(tool: Tool, from: number, to: number): number {
  return tool.change[from * tool.families + to]!;
}

/**
 * Leaves out a resource that another implies: every operation on it uses the other too, with at least as large a share of
 * its capacity. Resources with holds or with history of their own are kept.
 */
function bindingUses(
  uses: readonly (readonly Use[])[],
  holds: readonly Hold[],
  isFixed: Uint8Array,
  capacity: readonly number[],
): (readonly Use[])[] {
  const isKept = capacity.map(() => true);
  const isHeld = new Set(holds.map((h) => h.resource));
  const users = capacity.map((): number[] => []);
  uses.forEach((list, i) => list.forEach((u) => users[u.resource]!.push(i)));
  const amountOf = (i: OperationIndex, r: ResourceIndex): number =>
    uses[i]!.reduce((sum, u) => (u.resource === r ? sum + u.amount : sum), 0);
  capacity.forEach((room, r) => {
    const mine = users[r]!;
    if (mine.length === 0 || isHeld.has(r) || mine.some((i) => isFixed[i])) return;
    const implies = (q: number): boolean =>
      q !== r &&
      isKept[q]! &&
      mine.every((i) => {
        const other = amountOf(i, q);
        return other > 0 && other * room >= amountOf(i, r) * capacity[q]!;
      });
    if (mine.every((i) => amountOf(i, r) <= room) && uses[mine[0]!]!.some((u) => implies(u.resource)))
      isKept[r] = false;
  });
  return uses.map((list) =>
    list.every((u) => isKept[u.resource]) ? list : list.filter((u) => isKept[u.resource]),
  );
}

/** Do two operations use a resource that both could not have at the same time, or not always? */
export function sharesResource(model: Model, a: OperationIndex, b: OperationIndex): boolean {
  for (const u of model.binding[a]!)
    for (const v of model.binding[b]!) if (u.resource === v.resource) return true;
  return false;
}
