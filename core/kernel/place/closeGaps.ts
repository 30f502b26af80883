/**
 * Closes gaps between the operations of a session, so that one more finds room in it: what stands before its place moves sooner,
 * what stands behind it later, in the same order, within the session, and only as far as need be.
 */
import { place } from './setups';
import { findSlot, slotBetween } from './earlySlots';
import { goBack, isBroken } from './broken';
import { startFor } from '../model/startFor';
import { intervalAfter } from '../model/openHours';
import type { Bounds } from '../prove/propagate';
import { UNPLACED, type Schedule, type Slot } from './schedule';
import { isLastMilestone, shifting, type Opening, type Session } from './shifting';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

/**
 * Makes room for an unplaced operation in the first session that is long enough for it, if that closes before `otherwise`.
 * @param low earliest start (minutes)
 * @param otherwise start that it has without (minutes; Infinity when there is none)
 * @param within bounds to keep
 * @returns a slot for it, the others moved; or null, and nothing is changed
 */
export type CloseGaps = (i: OperationIndex, low: Minute, otherwise: number, within: Bounds) => Slot | null;

/** So many operations may move at most: those between which the most time is free. */
const MOST_MOVED = 24;
/** So many openings are tried in earnest. */
const TRIES = 2;

export function gapCloser(schedule: Schedule): CloseGaps {
  const { model, start, end, setup } = schedule;
  const shift = shifting(schedule, MOST_MOVED);
  const left = new Float64Array(model.capacity.length);

  return function closeGaps(i, low, otherwise, within) {
    const open = model.open[i]!;
    if (open === null) return null;
    const minutes = model.minutes[i]!;
    let k = intervalAfter(open, low);
    while (k < open.to.length && open.to[k]! - Math.max(open.from[k]!, low) < minutes) k++;
    if (k >= open.to.length || otherwise <= open.to[k]!) return null;
    const from = Math.max(open.from[k]!, low);
    if (from > Math.min(within.startHigh[i]!, schedule.startHigh(i))) return null;
    // What leads to it may outstay its window, or its room on the rack, wherever in the session the operation stands.
    const wrong = goBack(schedule, i, from, from + minutes);
    if (wrong !== null && wrong.operation !== i) return null;
    const list = schedule.startingIn(open.from[k]!, open.to[k]!);
    const opens = open.from[k]!;
    const closes = open.to[k]!;
    const tight = tightest(i, list, opens, closes);
    if (tight < 0) return null;
    const last = roomiest(list, tight, from, closes);
    const first = Math.max(0, last - MOST_MOVED);
    const session = { wanted: i, opens, closes, within, list, first, last };
    shift.begin(session);
    const slot = search(session, from);
    shift.end();
    return slot;
  };

  /** The resource on which the least time would be left with all gaps closed; -1 when there is too little. */
  function tightest(i: OperationIndex, list: readonly number[], opens: Minute, closes: Minute): number {
    left.fill(0);
    for (const j of list) {
      const taken = Math.min(closes, end[j]!) - Math.max(opens, start[j]! - setup[j]!);
      for (const use of model.binding[j]!) left[use.resource]! -= use.amount * taken;
    }
    let tight = -1;
    for (const { resource, amount } of model.binding[i]!) {
      const capacity = model.capacity[resource]!;
      left[resource]! += (closes - opens) * capacity - model.minutes[i]! * amount;
      if (left[resource]! < 0) return -1;
      if (tight < 0 || left[resource]! * model.capacity[tight]! < left[tight]! * capacity) tight = resource;
    }
    return tight;
  }

  /** Where in a long list the stretch of `MOST_MOVED` ends that has the most free time, behind where the operation could begin. */
  function roomiest(list: readonly number[], resource: ResourceIndex, from: Minute, closes: Minute): number {
    const n = list.length;
    if (n <= MOST_MOVED) return n;
    let last = n;
    let most = -Infinity;
    let work = 0;
    for (let p = 0; p < n; p++) {
      work += taken(list[p]!, resource);
      if (p >= MOST_MOVED) work -= taken(list[p - MOST_MOVED]!, resource);
      if (p < MOST_MOVED - 1) continue;
      const to = p + 1 < n ? start[list[p + 1]!]! : closes;
      if (to <= from && p + 1 < n) continue;
      const free = model.capacity[resource]! * (to - start[list[p + 1 - MOST_MOVED]!]!) - work;
      if (free <= most) continue;
      most = free;
      last = p + 1;
    }
    return last;
  }

  function taken(j: OperationIndex, resource: ResourceIndex): number {
    for (const use of model.binding[j]!)
      if (use.resource === resource) return use.amount * (end[j]! - start[j]! + setup[j]!);
    return 0;
  }

  function search(session: Session, from: Minute): Slot | null {
    let notBefore = from;
    let tries = TRIES;
    for (let k = session.first; k <= session.last && tries > 0; k++) {
      const opening = shift.openingAt(k, notBefore);
      if (opening === null) continue;
      tries--;
      const mark = schedule.mark();
      const slot = makeWay(session, opening, notBefore);
      const wrong = slot === null ? null : goBack(schedule, session.wanted, slot.start, slot.end);
      if (slot !== null && wrong === null) return slot;
      schedule.undoTo(mark);
      if (wrong === null) continue;
      if (wrong.operation !== session.wanted) return null;
      notBefore = Math.max(notBefore, wrong.start);
    }
    return null;
  }

  /** Moves what is in the way. @returns the slot then free, or null with the schedule left as far as it came */
  function makeWay(session: Session, opening: Opening, notBefore: Minute): Slot | null {
    const { wanted, within, closes, list, first, last } = session;
    const { soonest, latest, target } = shift;
    const { k, behind } = opening;
    shift.aimSooner(opening);
    for (let p = first; p < k; p++)
      if (target[p]! < start[list[p]!]! && !moveSooner(list[p]!, soonest[p]!, target[p]!)) return null;
    shift.aimLater(opening);
    for (let r = behind.length - 1; r >= 0; r--) {
      const p = behind[r]!;
      if (p >= last || target[p]! <= start[list[p]!]!) continue;
      if (!moveLater(list[p]!, target[p]!, latest[p]!, within)) return null;
    }
    return findSlot(
      schedule,
      wanted,
      Math.max(schedule.startLow(wanted), notBefore),
      Math.min(closes, within.startHigh[wanted]!),
      Math.min(closes, schedule.endHigh(wanted), within.endHigh[wanted]!),
    );
  }

  function moveSooner(j: OperationIndex, low: Minute, high: Minute): boolean {
    const was = start[j]!;
    const endHigh = end[j]!;
    schedule.remove(j);
    const from = Math.max(low, schedule.startLow(j), startFor(model, j, schedule.endLow(j)));
    return settleIn(j, slotBetween(schedule, j, was, from, high, endHigh));
  }

  /** Milestones that follow go with it. */
  function moveLater(j: OperationIndex, low: Minute, high: Minute, within: Bounds): boolean {
    const was = start[j]!;
    const milestones: number[] = [];
    for (const { to } of model.lagsOut[j]!)
      if (start[to] !== UNPLACED && isLastMilestone(schedule, to)) {
        milestones.push(to);
        schedule.remove(to);
      }
    schedule.remove(j);
    const startHigh = Math.min(schedule.startHigh(j), high);
    if (!settleIn(j, slotBetween(schedule, j, was, low, startHigh, schedule.endHigh(j)))) return false;
    for (const m of milestones) {
      const t = schedule.startLow(m);
      if (t > Math.min(schedule.endHigh(m), schedule.startHigh(m), within.endHigh[m]!)) return false;
      schedule.assign(m, t, t, 0);
    }
    return true;
  }

  function settleIn(j: OperationIndex, slot: Slot | null): boolean {
    if (slot === null || isBroken(schedule, j, slot.start, slot.end)) return false;
    place(schedule, j, slot);
    return true;
  }
}
