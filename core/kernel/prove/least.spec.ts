/** What no plan goes below: held against plans of random problems, and worked by hand. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastSums, parseProblem, solveProblem, type Problem } from '../index';
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

  /** Bone, what the test puts between, bone again: on hands and a tool of their own. */
  const bonesWith = (
    between: readonly Problem['operations'][number][],
    lags: NonNullable<Problem['lags']>,
    fixed: NonNullable<Problem['fixed']> = [],
  ): Problem =>
    parseProblem({
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
      clocks: [
        {
          id: 'air',
          points: [
            [0, 0],
            [1000, 2000],
          ],
        },
      ],
      resources: [
        { id: 'hands', capacity: 1, calendar: 'evening', runs: true },
        { id: 'airbrush', capacity: 1, setup: { minutes: 4 } },
      ],
      operations: [...['b1', 'b2'].map((id) => sprayed(id, 'bone')), ...between],
      lags,
      fixed,
      units: [],
      objective: { setup: 1, runs: 1 },
    });
  const sprayed = (id: string, family: string): Problem['operations'][number] => ({
    id,
    minutes: 10,
    family,
    uses: [
      { resource: 'hands', amount: 1 },
      { resource: 'airbrush', amount: 1 },
    ],
  });
  const follow = (from: string, to: string, min = 0, clock?: string) => ({
    from,
    to,
    min,
    ...(clock === undefined ? {} : { clock }),
  });

  it('counts a family anew where another lies between two of its coats, however it is planned', () => {
    const lags = [follow('b1', 'wash'), follow('wash', 'b2')];
    const { setup, runs } = leastSums(bonesWith([sprayed('wash', 'umber')], lags))!;
    expect({ setup, runs }).toEqual({ setup: 3 * 4, runs: 3 });
    // Somebody else's wash with a brush: nothing of these hands lies between.
    const others = { ...sprayed('wash', 'umber'), uses: [] };
    const { setup: less, runs: fewer } = leastSums(bonesWith([others], lags))!;
    expect({ setup: less, runs: fewer }).toEqual({ setup: 1 * 4, runs: 1 });
    // Beside it, not between: once is enough.
    const beside = leastSums(bonesWith([sprayed('wash', 'umber')], [follow('b1', 'b2')]))!;
    expect({ setup: beside.setup, runs: beside.runs }).toEqual({ setup: 2 * 4, runs: 2 });
  });

  it('counts a family anew where what lies between needs no hands but dries longer than a session, in the fastest air', () => {
    const dried = (minutes: number, clock?: string): number =>
      leastSums(bonesWith([], [follow('b1', 'b2', minutes, clock)]))!.runs;
    // Begun at 0, over at 10, dry at 90: over again at 100, when the evening is. A minute later it does not fit.
    expect(dried(80)).toBe(1);
    expect(dried(81)).toBe(2);
    // Two ticks a minute: half as long, and a minute forgone.
    expect(dried(163, 'air')).toBe(1);
    expect(dried(164, 'air')).toBe(2);
  });

  it('does not charge what goes on with something done before', () => {
    const lags = [follow('b1', 'wash'), follow('wash', 'b2')];
    const done = [{ id: 'b1', start: 0, end: 10 }];
    const { setup, runs } = leastSums(bonesWith([sprayed('wash', 'umber')], lags, done))!;
    expect({ setup, runs }).toEqual({ setup: 1 * 4, runs: 1 });
  });
});
