/** Puts operations into a schedule group by group: as early as they go, then as late as costs nothing. */
import { insert, type Manner } from './insert';
import { pullLate } from './pullLate';
import type { Schedule } from './schedule';
import type { Structure } from './structure';

/**
 * @param groups each in an order in which every lag between its operations points forward
 * @param joints unplaced milestones in topological order: each follows as soon as all before it are placed
 * @param limit cost above which there is no point in going on
 * @returns -1 when all are placed within the limit; otherwise the number of the group that failed (the schedule is
 *   left as far as it came: the caller takes it back)
 */
export function putBack(
  schedule: Schedule,
  structure: Structure,
  groups: readonly (readonly number[])[],
  joints: readonly number[],
  manner: Manner,
  limit = Infinity,
): number {
  const { model } = schedule;
  const waiting = [...joints];
  let least = 0;
  for (const group of groups) for (const i of group) least += leastCost(schedule, i);
  for (const i of joints) least += leastCost(schedule, i);
  for (let g = 0; g < groups.length; g++) {
    const group = groups[g]!;
    if (insert(schedule, group, manner) >= 0) return g;
    for (const i of group) least -= leastCost(schedule, i);
    for (let k = 0; k < waiting.length; k++) {
      const i = waiting[k]!;
      if (!model.lagsIn[i]!.every((lag) => schedule.isPlaced(lag.from))) continue;
      if (insert(schedule, [i]) >= 0) return g;
      least -= leastCost(schedule, i);
      waiting.splice(k--, 1);
    }
    if (schedule.cost() + schedule.guidance() + least > limit) return g;
    pullLate(schedule, group, structure.blockOf);
  }
  return waiting.length === 0 || insert(schedule, waiting) < 0 ? -1 : groups.length;
}

/** What the completions that hang on an operation cost at the least. */
function leastCost(schedule: Schedule, i: number): number {
  let cost = 0;
  for (const due of schedule.model.duesOf[i]!)
    cost += schedule.model.weights.completion * due.weight * schedule.bounds.endLow[i]!;
  return cost;
}
