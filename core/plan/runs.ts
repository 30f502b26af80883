/** Runs: a load taken up once and put on everything that needs it, whatever recipe or unit that belongs to. */
import { loadOf } from './load';
import type { PlanStep } from './present';

/**
 * The steps of one session as runs. Waiting between two steps ends none; another load, another way of putting it on or another round does.
 * @param steps by start
 */
export function runsOf(steps: readonly PlanStep[]): readonly (readonly PlanStep[])[] {
  const runs: PlanStep[][] = [];
  for (const step of steps) {
    const run = runs[runs.length - 1];
    if (run && isAlike(run[run.length - 1]!, step)) run.push(step);
    else runs.push([step]);
  }
  return runs;
}

/** How often the airbrush is taken up or put down between two runs of a session. */
export function swapsOf(runs: readonly (readonly PlanStep[])[]): number {
  const sprays = runs.map((run) => run[0]!.layer.method === 'airbrush');
  return sprays.filter((is, k) => k > 0 && is !== sprays[k - 1]).length;
}

function isAlike(a: PlanStep, b: PlanStep): boolean {
  return loadOf(a.layer) === loadOf(b.layer) && a.layer.method === b.layer.method && a.round === b.round;
}
