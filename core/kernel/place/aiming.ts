/** Where those before and behind an opening must begin to make room. */
import { earliestAfter, latestBefore } from '../model/dryingClock';
import { change } from '../model/model';
import type { Minute } from '../model/units';
import type { Schedule } from './schedule';
import type { Session, Sitting } from './sitting';

/** A place before the k-th of the list. */
export interface Opening {
  readonly k: number;
  /** where the operation would begin */
  readonly start: Minute;
  /** places in the list from the k-th on, in the order in which they end */
  readonly behind: readonly number[];
}

/** The set-up of the operation before the k-th, and by how much that of the next on its tool grows (minutes). */
export function setupsAt({ schedule, session }: Sitting, k: number): { own: number; next: number } {
  const { wanted, list } = session;
  const { model, setup } = schedule;
  const resource = model.tool[wanted]!;
  if (resource < 0) return { own: 0, next: 0 };
  const tool = model.tools[resource]!;
  const family = model.family[wanted]!;
  let before = k - 1;
  while (before >= 0 && model.tool[list[before]!] !== resource) before--;
  const after = nextOnTool(schedule, session, k);
  return {
    own: change(tool, before < 0 ? 0 : model.family[list[before]!]!, family),
    next:
      after < 0 ? 0 : Math.max(0, change(tool, family, model.family[list[after]!]!) - setup[list[after]!]!),
  };
}

function nextOnTool({ model }: Schedule, { wanted, list }: Session, k: number): number {
  for (let p = k; p < list.length; p++) if (model.tool[list[p]!] === model.tool[wanted]) return p;
  return -1;
}

/** Where those before the opening must begin. */
export function aimSooner(sitting: Sitting, { k, start: from }: Opening): void {
  const { schedule, places, at, times, soonest, target } = sitting;
  const { model, start, end, setup } = schedule;
  const { wanted, list, first, closes } = sitting.session;
  times.fill(closes);
  places.takeFrom(times, wanted, from - setupsAt(sitting, k).own);
  for (let p = k - 1; p >= first; p--) {
    const j = list[p]!;
    let by = Math.min(end[j]!, places.neededAfter(times, 0, j));
    for (const lag of model.lagsOut[j]!) {
      const q = at[lag.to]!;
      if (q > p && q < k) by = Math.min(by, latestBefore(lag.clock, target[q]!, lag.min));
    }
    target[p] = by - end[j]! + start[j]!;
    if (target[p]! < soonest[p]!) {
      // Side by side the places may be taken in another order: as packed they fit.
      for (let q = first; q < k; q++) target[q] = soonest[q]!;
      return;
    }
    places.takeFrom(times, j, target[p]! - setup[j]!);
  }
}

/** Where those behind it must begin, those before it standing where they are now. */
export function aimLater(sitting: Sitting, { k, start: from }: Opening): void {
  const { schedule, places, at, times, latest, target } = sitting;
  const { model, start, end, setup } = schedule;
  const { wanted, list, last, opens } = sitting.session;
  const after = model.tool[wanted]! < 0 ? -1 : nextOnTool(schedule, sitting.session, k);
  const grown = setupsAt(sitting, k).next;
  times.fill(opens);
  for (let p = 0; p < k; p++) places.takeUntil(times, list[p]!, end[list[p]!]!);
  places.takeUntil(times, wanted, from + model.minutes[wanted]!);
  for (let p = k; p < last; p++) {
    const j = list[p]!;
    let low = Math.max(start[j]!, places.freeFor(times, 0, j) + setup[j]! + (p === after ? grown : 0));
    for (const lag of model.lagsIn[j]!) {
      const q = at[lag.from]!;
      if (q < k || q >= p) continue;
      const ended = target[q]! + end[lag.from]! - start[lag.from]!;
      low = Math.max(low, earliestAfter(lag.clock, ended, lag.min));
    }
    target[p] = low;
    if (low > latest[p]!) {
      for (let q = k; q < last; q++) target[q] = latest[q]!;
      return;
    }
    places.takeUntil(times, j, low + end[j]! - start[j]!);
  }
}
