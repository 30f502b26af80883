/** A search for the plan of a problem, stepped by who wants it. */
import type { Conflict, Solution } from '../document/document';

export interface SearchOptions {
  readonly seed?: number;
  /** share of the time or iterations already spent, 0 to 1: cools the search down */
  readonly progress?: () => number;
  /** a plan for a problem like this one, to begin from and to keep close to */
  readonly previous?: Solution;
  /** cost that every operation adds which leaves the session it had in `previous`; default 0 */
  readonly stability?: number;
  /** moves of the search to leave out, for measurements */
  readonly without?: readonly string[];
}

export interface Search {
  /** Works on: the first steps build a plan, every further one tries `tries` improvements. */
  step(tries: number): void;
  /** The best solution so far; `unknown` while there is none. */
  best(): Solution;
  /** No further step can change anything: optimal, or proved infeasible. */
  readonly isDone: boolean;
  /** No plan, no proof, and every way to a first plan has been tried. */
  readonly isStuck: boolean;
  /** improvements tried */
  readonly tried: number;
}

/** Nothing is known yet. */
export const UNKNOWN: Solution = {
  format: 'muster-solution/1',
  status: 'unknown',
  operations: [],
  cost: null,
  bound: null,
  conflict: null,
};

export function infeasible(conflict: Conflict): Solution {
  return { ...UNKNOWN, status: 'infeasible', conflict };
}
