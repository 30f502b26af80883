/** A whole search in one call, for those who need no progress: command line, tests, measurements. */
import type { Problem, Solution } from '../document/document';
import type { SearchOptions } from './search';
import { startSearch } from './solve';

export interface SolveBudget extends Omit<SearchOptions, 'progress'> {
  /** steps of the search; the same seed and iterations give the same solution on every machine */
  readonly iterations: number;
}

/** Steps that build first plans and try nothing yet. */
const FIRST_STEPS = 4;

/** @throws KernelMistake if the plan does not pass the validator */
export function solveProblem(problem: Problem, budget: SolveBudget): Solution {
  const steps = budget.iterations + FIRST_STEPS;
  let k = 0;
  const search = startSearch(problem, { ...budget, progress: () => k / steps });
  for (; k < steps && !search.isDone; k++) search.step(1);
  return search.best();
}
