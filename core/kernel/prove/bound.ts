/** A proven lower bound on the total cost: what no plan can avoid. */
import { leastRuns, leastSetups } from './least';
import { overload } from './overload';
import { relaxationBound } from './relax';
import type { Due, Model } from '../model/model';
import type { Bounds, Known } from './propagate';
import type { Minute } from '../model/units';

/**
 * Every unit ends no sooner than its critical path over calendars and clocks, and somebody later where the hours are too few (`overload`);
 * set-ups and runs are what no plan goes below (`least`).
 */
export function lowerBound(known: Known): number {
  const { model, bounds } = known;
  const { weights } = model;
  let total = 0;
  let late = 0;
  for (const due of model.dues) {
    const end = bounds.endLow[due.ready]!;
    total += unitCost(model, due, end);
    late += due.weight * Math.max(0, end - due.due);
  }
  if (weights.tardiness > 0) total += weights.tardiness * Math.max(0, overload(model, bounds) - late);
  total += weights.setup * leastSetups(known) + weights.runs * leastRuns(known);
  let last = 0;
  for (const end of bounds.endLow) if (end > last) last = end;
  return total + weights.makespan * (weights.makespan > 0 ? Math.max(last, machineBound(model, bounds)) : 0);
}

/**
 * The last end that each resource of one place forces by itself: its operations with their earliest starts and what must
 * follow each, pre-empted at will (Jackson's preemptive schedule; Carlier 1982).
 */
function machineBound(model: Model, bounds: Bounds): number {
  const tail = new Float64Array(model.count);
  const byEnd = [...tail.keys()].sort(
    (a, b) => bounds.endLow[b]! - bounds.endLow[a]! || bounds.startLow[b]! - bounds.startLow[a]!,
  );
  for (let isMoving = true; isMoving;) {
    isMoving = false;
    for (const i of byEnd)
      for (const lag of model.lagsOut[i]!) {
        const t = (lag.clock === null ? lag.min : 0) + model.minutes[lag.to]! + tail[lag.to]!;
        if (t <= tail[i]!) continue;
        tail[i] = t;
        isMoving = true;
      }
  }
  let last = 0;
  model.capacity.forEach((capacity, r) => {
    const list = [...tail.keys()].filter((i) =>
      model.uses[i]!.some((u) => u.resource === r && 2 * u.amount > capacity),
    );
    if (list.length > 1) last = Math.max(last, preemptive(model, bounds, tail, list));
  });
  return last;
}

function preemptive(model: Model, bounds: Bounds, tail: Float64Array, list: number[]): number {
  const left = new Map(list.map((i) => [i, model.minutes[i]!]));
  list.sort((a, b) => bounds.startLow[a]! - bounds.startLow[b]!);
  let last = 0;
  let t = 0;
  let next = 0;
  const ready: number[] = [];
  while (next < list.length || ready.length > 0) {
    if (ready.length === 0) t = Math.max(t, bounds.startLow[list[next]!]!);
    while (next < list.length && bounds.startLow[list[next]!]! <= t) ready.push(list[next++]!);
    let k = 0;
    for (let j = 1; j < ready.length; j++) if (tail[ready[j]!]! > tail[ready[k]!]!) k = j;
    const i = ready[k]!;
    const until = next < list.length ? bounds.startLow[list[next]!]! : Infinity;
    const work = Math.min(left.get(i)!, until - t);
    t += work;
    left.set(i, left.get(i)! - work);
    if (left.get(i)! > 0) continue;
    last = Math.max(last, t + tail[i]!);
    ready.splice(k, 1);
  }
  return last;
}

/**
 * The bound with the units' part raised to what racks, hands and tools force. Costs up to a second on the largest problems.
 * @param target the cost of a plan at hand
 */
export function raisedBound(known: Known, target: number): number {
  const { model, bounds, order } = known;
  const plain = lowerBound(known);
  const units = model.dues.reduce((sum, due) => sum + unitCost(model, due, bounds.endLow[due.ready]!), 0);
  const raised = relaxationBound(model, bounds, order, target - (plain - units));
  return plain + Math.max(0, raised - units);
}

function unitCost(model: Model, due: Due, end: Minute): number {
  const { weights } = model;
  return due.weight * (weights.tardiness * Math.max(0, end - due.due) + weights.completion * end);
}
