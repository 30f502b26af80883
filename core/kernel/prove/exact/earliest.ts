/** The earliest times that go with a node's decisions: all are of the form "no sooner than a rising function of other times". */
import { earliestAfter, earliestBefore } from '../../model/dryingClock';
import type { Model } from '../../model/model';
import { intervalAfter, NEVER, nextFit, nextOpen, pausableEnd } from '../../model/openHours';
import { startFor } from '../../model/startFor';
import type { Minute, OperationIndex, ResourceIndex } from '../../model/units';
import type { Arc, Ground, Node } from './node';

/** Brings a node to its earliest times. @returns null when a bound is passed */
export function atItsEarliest({ model, bounds, order }: Ground, draft: Node): Node | null {
  const { count } = model;
  const start = draft.start.slice();
  const end = draft.end.slice();
  const into: (Arc[] | undefined)[] = new Array<Arc[] | undefined>(count);
  for (let a = draft.arcs; a !== null; a = a.next) (into[a.to] ??= []).push(a);
  for (let isMoving = true; isMoving;) {
    isMoving = false;
    for (let k = 0; k < count; k++) {
      const i = order[k]!;
      let low = start[i]!;
      let endLow = end[i]!;
      for (const lag of model.lagsIn[i]!)
        low = Math.max(low, earliestAfter(lag.clock, end[lag.from]!, lag.min));
      for (const lag of model.lagsOut[i]!)
        if (lag.max !== Infinity)
          endLow = Math.max(endLow, earliestBefore(lag.clock, start[lag.to]!, lag.max));
      for (const a of into[i] ?? []) {
        const value = soonestBy(model, a, a.fromEnd ? end[a.from]! : start[a.from]!);
        if (a.toEnd) endLow = Math.max(endLow, value);
        else low = Math.max(low, value);
      }
      if (model.isFixed[i]) {
        if (low > start[i]! || endLow > end[i]!) return null;
        continue;
      }
      const fit = earliestFit(model, i, low, endLow, draft.setup[i]!);
      if (fit === null || fit.start > bounds.startHigh[i]! || fit.end > bounds.endHigh[i]!) return null;
      if (fit.start === start[i] && fit.end === end[i]) continue;
      start[i] = fit.start;
      end[i] = fit.end;
      isMoving = true;
    }
  }
  return { ...draft, start, end };
}

function soonestBy(model: Model, a: Arc, point: Minute): Minute {
  if (a.isWindow) return Math.ceil(earliestBefore(a.clock, point, a.gap) - 1e-9);
  return a.session >= 0 ? openingBefore(model, a.session, point) : point + a.gap;
}

function earliestFit(
  model: Model,
  i: OperationIndex,
  low: Minute,
  endLow: Minute,
  setup: number,
): { start: Minute; end: Minute } | null {
  const minutes = model.minutes[i]!;
  const open = model.open[i]!;
  let t = Math.max(low, startFor(model, i, endLow));
  if (minutes === 0) return { start: Math.max(t, endLow), end: Math.max(t, endLow) };
  for (;;) {
    const start = model.pausable[i] ? nextOpen(open, t, setup) : nextFit(open, t, setup, minutes);
    if (start >= NEVER) return null;
    const end = model.pausable[i] ? pausableEnd(open, start, minutes) : start + minutes;
    if (end >= endLow) return { start, end };
    t = start + 1;
  }
}

/** When the session opened in which a minute lies; later than the minute: the next session. */
export function openingBefore(model: Model, r: ResourceIndex, t: Minute): Minute {
  const open = model.openOn[r]!;
  return open === null ? 0 : (open.from[intervalAfter(open, t)] ?? NEVER);
}
