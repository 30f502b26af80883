import { describe, expect, it } from 'vitest';
import { ByLoad } from './byLoad';

/** Six operations of two loads in turn, and a seventh that nothing is taken up for. */
const model = {
  runsOn: [[0], [0], [0], [0], [0], [0], []],
  family: Int32Array.of(1, 2, 1, 2, 1, 2, 3),
};
const key = Float64Array.of(0, 10, 100, 110, 1000, 1010, 105);

function taken(patience: number): number[] {
  const queue = new ByLoad(model, key, patience);
  for (let i = 6; i >= 0; i--) queue.push(i);
  const order: number[] = [];
  for (let i = queue.pop(); i !== undefined; i = queue.pop()) order.push(i);
  return order;
}

describe('load by load', () => {
  it('goes on with the load in hand while what presses does not press too much', () => {
    expect(taken(90)).toEqual([0, 2, 1, 3, 6, 5, 4]);
    expect(taken(2000)).toEqual([0, 2, 4, 1, 3, 5, 6]);
  });

  it('goes by what presses alone without patience', () => {
    expect(taken(0)).toEqual([0, 1, 2, 6, 3, 4, 5]);
  });

  it('keeps the load in hand while something is done that needs none', () => {
    const queue = new ByLoad(model, key, 200);
    for (const i of [2, 6]) queue.push(i);
    expect([queue.pop(), queue.pop()]).toEqual([2, 6]);
    for (const i of [5, 4]) queue.push(i);
    expect(queue.pop()).toBe(4);
  });

  it('is empty when it is', () => {
    expect(new ByLoad(model, key, 0).pop()).toBeUndefined();
  });
});
