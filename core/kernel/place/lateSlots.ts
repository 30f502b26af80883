/** The latest slot of an operation: what costs nothing by waiting waits. */
import { change, type Tool } from '../model/model';
import { NEVER } from '../model/openHours';
import { scanLate } from './scan';
import { canGrow } from './setups';
import { type Schedule, type Slot } from './schedule';
import type { Minute, OperationIndex } from '../model/units';

/**
 * Latest slot of an unplaced operation that starts in [low, high] and ends by `endHigh`, every setup in its place; null
 * if there is none (or none is looked for: pausable operations that need a setup).
 */
export function findLateSlot(
  schedule: Schedule,
  i: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
): Slot | null {
  const resource = schedule.model.tool[i]!;
  if (resource < 0 || schedule.model.minutes[i] === 0) return scanLate(schedule, i, low, high, endHigh, 0);
  const tool = schedule.model.tools[resource]!;
  const sequence = schedule.sequences[resource]!;
  for (let k = sequence.position(Math.min(high, endHigh), NEVER); k >= 0; k--) {
    const after = sequence.at(k);
    if (after >= 0 && schedule.start[after]! <= low) return null;
    const slot = findLateInGap(schedule, i, tool, sequence.at(k - 1), after, low, high, endHigh);
    if (slot !== null) return slot;
  }
  return null;
}

function findLateInGap(
  schedule: Schedule,
  i: OperationIndex,
  tool: Tool,
  before: OperationIndex,
  after: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
): Slot | null {
  const { model } = schedule;
  const family = model.family[i]!;
  const clean = change(tool, 0, family);
  if (before < 0) return findLateBefore(schedule, i, tool, after, low, high, endHigh, clean);
  const since = schedule.end[before]!;
  const s = change(tool, model.family[before]!, family);
  const lastLoaded = since + s + tool.idle;
  const standing = Math.max(low, lastLoaded + 1, since + clean);
  return (
    (standing <= high ? findLateBefore(schedule, i, tool, after, standing, high, endHigh, clean) : null) ??
    findLateBefore(schedule, i, tool, after, Math.max(low, since + s), Math.min(high, lastLoaded), endHigh, s)
  );
}

function findLateBefore(
  schedule: Schedule,
  i: OperationIndex,
  tool: Tool,
  after: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  if (low > high) return null;
  if (after < 0) return scanLate(schedule, i, low, high, endHigh, setup);
  const { model } = schedule;
  const next = schedule.start[after]!;
  if (model.isFixed[after]) return scanLate(schedule, i, low, high, Math.min(endHigh, next), setup);
  const loaded = change(tool, model.family[i]!, model.family[after]!);
  const clean = change(tool, 0, model.family[after]!);
  const lastClean = next - loaded - tool.idle - 1;
  const slot = scanLateFor(schedule, i, after, loaded, low, high, Math.min(endHigh, next - loaded), setup);
  if (slot !== null && slot.end > lastClean) return slot;
  if (lastClean <= 0) return null;
  return scanLateFor(schedule, i, after, clean, low, high, Math.min(endHigh, lastClean, next - clean), setup);
}

function scanLateFor(
  schedule: Schedule,
  i: OperationIndex,
  after: OperationIndex,
  afterSetup: number,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  if (Math.max(low, setup) + schedule.model.minutes[i]! > endHigh) return null;
  const was = schedule.setup[after]!;
  if (afterSetup > was && !canGrow(schedule, after, afterSetup)) return null;
  if (afterSetup < was) schedule.writeSetup(after, afterSetup);
  const slot = scanLate(schedule, i, low, high, endHigh, setup);
  if (afterSetup < was) schedule.writeSetup(after, was);
  return slot;
}
