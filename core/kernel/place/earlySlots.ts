/** The earliest slot of an operation, and with patience the one that saves set-ups and runs. */
import { change, type Tool } from '../model/model';
import { NEVER, nextFit } from '../model/openHours';
import { canGrow, followerChange, setupFor } from './setups';
import { scan } from './scan';
import { UNPLACED, type Schedule, type Slot } from './schedule';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

/**
 * Earliest slot of an unplaced operation in [low, high], ending by `endHigh`, with every setup (its own and that of
 * the next on the tool) in its place; null if there is none. With `patience`, among the slots that start up to
 * so many minutes later the one with the least `haste * start + setup minutes`, a run that it begins or splits counted as
 * the minutes of set-up that cost as much.
 */
export function findSlot(
  schedule: Schedule,
  i: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  patience = 0,
  haste = 1,
): Slot | null {
  const counted = patience > 0 && schedule.runs !== null ? schedule.model.runsOn[i]![0] : undefined;
  if (counted !== undefined) return findInRuns(schedule, i, counted, low, high, endHigh, patience, haste);
  return findOnTool(schedule, i, low, high, endHigh, patience, haste);
}

/** `findSlot` with a look at every gap on a resource whose runs count, and at every session in it that would go on with a run. */
function findInRuns(
  schedule: Schedule,
  i: OperationIndex,
  resource: ResourceIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  patience: number,
  haste: number,
): Slot | null {
  const { model } = schedule;
  const runs = schedule.runs!;
  const sequence = runs.on(resource)!;
  const minutes = model.minutes[i]!;
  const price = model.weights.runs / Math.max(1e-9, model.weights.setup);
  low = nextFit(model.open[i]!, low, 0, model.pausable[i] ? 1 : minutes);
  let best: Slot | null = null;
  let bestScore = Infinity;
  let limit = high;
  const look = (from: Minute, to: Minute, before: OperationIndex, after: OperationIndex): void => {
    const slot = findOnTool(schedule, i, from, Math.min(limit, to - minutes), Math.min(endHigh, to), 0, 1);
    if (slot === null) return;
    if (best === null) limit = Math.min(high, slot.start + patience);
    const score =
      haste * slot.start +
      slot.setup +
      changeBehind(schedule, i, slot) +
      price * runs.added(resource, i, slot.start, before, after);
    if (score >= bestScore) return;
    bestScore = score;
    best = slot;
  };
  for (let k = sequence.position(low, NEVER); k <= sequence.length; k++) {
    const before = sequence.at(k - 1);
    const after = sequence.at(k);
    const from = Math.max(low, before >= 0 ? schedule.end[before]! : 0);
    if (from > limit) break;
    const to = after >= 0 ? schedule.start[after]! : NEVER;
    if (to - from < minutes) continue;
    look(from, to, before, after);
    if (after < 0 || model.family[after] !== model.family[i]) continue;
    // The gap may reach over a night: in the morning the next run can be begun sooner.
    const session = runs.sessionOf(resource, after);
    const opens = session < 0 ? 0 : (model.openOn[resource]?.from[session] ?? 0);
    if (opens > from) look(opens, to, before, after);
  }
  return best;
}

/** How much the set-up behind an operation on its tool changes when it takes a slot. */
function changeBehind(schedule: Schedule, i: OperationIndex, slot: Slot): number {
  const resource = schedule.model.tool[i]!;
  const tool = resource < 0 ? null : schedule.model.tools[resource]!;
  if (!tool) return 0;
  const sequence = schedule.sequences[resource]!;
  return followerChange(schedule, tool, i, slot.end, sequence.at(sequence.position(slot.start, slot.end)));
}

function findOnTool(
  schedule: Schedule,
  i: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  patience: number,
  haste: number,
): Slot | null {
  const resource = schedule.model.tool[i]!;
  if (resource < 0 || schedule.model.minutes[i] === 0) return scan(schedule, i, low, high, endHigh, 0);
  const { model } = schedule;
  const minutes = model.minutes[i]!;
  // Most often the bench is closed when a layer has dried.
  low = nextFit(model.open[i]!, low, 0, model.pausable[i] ? 1 : minutes);
  const tool = model.tools[resource]!;
  const sequence = schedule.sequences[resource]!;
  let best: Slot | null = null;
  let bestScore = Infinity;
  let limit = high;
  for (let k = sequence.position(low, NEVER); k <= sequence.length; k++) {
    const before = sequence.at(k - 1);
    const after = sequence.at(k);
    const from = before >= 0 ? schedule.end[before]! : 0;
    if (from > limit) break;
    if (after >= 0 && schedule.start[after]! - Math.max(from, low) < minutes) continue;
    const slot = findInGap(schedule, i, tool, before, after, low, limit, endHigh);
    if (slot === null) continue;
    if (patience === 0) return slot;
    if (best === null) limit = Math.min(high, slot.start + patience);
    const score = haste * slot.start + slot.setup + followerChange(schedule, tool, i, slot.end, after);
    if (score < bestScore) {
      bestScore = score;
      best = slot;
    }
  }
  return best;
}

/**
 * Earliest slot of an operation just taken out that begins in [low, where it was), between the same neighbours on its tool, all
 * set-ups as long as they were; null if there is none.
 */
export function soonerSlot(schedule: Schedule, i: OperationIndex, low: Minute, was: Slot): Slot | null {
  const { start, end: endHigh, setup } = was;
  const { model } = schedule;
  const resource = model.tool[i]!;
  const tool = resource < 0 || model.minutes[i] === 0 ? null : model.tools[resource];
  if (!tool) return scan(schedule, i, low, start - 1, endHigh, setup);
  const sequence = schedule.sequences[resource]!;
  const k = sequence.position(start, UNPLACED);
  const before = sequence.at(k - 1);
  const after = sequence.at(k);
  // The next stays loaded only while it follows soon enough.
  const isLoaded =
    after >= 0 &&
    !model.isFixed[after] &&
    schedule.start[after]! - schedule.setup[after]! - endHigh <= tool.idle;
  let from = before < 0 ? low : Math.max(low, schedule.end[before]! + setup);
  if (isLoaded && tool.idle !== Infinity)
    from = Math.max(from, schedule.start[after]! - schedule.setup[after]! - tool.idle - (endHigh - start));
  const slot = scan(schedule, i, from, start - 1, endHigh, setup);
  if (slot === null) return null;
  const right =
    before < 0
      ? change(tool, 0, model.family[i]!)
      : setupFor(schedule, tool, model.family[before]!, schedule.end[before]!, i, slot.start);
  if (right !== setup) return null;
  return followerChange(schedule, tool, i, slot.end, after) === 0 ? slot : null;
}

/**
 * Earliest slot in [low, high] of an operation just taken out, between the neighbours that it had on its tool when it started at
 * `was`; null if there is none.
 */
export function slotBetween(
  schedule: Schedule,
  i: OperationIndex,
  was: number,
  low: Minute,
  high: Minute,
  endHigh: Minute,
): Slot | null {
  const resource = schedule.model.tool[i]!;
  const tool = resource < 0 || schedule.model.minutes[i] === 0 ? null : schedule.model.tools[resource];
  if (!tool) return scan(schedule, i, low, high, endHigh, 0);
  const sequence = schedule.sequences[resource]!;
  const k = sequence.position(was, UNPLACED);
  return findInGap(schedule, i, tool, sequence.at(k - 1), sequence.at(k), low, high, endHigh);
}

function findInGap(
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
  let best: Slot | null = null;
  // Standing times before: still loaded, or left so long that the tool is clean again.
  if (before < 0) {
    best = findBefore(schedule, i, tool, after, low, high, endHigh, clean);
  } else {
    const since = schedule.end[before]!;
    const s = change(tool, model.family[before]!, family);
    const lastLoaded = since + s + tool.idle;
    best = findBefore(
      schedule,
      i,
      tool,
      after,
      Math.max(low, since + s),
      Math.min(high, lastLoaded),
      endHigh,
      s,
    );
    if (best === null && lastLoaded < high)
      best = findBefore(
        schedule,
        i,
        tool,
        after,
        Math.max(low, lastLoaded + 1, since + clean),
        high,
        endHigh,
        clean,
      );
  }
  return best;
}

/** Earliest slot with this setup, given what it makes of the next operation's setup. */
function findBefore(
  schedule: Schedule,
  i: OperationIndex,
  tool: Tool,
  after: OperationIndex,
  low: Minute,
  high: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  if (low > high || low + schedule.model.minutes[i]! > endHigh) return null;
  if (after < 0) return scan(schedule, i, low, high, endHigh, setup);
  const { model } = schedule;
  const next = schedule.start[after]!;
  if (model.isFixed[after]) return scan(schedule, i, low, high, Math.min(endHigh, next), setup);
  const loaded = change(tool, model.family[i]!, model.family[after]!);
  const clean = change(tool, 0, model.family[after]!);
  // The next is reached clean (this one ends long before it) or loaded (this one ends shortly before it).
  const lastClean = next - loaded - tool.idle - 1;
  let best: Slot | null = null;
  if (lastClean > 0)
    best = scanFor(
      schedule,
      i,
      after,
      clean,
      low,
      high,
      0,
      Math.min(endHigh, lastClean, next - clean),
      setup,
    );
  if (best === null)
    best = scanFor(
      schedule,
      i,
      after,
      loaded,
      low,
      high,
      lastClean + 1,
      Math.min(endHigh, next - loaded),
      setup,
    );
  return best;
}

/** `scan`, with the next operation's setup as it will be, ending no sooner than `endLow`. */
function scanFor(
  schedule: Schedule,
  i: OperationIndex,
  after: OperationIndex,
  afterSetup: number,
  low: Minute,
  high: Minute,
  endLow: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  if (endHigh < endLow || Math.max(low, setup) + schedule.model.minutes[i]! > endHigh) return null;
  const was = schedule.setup[after]!;
  if (afterSetup > was && !canGrow(schedule, after, afterSetup)) return null;
  // A slot that leaves the longer setup in peace is the earliest; only when there is none is it worth a look what ends in it.
  const roomy = scanFrom(
    schedule,
    i,
    low,
    high,
    endLow,
    Math.min(endHigh, schedule.start[after]! - was),
    setup,
  );
  if (roomy !== null || afterSetup >= was) return roomy;
  schedule.writeSetup(after, afterSetup);
  const slot = scanFrom(
    schedule,
    i,
    low,
    high,
    Math.max(endLow, schedule.start[after]! - was + 1),
    endHigh,
    setup,
  );
  schedule.writeSetup(after, was);
  return slot;
}

/** `scan`, ending no sooner than `endLow`. */
function scanFrom(
  schedule: Schedule,
  i: OperationIndex,
  low: Minute,
  high: Minute,
  endLow: Minute,
  endHigh: Minute,
  setup: number,
): Slot | null {
  let from = schedule.model.pausable[i] ? low : Math.max(low, endLow - schedule.model.minutes[i]!);
  for (;;) {
    const slot = scan(schedule, i, from, high, endHigh, setup);
    if (slot === null || slot.end >= endLow) return slot;
    from = slot.start + 1;
  }
}
