/**
 * Earliest and latest times of every operation, from calendars, lags, windows and history alone.
 * Where they cross, no plan exists: that is the proof, and the trail of reasons is its explanation.
 */
import type { Conflict } from '../document/document';
import { earliestAfter, earliestBefore, latestAfter, latestBefore } from '../model/dryingClock';
import type { Lag, Model } from '../model/model';
import { change } from '../model/model';
import { NEVER, nextFit, nextOpen, pausableEnd, pausableStart, previousFit } from '../model/openHours';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

/** Start and end bounds by operation, whole minutes. */
export interface Bounds {
  readonly startLow: Int32Array;
  readonly endLow: Int32Array;
  readonly startHigh: Int32Array;
  readonly endHigh: Int32Array;
}

/** What is known of a problem before it is planned. */
export interface Known {
  readonly model: Model;
  readonly bounds: Bounds;
  /** operations so that every lag points forward */
  readonly order: Int32Array;
}

export type Propagation =
  | { readonly ok: true; readonly bounds: Bounds; readonly order: Int32Array }
  | { readonly ok: false; readonly conflict: Conflict };

/** Operations in an order in which every lag points forward; or the members of a circle. */
export function topologicalOrder(model: Model): { order: Int32Array; circle: number[] } {
  const waiting = new Int32Array(model.count);
  for (const lag of model.lags) waiting[lag.to]!++;
  const order: number[] = [];
  waiting.forEach((n, i) => {
    if (n === 0) order.push(i);
  });
  // Grows while it is walked: each operation joins when the last one before it is in.
  for (const i of order)
    for (const lag of model.lagsOut[i]!) {
      waiting[lag.to]!--;
      if (waiting[lag.to] === 0) order.push(lag.to);
    }
  if (order.length === model.count) return { order: Int32Array.from(order), circle: [] };
  // Walk backwards among the operations that never got free until one comes round again.
  const seen: number[] = [];
  let at = waiting.findIndex((w) => w > 0);
  while (!seen.includes(at)) {
    seen.push(at);
    at = model.lagsIn[at]!.find((l) => waiting[l.from]! > 0)!.from;
  }
  return { order: new Int32Array(0), circle: seen.slice(seen.indexOf(at)).reverse() };
}

/** Shortest stay of each family on each tool: as the plan may place it, and as history has it. */
function shortestStays(model: Model): { free: Int32Array; past: Int32Array }[] {
  return model.tools.map((tool, resource) => {
    const families = tool?.families ?? 0;
    const free = new Int32Array(families).fill(NEVER);
    const past = new Int32Array(families).fill(NEVER);
    for (let i = 0; tool !== null && i < model.count; i++) {
      if (model.tool[i] !== resource) continue;
      const f = model.family[i]!;
      if (model.isFixed[i]) past[f] = Math.min(past[f]!, model.fixedEnd[i]! - model.fixedStart[i]!);
      else free[f] = Math.min(free[f]!, model.minutes[i]!);
    }
    return { free, past };
  });
}

/** Fewest plain minutes between two operations of one tool that follow a lag, whatever lies between them. */
function cleaningGaps(model: Model): Int32Array {
  const stays = shortestStays(model);
  return Int32Array.from(model.lags, ({ from, to }) => {
    const resource = model.tool[from]!;
    if (resource < 0 || resource !== model.tool[to]! || model.isFixed[to]) return 0;
    const tool = model.tools[resource]!;
    const before = model.family[from]!;
    const after = model.family[to]!;
    const direct = change(tool, before, after);
    if (direct === 0) return 0;
    let least = direct;
    if (Number.isFinite(tool.idle)) least = Math.min(least, Math.max(tool.idle + 1, change(tool, 0, after)));
    const { free, past } = stays[resource]!;
    for (let f = 0; f < tool.families; f++) {
      const prepare = Math.min(change(tool, before, f), change(tool, 0, f));
      const between = Math.min(free[f]! + prepare, past[f]!);
      least = Math.min(least, between + change(tool, f, after));
    }
    return least;
  });
}

/** Runs all bounds to a fixpoint. */
export function propagate(model: Model): Propagation {
  const { count, horizon } = model;
  const sorted = topologicalOrder(model);
  if (sorted.circle.length > 0) {
    const ids = sorted.circle.map((i) => model.ids[i]!);
    return {
      ok: false,
      conflict: {
        kind: 'cycle',
        operations: ids,
      },
    };
  }
  const order = sorted.order;
  const startLow = new Int32Array(count);
  const endLow = new Int32Array(count);
  const startHigh = new Int32Array(count);
  const endHigh = new Int32Array(count);
  /** the lag that gave the bound, or null for the operation's own dates and calendar */
  const lowBy = new Array<Lag | null>(count).fill(null);
  const highBy = new Array<Lag | null>(count).fill(null);
  const gaps = cleaningGaps(model);
  let crossed = -1;

  const setLow = (i: OperationIndex, t: Minute, by: Lag | null): boolean => {
    const open = model.open[i]!;
    const minutes = model.minutes[i]!;
    let start = t;
    let end = t;
    if (minutes > 0) {
      start = model.pausable[i] ? nextOpen(open, t, 0) : nextFit(open, t, 0, minutes);
      end = start >= NEVER ? NEVER : model.pausable[i] ? pausableEnd(open, start, minutes) : start + minutes;
    }
    if (start <= startLow[i]! && end <= endLow[i]!) return false;
    startLow[i] = Math.max(start, startLow[i]!);
    endLow[i] = Math.max(end, endLow[i]!);
    lowBy[i] = by;
    if (startLow[i]! > startHigh[i]! || endLow[i]! > endHigh[i]!) crossed = i;
    return true;
  };
  const setHigh = (i: OperationIndex, t: Minute, by: Lag | null): boolean => {
    const open = model.open[i]!;
    const minutes = model.minutes[i]!;
    let start = t;
    let end = t;
    if (minutes > 0) {
      start = model.pausable[i] ? pausableStart(open, t, minutes) : previousFit(open, t, minutes);
      end = start < 0 ? -1 : model.pausable[i] ? pausableEnd(open, start, minutes) : start + minutes;
    }
    if (start >= startHigh[i]! && end >= endHigh[i]!) return false;
    startHigh[i] = Math.min(start, startHigh[i]!);
    endHigh[i] = Math.min(end, endHigh[i]!);
    highBy[i] = by;
    if (startLow[i]! > startHigh[i]! || endLow[i]! > endHigh[i]!) crossed = i;
    return true;
  };

  startHigh.fill(NEVER);
  endHigh.fill(NEVER);
  startLow.fill(-1);
  endLow.fill(-1);
  for (let i = 0; i < count; i++) {
    if (model.isFixed[i]) {
      startLow[i] = startHigh[i] = model.fixedStart[i]!;
      endLow[i] = endHigh[i] = model.fixedEnd[i]!;
    } else {
      setHigh(i, model.latest[i]!, null);
      setLow(i, model.earliest[i]!, null);
      if (crossed >= 0) return { ok: false, conflict: alone(model, i) };
    }
  }

  const forward = (lag: Lag): boolean => {
    const e = endLow[lag.from]!;
    if (model.isFixed[lag.to]) return false;
    const t = Math.max(earliestAfter(lag.clock, Math.min(e, horizon), lag.min), e + gaps[lag.index]!);
    return t > startLow[lag.to]! && setLow(lag.to, t, lag);
  };
  /** `from` may not end so early that the window has shut before `to` can start. */
  const pullUp = (lag: Lag): boolean => {
    if (lag.max === Infinity || model.isFixed[lag.from]) return false;
    const e = earliestBefore(lag.clock, Math.min(startLow[lag.to]!, horizon), lag.max);
    return e > endLow[lag.from]! && setLow(lag.from, startForEnd(model, lag.from, e), lag);
  };
  const backward = (lag: Lag): boolean => {
    if (model.isFixed[lag.from]) return false;
    const s = startHigh[lag.to]!;
    const e = Math.min(latestBefore(lag.clock, Math.max(0, s), lag.min), s - gaps[lag.index]!);
    return e < endHigh[lag.from]! && setHigh(lag.from, e, lag);
  };
  /** `to` may not start after the window has shut. */
  const pullDown = (lag: Lag): boolean => {
    if (lag.max === Infinity || model.isFixed[lag.to]) return false;
    const s = latestAfter(lag.clock, Math.max(0, Math.min(endHigh[lag.from]!, horizon)), lag.max);
    if (s >= startHigh[lag.to]!) return false;
    return setHigh(lag.to, endForStart(model, lag.to, s), lag);
  };

  // Between a fixed end and a fixed start nothing moves, so their lags are judged once, here.
  let changed = true;
  while (changed && crossed < 0) {
    changed = false;
    for (let k = 0; k < count && crossed < 0; k++)
      for (const lag of model.lagsIn[order[k]!]!) {
        if (forward(lag)) changed = true;
        if (crossed >= 0) break;
      }
    for (let k = count - 1; k >= 0 && crossed < 0; k--)
      for (const lag of model.lagsOut[order[k]!]!) {
        if (backward(lag)) changed = true;
        if (crossed < 0 && pullUp(lag)) changed = true;
        if (crossed < 0 && pullDown(lag)) changed = true;
        if (crossed >= 0) break;
      }
  }
  if (crossed < 0) crossed = fixedCrossing(model, startLow, endLow, startHigh, endHigh, gaps);
  if (crossed >= 0)
    return { ok: false, conflict: explainCrossing(model, crossed, lowBy, highBy, startLow, gaps) };
  return { ok: true, bounds: { startLow, endLow, startHigh, endHigh }, order };
}

/** An operation next to history: the free side was bounded by it, but history itself can't move. */
function fixedCrossing(
  model: Model,
  startLow: Int32Array,
  endLow: Int32Array,
  startHigh: Int32Array,
  endHigh: Int32Array,
  gaps: Int32Array,
): number {
  for (const lag of model.lags) {
    const e = endLow[lag.from]!;
    const s = startHigh[lag.to]!;
    if (Math.max(earliestAfter(lag.clock, e, lag.min), e + gaps[lag.index]!) > s) return lag.to;
    if (lag.max === Infinity) continue;
    if (latestAfter(lag.clock, endHigh[lag.from]!, lag.max) < startLow[lag.to]!) return lag.to;
  }
  return -1;
}

/** Earliest start with which an operation ends at or after `end`. */
function startForEnd(model: Model, i: OperationIndex, end: Minute): number {
  const minutes = model.minutes[i]!;
  if (minutes === 0) return end;
  if (!model.pausable[i]) return end - minutes;
  const start = pausableStart(model.open[i]!, end, minutes);
  return start >= 0 && pausableEnd(model.open[i]!, start, minutes) >= end ? start : start + 1;
}

/** Latest end of an operation that starts by `start`. */
function endForStart(model: Model, i: OperationIndex, start: Minute): number {
  const minutes = model.minutes[i]!;
  if (minutes === 0) return start;
  if (!model.pausable[i]) return start + minutes;
  const open = model.open[i]!;
  if (open === null) return start + minutes;
  let k = open.from.length - 1;
  while (k >= 0 && open.from[k]! > start) k--;
  if (k < 0) return -1;
  return Math.min(pausableEnd(open, Math.min(start, open.to[k]! - 1), minutes), model.horizon);
}

/** One operation that fits nowhere even by itself. */
function alone(model: Model, i: OperationIndex): Conflict {
  const id = model.ids[i]!;
  const minutes = model.minutes[i]!;
  const open = model.open[i];
  let longest = 0;
  if (open)
    for (let k = 0; k < open.from.length; k++) longest = Math.max(longest, open.to[k]! - open.from[k]!);
  if (open && !model.pausable[i] && longest < minutes)
    return { kind: 'calendar', operations: [id], minutes, longest };
  const [earliest, latest] = [model.earliest[i]!, model.latest[i]!];
  return { kind: 'span', operations: [id], minutes, earliest, latest };
}

function explainCrossing(
  model: Model,
  crossed: number,
  lowBy: readonly (Lag | null)[],
  highBy: readonly (Lag | null)[],
  startLow: Int32Array,
  gaps: Int32Array,
): Conflict {
  const trail = (by: readonly (Lag | null)[]): Lag[] => {
    const lags: Lag[] = [];
    let at = crossed;
    for (let lag = by[at]!; lag && !lags.includes(lag); lag = by[at]!) {
      lags.push(lag);
      at = lag.from === at ? lag.to : lag.from;
    }
    return lags;
  };
  const below = trail(lowBy);
  const above = trail(highBy);
  const involved = [...new Set([crossed, ...[...below, ...above].flatMap((l) => [l.from, l.to])])];
  const names = involved.map((i) => model.ids[i]!);
  const windows = [...below, ...above].filter((l) => l.max !== Infinity);
  const cleaning = [...below, ...above].find((l) => gaps[l.index]! > l.min && gaps[l.index]! > l.max);
  if (cleaning)
    return {
      kind: 'setup',
      operations: [model.ids[cleaning.from]!, model.ids[cleaning.to]!],
      closes: cleaning.max,
      needs: gaps[cleaning.index]!,
    };
  if (involved.some((i) => model.isFixed[i])) return { kind: 'history', operations: names };
  const window = windows[0];
  if (window) {
    const [from, to] = [model.ids[window.from]!, model.ids[window.to]!];
    return { kind: 'window', operations: names, from, to, closes: window.max };
  }
  return { kind: 'deadline', operations: names, soonest: Math.min(startLow[crossed]!, model.horizon) };
}

/**
 * Resources that must be taken at a minute whatever the plan: each operation between its latest start and
 * its earliest end, each hold between its latest beginning and its earliest end. More than there is: no plan.
 */
export function overfull(model: Model, bounds: Bounds): Conflict | null {
  const changes: { at: number; resource: ResourceIndex; amount: number; ids: readonly number[] }[] = [];
  const must = (
    from: Minute,
    to: Minute,
    resource: ResourceIndex,
    amount: number,
    ids: readonly number[],
  ): void => {
    if (from >= to) return;
    changes.push({ at: from, resource, amount, ids }, { at: to, resource, amount: -amount, ids });
  };
  for (let i = 0; i < model.count; i++)
    for (const use of model.uses[i]!) {
      if (use.amount > model.capacity[use.resource]!) return tooLarge(model, use.resource, use.amount, [i]);
      must(bounds.startHigh[i]!, bounds.endLow[i]!, use.resource, use.amount, [i]);
    }
  for (const hold of model.holds)
    must(bounds.endHigh[hold.from]!, bounds.startLow[hold.to]!, hold.resource, hold.amount, [
      hold.from,
      hold.to,
    ]);
  changes.sort((a, b) => a.at - b.at || a.amount - b.amount);
  const load = new Int32Array(model.capacity.length);
  const present = model.capacity.length > 0 ? Array.from(load, () => new Set<readonly number[]>()) : [];
  for (const c of changes) {
    load[c.resource]! += c.amount;
    if (c.amount > 0) present[c.resource]!.add(c.ids);
    else present[c.resource]!.delete(c.ids);
    if (load[c.resource]! <= model.capacity[c.resource]!) continue;
    const ids = [...present[c.resource]!].flat();
    return tooLarge(model, c.resource, load[c.resource]!, [...new Set(ids)]);
  }
  return null;
}

function tooLarge(model: Model, resource: ResourceIndex, needs: number, ids: readonly number[]): Conflict {
  return {
    kind: 'capacity',
    operations: ids.map((i) => model.ids[i]!),
    resource: model.resourceIds[resource]!,
    needs,
    has: model.capacity[resource]!,
  };
}
