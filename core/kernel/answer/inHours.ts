/** A plan made for fewer open hours, read with all of them. */
import type { Problem, Solution } from '../document/document';
import { validateSolution } from '../document/validate';
import { buildModel } from '../model/model';
import { pausableEnd } from '../model/openHours';

/**
 * Every start stays; what may pause ends sooner where it pauses less.
 * @param solution a plan of the same problem with some of its hours shut
 * @returns the plan with its cost, no bound known; null where it breaks a rule so, or was none
 */
export function inHours(problem: Problem, solution: Solution): Solution | null {
  if (solution.cost === null) return null;
  const { ids, open, pausable, minutes, isFixed } = buildModel({ ...problem, lags: [], holds: [] });
  const paused = new Map(
    [...ids.entries()].filter(([i]) => pausable[i] && !isFixed[i]).map(([i, id]) => [id, i]),
  );
  const draft: Solution = {
    ...solution,
    status: 'feasible',
    operations: solution.operations.map((o) => {
      const i = paused.get(o.id);
      return i === undefined ? o : { ...o, end: pausableEnd(open[i]!, o.start, minutes[i]!) };
    }),
    bound: null,
    cost: null,
  };
  const { violations, cost } = validateSolution(problem, draft);
  // Rule 8 is of the cost that is told: there is none yet.
  return violations.some((v) => v.rule !== 8) || cost === null ? null : { ...draft, cost };
}
