/** Orders on machines: the longest paths through them, and swapping neighbours. */
import { describe, expect, it } from 'vitest';
import { parseProblem, seededRandom } from '../../index';
import { buildModel } from '../../model/model';
import { MachineOrders } from './orders';

/** Two jobs of two steps on the machines x and y, the second the other way round. */
const model = buildModel(
  parseProblem({
    format: 'muster-problem/1',
    horizon: 100,
    resources: ['x', 'y'].map((id) => ({ id, capacity: 1 })),
    operations: [
      { id: 'a1', minutes: 3, uses: [{ resource: 'x', amount: 1 }] },
      { id: 'a2', minutes: 2, uses: [{ resource: 'y', amount: 1 }] },
      { id: 'b1', minutes: 4, uses: [{ resource: 'y', amount: 1 }] },
      { id: 'b2', minutes: 1, uses: [{ resource: 'x', amount: 1 }] },
    ],
    lags: ['a', 'b'].map((j) => ({ from: `${j}1`, to: `${j}2`, min: 0 })),
    objective: { makespan: 1 },
  }),
);
const [A1, A2, B1, B2] = [0, 1, 2, 3] as const;

describe('the orders on the machines of a shop', () => {
  it('are as long as the longest path through them', () => {
    // y: b1, then a2; x: a1, then b2.
    const orders = new MachineOrders(model, Int32Array.of(0, 4, 0, 4));
    expect(orders.length).toBe(6);
    expect([...orders.head]).toEqual([0, 4, 0, 4]);
    expect([...orders.tail]).toEqual([2, 0, 2, 0]);
    expect(orders.criticalPath(seededRandom(1))).toEqual([B1, A2]);
  });

  it('change by a swap as estimated, and come back', () => {
    const orders = new MachineOrders(model, Int32Array.of(0, 4, 0, 4));
    const kept = orders.kept();
    // a2 first: 3 + 2, then b1 and b2.
    expect(orders.estimate([B1, A2])).toBe(10);
    orders.swap([B1, A2]);
    expect(orders.length).toBe(10);
    expect([...orders.head]).toEqual([0, 3, 5, 9]);
    orders.restore(kept);
    expect(orders.length).toBe(6);
    expect([...orders.head]).toEqual([0, 4, 0, 4]);
  });

  it('stay as they are where a swap would go round in a circle', () => {
    // x: a1 before b2, y: a2 before b1; b2 before a1 would wait for itself.
    const orders = new MachineOrders(model, Int32Array.of(0, 3, 5, 9));
    expect(orders.length).toBe(10);
    orders.swap([A1, B2]);
    expect(orders.length).toBe(10);
    expect([...orders.head]).toEqual([0, 3, 5, 9]);
  });

  it('are drawn so that they go with the order within each job', () => {
    const orders = new MachineOrders(model, Int32Array.of(0, 4, 0, 4));
    const random = seededRandom(7);
    const lengths = new Set<number>();
    for (let k = 0; k < 30; k++) {
      orders.shuffle(random);
      lengths.add(orders.length);
    }
    // Of the four orders one is a circle; the others take 6, 10 and, b wholly first, 4 + 1 + 3 + 2.
    expect([...lengths].sort((a, b) => a - b)).toEqual([6, 10]);
  });
});
