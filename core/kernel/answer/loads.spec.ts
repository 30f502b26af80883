import { describe, expect, it } from 'vitest';
import { solveProblem } from '../index';
import { calmOf } from '../place/calm';
import { Schedule } from '../place/schedule';
import { inTime } from '../prove/inTime';
import { seededRandom } from '../model/random';
import { instance } from '../testing/problems';
import { planned } from '../testing/planned';
import { BestPlan } from './bestPlan';
import { Loads } from './loads';
import { Menders } from './mending';

describe('ways to go in load by load', () => {
  const { model, bounds, structure } = planned(instance('rhythm-700-1'));
  const within = inTime(model, bounds)!;
  const loads = (seed = 1): Loads => new Loads(model, bounds, structure, seededRandom(seed), null);

  it('come to plans in which nobody is late, other ones each time, and the same for a seed', () => {
    const costs = (seed: number): (number | undefined)[] => {
      const ways = loads(seed);
      const plan = new BestPlan();
      return Array.from({ length: 12 }, () => {
        const found = ways.next(plan.plan, within);
        if (found) plan.keep(found);
        expect(found?.lateness() ?? 0).toBe(0);
        return found?.cost();
      });
    };
    const found = costs(3).filter((c) => c !== undefined);
    expect(new Set(found).size).toBeGreaterThan(2);
    expect(costs(3)).toEqual(costs(3));
    expect(costs(4)).not.toEqual(costs(3));
  });

  it('take the first share of a search, and are tried once in any case', () => {
    const ways = loads();
    expect(ways.mayGoOn(0.9)).toBe(true);
    ways.next(null, within);
    expect(ways.mayGoOn(0.9)).toBe(false);
    expect(ways.mayGoOn(0.1)).toBe(true);
    for (let k = 1; k < 100; k++) ways.next(null, within);
    expect(ways.mayGoOn(0)).toBe(false);
  });
});

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
