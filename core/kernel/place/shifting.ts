/**
 * Reckons how the operations of a session could shift to let one more in: how soon and how late each could begin if all kept their
 * order, where that leaves room, and how far each must go. Times and places only: what racks and set-ups say to it shows when it is done.
 */
import { startFor } from '../model/startFor';
import { earliestAfter, latestAfter, latestBefore } from '../model/dryingClock';
import { change } from '../model/model';
import { intervalAfter } from '../model/openHours';
import { placesOf } from './places';
import type { Bounds } from '../prove/propagate';
import { UNPLACED, type Schedule } from './schedule';
import type { Minute } from '../model/units';

/** What wants in, and where. */
export interface Session {
  readonly wanted: number;
  /** minutes at which the session opens and closes */
  readonly opens: Minute;
  readonly closes: Minute;
  readonly within: Bounds;
  /** what takes time in it, by where set-ups begin */
  readonly list: readonly number[];
  /** those at [first, last) of the list may shift */
  readonly first: number;
  readonly last: number;
}

/** A place before the k-th of the list. */
export interface Opening {
  readonly k: number;
  /** where the operation would begin */
  readonly start: Minute;
  /** places in the list from the k-th on, in the order in which they end */
  readonly behind: readonly number[];
}

export interface Shifting {
  /** By place in the list: the soonest and latest start, and the start to aim at (after `aim…`). */
  readonly soonest: readonly number[];
  readonly latest: readonly number[];
  readonly target: readonly number[];
  /** Looks at a session. The schedule must stay as it is until the last `openingAt`. */
  begin(session: Session): void;
  /** A place before the k-th of the list that is free from `notBefore` on if all others shift as far as they go; null if there is none. */
  openingAt(k: number, notBefore: Minute): Opening | null;
  /** Where those before the opening must begin. */
  aimSooner(opening: Opening): void;
  /** Where those behind it must begin, those before it standing where they are now. */
  aimLater(opening: Opening): void;
  end(): void;
}

/** @param mostMoved the most operations that may ever shift at a time */
export function shifting(schedule: Schedule, mostMoved: number): Shifting {
  const { model, start, end, setup } = schedule;
  const places = placesOf(model);
  const soonest: number[] = [];
  const latest: number[] = [];
  const target: number[] = [];
  /** where an operation stands in the list, or -1 */
  const at = new Int32Array(model.count).fill(-1);
  const times = new Int32Array(places.count);
  const standing = new Int32Array(places.count);
  /** before each that may shift: when places become free if all before went sooner, and as they stand; when they are needed again */
  const rows = (mostMoved + 1) * places.count;
  const freeWhenPacked = new Int32Array(rows);
  const freeAsItStands = new Int32Array(rows);
  const neededAgain = new Int32Array(rows);
  let session: Session = {
    wanted: -1,
    opens: 0,
    closes: 0,
    within: schedule.bounds,
    list: [],
    first: 0,
    last: 0,
  };
  let inLine = true;

  function begin(next: Session): void {
    session = next;
    session.list.forEach((j, p) => (at[j] = p));
    inLine = isInLine();
    packSooner();
    packLater(session.first, null);
  }

  /** Does all in the session take the only place of one resource, one after the other? Then order by start and by end are the same. */
  function isInLine(): boolean {
    return model.binding[session.wanted]!.some(
      ({ resource }) =>
        model.capacity[resource] === 1 &&
        session.list.every((j) => model.binding[j]!.some((u) => u.resource === resource)),
    );
  }

  function canShift(p: number): boolean {
    const j = session.list[p]!;
    return p >= session.first && p < session.last && model.isFixed[j] === 0 && end[j]! <= session.closes;
  }

  function rowOf(k: number): number {
    return (k - session.first) * places.count;
  }

  /** How soon each could begin, one after the other. */
  function packSooner(): void {
    const { list, first, last, opens } = session;
    times.fill(opens);
    standing.fill(opens);
    for (let p = 0; p <= last; p++) {
      if (p >= first) {
        freeWhenPacked.set(times, rowOf(p));
        freeAsItStands.set(standing, rowOf(p));
      }
      if (p === last) return;
      const j = list[p]!;
      const s = canShift(p) ? soonestStart(p) : start[j]!;
      soonest[p] = s;
      places.takeUntil(times, j, s + end[j]! - start[j]!);
      places.takeUntil(standing, j, end[j]!);
    }
  }

  function soonestStart(p: number): number {
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
  function packLater(k: number, byEnd: readonly number[] | null): void {
    const { list, last, closes } = session;
    times.fill(closes);
    // What a long set-up puts before its predecessor in the list is not to be reckoned on: it stays.
    for (let p = k; p < list.length; p++) latest[p] = start[list[p]!]!;
    for (let r = list.length; r > k; r--) {
      if (byEnd === null && r <= last) neededAgain.set(times, rowOf(r));
      const p = byEnd === null ? r - 1 : byEnd[r - 1 - k]!;
      const j = list[p]!;
      if (canShift(p)) latest[p] = latestStart(p, k);
      places.takeFrom(times, j, latest[p]! - setup[j]!);
    }
    neededAgain.set(times, rowOf(k));
  }

  function latestStart(p: number, k: number): number {
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
          at[f]! >= k
            ? latest[at[f]!]!
            : isLastMilestone(schedule, f)
              ? session.within.endHigh[f]!
              : start[f]!;
        high = Math.min(high, latestBefore(lag.clock, starts, lag.min));
      }
    if (high > now)
      for (const lag of model.lagsIn[j]!)
        if (lag.max !== Infinity && start[lag.from] !== UNPLACED)
          high = Math.min(high, duration + latestAfter(lag.clock, end[lag.from]!, lag.max));
    return Math.max(high, now) - duration;
  }

  function openingAt(k: number, notBefore: Minute): Opening | null {
    const { wanted, within, closes, list } = session;
    const { own, next } = setupsAt(k);
    const top = Math.min(closes, within.endHigh[wanted]!, schedule.endHigh(wanted));
    const startHigh = Math.min(within.startHigh[wanted]!, schedule.startHigh(wanted));
    const earliest = Math.max(notBefore, places.freeFor(freeWhenPacked, rowOf(k), wanted) + own);
    if (earliest > startHigh || !hasRoom()) return null;
    const behind: number[] = [];
    for (let p = k; p < list.length; p++) behind.push(p);
    if (!inLine) {
      behind.sort((p, q) => end[list[p]!]! - end[list[q]!]! || p - q);
      packLater(k, behind);
      if (!hasRoom()) return null;
    }
    // What stands before it stays if it can.
    const asItStands = places.freeFor(freeAsItStands, rowOf(k), wanted) + own;
    return {
      k,
      start: Math.max(earliest, Math.min(asItStands, latestEnd() - model.minutes[wanted]!, startHigh)),
      behind,
    };

    function latestEnd(): number {
      return Math.min(top, places.neededAfter(neededAgain, rowOf(k), wanted) - next);
    }
    function hasRoom(): boolean {
      return (
        earliest + model.minutes[wanted]! <= latestEnd() &&
        places.fit(freeWhenPacked, neededAgain, rowOf(k), wanted)
      );
    }
  }

  /** The set-up of the operation before the k-th, and by how much that of the next on its tool grows (minutes). */
  function setupsAt(k: number): { own: number; next: number } {
    const { wanted, list } = session;
    const resource = model.tool[wanted]!;
    if (resource < 0) return { own: 0, next: 0 };
    const tool = model.tools[resource]!;
    const family = model.family[wanted]!;
    let before = k - 1;
    while (before >= 0 && model.tool[list[before]!] !== resource) before--;
    const after = nextOnTool(k);
    return {
      own: change(tool, before < 0 ? 0 : model.family[list[before]!]!, family),
      next:
        after < 0 ? 0 : Math.max(0, change(tool, family, model.family[list[after]!]!) - setup[list[after]!]!),
    };
  }

  function nextOnTool(k: number): number {
    const { wanted, list } = session;
    for (let p = k; p < list.length; p++) if (model.tool[list[p]!] === model.tool[wanted]) return p;
    return -1;
  }

  function aimSooner({ k, start: from }: Opening): void {
    const { wanted, list, first, closes } = session;
    times.fill(closes);
    places.takeFrom(times, wanted, from - setupsAt(k).own);
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

  function aimLater({ k, start: from }: Opening): void {
    const { wanted, list, last, opens } = session;
    const after = model.tool[wanted]! < 0 ? -1 : nextOnTool(k);
    const grown = setupsAt(k).next;
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

  return {
    soonest,
    latest,
    target,
    begin,
    openingAt,
    aimSooner,
    aimLater,
    end: () => session.list.forEach((j) => (at[j] = -1)),
  };
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
