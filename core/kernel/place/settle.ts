/**
 * The last touch to a plan: within its session everything moves to the front as far as it goes, in the same order and with the same
 * set-ups, so that no evening begins with idle hands. Nothing changes its session and nothing becomes dearer.
 */
import { soonerSlot } from './earlySlots';
import type { Problem, Solution } from '../document/document';
import { isBroken } from './broken';
import { startFor } from '../model/startFor';
import { lastMinute, upTo } from '../document/horizon';
import { judged } from '../document/judged';
import { buildModel } from '../model/model';
import { intervalAfter } from '../model/openHours';
import { plainHolds } from '../document/plainHolds';
import { propagate } from '../prove/propagate';
import { Schedule } from './schedule';
import type { Minute, OperationIndex } from '../model/units';

/** What moved makes room for what could not move before. */
const PASSES = 3;

/**
 * @param solution feasible or optimal; any other comes back as it is
 * @returns a plan that costs at most as much, every operation in its session and no later than before
 * @throws KernelMistake if the plan does not pass the validator
 */
export function settle(problem: Problem, solution: Solution): Solution {
  if (solution.cost === null) return solution;
  // Nothing moves later than it stands.
  const near = upTo(problem, lastMinute(problem, solution));
  const plain = plainHolds(near);
  return plain === null
    ? settlePlain(near, solution)
    : plain.lower(settlePlain(plain.problem, plain.lift(solution)));
}

function settlePlain(problem: Problem, solution: Solution): Solution {
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok) return solution;
  const schedule = new Schedule(model, propagation.bounds);
  const at = new Map(solution.operations.map((o) => [o.id, o]));
  model.ids.forEach((id, i) => {
    const o = at.get(id)!;
    if (!schedule.isPlaced(i)) schedule.assign(i, o.start, o.end, o.setup);
  });
  schedule.commit();

  settleIn(schedule);
  return judged(model.problem, schedule, solution.bound ?? 0);
}

/** Settles the plan in a full schedule; its cost never rises. */
export function settleIn(schedule: Schedule): void {
  const { model } = schedule;
  const byStart = [...model.ids.keys()]
    .filter((i) => !model.isFixed[i])
    .sort((a, b) => schedule.start[a]! - schedule.start[b]! || schedule.end[a]! - schedule.end[b]!);
  for (let pass = 0; pass < PASSES; pass++) {
    let moved = 0;
    for (const i of byStart) if (moveUp(i)) moved++;
    if (moved === 0) break;
  }

  function moveUp(i: OperationIndex): boolean {
    const was = { start: schedule.start[i]!, end: schedule.end[i]!, setup: schedule.setup[i]! };
    const low = Math.max(
      schedule.startLow(i),
      startFor(model, i, schedule.endLow(i)),
      sessionStart(i, was.start),
    );
    if (low >= was.start) return false;
    const before = schedule.cost();
    const mark = schedule.mark();
    schedule.remove(i);
    const slot = soonerSlot(schedule, i, low, was);
    if (slot !== null && !isBroken(schedule, i, slot.start, slot.end)) {
      schedule.assign(i, slot.start, slot.end, slot.setup);
      if (schedule.cost() <= before + 1e-9) return true;
    }
    schedule.undoTo(mark);
    return false;
  }

  /** A milestone follows as soon as it may; all else stays in the open interval in which it began. */
  function sessionStart(i: OperationIndex, start: Minute): number {
    const open = model.open[i]!;
    if (model.minutes[i] === 0) return 0;
    if (open === null) return start;
    return open.from[intervalAfter(open, start)]!;
  }
}
