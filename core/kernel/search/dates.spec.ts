/** The search for the dates alone, where the first plans are late and none need be: batches whose dates a planted plan keeps. */
import { describe, expect, it } from 'vitest';
import { inTime, latenessOf } from '../prove/inTime';
import { Dates } from './dates';
import { seededRandom, solveProblem, parseProblem } from '../index';
import { judged } from '../document/judged';
import { instance } from '../testing/problems';
import { planned } from '../testing/planned';

/** Far more than it takes: about 200 with most seeds. */
const MOST_STEPS = 6000;

describe('where nobody need be late', () => {
  it.each(['tight-600', 'rhythm-300-1'])('nobody is: %s', (name) => {
    const { model, bounds, structure, schedule } = planned(instance(name));
    expect(schedule.lateness()).toBeGreaterThan(0);
    const search = new Dates(schedule, structure, inTime(model, bounds)!, seededRandom(3));
    let steps = 0;
    while (!search.step() && steps < MOST_STEPS) steps++;
    expect(search.waiting).toBe(0);
    expect(judged(model.problem, search.schedule, 0).cost!.tardiness).toBe(0);
  });
});

describe('where one is late in any case', () => {
  it('only that one is, and by no more than it must', () => {
    const pairs = ['a', 'b', 'c', 'd'];
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 2000,
      resources: [{ id: 'hands', capacity: 1 }],
      operations: pairs.flatMap((p) =>
        [1, 2].map((k) => ({ id: p + k, minutes: 30, uses: [{ resource: 'hands', amount: 1 }] })),
      ),
      lags: pairs.map((p) => ({ from: `${p}1`, to: `${p}2`, min: 100 })),
      // 30 + 100 + 30 minutes at the soonest: the first misses its date by a minute.
      units: pairs.map((p, k) => ({ id: p, ready: `${p}2`, due: [159, 260, 260, 260][k]!, weight: 1 })),
      objective: { tardiness: 100, completion: 0.01 },
    });
    const { model, bounds } = planned(problem);
    expect(latenessOf(model, bounds.endLow)).toBe(100);
    expect(solveProblem(problem, { iterations: 50 }).cost!.tardiness).toBe(1);
  });
});
