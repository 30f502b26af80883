/** Job shops by swaps against the exact search, and what is narrowed down of a conflict. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ExactSearch } from '../../prove/exact';
import { parseProblem, seededRandom, solveProblem, type Problem } from '../../index';
import { buildModel } from '../../model/model';
import { narrowConflict } from '../../prove/narrow';
import { propagate } from '../../prove/propagate';
import { isShop, ShopSearch } from './index';
import { instance } from '../../testing/problems';

/** Jobs as [machine, minutes] in order. */
function shop(jobs: readonly (readonly (readonly [number, number])[])[]): Problem {
  const operations = jobs.flatMap((job, j) =>
    job.map(([m, minutes], k) => ({ id: `j${j}.${k}`, minutes, uses: [{ resource: `m${m}`, amount: 1 }] })),
  );
  return parseProblem({
    format: 'muster-problem/1',
    horizon: operations.reduce((sum, o) => sum + o.minutes, 0) + 1,
    resources: [0, 1, 2].map((m) => ({ id: `m${m}`, capacity: 1 })),
    operations,
    lags: jobs.flatMap((job, j) =>
      job.slice(1).map((_, k) => ({ from: `j${j}.${k}`, to: `j${j}.${k + 1}`, min: 0 })),
    ),
    objective: { makespan: 1 },
  });
}

const jobs = fc.array(
  fc.array(fc.tuple(fc.integer({ min: 0, max: 2 }), fc.integer({ min: 1, max: 20 })), {
    minLength: 1,
    maxLength: 3,
  }),
  { minLength: 2, maxLength: 4 },
);

describe('the swaps of a job shop', () => {
  it('are meant for job shops alone', () => {
    expect(isShop(buildModel(instance('jobshop-ft06')))).toBe(true);
    expect(isShop(buildModel(instance('batch-60-1')))).toBe(false);
    expect(isShop(buildModel(instance('tiny-01')))).toBe(false);
  });

  it('reach what the exact search proves, on small random shops', () => {
    fc.assert(
      fc.property(jobs, fc.integer({ min: 1, max: 1000 }), (list, seed) => {
        const problem = shop(list);
        const model = buildModel(problem);
        const propagation = propagate(model);
        if (!propagation.ok) throw new Error('a job shop always has a plan');
        const exact = new ExactSearch(model, propagation.bounds, propagation.order);
        while (!exact.isComplete) exact.step(200);
        // Any order that goes with the jobs will do to begin from.
        const begin = Int32Array.from(model.ids, (_, i) => i);
        const search = new ShopSearch(model, begin, seededRandom(seed));
        search.step(4000);
        expect(search.best.cost).toBe(exact.best!.cost);
      }),
      { numRuns: 40 },
    );
  });

  it('get out of an order whose ends of blocks lead back and forth', () => {
    const model = buildModel(
      shop([
        [
          [1, 1],
          [0, 2],
        ],
        [
          [2, 2],
          [0, 1],
        ],
        [[0, 2]],
      ]),
    );
    // The third job belongs to the front of the machine that all share; only the middle of a block takes it there.
    const begin = Int32Array.from(model.ids, (_, i) => i);
    for (let seed = 1; seed <= 50; seed++) {
      const search = new ShopSearch(model, begin, seededRandom(seed));
      search.step(60);
      expect(search.best.cost, `seed ${seed}`).toBe(5);
    }
  });

  it('are proved best by the whole kernel', () => {
    fc.assert(
      fc.property(jobs, (list) => {
        const solution = solveProblem(shop(list), { iterations: 200 });
        expect(solution.status).toBe('optimal');
        expect(solution.bound).toBeCloseTo(solution.cost!.total, 6);
      }),
      { numRuns: 30 },
    );
  });
});

describe('a conflict that only search finds', () => {
  /** One pair of hands, two windows that open at the same minute, and a bystander. */
  const problem = parseProblem({
    format: 'muster-problem/1',
    horizon: 300,
    resources: [{ id: 'hands', capacity: 1 }],
    operations: [
      ...['a', 'b'].flatMap((x) => [
        { id: `${x}1`, minutes: 10, uses: [{ resource: 'hands', amount: 1 }], latest: 25 },
        { id: `${x}2`, minutes: 30, uses: [{ resource: 'hands', amount: 1 }] },
      ]),
      { id: 'other', minutes: 5, uses: [{ resource: 'hands', amount: 1 }] },
    ],
    lags: ['a', 'b'].map((x) => ({ from: `${x}1`, to: `${x}2`, min: 20, max: 32 })),
    objective: { makespan: 1 },
  });

  it('is proved, and told without the bystander', () => {
    const solution = solveProblem(problem, { iterations: 500 });
    expect(solution.status).toBe('infeasible');
    expect(solution.conflict!.operations).toEqual(expect.arrayContaining(['a2', 'b2']));
    expect(solution.conflict!.operations).not.toContain('other');
  });

  it('says what would lift it, and that does', () => {
    const conflict = narrowConflict(problem);
    expect(conflict).toMatchObject({
      kind: 'search',
      lifts: expect.arrayContaining([
        { kind: 'capacity', resource: 'hands' },
        { kind: 'window', from: 'a1', to: 'a2' },
      ]),
    });
    const more = { ...problem, resources: [{ id: 'hands', capacity: 2 }] };
    expect(solveProblem(more, { iterations: 200 }).status).toBe('optimal');
    const wider = {
      ...problem,
      lags: problem.lags!.map((l) => (l.from === 'a1' ? { from: l.from, to: l.to, min: l.min } : l)),
    };
    expect(solveProblem(wider, { iterations: 200 }).status).toBe('optimal');
  });
});
