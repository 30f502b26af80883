/** What stands where a strand that waits outside could stand. */
import { sharesResource, type Hold } from '../model/model';
import type { Bounds } from '../prove/propagate';
import type { Schedule } from '../place/schedule';
import type { Strand } from '../place/structure';
import type { OperationIndex } from '../model/units';

/** A minute of hands or tools in the way counts as so many on a rack that holds one alone. */
const WORK = 6;

/**
 * How much a strand that is placed takes up of what another needs, within the times in which the other would not be late.
 *
 * @param timely bounds within which nobody is late
 * @returns minutes, weighed; 0: it is not in the way
 */
export function muchInTheWay(schedule: Schedule, timely: Bounds, placed: Strand, other: Strand): number {
  const { model } = schedule;
  let much = 0;
  for (const k of placed.operations) {
    if (model.isFixed[k]) continue;
    for (const i of other.operations) much += WORK * workOverlap(schedule, timely, k, i);
    for (const hold of model.holdsOf[k]!) {
      if (hold.from !== k) continue;
      for (const i of other.operations)
        for (const own of model.holdsOf[i]!)
          if (own.from === i && own.resource === hold.resource)
            much += holdOverlap(schedule, timely, hold, own);
    }
  }
  return much;
}

/** Minutes for which the hands or tools of `k` are in use where `i` could have them. */
function workOverlap(schedule: Schedule, timely: Bounds, k: OperationIndex, i: OperationIndex): number {
  const { minutes } = schedule.model;
  if (!(minutes[k]! > 0 && minutes[i]! > 0)) return 0;
  const begin = Math.max(schedule.start[k]! - schedule.setup[k]!, timely.startLow[i]!);
  const overlap = Math.min(schedule.end[k]!, timely.endHigh[i]!) - begin;
  return overlap > 0 && sharesResource(schedule.model, k, i) ? overlap : 0;
}

/** The same for what they hold: minutes of the whole resource. */
function holdOverlap(schedule: Schedule, timely: Bounds, hold: Hold, own: Hold): number {
  const until = Math.min(schedule.start[hold.to]!, timely.startHigh[own.to]!);
  const overlap = until - Math.max(schedule.end[hold.from]!, timely.endLow[own.from]!);
  return overlap > 0 ? (overlap * hold.amount) / schedule.model.capacity[hold.resource]! : 0;
}
