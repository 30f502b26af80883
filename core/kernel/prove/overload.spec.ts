/** What the hours before the dates can't hold. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { leastSums, parseProblem, solveProblem } from '../index';
import { buildModel } from '../model/model';
import { oneMachine } from '../testing/problems';
import { overload } from './overload';
import { propagate } from './propagate';

const forced = (problem: ReturnType<typeof parseProblem>): number => {
  const model = buildModel(problem);
  const propagation = propagate(model);
  return propagation.ok ? overload(model, propagation.bounds) : Infinity;
};

/** Evenings of an hour, and pieces of so many minutes with two coats each. */
const evenings = (
  pieces: number,
  minutes: number,
  due: number,
  capacity = 1,
  weights: readonly number[] = [],
) =>
  parseProblem({
    format: 'muster-problem/1',
    horizon: 6000,
    calendars: [{ id: 'evening', open: [0, 1, 2, 3].map((d) => [1440 * d, 1440 * d + 60]) }],
    resources: [{ id: 'hands', capacity, calendar: 'evening' }],
    operations: Array.from({ length: pieces }, (_, k) => [
      { id: `a${k}`, minutes, uses: [{ resource: 'hands', amount: 1 }] },
      { id: `b${k}`, minutes, uses: [{ resource: 'hands', amount: 1 }] },
    ]).flat(),
    lags: Array.from({ length: pieces }, (_, k) => ({ from: `a${k}`, to: `b${k}`, min: 0 })),
    units: Array.from({ length: pieces }, (_, k) => ({
      id: `u${k}`,
      ready: `b${k}`,
      due,
      weight: weights[k] ?? 1,
    })),
    objective: { tardiness: 100, completion: 0.01 },
  });

describe('hours that are too few', () => {
  it('of one machine make somebody as late as the earliest due date first does (Jackson 1955)', () => {
    const job = fc.tuple(fc.integer({ min: 1, max: 40 }), fc.constant(1), fc.integer({ min: 1, max: 200 }));
    fc.assert(
      fc.property(fc.array(job, { minLength: 1, maxLength: 9 }), (jobs) => {
        let end = 0;
        let latest = 0;
        for (const [minutes, , due] of [...jobs].sort((a, b) => a[2] - b[2])) {
          end += minutes;
          latest = Math.max(latest, end - due);
        }
        expect(forced(oneMachine(jobs, { tardiness: 1 }))).toBe(latest);
      }),
    );
  });

  it('are counted over evenings: what does not fit before the date is done on the next', () => {
    // Three pieces of two coats of ten minutes fill an hour; a fourth needs twenty minutes of the second evening.
    expect(forced(evenings(3, 10, 1000))).toBe(0);
    expect(forced(evenings(4, 10, 1000))).toBe(1440 + 20 - 1000);
    expect(forced(evenings(4, 10, 1000, 2))).toBe(0);
  });

  it('make late whoever can best be late, and nobody whose date does not count', () => {
    expect(forced(evenings(4, 10, 1000, 1, [3, 2, 5, 4]))).toBe(2 * 460);
    expect(forced(evenings(4, 10, 1000, 1, [1, 1, 1, 0]))).toBe(0);
  });

  it('are told as what no plan goes below, which a plan here reaches', () => {
    const problem = evenings(4, 10, 1000);
    expect(leastSums(problem)!.tardiness).toBe(460);
    expect(solveProblem(problem, { iterations: 60 }).cost!.tardiness).toBe(460);
  });
});
