/** Runs: a load taken up once and put on everything that needs it, whatever recipe or unit that belongs to. */
import { loadOf } from './load';
import type { PlanStep } from './present';

/**
 * The steps of one session as runs. Waiting between two steps ends none; another load, another way of putting it on or another round does.
 * @param steps by start
 */
export function runsOf(steps: readonly PlanStep[]): readonly (readonly PlanStep[])[] {
  const runs: PlanStep[][] = [];
  // Each pair of hands has its own.
  const open = new Map<string, PlanStep[]>();
  for (const step of steps) {
    const who = step.doer?.who ?? '';
    const run = open.get(who);
    if (run && isAlike(run[run.length - 1]!, step)) run.push(step);
    else {
      const begun = [step];
      runs.push(begun);
      open.set(who, begun);
    }
  }
  return runs;
}

/** How often the airbrush is taken up or put down between two runs of a session. */
export function swapsOf(runs: readonly (readonly PlanStep[])[]): number {
  const last = new Map<string, boolean>();
  let swaps = 0;
  for (const [first] of runs) {
    const who = first!.doer?.who ?? '';
    const sprays = first!.layer.method === 'airbrush';
    if (last.has(who) && last.get(who) !== sprays) swaps++;
    last.set(who, sprays);
  }
  return swaps;
}

function isAlike(a: PlanStep, b: PlanStep): boolean {
  return loadOf(a.layer) === loadOf(b.layer) && a.layer.method === b.layer.method && a.round === b.round;
}
