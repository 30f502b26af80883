/** Runs: a load taken up once and put on everything that needs it, whatever recipe or unit that belongs to. */
import type { Layer } from '#core/muster';
import type { PlanStep } from './present';

/** What an airbrush is loaded with, or what lies ready on the table: a run is one load (rule 9 of the kernel's format). */
export function loadOf(layer: Layer): string {
  return `${layer.family}: ${(layer.mixture.trim() || layer.name.trim()).toLowerCase()}`;
}

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

function isAlike(a: PlanStep, b: PlanStep): boolean {
  return loadOf(a.layer) === loadOf(b.layer) && a.layer.method === b.layer.method && a.round === b.round;
}
