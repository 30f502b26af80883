/**
 * How far a hold reaches at the least: when what ends it could begin if all hands, tools and places were free. A rack that is full
 * then is full whatever comes between, so that an operation need not be placed to find out.
 */
import { earliestAfter } from '../model/dryingClock';
import type { Hold, Model } from '../model/model';
import { intervalAfter, nextFit, pausableEnd } from '../model/openHours';
import type { Minute, OperationIndex } from '../model/units';

/** What lies between an operation and the end of a hold that begins with it or runs over it. */
export interface Stretch {
  readonly index: number;
  readonly hold: Hold;
  /** the operation, and what leads from it to the end of the hold, in an order in which every lag points forward */
  readonly path: Int32Array;
}

export interface Reach {
  /** by operation */
  readonly over: readonly (readonly Stretch[])[];
  /** A minute before which the hold can't end when the operation that the stretch begins with ends at `end`. */
  soonest(stretch: Stretch, end: Minute): number;
}

export function reachOf(model: Model): Reach {
  const over: Stretch[][] = model.ids.map(() => []);
  let count = 0;
  for (const hold of model.holds)
    for (const i of pathBetween(model, hold.from, hold.to))
      if (i !== hold.to) over[i]!.push({ index: count++, hold, path: pathBetween(model, i, hold.to) });
  /** by stretch and by the interval of open hours in which its operation ends; 0: not yet reckoned */
  const known: Int32Array[] = [];
  const ends = new Int32Array(model.count);

  function soonest({ index, path }: Stretch, end: Minute): number {
    const open = model.open[path[0]!]!;
    const k = open === null ? -1 : intervalAfter(open, end - 1);
    if (open === null || k >= open.from.length) return reckon(path, end);
    const row = (known[index] ??= new Int32Array(open.from.length));
    return Math.max(end, (row[k] ||= reckon(path, Math.min(end, open.from[k]! + 1))));
  }

  function reckon(path: Int32Array, end: Minute): number {
    const last = path.length - 1;
    ends[path[0]!] = end;
    for (let at = 1; at < last; at++) {
      const i = path[at]!;
      const minutes = model.minutes[i]!;
      const start = soonestStart(path, i);
      if (start >= model.horizon) return model.horizon;
      ends[i] = model.isFixed[i]
        ? model.fixedEnd[i]!
        : Math.min(
            model.horizon,
            model.pausable[i] ? pausableEnd(model.open[i]!, start, minutes) : start + minutes,
          );
    }
    return Math.min(model.horizon, soonestStart(path, path[last]!));
  }

  function soonestStart(path: Int32Array, i: OperationIndex): number {
    let low = 0;
    for (const lag of model.lagsIn[i]!)
      if (path.includes(lag.from)) low = Math.max(low, earliestAfter(lag.clock, ends[lag.from]!, lag.min));
    const minutes = model.minutes[i]!;
    return minutes === 0 ? low : nextFit(model.open[i]!, low, 0, model.pausable[i] ? 1 : minutes);
  }

  return { over, soonest };
}

/** The operations on all ways from one to another, both included, in an order in which every lag points forward. */
function pathBetween(model: Model, from: OperationIndex, to: OperationIndex): Int32Array {
  const leads = new Map<number, boolean>([[to, true]]);
  const order = [to];
  const visit = (i: OperationIndex): boolean => {
    const before = leads.get(i);
    if (before !== undefined) return before;
    let any = false;
    for (const lag of model.lagsOut[i]!) if (visit(lag.to)) any = true;
    leads.set(i, any);
    if (any) order.push(i);
    return any;
  };
  return visit(from) ? Int32Array.from(order.reverse()) : Int32Array.of(from, to);
}
