/**
 * What binds a plan. On random small problems, where the best plan with and without each cause is proved: to take a cause away that is named
 * helps, to take one away that is not named does not.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  causeOf,
  causesIn,
  explainer,
  isCause,
  parseProblem,
  solveProblem,
  validateSolution,
  withoutCause,
  type Cause,
  type Problem,
} from '../index';
import { smallProblem } from '../testing/problems';
import { wideProblem } from '../testing/wideProblem';

/** Nothing but lateness costs anything, so that two best plans can be compared by it. */
const late = (problem: Problem): Problem =>
  parseProblem({
    ...problem,
    objective: { tardiness: 1 },
    units: (problem.units ?? []).map((u) => ({
      ...u,
      due: Math.floor(u.due / 6),
      weight: Math.max(1, u.weight),
    })),
  });
/** What a short search finds, as the planning desk does it. */
const found = (problem: Problem): number | null =>
  solveProblem(problem, { iterations: 12 }).cost?.tardiness ?? null;
/** What is proved; null where the proof takes too long. */
const proved = (problem: Problem): number | null => {
  const solution = solveProblem(problem, { iterations: 250 });
  return solution.status === 'optimal' ? solution.cost!.tardiness : null;
};

describe('a cause', () => {
  it('that a short search names helps when it is taken away, and one that it does not name does not', () => {
    let named = 0;
    let idle = 0;
    const check = (problem: Problem): void => {
      const base = proved(problem);
      const seen = found(problem);
      if (base === null || seen === null || base === 0) return;
      for (const cause of causesIn(problem)) {
        const without = withoutCause(problem, cause);
        const best = proved(without);
        const now = found(without);
        if (best === null || now === null) continue;
        expect(best, JSON.stringify(cause)).toBeLessThanOrEqual(base + 1e-9);
        const isNamed = seen - now > 1e-9;
        expect(isNamed, JSON.stringify([cause, base, best, seen, now])).toBe(base - best > 1e-9);
        if (isNamed) named++;
        else idle++;
      }
    };
    for (let seed = 0; seed < 150; seed++) check(late(wideProblem(seed)));
    fc.assert(
      fc.property(smallProblem, (problem) => check(late(problem))),
      { numRuns: 40, seed: 11 },
    );
    expect(named).toBeGreaterThan(60);
    expect(idle).toBeGreaterThan(60);
  });

  it('taken away leaves every plan a plan', () => {
    for (let seed = 200; seed < 320; seed++) {
      const problem = parseProblem(wideProblem(seed));
      const solution = solveProblem(problem, { iterations: 6 });
      if (solution.cost === null) continue;
      for (const cause of causesIn(problem)) {
        // What pauses while the bench is shut ends sooner where it never is.
        if (cause.kind === 'hours' && problem.operations.some((o) => o.pausable)) continue;
        const easier = parseProblem(withoutCause(problem, cause));
        const broken = validateSolution(easier, solution).violations.filter(
          (v) => v.rule !== 8 && v.rule !== 3,
        );
        expect(broken, `seed ${seed}, ${JSON.stringify(cause)}`).toEqual([]);
      }
    }
  });
});

describe('the chain of a late unit', () => {
  it('follows what binds where it can: reasons whose cause helps come before others', () => {
    let told = 0;
    for (let seed = 0; seed < 200; seed++) {
      const problem = late(wideProblem(seed));
      const solution = solveProblem(problem, { iterations: 60 });
      if (solution.status !== 'optimal' || solution.cost!.tardiness === 0) continue;
      const unit = problem.units!.find(
        (u) => solution.operations.find((o) => o.id === u.ready)!.end > u.due,
      )!;
      const helping: Cause[] = causesIn(problem).filter((c) => {
        const better = found(withoutCause(problem, c));
        return better !== null && better < solution.cost!.tardiness - 1e-9;
      });
      const helps = (cause: Cause | null): boolean =>
        cause !== null && helping.some((h) => isCause(h, cause));
      const kernel = explainer(problem, solution);
      for (const { operation, reason } of kernel.chain(unit.ready, (r) => helps(causeOf(problem, r)))) {
        const all = kernel.explain(operation).map((r) => causeOf(problem, r));
        expect(helps(causeOf(problem, reason)), `seed ${seed}, ${operation}`).toBe(all.some(helps));
        told++;
      }
    }
    expect(told).toBeGreaterThan(40);
  });
});
