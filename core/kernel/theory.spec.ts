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
