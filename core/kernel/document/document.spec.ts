import { describe, expect, it } from 'vitest';
import { parseProblem, ProblemError } from '../index';

function faultsOf(value: unknown): readonly { path: string; text: string }[] {
  try {
    parseProblem(value);
    return [];
  } catch (error) {
    if (error instanceof ProblemError) return error.faults;
    throw error;
  }
}

const base = {
  format: 'muster-problem/1',
  horizon: 100,
  resources: [{ id: 'hands', capacity: 1 }],
  operations: [
    { id: 'a', minutes: 5, uses: [{ resource: 'hands', amount: 1 }] },
    { id: 'b', minutes: 5 },
  ],
  objective: {},
};

describe('reading a problem', () => {
  it('takes a right one', () => expect(faultsOf(base)).toEqual([]));

  it.each([
    [
      'an unknown resource',
      { operations: [{ id: 'a', minutes: 5, uses: [{ resource: 'airbrsh', amount: 1 }] }] },
      'operations[0].uses[0].resource',
      '"airbrsh" is no resource',
    ],
    ['an unknown field', { colour: 'red' }, 'problem', 'colour'],
    [
      'two of one id',
      {
        operations: [
          { id: 'a', minutes: 1 },
          { id: 'a', minutes: 1 },
        ],
      },
      'operations[1].id',
      'twice',
    ],
    [
      'touching intervals',
      {
        calendars: [
          {
            id: 'c',
            open: [
              [0, 5],
              [5, 9],
            ],
          },
        ],
      },
      'calendars[0].open[1]',
      'touches',
    ],
    [
      'a clock that stands still',
      {
        clocks: [
          {
            id: 'c',
            points: [
              [0, 0],
              [5, 5],
              [9, 5],
            ],
          },
        ],
      },
      'clocks[0].points[2]',
      'increase',
    ],
    [
      'a window shorter than its minimum',
      { lags: [{ from: 'a', to: 'b', min: 9, max: 4 }] },
      'lags[0].max',
      'shorter',
    ],
    [
      'a preference outside its window',
      { lags: [{ from: 'a', to: 'b', min: 9, prefer: 4 }] },
      'lags[0].prefer',
      'outside',
    ],
    ['a fraction of a plain minute', { lags: [{ from: 'a', to: 'b', min: 1.5 }] }, 'lags[0].min', 'whole'],
    [
      'a set-up on two airbrushes',
      { resources: [{ id: 'hands', capacity: 2, setup: { minutes: 3 } }] },
      'resources[0].setup',
      'capacity',
    ],
    [
      'history that ends before it starts',
      { fixed: [{ id: 'a', start: 9, end: 4 }] },
      'fixed[0].end',
      'outside',
    ],
    [
      'a unit with nothing to wait for',
      { units: [{ id: 'u', ready: 'z', due: 5, weight: 1 }] },
      'units[0].ready',
      'no operation',
    ],
  ])('names the place of %s', (_, change, path, word) => {
    const faults = faultsOf({ ...base, ...change });
    expect(faults.map((f) => f.path)).toContain(path);
    expect(faults.map((f) => f.text).join()).toContain(word);
  });
});
