import { describe, expect, it } from 'vitest';
import { inTime } from '../prove/inTime';
import { seededRandom } from '../model/random';
import { instance } from '../testing/problems';
import { planned } from '../testing/planned';
import { BestPlan } from './bestPlan';
import { Loads } from './loads';

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
