/** From times to a solution that the judge has passed: the only way out of the kernel for a plan. */
import type { Problem, Solution, Status } from './document';
import { validateSolution } from './validate';

/** Thrown when a plan fails the kernel's own judge: a mistake of the program, never of the problem. */
export class KernelMistake extends Error {
  constructor(text: string) {
    super(`The solver made a plan that breaks a rule (${text}). Please keep the problem file and report it.`);
    this.name = 'KernelMistake';
  }
}

/** Two costs closer than this share of them are the same. */
export const EQUAL = 1e-7;

/** By operation of the problem, minutes. */
interface Times {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
}

/**
 * The solution that these times make, once the judge has passed it; optimal when it costs no more than the bound.
 * @param bound a proved lower bound on the total cost
 * @throws KernelMistake if it breaks a rule
 */
export function judged(problem: Problem, from: Times, bound: number): Solution {
  const draft: Solution = {
    format: 'muster-solution/1',
    status: 'feasible',
    operations: problem.operations.map(({ id }, i) => ({
      id,
      start: from.start[i]!,
      end: from.end[i]!,
      setup: from.setup[i]!,
    })),
    cost: null,
    bound: null,
    conflict: null,
  };
  const { violations, cost } = validateSolution(problem, draft);
  const real = violations.filter((v) => v.rule !== 8);
  if (real.length > 0 || cost === null)
    throw new KernelMistake(
      real
        .map((v) => `rule ${v.rule}, ${v.where}: ${v.text}`)
        .slice(0, 3)
        .join('; '),
    );
  const proved = Math.min(bound, cost.total);
  const status: Status =
    cost.total - proved <= EQUAL * Math.max(1, Math.abs(cost.total)) ? 'optimal' : 'feasible';
  return { ...draft, status, cost, bound: proved };
}
