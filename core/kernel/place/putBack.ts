/** Puts operations into a schedule group by group: as early as they go, then as late as costs nothing. */
import type { CloseGaps } from './closeGaps';
import { insert, type Manner } from './insert';
import { pullLate } from './pullLate';
import type { Schedule } from './schedule';
import type { Structure } from './structure';
import type { OperationIndex } from '../model/units';

export interface Loose {
  /** each in an order in which every lag between its operations points forward */
  readonly groups: readonly (readonly number[])[];
  /** unplaced milestones in topological order: each follows as soon as all before it are placed */
  readonly joints: readonly number[];
}

export interface PutBackOptions {
  readonly manner: Manner;
  /** cost above which there is no point in going on */
  readonly limit?: number;
  /** what a group that finds no place within the limit tries next: see `Manner.closeGaps` */
  readonly closeGaps?: CloseGaps | null;
  /** asked when that does not help either: takes more out and says what; null when nothing else can go */
  readonly makeRoom?: ((group: readonly number[]) => Loose | null) | null;
}

/**
 * @returns -1 when all are placed within the limit; otherwise the number of the group that failed (the schedule is
 *   left as far as it came: the caller takes it back)
 */
export function putBack(
  schedule: Schedule,
  structure: Structure,
  loose: Loose,
  { manner, limit = Infinity, closeGaps = null, makeRoom = null }: PutBackOptions,
): number {
  const { model } = schedule;
  const groups = [...loose.groups];
  let waiting = [...loose.joints];
  /** what all that is still out will cost at the least */
  let least = 0;
  owe(loose);
  for (let g = 0; g < groups.length;) {
    const group = groups[g]!;
    if (bringIn(group, manner) || (closeGaps !== null && bringIn(group, { ...manner, closeGaps }))) {
      pullLate(schedule, group, structure.blockOf);
      g++;
      continue;
    }
    if (makeRoom === null) return g;
    const more = makeRoom(group);
    if (more === null) return g;
    groups.push(...more.groups);
    waiting = [...waiting, ...more.joints].sort((a, b) => structure.rank[a]! - structure.rank[b]!);
    owe(more);
  }
  return waiting.length === 0 || insert(schedule, waiting) < 0 ? -1 : groups.length;

  function owe(what: Loose): void {
    for (const group of what.groups) for (const i of group) least += leastCost(schedule, i);
    for (const i of what.joints) least += leastCost(schedule, i);
  }

  /** Places a group within the limit, with the milestones that follow from it; or changes nothing. */
  function bringIn(group: readonly number[], how: Manner): boolean {
    const mark = schedule.mark();
    const before = { least, waiting };
    if (isIn(group, how)) return true;
    schedule.undoTo(mark);
    ({ least, waiting } = before);
    return false;
  }

  function isIn(group: readonly number[], how: Manner): boolean {
    if (insert(schedule, group, how) >= 0) return false;
    for (const i of group) least -= leastCost(schedule, i);
    const still: number[] = [];
    for (const i of waiting) {
      if (model.lagsIn[i]!.every((lag) => schedule.isPlaced(lag.from))) {
        if (insert(schedule, [i]) >= 0) return false;
        least -= leastCost(schedule, i);
      } else still.push(i);
    }
    waiting = still;
    return schedule.cost() + schedule.guidance() + least <= limit;
  }
}

/** What the completions that hang on an operation cost at the least. */
function leastCost(schedule: Schedule, i: OperationIndex): number {
  let cost = 0;
  for (const due of schedule.model.duesOf[i]!)
    cost += schedule.model.weights.completion * due.weight * schedule.bounds.endLow[i]!;
  return cost;
}
