/**
 * Reckons how the operations of a session could shift to let one more in: how soon and how late each could begin if all kept their
 * order, where that leaves room, and how far each must go. Times and places only: what racks and set-ups say to it shows when it is done.
 */
import type { Minute } from '../model/units';
import { aimLater, aimSooner, setupsAt, type Opening } from './aiming';
import { packLater, packSooner } from './packing';
import type { Schedule } from './schedule';
import { rowOf, sittingOver, type Session, type Sitting } from './sitting';

export { isLastMilestone } from './packing';
export type { Opening } from './aiming';
export type { Session } from './sitting';

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
  const sitting = sittingOver(schedule, mostMoved);
  return {
    soonest: sitting.soonest,
    latest: sitting.latest,
    target: sitting.target,
    begin: (session) => begin(sitting, session),
    openingAt: (k, notBefore) => openingAt(sitting, k, notBefore),
    aimSooner: (opening) => aimSooner(sitting, opening),
    aimLater: (opening) => aimLater(sitting, opening),
    end: () => sitting.session.list.forEach((j) => (sitting.at[j] = -1)),
  };
}

function begin(sitting: Sitting, session: Session): void {
  sitting.session = session;
  session.list.forEach((j, p) => (sitting.at[j] = p));
  sitting.inLine = isInLine(sitting.schedule, session);
  packSooner(sitting);
  packLater(sitting, session.first, null);
}

/** Does all in the session take the only place of one resource, one after the other? Then order by start and by end are the same. */
function isInLine({ model }: Schedule, session: Session): boolean {
  return model.binding[session.wanted]!.some(
    ({ resource }) =>
      model.capacity[resource] === 1 &&
      session.list.every((j) => model.binding[j]!.some((u) => u.resource === resource)),
  );
}

function openingAt(sitting: Sitting, k: number, notBefore: Minute): Opening | null {
  const { schedule, places, freeWhenPacked, freeAsItStands, neededAgain, inLine } = sitting;
  const { model, end } = schedule;
  const { wanted, within, closes, list } = sitting.session;
  const { own, next } = setupsAt(sitting, k);
  const row = rowOf(sitting, k);
  const top = Math.min(closes, within.endHigh[wanted]!, schedule.endHigh(wanted));
  const startHigh = Math.min(within.startHigh[wanted]!, schedule.startHigh(wanted));
  const earliest = Math.max(notBefore, places.freeFor(freeWhenPacked, row, wanted) + own);
  if (earliest > startHigh || !hasRoom()) return null;
  const behind: number[] = [];
  for (let p = k; p < list.length; p++) behind.push(p);
  if (!inLine) {
    behind.sort((p, q) => end[list[p]!]! - end[list[q]!]! || p - q);
    packLater(sitting, k, behind);
    if (!hasRoom()) return null;
  }
  // What stands before it stays if it can.
  const asItStands = places.freeFor(freeAsItStands, row, wanted) + own;
  return {
    k,
    start: Math.max(earliest, Math.min(asItStands, latestEnd() - model.minutes[wanted]!, startHigh)),
    behind,
  };

  function latestEnd(): number {
    return Math.min(top, places.neededAfter(neededAgain, row, wanted) - next);
  }
  function hasRoom(): boolean {
    return (
      earliest + model.minutes[wanted]! <= latestEnd() && places.fit(freeWhenPacked, neededAgain, row, wanted)
    );
  }
}
