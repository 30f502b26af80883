/** The first clash of a node, and the ways out of it. */
import { describe, expect, it } from 'vitest';
import { parseProblem } from '../../index';
import { buildModel } from '../../model/model';
import { propagate } from '../propagate';
import { waysOutOfClash } from './clash';
import { leastCost } from './cost';
import { atItsEarliest } from './earliest';
import { groundOf, undecided, type Ground, type Node } from './node';

/** Steps of an hour, all free to begin at once, for so many hands; the first holds the rack until it is dry. */
function ground(steps: number, hands: number): Ground {
  const ids = Array.from({ length: steps }, (_, k) => `s${k}`);
  const model = buildModel(
    parseProblem({
      format: 'muster-problem/1',
      horizon: 1000,
      resources: [
        { id: 'hands', capacity: hands },
        { id: 'rack', capacity: 1 },
      ],
      operations: [
        ...ids.map((id) => ({ id, minutes: 60, uses: [{ resource: 'hands', amount: 1 }] })),
        { id: 'dry', minutes: 0 },
      ],
      lags: [{ from: 's0', to: 'dry', min: 30 }],
      holds: [{ resource: 'rack', amount: 1, from: 's0', to: 'dry' }],
      units: [{ id: 'u', ready: 'dry', due: 90, weight: 1 }],
      objective: { tardiness: 1 },
    }),
  );
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error('There is a plan.');
  return groundOf(model, propagation.bounds, propagation.order);
}

const at = (g: Ground, draft: Node): Node => atItsEarliest(g, draft)!;

describe('the exact search', () => {
  it('sees no clash where all fits', () => {
    const g = ground(2, 2);
    expect(waysOutOfClash(g.model, at(g, undecided(g)))).toBeNull();
  });

  it('orders any two of what is too much at a time, and knows what each order costs', () => {
    const g = ground(2, 1);
    const ways = waysOutOfClash(g.model, at(g, undecided(g)))!.map((draft) => at(g, draft));
    expect(ways.map((n) => [...n.start.slice(0, 2)])).toEqual([
      [0, 60],
      [60, 0],
    ]);
    expect(ways.map((n) => leastCost(g, n))).toEqual([0, 60]);
    for (const n of ways) expect(waysOutOfClash(g.model, n)).toBeNull();
  });

  it('looks at no more of them than are needed to be too many', () => {
    // Three at a time where two may work: every pair of the three in both orders.
    const g = ground(4, 2);
    expect(waysOutOfClash(g.model, at(g, undecided(g)))!.length).toBe(6);
  });

  it('gives up what would pass a bound', () => {
    const g = ground(2, 1);
    g.bounds.startHigh.fill(30, 0, 2);
    const ways = waysOutOfClash(g.model, at(g, undecided(g)))!;
    expect(ways.map((draft) => atItsEarliest(g, draft))).toEqual([null, null]);
  });
});
