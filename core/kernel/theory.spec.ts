/** Rules that are proved optimal for simple shops, each by the whole kernel. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, type Solution } from './index';
import { oneMachine } from './testing/problems';

const ends = (s: Solution): Map<string, number> => new Map(s.operations.map((o) => [o.id, o.end]));

describe('one machine', () => {
  // Smith (1956), "Various optimizers for single-stage production": weighted completion is least by minutes over weight.
  it('meets Smith’s rule', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 9 })), {
          minLength: 2,
          maxLength: 6,
        }),
        (jobs) => {
          const solution = solveProblem(
            oneMachine(
              jobs.map(([p, w]) => [p, w, 0]),
              { completion: 1 },
            ),
            { iterations: 400 },
          );
          let at = 0;
          const best = [...jobs]
            .sort((a, b) => a[0] / a[1] - b[0] / b[1])
            .reduce((sum, [p, w]) => sum + w * (at += p), 0);
          expect(solution.cost!.completion).toBe(best);
        },
      ),
      { numRuns: 25 },
    );
  });

  // Jackson (1955), "Scheduling a production line to minimize maximum tardiness": if anything is on time, earliest due date is.
  it('has nobody late where Jackson’s rule has nobody late', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 30 }), { minLength: 2, maxLength: 9 }),
        fc.integer({ min: 0, max: 4 }),
        (minutes, slack) => {
          let at = 0;
          const jobs = minutes.map((p): [number, number, number] => [p, 1, (at += p) + slack]).reverse();
          const solution = solveProblem(oneMachine(jobs, { tardiness: 1 }), { iterations: 50 });
          expect(solution.cost!.tardiness).toBe(0);
          expect(solution.status).toBe('optimal');
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('two machines in a row', () => {
  // Johnson (1954), "Optimal two- and three-stage production schedules with setup times included", the five jobs of his example's form.
  it('meets Johnson’s rule', () => {
    const jobs = [
      [4, 5],
      [4, 1],
      [30, 4],
      [6, 30],
      [2, 3],
    ] as const;
    const johnson = [...jobs].sort((x, y) => Math.min(x[0], y[1]) - Math.min(y[0], x[1]));
    let a = 0;
    let b = 0;
    for (const [p, q] of johnson) {
      a += p;
      b = Math.max(a, b) + q;
    }
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 400,
      resources: [
        { id: 'a', capacity: 1 },
        { id: 'b', capacity: 1 },
      ],
      operations: jobs.flatMap(([p, q], k) => [
        { id: `${k}a`, minutes: p, uses: [{ resource: 'a', amount: 1 }] },
        { id: `${k}b`, minutes: q, uses: [{ resource: 'b', amount: 1 }] },
      ]),
      lags: jobs.map((_, k) => ({ from: `${k}a`, to: `${k}b`, min: 0 })),
      objective: { makespan: 1 },
    });
    const solution = solveProblem(problem, { iterations: 2000 });
    expect(Math.max(...ends(solution).values())).toBe(b);
    expect(b).toBe(47);
  });
});

describe('one machine with set-ups between families', () => {
  interface Job {
    readonly minutes: number;
    readonly weight: number;
    readonly family: string;
  }

  const orders = (count: number): number[][] =>
    count === 0
      ? [[]]
      : orders(count - 1).flatMap((rest) =>
          Array.from({ length: count }, (_, k) => [...rest.slice(0, k), count - 1, ...rest.slice(k)]),
        );

  /** Weighted completion of an order, a set-up before the first and at every change of family. */
  function costOf(jobs: readonly Job[], order: readonly number[], setup: number): number {
    let at = 0;
    let before = '';
    return order.reduce((sum, k) => {
      const job = jobs[k]!;
      at += job.minutes + (job.family === before ? 0 : setup);
      before = job.family;
      return sum + job.weight * at;
    }, 0);
  }

  function problemOf(jobs: readonly Job[], setup: number) {
    return parseProblem({
      format: 'muster-problem/1',
      horizon: jobs.reduce((sum, j) => sum + j.minutes + setup, 0),
      resources: [{ id: 'machine', capacity: 1, runs: true, setup: { minutes: setup } }],
      operations: jobs.map((j, k) => ({
        id: `j${k}`,
        minutes: j.minutes,
        family: j.family,
        uses: [{ resource: 'machine', amount: 1 }],
      })),
      units: jobs.map((j, k) => ({ id: `u${k}`, ready: `j${k}`, due: 0, weight: j.weight })),
      objective: { completion: 1 },
    });
  }

  const families = fc.array(
    fc.record({
      minutes: fc.integer({ min: 1, max: 12 }),
      weight: fc.integer({ min: 1, max: 5 }),
      family: fc.constantFrom('red', 'blue'),
    }),
    { minLength: 2, maxLength: 5 },
  );

  // Monma & Potts (1989), "On the complexity of scheduling with batch setup times", Operations Research 37 (from memory): some optimal
  // schedule has the jobs of each family in the order of minutes over weight.
  it('is solved within the orders that Monma & Potts leave', () => {
    fc.assert(
      fc.property(families, fc.integer({ min: 0, max: 9 }), (jobs, setup) => {
        const inOrder = (order: readonly number[]): boolean =>
          order.every((k, at) =>
            order
              .slice(at + 1)
              .every((l) => jobs[k]!.family !== jobs[l]!.family || ratio(jobs[k]!) <= ratio(jobs[l]!)),
          );
        const left = orders(jobs.length).filter(inOrder);
        const best = Math.min(...left.map((order) => costOf(jobs, order, setup)));
        const solution = solveProblem(problemOf(jobs, setup), { iterations: 400 });
        expect(solution.status).toBe('optimal');
        expect(solution.cost!.completion).toBe(best);
      }),
      { numRuns: 40 },
    );
  });

  // The same paper's premise, carried to its end: where a set-up is longer than all work together and jobs weigh alike, no family is taken up twice.
  it('takes every family up once where set-ups dominate', () => {
    fc.assert(
      fc.property(families, (jobs) => {
        const alike = jobs.map((j) => ({ ...j, weight: 1 }));
        const setup = 10 * alike.reduce((sum, j) => sum + j.minutes, 0);
        const { cost } = solveProblem(problemOf(alike, setup), { iterations: 400 });
        expect(cost!.runs).toBe(new Set(jobs.map((j) => j.family)).size);
      }),
      { numRuns: 25 },
    );
  });

  const ratio = (job: Job): number => job.minutes / job.weight;
});
