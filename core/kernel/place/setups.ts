/** Set-ups in a plan in the making: how long each is, whether it may grow where it stands, and what placing or taking out makes of the next. */
import { change, type Tool } from '../model/model';
import { nextFit } from '../model/openHours';
import type { ToolSequence } from '../model/toolSequence';
import { blockedAt } from './scan';
import { UNPLACED, type Schedule, type Slot } from './schedule';
import type { Minute, OperationIndex } from '../model/units';

/** How much the setup of the next operation on the tool changes when one of `i`'s family ends before it. */
export function followerChange(
  schedule: Schedule,
  tool: Tool,
  i: OperationIndex,
  end: Minute,
  after: OperationIndex,
): number {
  return after < 0 || schedule.model.isFixed[after]
    ? 0
    : setupFor(schedule, tool, schedule.model.family[i]!, end, after, schedule.start[after]!) -
        schedule.setup[after]!;
}

/** Setup minutes of an operation that starts at `start` after a family that ended at `end` (rule 3). */
export function setupFor(
  schedule: Schedule,
  tool: Tool,
  family: number,
  end: Minute,
  i: OperationIndex,
  start: Minute,
): number {
  const s = change(tool, family, schedule.model.family[i]!);
  return start - s - end > tool.idle ? change(tool, 0, schedule.model.family[i]!) : s;
}

/** May the setup before a placed operation become this long, where it stands? */
export function canGrow(schedule: Schedule, i: OperationIndex, setup: number): boolean {
  const { model } = schedule;
  const start = schedule.start[i]!;
  const from = start - setup;
  if (from < 0) return false;
  const open = model.open[i]!;
  const minutes = model.pausable[i] ? 1 : model.minutes[i]!;
  if (nextFit(open, start, setup, minutes) !== start) return false;
  return blockedAt(schedule, i, from, start - schedule.setup[i]!) < 0;
}

/** Places an operation in a slot from `findSlot` and lets the next on the tool take its new setup. */
export function place(schedule: Schedule, i: OperationIndex, slot: Slot): void {
  const resource = schedule.model.tool[i]!;
  if (resource < 0 || schedule.model.minutes[i] === 0)
    return schedule.assign(i, slot.start, slot.end, slot.setup);
  const tool = schedule.model.tools[resource]!;
  const sequence = schedule.sequences[resource]!;
  const after = sequence.at(sequence.position(slot.start, slot.end));
  const growth =
    after < 0 || schedule.model.isFixed[after]
      ? -1
      : setupFor(schedule, tool, schedule.model.family[i]!, slot.end, after, schedule.start[after]!);
  if (growth >= 0) schedule.assign(after, schedule.start[after]!, schedule.end[after]!, growth);
  schedule.assign(i, slot.start, slot.end, slot.setup);
}

/**
 * After the removal of an operation that stood at `start`: brings the setup of the one behind it on the tool back to the rule.
 * @returns false when that has become longer than there is room for
 */
export function mendAfter(schedule: Schedule, removed: number, start: Minute): boolean {
  const resource = schedule.model.tool[removed]!;
  const tool = resource < 0 ? null : schedule.model.tools[resource];
  if (!tool) return true;
  const sequence = schedule.sequences[resource]!;
  const k = sequence.position(start, UNPLACED);
  return k >= sequence.length || mend(schedule, tool, sequence, k);
}

/** The operation behind a removed one on its tool, or -1. */
export function followerOn(schedule: Schedule, removed: number, start: Minute): number {
  const resource = schedule.model.tool[removed]!;
  if (resource < 0) return -1;
  const sequence = schedule.sequences[resource]!;
  return sequence.at(sequence.position(start, UNPLACED));
}

function mend(schedule: Schedule, tool: Tool, sequence: ToolSequence, k: number): boolean {
  const i = sequence.at(k);
  if (schedule.model.isFixed[i]) return true;
  const before = sequence.at(k - 1);
  const right =
    before < 0
      ? change(tool, 0, schedule.model.family[i]!)
      : setupFor(
          schedule,
          tool,
          schedule.model.family[before]!,
          schedule.end[before]!,
          i,
          schedule.start[i]!,
        );
  if (right === schedule.setup[i]) return true;
  const since = before < 0 ? 0 : schedule.end[before]!;
  if (right > schedule.setup[i]! && !(schedule.start[i]! - right >= since && canGrow(schedule, i, right)))
    return false;
  schedule.assign(i, schedule.start[i]!, schedule.end[i]!, right);
  return true;
}
