import { describe, expect, it } from 'vitest';
import { between, common, merged, without } from './spans';

describe('spans', () => {
  it('leave what is between', () => {
    expect(
      between(
        [
          [0, 3],
          [5, 9],
        ],
        12,
      ),
    ).toEqual([
      [3, 5],
      [9, 12],
    ]);
    expect(between([], 4)).toEqual([[0, 4]]);
  });

  it('are cut, joined and taken from one another', () => {
    expect(
      merged(
        [
          [5, 9],
          [0, 3],
          [3, 6],
          [50, 70],
        ],
        60,
      ),
    ).toEqual([
      [0, 9],
      [50, 60],
    ]);
    expect(
      common(
        [
          [0, 10],
          [20, 30],
        ],
        [[5, 25]],
      ),
    ).toEqual([
      [5, 10],
      [20, 25],
    ]);
    expect(
      without(
        [
          [0, 10],
          [20, 30],
        ],
        [[5, 25]],
      ),
    ).toEqual([
      [0, 5],
      [25, 30],
    ]);
  });
});
