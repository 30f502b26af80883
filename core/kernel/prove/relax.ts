/**
 * A lower bound from what racks, hands and tools can take (Lagrangian relaxation; Fisher 1981). Every unit chooses, by itself, the
 * stretch of time in which its longest hold ends. The choice says what it costs at least, how long at least it must have lain on the
 * rack by then, and how much work must have been done by then. That all units together ask for no more than there is, is priced
 * instead of demanded: any prices give a valid bound, and a subgradient search looks for good ones.
 */
import { earliestAfter, latestBefore } from '../model/dryingClock';
import type { Hold, Model } from '../model/model';
import {
  NEVER,
  nextFit,
  nextOpen,
  pausableEnd,
  pausableStart,
  previousFit,
  type OpenHours,
} from '../model/openHours';
import type { Bounds } from './propagate';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

interface Stay {
  readonly resource: ResourceIndex;
  readonly amount: number;
  /** for each stretch the latest beginning of the hold that ends in it */
  readonly from: Float64Array;
  /** … and the stretch in which that is */
  readonly fromStretch: Int32Array;
}

interface Choice {
  /** cost in each stretch; Infinity where the hold cannot end in it */
  readonly cost: Float64Array;
  readonly stay: Stay | null;
  /** minutes of work before the hold's end, by resource */
  readonly work: readonly (readonly [resource: ResourceIndex, minutes: number])[];
}

const ROUNDS = 250;
/** Stretches of time at most; and how many there are when nothing is ever closed. */
const MOST = 400;
const PLAIN = 80;

/**
 * @param target a cost that some plan reaches: how far the search may hope to get
 * @returns a bound on the tardiness and completion parts of the cost, factors included
 */
export function relaxationBound(model: Model, bounds: Bounds, order: Int32Array, target: number): number {
  const unitOf = unitsOf(model, order);
  const edges = stretches(model, bounds);
  const choices = model.dues.map((_, u) => choiceOf(model, bounds, order, unitOf, edges, u));
  if (choices.length === 0) return 0;
  const many = edges.length - 1;
  const resources = model.capacity.length;
  // What there is: places x minutes in each stretch; minutes of work by the end of each stretch.
  const places: Float64Array[] = [];
  const supply: Float64Array[] = [];
  for (let r = 0; r < resources; r++) {
    places.push(
      Float64Array.from({ length: many }, (_, k) => model.capacity[r]! * (edges[k + 1]! - edges[k]!)),
    );
    const open = openOf(model, r);
    supply.push(
      Float64Array.from({ length: many }, (_, k) => model.capacity[r]! * openUpTo(open, edges[k + 1]!)),
    );
  }
  const isHeld = new Set(choices.flatMap((c) => (c.stay ? [c.stay.resource] : [])));
  const isWorked = new Set(choices.flatMap((c) => c.work.map(([r]) => r)));
  const rent = places.map(() => new Float64Array(many));
  const wage = supply.map(() => new Float64Array(many));
  let best = -Infinity;
  let step = 1.5;
  let stale = 0;
  for (let round = 0; round < ROUNDS && step > 0.01; round++) {
    const rentUpTo = rent.map((list) => prefix(list, edges));
    const wageFrom = wage.map(suffix);
    const asked = places.map(() => new Float64Array(many));
    const done = supply.map(() => new Float64Array(many));
    let total = 0;
    for (const choice of choices) {
      let chosen = -1;
      let least = Infinity;
      for (let k = 0; k < many; k++) {
        let f = choice.cost[k]!;
        if (f >= least) continue;
        if (choice.stay !== null)
          f +=
            choice.stay.amount *
            spanPrice(rentUpTo[choice.stay.resource]!, rent[choice.stay.resource]!, edges, choice.stay, k);
        for (const [r, minutes] of choice.work) f += minutes * wageFrom[r]![k]!;
        if (f < least) {
          least = f;
          chosen = k;
        }
      }
      if (chosen < 0) return -Infinity;
      total += least;
      if (choice.stay !== null) askFor(asked[choice.stay.resource]!, edges, choice.stay, chosen);
      for (const [r, minutes] of choice.work) done[r]![chosen]! += minutes;
    }
    for (const r of isHeld) for (let k = 0; k < many; k++) total -= rent[r]![k]! * places[r]![k]!;
    for (const r of isWorked) for (let k = 0; k < many; k++) total -= wage[r]![k]! * supply[r]![k]!;
    if (total > best + 1e-9) {
      best = total;
      stale = 0;
    } else if (++stale >= 8) {
      stale = 0;
      step *= 0.6;
    }
    // Prices rise where more is asked for than there is.
    let norm = 0;
    const slopes: { price: Float64Array; slope: Float64Array }[] = [];
    const collect = (price: Float64Array, slope: Float64Array): void => {
      for (let k = 0; k < many; k++) {
        if (slope[k]! < 0 && price[k] === 0) slope[k] = 0;
        norm += slope[k]! * slope[k]!;
      }
      slopes.push({ price, slope });
    };
    for (const r of isHeld)
      collect(
        rent[r]!,
        asked[r]!.map((a, k) => a - places[r]![k]!),
      );
    for (const r of isWorked) {
      let sum = 0;
      collect(
        wage[r]!,
        done[r]!.map((d, k) => (sum += d) - supply[r]![k]!),
      );
    }
    if (norm === 0) break;
    const stride = (step * Math.max(target - total, 1e-6 * Math.abs(target))) / norm;
    for (const { price, slope } of slopes)
      for (let k = 0; k < many; k++) price[k] = Math.max(0, price[k]! + stride * slope[k]!);
  }
  return best;
}

/** Cuts the horizon at the openings and closings of the calendar that most operations know. */
function stretches(model: Model, bounds: Bounds): Float64Array {
  const last = model.horizon;
  const open = model.open.find((o) => o !== null);
  const cuts = new Set<number>([0, last]);
  if (open)
    open.from.forEach((from, k) => {
      if (from < last) cuts.add(from);
      if (open.to[k]! < last) cuts.add(open.to[k]!);
    });
  if (cuts.size < 6) {
    const end = Math.min(last, 3 * Math.max(1, ...bounds.endLow));
    for (let k = 1; k < PLAIN; k++) cuts.add(Math.round((end * k) / PLAIN));
  }
  const sorted = [...cuts].sort((a, b) => a - b);
  const thin = Math.ceil(sorted.length / MOST);
  return Float64Array.from(sorted.filter((_, k) => k % thin === 0 || k === sorted.length - 1));
}

function choiceOf(
  model: Model,
  bounds: Bounds,
  order: Int32Array,
  unitOf: Int32Array,
  edges: Float64Array,
  u: number,
): Choice {
  const due = model.dues[u]!;
  const hold = model.holds
    .filter((h) => unitOf[h.to] === u && unitOf[h.from] === u && !model.isFixed[h.to] && h.from !== h.to)
    .sort((a, b) => weightOf(b) - weightOf(a))[0];
  const anchor = hold?.to ?? due.ready;
  const stay = hold ? ancestors(model, order, hold.from, hold.to) : null;
  const tail = ancestors(model, order, anchor, due.ready) ?? [due.ready];
  const many = edges.length - 1;
  const cost = new Float64Array(many).fill(Infinity);
  const from = new Float64Array(many).fill(Infinity);
  for (let k = 0; k < many; k++) {
    const low = Math.max(edges[k]!, bounds.startLow[anchor]!);
    const high = Math.min(edges[k + 1]! - 1 + (k === many - 1 ? 1 : 0), bounds.startHigh[anchor]!);
    const first = earliestStart(model, anchor, low);
    if (first > high) continue;
    const ready = Math.max(forward(model, tail, anchor, first), bounds.endLow[due.ready]!);
    cost[k] =
      due.weight *
      (model.weights.completion * ready + model.weights.tardiness * Math.max(0, ready - due.due));
    from[k] = stay === null ? Infinity : backward(model, stay, high);
  }
  const work = new Map<number, number>();
  for (const i of allBefore(model, anchor))
    if (unitOf[i] === u && !model.isFixed[i])
      for (const use of model.uses[i]!)
        work.set(use.resource, (work.get(use.resource) ?? 0) + use.amount * model.minutes[i]!);
  return {
    cost,
    stay:
      hold && stay
        ? {
            resource: hold.resource,
            amount: hold.amount,
            from,
            fromStretch: Int32Array.from(from, (t) => stretchAt(edges, t)),
          }
        : null,
    work: [...work],
  };

  function weightOf(h: Hold): number {
    return (h.amount / model.capacity[h.resource]!) * (bounds.startLow[h.to]! - bounds.endLow[h.from]!);
  }
}

/** Operations on the ways from one to another in topological order, both included; null when there is no way. */
function ancestors(
  model: Model,
  order: Int32Array,
  from: OperationIndex,
  to: OperationIndex,
): number[] | null {
  const back = allBefore(model, to).add(to);
  if (!back.has(from)) return null;
  const ahead = new Set([from]);
  const list = [from];
  for (const i of list)
    for (const lag of model.lagsOut[i]!)
      if (back.has(lag.to) && !ahead.has(lag.to)) {
        ahead.add(lag.to);
        list.push(lag.to);
      }
  // Within one unit the index rises along the ways in nearly all documents; the order is asked only when it does not.
  list.sort((a, b) => a - b);
  const isSorted = list.every((i) => model.lagsOut[i]!.every((l) => !ahead.has(l.to) || l.to > i));
  if (isSorted) return list;
  const rank = new Map<number, number>();
  order.forEach((i, k) => {
    if (ahead.has(i)) rank.set(i, k);
  });
  return list.sort((a, b) => rank.get(a)! - rank.get(b)!);
}

function allBefore(model: Model, i: OperationIndex): Set<number> {
  const seen = new Set<number>();
  const todo = [i];
  while (todo.length > 0)
    for (const lag of model.lagsIn[todo.pop()!]!)
      if (!seen.has(lag.from)) {
        seen.add(lag.from);
        todo.push(lag.from);
      }
  return seen;
}

/** Latest end of the first operation when the last starts no later than `high`. */
function backward(model: Model, ways: readonly number[], high: Minute): number {
  const to = ways[ways.length - 1]!;
  const start = new Map<number, number>([[to, high]]);
  let end = high;
  for (let k = ways.length - 2; k >= 0; k--) {
    const i = ways[k]!;
    end = Infinity;
    for (const lag of model.lagsOut[i]!) {
      const s = start.get(lag.to);
      if (s !== undefined) end = Math.min(end, s < 0 ? -1 : latestBefore(lag.clock, s, lag.min));
    }
    start.set(i, end < 0 ? -1 : latestStart(model, i, end));
  }
  return end;
}

/** Earliest end of the last operation when the first starts at `start`. */
function forward(model: Model, ways: readonly number[], first: number, start: Minute): number {
  const end = new Map<number, number>();
  let last = start;
  for (const i of ways) {
    let t = i === first ? start : 0;
    if (i !== first)
      for (const lag of model.lagsIn[i]!) {
        const e = end.get(lag.from);
        if (e !== undefined) t = Math.max(t, earliestAfter(lag.clock, Math.min(e, model.horizon), lag.min));
      }
    const begin = earliestStart(model, i, t);
    last = begin >= NEVER ? model.horizon : endFrom(model, i, begin);
    end.set(i, last);
  }
  return last;
}

function latestStart(model: Model, i: OperationIndex, end: Minute): number {
  const minutes = model.minutes[i]!;
  if (minutes === 0) return end;
  return model.pausable[i]
    ? pausableStart(model.open[i]!, end, minutes)
    : previousFit(model.open[i]!, end, minutes);
}

function earliestStart(model: Model, i: OperationIndex, t: Minute): number {
  const minutes = model.minutes[i]!;
  if (minutes === 0) return t;
  return model.pausable[i] ? nextOpen(model.open[i]!, t, 0) : nextFit(model.open[i]!, t, 0, minutes);
}

function endFrom(model: Model, i: OperationIndex, start: Minute): number {
  return model.pausable[i]
    ? pausableEnd(model.open[i]!, start, model.minutes[i]!)
    : start + model.minutes[i]!;
}

/** Hours in which work on the resource can be done: those of an operation that uses it and the fewest others. */
function openOf(model: Model, r: ResourceIndex): OpenHours | null {
  const calendar = model.problem.resources?.[r]?.calendar;
  if (calendar === undefined) return null;
  for (let i = 0; i < model.count; i++)
    if (
      model.uses[i]!.length > 0 &&
      model.uses[i]!.every((u) => model.problem.resources![u.resource]!.calendar === calendar)
    )
      if (model.uses[i]!.some((u) => u.resource === r)) return model.open[i]!;
  return null;
}

function openUpTo(open: OpenHours | null, t: Minute): number {
  if (open === null) return t;
  let sum = 0;
  for (let k = 0; k < open.from.length && open.from[k]! < t; k++)
    sum += Math.min(open.to[k]!, t) - open.from[k]!;
  return sum;
}

/** The unit that alone an operation serves; -1 for several, -2 for none. */
function unitsOf(model: Model, order: Int32Array): Int32Array {
  const unit = new Int32Array(model.count).fill(-2);
  for (const d of model.dues) unit[d.ready] = unit[d.ready] === -2 ? d.unit : -1;
  for (let k = order.length - 1; k >= 0; k--) {
    const i = order[k]!;
    for (const lag of model.lagsOut[i]!) {
      const other = unit[lag.to]!;
      if (other !== -2) unit[i] = unit[i] === -2 || unit[i] === other ? other : -1;
    }
  }
  return unit;
}

function prefix(price: Float64Array, edges: Float64Array): Float64Array {
  const up = new Float64Array(edges.length);
  for (let k = 0; k < price.length; k++) up[k + 1] = up[k]! + price[k]! * (edges[k + 1]! - edges[k]!);
  return up;
}

function suffix(price: Float64Array): Float64Array {
  const sum = new Float64Array(price.length + 1);
  for (let k = price.length - 1; k >= 0; k--) sum[k] = sum[k + 1]! + price[k]!;
  return sum;
}

/** Rent from the beginning of the hold that ends in stretch `k` to the beginning of that stretch. */
function spanPrice(
  up: Float64Array,
  price: Float64Array,
  edges: Float64Array,
  stay: Stay,
  k: number,
): number {
  const from = stay.from[k]!;
  if (from >= edges[k]!) return 0;
  const j = stay.fromStretch[k]!;
  return up[k]! - up[j]! - price[j]! * (from - edges[j]!);
}

function askFor(asked: Float64Array, edges: Float64Array, stay: Stay, k: number): void {
  const from = Math.max(0, stay.from[k]!);
  for (let j = k - 1; j >= 0 && edges[j + 1]! > from; j--)
    asked[j]! += stay.amount * (edges[j + 1]! - Math.max(from, edges[j]!));
}

function stretchAt(edges: Float64Array, t: Minute): number {
  let low = 0;
  let high = edges.length - 2;
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (edges[mid]! <= t) low = mid;
    else high = mid - 1;
  }
  return low;
}
