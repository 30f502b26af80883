/** Every instance that ships with the kernel, judged by the validator; published optima where there are some. */
import { describe, expect, it } from 'vitest';
import { solveProblem, validateSolution } from './index';
import { instance, instanceNames } from './testing/problems';

/** What keeps those from having a plan, by their names. */
const KINDS: Readonly<Record<string, string>> = {
  'tiny-bad-no-time-to-clean': 'setup',
  'tiny-bad-rack-small': 'capacity',
  'tiny-bad-window-shut': 'window',
};
const LARGE = /^batch-(2000|10000)/;

describe.each(instanceNames().filter((n) => !LARGE.test(n)))('%s', (name) => {
  it(name.startsWith('tiny-bad') ? 'is proved to have no plan' : 'gets a plan that breaks no rule', () => {
    const problem = instance(name);
    const solution = solveProblem(problem, { iterations: 60 });
    if (name.startsWith('tiny-bad')) {
      expect(solution.status).toBe('infeasible');
      expect(solution.conflict?.kind).toBe(KINDS[name]);
      expect(solution.conflict?.operations.length).toBeGreaterThan(0);
      return;
    }
    expect(solution.status).toMatch(/feasible|optimal/);
    expect(validateSolution(problem, solution).violations).toEqual([]);
    expect(solution.bound).toBeLessThanOrEqual(solution.cost!.total + 1e-6);
  });
});

describe('published job shops', () => {
  // Fisher & Thompson (1963), "Probabilistic learning combinations of local job-shop scheduling rules"; optimum 55.
  it('ft06 reaches 55', () => {
    const solution = solveProblem(instance('jobshop-ft06'), { iterations: 20_000 });
    expect(solution.cost!.makespan).toBe(55);
  });
});
