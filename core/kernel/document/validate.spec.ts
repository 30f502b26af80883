/** The judge catches each single broken rule. */
import { describe, expect, it } from 'vitest';
import { parseProblem, validateSolution, type Problem, type Solution } from '../index';

const problem: Problem = parseProblem({
  format: 'muster-problem/1',
  horizon: 400,
  calendars: [
    {
      id: 'open',
      open: [
        [10, 100],
        [200, 300],
      ],
    },
  ],
  clocks: [
    {
      id: 'slow',
      points: [
        [0, 0],
        [400, 200],
      ],
    },
  ],
  resources: [
    { id: 'hands', capacity: 1, calendar: 'open' },
    {
      id: 'brush',
      capacity: 1,
      calendar: 'open',
      setup: { minutes: 5, between: [['', 'red', 3]], idle: 40 },
    },
    { id: 'rack', capacity: 1 },
  ],
  operations: [
    {
      id: 'a',
      minutes: 10,
      uses: [
        { resource: 'hands', amount: 1 },
        { resource: 'brush', amount: 1 },
      ],
      family: 'red',
    },
    {
      id: 'b',
      minutes: 10,
      uses: [
        { resource: 'hands', amount: 1 },
        { resource: 'brush', amount: 1 },
      ],
      family: 'blue',
    },
    { id: 'c', minutes: 20, uses: [{ resource: 'hands', amount: 1 }], pausable: true },
    { id: 'ready', minutes: 0 },
    { id: 'past', minutes: 5, uses: [{ resource: 'hands', amount: 1 }] },
  ],
  lags: [
    { from: 'a', to: 'b', min: 5, max: 20, prefer: 6, clock: 'slow' },
    { from: 'b', to: 'ready', min: 30 },
  ],
  holds: [{ resource: 'rack', amount: 1, from: 'a', to: 'b' }],
  units: [{ id: 'u', ready: 'ready', due: 60, weight: 2 }],
  objective: { tardiness: 3, setup: 1, overrun: 2, completion: 0.5, makespan: 1 },
  fixed: [{ id: 'past', start: 0, end: 6 }],
});

// a 13–23 after 3 minutes from clean; b 39–49, 8 ticks after a; c from 90 over the closed hours to 210; ready 79.
const right: Solution = {
  format: 'muster-solution/1',
  status: 'feasible',
  operations: [
    { id: 'a', start: 13, end: 23, setup: 3 },
    { id: 'b', start: 39, end: 49, setup: 5 },
    { id: 'c', start: 90, end: 210, setup: 0 },
    { id: 'ready', start: 79, end: 79, setup: 0 },
    { id: 'past', start: 0, end: 6, setup: 0 },
  ],
  cost: {
    tardiness: 38,
    setup: 8,
    overrun: 2,
    runs: 0,
    completion: 158,
    makespan: 210,
    total: 3 * 38 + 8 + 4 + 79 + 210,
  },
  bound: 100,
  conflict: null,
};

function withTimes(
  changes: Record<string, Partial<{ start: number; end: number; setup: number }>>,
): Solution {
  return { ...right, operations: right.operations.map((o) => ({ ...o, ...changes[o.id] })) };
}
const rulesOf = (solution: Solution): number[] => [
  ...new Set(validateSolution(problem, solution).violations.map((v) => v.rule)),
];

describe('the judge', () => {
  it('passes a right solution, worked by hand', () =>
    expect(validateSolution(problem, right).violations).toEqual([]));

  it.each([
    ['work outside the open hours', withTimes({ a: { start: 5, end: 15 } }), 1],
    ['work of the wrong length', withTimes({ b: { end: 52 } }), 1],
    ['a pause of the wrong length', withTimes({ c: { end: 211 } }), 1],
    ['a milestone that takes time', withTimes({ ready: { end: 80 } }), 1],
    ['two steps for one pair of hands', withTimes({ c: { start: 45, end: 65 } }), 2],
    ['a set-up left out', withTimes({ b: { setup: 0 } }), 3],
    ['a set-up before the bench opens', withTimes({ a: { start: 11, end: 21 } }), 1],
    ['a layer not dry', withTimes({ b: { start: 32, end: 42 } }), 4],
    ['a window missed', withTimes({ b: { start: 66, end: 76 } }), 4],
    ['an open lag cut short', withTimes({ ready: { start: 78, end: 78 } }), 4],
    ['history moved', withTimes({ past: { start: 1, end: 7 } }), 7],
    ['a cost that is wrong', { ...right, cost: { ...right.cost!, setup: 7 } }, 8],
    ['a bound above the cost', { ...right, bound: 9999 }, 8],
    ['an optimum that is not proved', { ...right, status: 'optimal' as const }, 8],
    ['an operation left out', { ...right, operations: right.operations.slice(1) }, 0],
  ])('catches %s', (_, solution, rule) => expect(rulesOf(solution)).toContain(rule));

  it('counts runs: the same in the same open interval goes on, whatever waits between; history begins none (rule 9, worked by hand)', () => {
    const rows: Problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 300,
      calendars: [
        {
          id: 'hours',
          open: [
            [10, 100],
            [110, 200],
          ],
        },
      ],
      resources: [{ id: 'hands', capacity: 1, calendar: 'hours', runs: true }],
      operations: ['red', 'red', 'blue', 'red', 'red', 'red', 'red'].map((family, k) => ({
        id: `o${k}`,
        minutes: 5,
        family,
        uses: [{ resource: 'hands', amount: 1 }],
      })),
      objective: { runs: 8 },
      fixed: [
        { id: 'o0', start: 10, end: 15 },
        { id: 'o3', start: 102, end: 107 },
      ],
    });
    // o0 is history; o1 goes on with it after half an hour; o2 begins a run; o3 is history outside the hours; o4 begins one, o5 and o6 go on.
    const starts = [10, 45, 60, 102, 110, 150, 195];
    const solution: Solution = {
      ...right,
      operations: starts.map((start, k) => ({ id: `o${k}`, start, end: start + 5, setup: 0 })),
      cost: { tardiness: 0, setup: 0, overrun: 0, runs: 2, completion: 0, makespan: 200, total: 16 },
      bound: 0,
    };
    expect(validateSolution(rows, solution).violations).toEqual([]);
    const moved = {
      ...solution,
      operations: solution.operations.map((o) => (o.id === 'o1' ? { ...o, start: 75, end: 80 } : o)),
    };
    expect(validateSolution(rows, moved).cost!.runs).toBe(3);
  });

  it('catches a rack that is too full', () => {
    const held: Problem = {
      ...problem,
      holds: [...problem.holds!, { resource: 'rack', amount: 1, from: 'past', to: 'b' }],
    };
    expect(validateSolution(held, right).violations.map((v) => v.rule)).toContain(2);
  });
});
