/** The search as it goes: what streams out is always a plan, never dearer than before, never below its bound; repeatable, and stoppable. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  movedOperations,
  startSearch,
  validateSolution,
  type Problem,
  type Search,
  type Solution,
} from './index';
import { instance, smallProblem } from './testing/problems';

/** The solutions that come out one after the other, each once. */
function stream(search: Search, steps: number, tries: number): Solution[] {
  const seen: Solution[] = [];
  for (let k = 0; k < steps && !search.isDone; k++) {
    search.step(tries);
    const best = search.best();
    if (best !== seen.at(-1)) seen.push(best);
  }
  return seen;
}

function expectSound(problem: Problem, seen: readonly Solution[]): void {
  let cost = Infinity;
  let bound = -Infinity;
  for (const s of seen) {
    if (s.cost === null) continue;
    expect(validateSolution(problem, s).violations).toEqual([]);
    expect(s.cost.total).toBeLessThanOrEqual(cost + 1e-9);
    expect(s.bound!).toBeGreaterThanOrEqual(Math.min(bound, s.cost.total) - 1e-6);
    expect(s.bound!).toBeLessThanOrEqual(s.cost.total + 1e-6);
    if (s.status === 'optimal') expect(s.bound!).toBeCloseTo(s.cost.total, 4);
    cost = s.cost.total;
    bound = s.bound!;
  }
}

describe('what streams out', () => {
  it('is a plan each time, cheaper than the one before, above a bound that only rises', () => {
    fc.assert(
      fc.property(smallProblem, fc.integer({ min: 1, max: 20 }), (problem, tries) => {
        const seen = stream(startSearch(problem), 40, tries);
        expectSound(problem, seen);
        const last = seen.at(-1);
        if (last?.status === 'infeasible') {
          expect(seen.some((s) => s.cost !== null)).toBe(false);
          expect(last.conflict!.operations.length).toBeGreaterThan(0);
        }
      }),
      { numRuns: 60 },
    );
  });

  it.each(['batch-60-1', 'soft-60-1', 'jobshop-ft06'])('so it is for %s', (name) => {
    const problem = instance(name);
    let tried = 0;
    const search = startSearch(problem, { progress: () => tried / 1500 });
    const seen: Solution[] = [];
    while (!search.isDone && search.tried < 1500) {
      search.step(25);
      tried = search.tried;
      const best = search.best();
      if (best !== seen.at(-1)) seen.push(best);
    }
    expect(seen.filter((s) => s.cost !== null).length).toBeGreaterThan(1);
    expectSound(problem, seen);
  });

  it('is the same however the steps are cut', () => {
    fc.assert(
      fc.property(smallProblem, fc.integer({ min: 1, max: 50 }), (problem, seed) => {
        const whole = startSearch(problem, { seed });
        const cut = startSearch(problem, { seed });
        for (let k = 0; k < 30; k++) whole.step(1);
        for (let k = 0; k < 30; k++) {
          cut.step(1);
          cut.best();
        }
        expect(cut.best()).toEqual(whole.best());
      }),
      { numRuns: 30 },
    );
  });
});

describe('a search that is done', () => {
  it('stays as it is', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const search = startSearch(problem);
        for (let k = 0; k < 400 && !search.isDone; k++) search.step(5);
        if (!search.isDone) return;
        const { tried } = search;
        const best = search.best();
        search.step(100);
        expect(search.best()).toBe(best);
        expect(search.tried).toBe(tried);
      }),
      { numRuns: 40 },
    );
  });
});

describe('a search that begins from an old plan', () => {
  it('has one for the same problem that is no dearer, at once', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const [old] = stream(startSearch(problem), 20, 5).slice(-1);
        if (!old?.cost) return;
        const again = startSearch(problem, { previous: old, seed: 7 });
        for (let k = 0; k < 3; k++) again.step(1);
        expect(again.best().cost!.total).toBeLessThanOrEqual(old.cost.total + 1e-6);
      }),
      { numRuns: 60 },
    );
  });

  it('leaves every operation in its session when calm is worth more than all else', () => {
    const problem = instance('batch-60-1');
    const [old] = stream(startSearch(problem), 12, 1).slice(-1);
    const calm = startSearch(problem, { previous: old!, stability: 1e9 });
    for (let k = 0; k < 30; k++) calm.step(20);
    expect(movedOperations(problem, old!, calm.best())).toEqual([]);
    expect(calm.best().cost!.total).toBeLessThanOrEqual(old!.cost!.total);
  });
});

describe('operations that moved', () => {
  it('are none between a plan and itself, and the same ones both ways', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const a = stream(startSearch(problem, { seed: 1 }), 4, 1).at(-1);
        const b = stream(startSearch(problem, { seed: 2 }), 30, 5).at(-1);
        if (!a?.cost || !b?.cost) return;
        expect(movedOperations(problem, a, a)).toEqual([]);
        expect(movedOperations(problem, a, b).sort()).toEqual(movedOperations(problem, b, a).sort());
      }),
      { numRuns: 40 },
    );
  });
});
