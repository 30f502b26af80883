import { describe, expect, it } from 'vitest';
import { parseProblem, ProblemError, solveProblem } from '../index';

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
      'runs of two pairs of hands',
      { resources: [{ id: 'hands', capacity: 2, runs: true }] },
      'resources[0].runs',
      'capacity',
    ],
    [
      'more of a resource than can be counted',
      {
        resources: [{ id: 'hands', capacity: 9 }],
        holds: [
          { resource: 'hands', amount: 2 ** 30, from: 'a', to: 'b' },
          { resource: 'hands', amount: 2 ** 30, from: 'a', to: 'b' },
        ],
      },
      'holds[1].amount',
      'more than',
    ],
    [
      'a due date whose cost passes what a double counts exactly',
      { units: [{ id: 'u', ready: 'a', due: 5, weight: 1e15 }], objective: { tardiness: 100 } },
      'objective.tardiness',
      'exactly',
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

  it('takes times beyond the horizon, however large, for what they are: never', () => {
    const far = parseProblem({
      format: 'muster-problem/1',
      horizon: 100,
      operations: [
        { id: 'a', minutes: 2 ** 40 },
        { id: 'b', minutes: 5, latest: 2 ** 40 },
      ],
      objective: { makespan: 1 },
    });
    expect(solveProblem(far, { iterations: 3 })).toMatchObject({
      status: 'infeasible',
      conflict: { operations: ['a'] },
    });
  });
});
