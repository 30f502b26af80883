import { describe, expect, it } from 'vitest';
import { solveProblem } from '../index';
import { calmOf } from '../place/calm';
import { Schedule } from '../place/schedule';
import { instance } from '../testing/problems';
import { planned } from '../testing/planned';
import { BestPlan } from './bestPlan';
import { Menders } from './menders';

describe('ways to mend a plan', () => {
  it('keep the best of all, and the one that is cheapest but for its lateness', () => {
    const problem = instance('rhythm-300-1');
    const before = solveProblem(problem, { iterations: 60 });
    const { model, bounds, structure } = planned(problem);
    const schedule = new Schedule(model, bounds, calmOf(model, before, 24));
    const menders = new Menders(schedule, structure, before);
    const best = new BestPlan();
    let ways = 0;
    for (; menders.mayGoOn(0); ways++) menders.next(best);
    expect(ways).toBe(7);
    // Nothing has changed: the plan itself costs least in either way.
    expect(best.plan!.cost).toBeCloseTo(before.cost!.total, 6);
    expect(menders.calmest!.plan!.start).toEqual(best.plan!.start);
    expect(schedule.isPlaced(0)).toBe(false);
  });

  it('end once one has led to a plan and their share is over', () => {
    const problem = instance('rhythm-300-1');
    const before = solveProblem(problem, { iterations: 10 });
    const { model, bounds, structure } = planned(problem);
    const menders = new Menders(new Schedule(model, bounds, null), structure, before);
    expect(menders.mayGoOn(0.9)).toBe(true);
    menders.next(new BestPlan());
    expect(menders.calmest).not.toBeNull();
    expect(menders.mayGoOn(0.9)).toBe(false);
    expect(menders.mayGoOn(0.2)).toBe(true);
  });
});
