/** Random problems, wider than any muster makes them: no mistake thrown, every plan passes the judge, settled and explained. */
import { explainer, parseProblem, settle, solveProblem, validateSolution } from '#core/kernel';
import { wideProblem } from '../core/kernel/testing/wideProblem';
import type { Verdict } from './verdict';

const ITERATIONS = 12;
const SLOW_MS = 30_000;

/** @param count problems @param from first seed */
export function tortureKernel(count: number, from = 0): Verdict {
  const faults: string[] = [];
  const counts = new Map<string, number>();
  let slowest = 0;
  for (let seed = from; seed < from + count; seed++) {
    const begun = performance.now();
    try {
      const status = tried(seed);
      counts.set(status, (counts.get(status) ?? 0) + 1);
    } catch (error) {
      faults.push(`seed ${seed}: ${error instanceof Error ? error.message : String(error)}`);
    }
    const ms = performance.now() - begun;
    if (ms > slowest) slowest = ms;
    if (ms > SLOW_MS) faults.push(`seed ${seed}: took ${Math.round(ms)} ms`);
  }
  const told = [...counts].map(([status, n]) => `${n} ${status}`).join(', ');
  return { faults, told: `${count} problems (${told}), the slowest ${Math.round(slowest)} ms` };
}

function tried(seed: number): string {
  const problem = parseProblem(wideProblem(seed));
  const solution = solveProblem(problem, { iterations: ITERATIONS });
  if (solution.cost === null) return solution.status;
  const settled = settle(problem, solution);
  for (const plan of [solution, settled]) {
    const [first] = validateSolution(problem, plan).violations;
    if (first) throw new Error(`rule ${first.rule}, ${first.where}: ${first.text}`);
  }
  if (settled.cost!.total > solution.cost.total + 1e-6) throw new Error('settling made it dearer');
  const { explain } = explainer(problem, settled);
  for (const o of settled.operations) explain(o.id);
  return solution.status;
}
