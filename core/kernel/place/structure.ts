/**
 * How the operations hang together: strands (what lags and windows tie, milestones cut away) with an order
 * in which each can be inserted.
 */
import type { Lag, Model } from '../model/model';
import type { Bounds } from '../prove/propagate';
import type { Minute, OperationIndex } from '../model/units';

export interface Strand {
  /** operations in insertion order, milestones not among them */
  readonly operations: readonly number[];
  /** weight by which its units count, for orders by weight */
  readonly weight: number;
  /** earliest due minute of its units; the horizon when it has none */
  readonly due: Minute;
  /** hands-on minutes */
  readonly work: number;
  /** latest due-respecting start of its first operation: what is most pressing goes first */
  readonly latestStart: number;
  readonly units: readonly number[];
}

export interface Structure {
  readonly strands: readonly Strand[];
  readonly strandOf: Int32Array;
  /** number of the group that windows and soft closings tie an operation to */
  readonly blockOf: Int32Array;
  /** joining milestones in topological order: placed after the strands that lead to them */
  readonly milestones: readonly number[];
  /** milestones that follow from an operation, in topological order */
  readonly rank: Int32Array;
}

/** @param order topological order of all operations */
export function structureOf(model: Model, bounds: Bounds, order: Int32Array): Structure {
  const { count } = model;
  const rank = new Int32Array(count);
  order.forEach((i, k) => (rank[i] = k));
  const isJoint = new Uint8Array(count);
  for (let i = 0; i < count; i++)
    if (model.minutes[i] === 0 && !model.isFixed[i] && isFree(model, i)) isJoint[i] = 1;

  const dueOf = new Float64Array(count).fill(Infinity);
  const weightOf = new Float64Array(count);
  const unitsOf: Set<number>[] = Array.from({ length: count }, () => new Set());
  for (let k = count - 1; k >= 0; k--) {
    const i = order[k]!;
    for (const d of model.duesOf[i]!) {
      dueOf[i] = Math.min(dueOf[i]!, d.due);
      weightOf[i] = Math.max(weightOf[i]!, d.weight);
      unitsOf[i]!.add(d.unit);
    }
    for (const lag of model.lagsOut[i]!) {
      const clockless = Math.max(lag.min, 0) + model.minutes[lag.to]!;
      dueOf[i] = Math.min(dueOf[i]!, dueOf[lag.to]! - clockless);
      weightOf[i] = Math.max(weightOf[i]!, weightOf[lag.to]!);
      for (const u of unitsOf[lag.to]!) unitsOf[i]!.add(u);
    }
  }

  // Union of all that lags tie, through no joint.
  const ties = model.lags.filter(
    (l) => !isJoint[l.from] && !isJoint[l.to] && !model.isFixed[l.from] && !model.isFixed[l.to],
  );
  const root = united(count, ties);
  const block = united(
    count,
    ties.filter((l) => l.isWindow),
  );

  const members = new Map<number, number[]>();
  for (const i of order)
    if (!isJoint[i] && !model.isFixed[i]) {
      const r = root(i);
      const list = members.get(r);
      if (list) list.push(i);
      else members.set(r, [i]);
    }
  const strandOf = new Int32Array(count).fill(-1);
  const strands: Strand[] = [];
  for (const list of members.values()) {
    const operations = insertionOrder(model, bounds, dueOf, list);
    for (const i of operations) strandOf[i] = strands.length;
    const units = new Set<number>();
    let due = model.horizon;
    let weight = 0;
    let work = 0;
    let latestStart = Infinity;
    for (const i of operations) {
      for (const u of unitsOf[i]!) units.add(u);
      weight = Math.max(weight, weightOf[i]!);
      work += model.minutes[i]!;
      latestStart = Math.min(latestStart, dueOf[i]! - model.minutes[i]!);
    }
    for (const u of units) due = Math.min(due, model.dues[u]!.due);
    strands.push({ operations, weight, due, work, latestStart, units: [...units] });
  }
  const milestones = [...order].filter((i) => isJoint[i]);
  return {
    strands,
    strandOf,
    blockOf: Int32Array.from({ length: count }, (_, i) => block(i)),
    milestones,
    rank,
  };
}

/** Groups that the lags make of the operations: a function to each one's group. */
function united(count: number, lags: readonly Lag[]): (i: number) => number {
  const parent = Int32Array.from({ length: count }, (_, i) => i);
  const root = (i: number): number => {
    while (parent[i] !== i) i = parent[i] = parent[parent[i]!]!;
    return i;
  };
  for (const lag of lags) parent[root(lag.from)] = root(lag.to);
  return root;
}

/** A milestone may be placed after everything else when nothing ties it from behind: no window in, no strand after it. */
function isFree(model: Model, i: OperationIndex): boolean {
  if (model.lagsIn[i]!.some((l) => l.isWindow)) return false;
  if (model.holdsOf[i]!.length > 0) return false;
  return model.lagsOut[i]!.every(
    (l) => model.minutes[l.to] === 0 && !model.isFixed[l.to] && isFree(model, l.to),
  );
}

/** Topological order in which what a window ties comes directly one after the other, the most pressing first. */
function insertionOrder(
  model: Model,
  bounds: Bounds,
  dueOf: Float64Array,
  list: readonly number[],
): number[] {
  const inside = new Set(list);
  const waiting = new Map<number, number>();
  for (const i of list) waiting.set(i, model.lagsIn[i]!.filter((l) => inside.has(l.from)).length);
  const pressing = (i: OperationIndex): number =>
    Number.isFinite(dueOf[i]!) ? Math.min(dueOf[i]!, bounds.endHigh[i]!) : bounds.endHigh[i]!;
  const ready = list.filter((i) => waiting.get(i) === 0);
  const result: number[] = [];
  let last = -1;
  while (ready.length > 0) {
    let best = 0;
    for (let k = 1; k < ready.length; k++) if (before(ready[k]!, ready[best]!)) best = k;
    const i = ready.splice(best, 1)[0]!;
    result.push(i);
    last = i;
    for (const lag of model.lagsOut[i]!) {
      if (!inside.has(lag.to)) continue;
      const left = waiting.get(lag.to)! - 1;
      waiting.set(lag.to, left);
      if (left === 0) ready.push(lag.to);
    }
  }
  return result;

  function before(a: number, b: number): boolean {
    const ta = isTied(a);
    const tb = isTied(b);
    if (ta !== tb) return ta;
    return pressing(a) < pressing(b) || (pressing(a) === pressing(b) && a < b);
  }
  /** continues a window that the last operation opened, or stands within one still open */
  function isTied(i: OperationIndex): boolean {
    return model.lagsIn[i]!.some(
      (l) => (l.from === last && l.isWindow) || (l.max !== Infinity && inside.has(l.from)),
    );
  }
}
