/** The count of runs kept with a plan in the making, against the judge's, which counts from the finished plan alone. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom, solveProblem } from '../index';
import { Schedule } from './schedule';
import { buildModel } from '../model/model';
import { propagate } from '../prove/propagate';
import { validateSolution } from '../document/validate';
import { wideProblem } from '../testing/wideProblem';

describe('the count of runs', () => {
  it('is the judge’s at the end of a search, and the same after operations went out and in, in any order', () => {
    let counted = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const problem = wideProblem(seed);
        if (problem.horizon > 10_000 || !problem.resources!.some((r) => r.runs)) return;
        problem.objective.runs = 2;
        const solution = solveProblem(problem, { iterations: 5 });
        if (solution.cost === null) return;
        const model = buildModel(problem);
        const propagation = propagate(model);
        if (!propagation.ok) return;
        const schedule = new Schedule(model, propagation.bounds);
        solution.operations.forEach((o, i) => {
          if (!schedule.isPlaced(i)) schedule.assign(i, o.start, o.end, o.setup);
        });
        const right = validateSolution(problem, solution).cost!.runs;
        const count = (): number => schedule.runs?.count ?? 0;
        expect(count()).toBe(right);
        counted += right;
        const random = seededRandom(seed);
        const out = model.ids.map((_, i) => i).filter((i) => !model.isFixed[i] && random() < 0.6);
        for (const i of out) schedule.remove(i);
        for (const i of out.reverse()) {
          const o = solution.operations[i]!;
          schedule.assign(i, o.start, o.end, o.setup);
        }
        expect(count()).toBe(right);
      }),
      { numRuns: 300 },
    );
    // About a third of these problems have a plan that takes time on what counts.
    expect(counted).toBeGreaterThan(50);
  });
});
