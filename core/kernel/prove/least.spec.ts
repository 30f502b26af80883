/** What no plan goes below: held against plans of random problems, and worked by hand. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastSums, parseProblem, solveProblem } from '../index';
import { wideProblem } from '../testing/wideProblem';

describe('what no plan goes below', () => {
  it('is never more than a plan has, sum by sum', () => {
    let tight = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), (seed) => {
        const problem = wideProblem(seed);
        const { cost } = solveProblem(problem, { iterations: 8 });
        if (cost === null) return;
        const least = leastSums(problem)!;
        for (const sum of ['tardiness', 'setup', 'runs', 'completion'] as const) {
          // Runs are counted by every plan, whether they cost anything or not.
          expect(least[sum]).toBeLessThanOrEqual(cost[sum] + 1e-6);
          if (least[sum] > 0 && least[sum] >= cost[sum] - 1e-6) tight++;
        }
      }),
      { numRuns: 250 },
    );
    // And not so little that it would always hold.
    expect(tight).toBeGreaterThan(50);
  });

  it('counts a family anew for every session that its dates and its work force it into', () => {
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 4000,
      calendars: [
        {
          id: 'evening',
          open: [
            [0, 100],
            [1000, 1100],
            [2000, 2100],
          ],
        },
      ],
      resources: [
        {
          id: 'hands',
          capacity: 1,
          calendar: 'evening',
          runs: true,
          setup: { minutes: 4, between: [['', 'red', 1]] },
        },
      ],
      operations: [
        // Red: one must be over on the first evening, one cannot begin before the third.
        { id: 'r1', minutes: 10, family: 'red', latest: 100, uses: [{ resource: 'hands', amount: 1 }] },
        { id: 'r2', minutes: 10, family: 'red', earliest: 1500, uses: [{ resource: 'hands', amount: 1 }] },
        // Blue: 140 minutes of work, and no evening has more than 100.
        { id: 'b1', minutes: 70, family: 'blue', uses: [{ resource: 'hands', amount: 1 }] },
        { id: 'b2', minutes: 70, family: 'blue', uses: [{ resource: 'hands', amount: 1 }] },
      ],
      units: [{ id: 'u', ready: 'r2', due: 2000, weight: 3 }],
      objective: { tardiness: 1, setup: 1, runs: 1 },
    });
    // r2 ends at 2010 at the soonest by its hours; red is put on from clean for 1, blue for 4.
    expect(leastSums(problem)).toEqual({ tardiness: 30, setup: 5, runs: 4, completion: 3 * 2010 });
  });
});
