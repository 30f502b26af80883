import { describe, expect, it } from 'vitest';
import { planned } from '../testing/planned';
import { instance } from '../testing/problems';
import { BestPlan } from './bestPlan';

describe('the best plan so far', () => {
  const { schedule } = planned(instance('tiny-01'));
  const cost = schedule.cost();

  it('is kept as it stood, whatever becomes of the schedule', () => {
    const best = new BestPlan();
    expect(() => best.layOut(schedule)).toThrow('no plan');
    expect(best.keep(schedule)).toBe(true);
    expect(best.keep(schedule)).toBe(false);
    const start = schedule.start.slice();
    schedule.clear();
    best.layOut(schedule);
    expect(schedule.start).toEqual(start);
    expect(schedule.cost()).toBeCloseTo(cost, 9);
  });

  it('gives way to a cheaper one alone', () => {
    const best = new BestPlan();
    const { start, end, setup } = schedule;
    expect(best.take({ start, end, setup, cost: cost + 5 })).toBe(true);
    expect(best.take({ start, end, setup, cost: cost + 5 })).toBe(false);
    expect(best.keep(schedule)).toBe(true);
    expect(best.plan!.cost).toBe(cost);
  });
});
