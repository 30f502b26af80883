import { pick } from '../../model/random';
import type { ToolSequence } from '../../model/toolSequence';
import type { RunCount } from '../../place/runCount';
import { UNPLACED } from '../../place/schedule';
import { MOST_OUT, type Ground, type Move } from './move';
import { takeStrands } from './taking';
import type { ResourceIndex } from '../../model/units';

/** So much nearer or farther than all that makes way. */
const FAR = 1000;
/** Share of tries in which only a part of a run goes. */
const IN_PART = 0.3;

export const gather: Move = {
  name: 'gather',
  purpose:
    'A run goes where the same is done before or after it, or that comes to it; what stands in between makes way, in its order.',
  stage: 'coarse',
  isFor: (schedule) => schedule.runs !== null,
  on: (ground) => () => {
    const { schedule, structure, random, out } = ground;
    const { model } = schedule;
    const seed = pick(random, structure.strands.length);
    const { operations } = structure.strands[seed]!;
    const i = operations[pick(random, operations.length)]!;
    const resource = model.runsOn[i]![0];
    if (resource === undefined) return takeStrands(ground, [seed]);
    const runs = schedule.runs!;
    const row = runs.on(resource)!;
    const at = row.position(schedule.start[i]!, UNPLACED);
    const own = runAround(ground, runs, resource, row, at);
    let { first, last } = own;
    if (random() < IN_PART) {
      if (random() < 0.5) first = at;
      else last = at;
    }
    const step = random() < 0.5 ? -1 : 1;
    const to = nextAlike(ground, row, step < 0 ? first - 1 : last + 1, step, pick(random, 3) === 0 ? 1 : 0);
    if (to < 0 || Math.abs(to - at) > MOST_OUT - 10) return takeStrands(ground, [seed]);
    const isComing = random() < 0.5;
    const other = runAround(ground, runs, resource, row, to);
    const low = Math.min(first, isComing && step < 0 ? other.first : to);
    const high = Math.max(last, isComing && step > 0 ? other.last : to);
    for (let k = low; k <= high; k++) {
      const isMoving = isComing ? (step < 0 ? k <= to : k >= to) : k >= first && k <= last;
      const isEarly = isComing ? step > 0 : step < 0;
      out.take(row.at(k), k + (isMoving ? (isEarly ? -FAR : FAR) : 0));
    }
    return { isWhole: false };
  },
};

/** The places in the row of the run to which the one at `at` belongs. */
function runAround(
  { schedule }: Ground,
  runs: RunCount,
  resource: ResourceIndex,
  row: ToolSequence,
  at: number,
): { first: number; last: number } {
  const { family } = schedule.model;
  const i = row.at(at);
  const isOfIt = (k: number): boolean => {
    const j = row.at(k);
    return j >= 0 && family[j] === family[i] && runs.sessionOf(resource, j) === runs.sessionOf(resource, i);
  };
  let first = at;
  while (isOfIt(first - 1)) first--;
  let last = at;
  while (isOfIt(last + 1)) last++;
  return { first, last };
}

/** The next place from `from` on where the same is done as just before it (after passing so many); -1: there is none. */
function nextAlike(
  { schedule }: Ground,
  row: ToolSequence,
  from: number,
  step: number,
  pass: number,
): number {
  const { family } = schedule.model;
  const wanted = family[row.at(from - step)];
  for (let k = from; row.at(k) >= 0; k += step) if (family[row.at(k)] === wanted && pass-- <= 0) return k;
  return -1;
}
