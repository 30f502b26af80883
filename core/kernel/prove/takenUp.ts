/**
 * How often the work of one family on one resource has to be taken up: apart lie what must be begun in different sessions, and what has work
 * of another family, or longer drying than a session has minutes, between.
 */
import type { DryingClock } from '../model/dryingClock';
import type { Model } from '../model/model';
import { intervalAfter, longestInterval, type OpenHours } from '../model/openHours';
import type { OperationIndex, ResourceIndex } from '../model/units';
import type { Known } from './propagate';

/** A family's work on a resource that is not fixed. */
export interface Work {
  readonly resource: ResourceIndex;
  readonly operations: readonly OperationIndex[];
  /** begun anew in every open interval of these; null: never for that */
  readonly open: OpenHours | null;
}

/**
 * As late as may be: all that can be begun by the latest start of what is most pressing is taken up together, then of what is left. No other
 * way has done more after as many times (stabbing of intervals, with an order among them).
 */
export function timesTakenUp(known: Known, { resource, operations, open }: Work): number {
  const { model, bounds } = known;
  const interval = (t: number): number => (open === null ? 0 : intervalAfter(open, t));
  const session = open === null ? Infinity : longestInterval(open);
  const fits = (i: OperationIndex, since: number): boolean =>
    since <= 0 || (since < Infinity && since + (model.pausable[i] ? 1 : model.minutes[i]!) <= session);
  let left = new Map(
    operations.map((i) => [
      i,
      { first: interval(bounds.startLow[i]!), last: interval(bounds.startHigh[i]!) },
    ]),
  );
  let times = 0;
  while (left.size > 0 && times < operations.length) {
    times++;
    const since = left.size > 1 ? minutesSince(known, resource, left) : null;
    const by = [...left.values()].reduce((soonest, { last }) => Math.min(soonest, last), Infinity);
    left = new Map(
      [...left].filter(([i, { first }]) => first > by || (since !== null && !fits(i, since[i]!))),
    );
  }
  return times;
}

/**
 * Fewest minutes from the start of any of these to each operation that follows on it: Infinity where work of another family on the
 * resource lies between, -Infinity where it follows on none.
 */
function minutesSince(
  { model, order }: Known,
  resource: ResourceIndex,
  begun: ReadonlyMap<OperationIndex, unknown>,
): Float64Array {
  const family = model.family[[...begun.keys()][0]!]!;
  const since = new Float64Array(model.count).fill(-Infinity);
  for (const i of order) {
    let minutes = begun.has(i) ? 0 : -Infinity;
    for (const lag of model.lagsIn[i]!) {
      const { from } = lag;
      if (since[from]! >= 0) minutes = Math.max(minutes, since[from]! + stay(model, from) + leastWait(lag));
    }
    const isBetween = minutes >= 0 && model.family[i] !== family && isOn(model, i, resource);
    since[i] = isBetween ? Infinity : minutes;
  }
  return since;
}

function isOn(model: Model, i: OperationIndex, resource: ResourceIndex): boolean {
  return model.uses[i]!.some((u) => u.resource === resource);
}

function stay(model: Model, i: OperationIndex): number {
  return model.isFixed[i] ? model.fixedEnd[i]! - model.fixedStart[i]! : model.minutes[i]!;
}

/** Minutes that a lag lasts where its clock goes fastest. */
function leastWait({ min, clock }: { readonly min: number; readonly clock: DryingClock | null }): number {
  // What is less than a minute is forgone: clocks are read with a tolerance.
  return clock === null ? min : Math.max(0, Math.floor(min / fastest(clock)) - 1);
}

const FASTEST = new WeakMap<DryingClock, number>();

/** Most ticks in a minute. */
function fastest(clock: DryingClock): number {
  let most = FASTEST.get(clock);
  if (most === undefined) {
    most = 1e-9;
    for (let t = 1; t < clock.length; t++) most = Math.max(most, clock[t]! - clock[t - 1]!);
    FASTEST.set(clock, most);
  }
  return most;
}
