/** How soon and how late each of a session could begin if all kept their order. */
import { startFor } from '../model/startFor';
import { earliestAfter, latestAfter, latestBefore } from '../model/dryingClock';
import { intervalAfter } from '../model/openHours';
import { UNPLACED, type Schedule } from './schedule';
import { canShift, rowOf, type Sitting } from './sitting';

/** How soon each could begin, one after the other. */
export function packSooner(sitting: Sitting): void {
  const { schedule, places, times, standing, soonest } = sitting;
  const { start, end } = schedule;
  const { list, first, last, opens } = sitting.session;
  times.fill(opens);
  standing.fill(opens);
  for (let p = 0; p <= last; p++) {
    if (p >= first) {
      sitting.freeWhenPacked.set(times, rowOf(sitting, p));
      sitting.freeAsItStands.set(standing, rowOf(sitting, p));
    }
    if (p === last) return;
    const j = list[p]!;
    const s = canShift(sitting, p) ? soonestStart(sitting, p) : start[j]!;
    soonest[p] = s;
    places.takeUntil(times, j, s + end[j]! - start[j]!);
    places.takeUntil(standing, j, end[j]!);
  }
}

function soonestStart({ schedule, places, session, at, times, soonest }: Sitting, p: number): number {
  const { model, start, end, setup } = schedule;
  const j = session.list[p]!;
  const now = start[j]!;
  const open = model.open[j]!;
  let low = Math.max(
    schedule.bounds.startLow[j]!,
    open === null ? 0 : open.from[intervalAfter(open, now)]!,
    places.freeFor(times, 0, j) + setup[j]!,
  );
  if (low < now) low = Math.max(low, startFor(model, j, schedule.endLow(j)));
  if (low < now)
    for (const lag of model.lagsIn[j]!) {
      const f = lag.from;
      if (start[f] === UNPLACED) continue;
      const ended = at[f]! >= 0 && at[f]! < p ? soonest[at[f]!]! + end[f]! - start[f]! : end[f]!;
      low = Math.max(low, earliestAfter(lag.clock, ended, lag.min));
    }
  return Math.min(low, now);
}

/**
 * How late each from the k-th on could begin, the last first. By start that is quick for every k at once; where several work side by
 * side it is exact only by end, for one k.
 */
export function packLater(sitting: Sitting, k: number, byEnd: readonly number[] | null): void {
  const { schedule, places, times, latest, neededAgain } = sitting;
  const { start, setup } = schedule;
  const { list, last, closes } = sitting.session;
  times.fill(closes);
  // What a long set-up puts before its predecessor in the list is not to be reckoned on: it stays.
  for (let p = k; p < list.length; p++) latest[p] = start[list[p]!]!;
  for (let r = list.length; r > k; r--) {
    if (byEnd === null && r <= last) neededAgain.set(times, rowOf(sitting, r));
    const p = byEnd === null ? r - 1 : byEnd[r - 1 - k]!;
    const j = list[p]!;
    if (canShift(sitting, p)) latest[p] = latestStart(sitting, p, k);
    places.takeFrom(times, j, latest[p]! - setup[j]!);
  }
  neededAgain.set(times, rowOf(sitting, k));
}

function latestStart(
  { schedule, places, session, at, times, latest }: Sitting,
  p: number,
  k: number,
): number {
  const { model, start, end } = schedule;
  const j = session.list[p]!;
  const duration = end[j]! - start[j]!;
  const now = end[j]!;
  const open = model.open[j]!;
  let high = Math.min(
    schedule.bounds.endHigh[j]!,
    session.closes,
    open === null ? Infinity : open.to[intervalAfter(open, start[j]!)]!,
    places.neededAfter(times, 0, j),
  );
  if (high > now)
    for (const lag of model.lagsOut[j]!) {
      const f = lag.to;
      if (start[f] === UNPLACED) continue;
      const starts =
        at[f]! >= k ? latest[at[f]!]! : isLastMilestone(schedule, f) ? session.within.endHigh[f]! : start[f]!;
      high = Math.min(high, latestBefore(lag.clock, starts, lag.min));
    }
  if (high > now)
    for (const lag of model.lagsIn[j]!)
      if (lag.max !== Infinity && start[lag.from] !== UNPLACED)
        high = Math.min(high, duration + latestAfter(lag.clock, end[lag.from]!, lag.max));
  return Math.max(high, now) - duration;
}

/** A milestone that nothing follows: it goes along with what leads to it. */
export function isLastMilestone({ model }: Schedule, m: number): boolean {
  return (
    model.minutes[m] === 0 &&
    model.isFixed[m] === 0 &&
    model.open[m] === null &&
    model.lagsOut[m]!.length === 0 &&
    model.holdsOf[m]!.length === 0
  );
}
