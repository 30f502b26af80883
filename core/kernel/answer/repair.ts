/**
 * From an old plan to one for a problem that has changed a little: everything that still can stays where it was, the rest moves
 * back as little as it goes, in the order of the old plan.
 */
import { followerOn, mendAfter, place } from '../place/setups';
import { findSlot } from '../place/earlySlots';
import { arrange } from '../place/arrange';
import type { Queue } from '../place/keyHeap';
import { ByLoad } from '../place/byLoad';
import type { Solution } from '../document/document';
import { isBroken } from '../place/broken';
import { gapCloser } from '../place/closeGaps';
import { insert, PROMPT, type Manner } from '../place/insert';
import { putBack } from '../place/putBack';
import type { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';
import type { Minute, OperationIndex } from '../model/units';

/**
 * What can't stay pushes on what comes after it as far as its session goes, or however far; or all others take their places first and it
 * goes in between them; or everything goes in anew as soon as it fits, in the old order.
 */
type Way = 'within' | 'pushing' | 'between' | 'in turn';

/** How an old plan is mended: what can't stay may also begin no sooner than it did. */
export interface Mending {
  readonly way: Way;
  readonly isHomeward: boolean;
}

/** What moves least first. */
const MENDINGS: readonly Mending[] = [
  { way: 'between', isHomeward: true },
  { way: 'within', isHomeward: false },
  { way: 'pushing', isHomeward: false },
  { way: 'between', isHomeward: false },
  { way: 'within', isHomeward: true },
  { way: 'in turn', isHomeward: false },
  { way: 'pushing', isHomeward: true },
];

/** The ways to mend an old plan; those that know where everything stood only where it is to be kept close to. */
export function waysFor({ calm }: Schedule): Mending[] {
  return MENDINGS.filter(({ way, isHomeward }) => calm !== null || (way !== 'within' && !isHomeward));
}

/** Where so many strands find no place in turn, no good plan comes of it. */
const MOST_DEFERRED = 0.3;

/**
 * Fills the empty schedule from an old plan.
 * @returns whether every operation found its place; if not, what did is left where it is
 */
export function repair(
  schedule: Schedule,
  structure: Structure,
  previous: Solution,
  { way, isHomeward }: Mending,
): boolean {
  const { model } = schedule;
  const old = new Map(previous.operations.map((o) => [o.id, o.start]));
  const key = Float64Array.from(model.ids, (id) => old.get(id) ?? model.horizon);
  const manner = { ...PROMPT, closeGaps: gapCloser(schedule), isHomeward };
  return fill(schedule, structure, key, { way, manner, old: (i) => old.get(model.ids[i]!) });
}

/**
 * Fills the empty schedule: groups that windows tie go in one after the other, each as soon as it fits.
 * @param key by operation: the smallest first
 * @returns whether every operation found its place
 */
export function inTurn(schedule: Schedule, structure: Structure, key: ArrayLike<number>): boolean {
  const manner = { ...PROMPT, closeGaps: gapCloser(schedule) };
  return fill(schedule, structure, Float64Array.from(key), { way: 'in turn', manner });
}

/**
 * Fills the empty schedule load by load: what is taken up is gone on with.
 * @param key by operation, in minutes: what presses most has the least
 * @param patience so many minutes less may press what goes on with the load in hand
 * @param manner how each goes in
 * @returns whether every operation found its place
 */
export function byLoad(
  schedule: Schedule,
  structure: Structure,
  key: Float64Array,
  patience: Minute,
  manner: Manner,
): boolean {
  const queue = new ByLoad(schedule.model, key, patience);
  return fill(schedule, structure, key, { way: 'in turn', manner, queue });
}

interface Filling {
  readonly way: Way;
  readonly manner: Manner;
  /** in what order they go in, where not by key alone */
  readonly queue?: Queue;
  /** where each stood */
  readonly old?: (i: OperationIndex) => Minute | undefined;
}

function fill(
  schedule: Schedule,
  structure: Structure,
  key: Float64Array,
  { way, manner, queue, old = () => undefined }: Filling,
): boolean {
  const { model } = schedule;
  const all = [...model.ids.keys()].filter((i) => !model.isFixed[i] && structure.strandOf[i]! >= 0);
  const members = new Map<number, number[]>();
  for (const i of all) {
    const block = members.get(structure.blockOf[i]!);
    if (block) block.push(i);
    else members.set(structure.blockOf[i]!, [i]);
  }
  const most = MOST_DEFERRED * structure.strands.length;
  const waiting = new Set<number>();
  const deferred = new Set<number>();
  for (const i of arrange(model, all, key, queue)) {
    const block = structure.blockOf[i]!;
    if (way === 'in turn' && deferred.size > most) return false;
    if (schedule.isPlaced(i) || deferred.has(structure.strandOf[i]!) || waiting.has(block)) continue;
    if (way !== 'in turn' && stays(schedule, i, old(i))) continue;
    // No longer possible there: its coupled group goes in anew, as soon as it fits; failing that, all it hangs together with.
    if (way === 'between' || (way === 'within' && !goesWithin(block))) setAside(block);
    else if (way !== 'within') bringBack(block);
  }
  for (const block of waiting) {
    const strand = structure.strandOf[members.get(block)![0]!]!;
    if (!deferred.has(strand)) bringBack(block);
  }
  const late = [...deferred].sort((a, b) => pressing(a) - pressing(b));
  const groups = late.map((s) => structure.strands[s]!.operations);
  return putBack(schedule, structure, { groups, joints: structure.milestones }, { manner }) < 0;

  /** Brings a block back as soon as it fits, if it all stays in its sessions; if not, nothing is changed. */
  function goesWithin(block: number): boolean {
    const list = members.get(block)!;
    const before = schedule.mark();
    if (takeOut(list) && insert(schedule, arrange(model, list, key), manner) < 0)
      if (!list.some((k) => schedule.hasLeft(k))) return true;
    schedule.undoTo(before);
    return false;
  }

  function setAside(block: number): void {
    const before = schedule.mark();
    if (takeOut(members.get(block)!)) {
      waiting.add(block);
      return;
    }
    schedule.undoTo(before);
    defer(structure.strandOf[members.get(block)![0]!]!);
  }

  function bringBack(block: number): void {
    const list = members.get(block)!;
    const before = schedule.mark();
    if (takeOut(list) && insert(schedule, arrange(model, list, key), manner) < 0) return;
    schedule.undoTo(before);
    defer(structure.strandOf[list[0]!]!);
  }

  /** @returns false when what stands behind on a tool would lose its place */
  function takeOut(list: readonly number[]): boolean {
    let isWell = true;
    for (const k of list) {
      if (!schedule.isPlaced(k)) continue;
      const at = schedule.start[k]!;
      schedule.remove(k);
      isWell = mendAfter(schedule, k, at) && isWell;
    }
    return isWell;
  }

  function defer(s: number): void {
    if (deferred.has(s)) return;
    deferred.add(s);
    for (const k of structure.strands[s]!.operations) {
      if (!schedule.isPlaced(k)) continue;
      const at = schedule.start[k]!;
      schedule.remove(k);
      if (mendAfter(schedule, k, at)) continue;
      const follower = structure.strandOf[followerOn(schedule, k, at)] ?? -1;
      if (follower >= 0) defer(follower);
    }
  }

  function pressing(s: number): number {
    return structure.strands[s]!.due;
  }
}

/** Places an operation at its old start if all rules allow it. */
function stays(schedule: Schedule, i: OperationIndex, start: Minute | undefined): boolean {
  if (start === undefined || start < schedule.startLow(i) || start > schedule.startHigh(i)) return false;
  const slot = findSlot(schedule, i, start, start, schedule.endHigh(i));
  if (slot === null || slot.end < schedule.endLow(i) || isBroken(schedule, i, slot.start, slot.end))
    return false;
  place(schedule, i, slot);
  return true;
}
