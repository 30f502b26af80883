/** Every kind of conflict is told by names and moments, with something that would help, and with nothing of the kernel's own. */
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, type Conflict } from '#core/kernel';
import { BARE, conflictWords, type Naming } from './index';

const naming: Naming = {
  operation: (id) => `layer ${id.toUpperCase()}`,
  resource: (id) => `the ${id}`,
  calendar: (id) => `the hours of ${id}`,
  moment: (minute) => `day ${Math.floor(minute / 1440) + 1}`,
};

const ALL: readonly [Conflict, RegExp][] = [
  [{ kind: 'cycle', operations: ['a', 'b'] }, /circle: layer A → layer B → layer A\. Take/],
  [
    { kind: 'calendar', operations: ['a'], minutes: 90, longest: 0 },
    /layer A needs 90 min, but nothing .* Open/,
  ],
  [
    { kind: 'calendar', operations: ['a'], minutes: 90, longest: 60 },
    /90 min at one go, .* has 60 min\. Make/,
  ],
  [
    { kind: 'span', operations: ['a'], minutes: 30, earliest: 10, latest: 3000 },
    /\(day 1\) .* \(day 3\): .* 30 min .* Add/,
  ],
  [
    { kind: 'setup', operations: ['a', 'b'], closes: 5, needs: 12 },
    /closes after 5 min, .* takes 12 min\. Widen/,
  ],
  [{ kind: 'history', operations: ['b', 'a'] }, /no time for layer B: layer B, layer A/],
  [
    { kind: 'window', operations: ['a', 'b'], from: 'a', to: 'b', closes: 60.5 },
    /layer B must start at most 60 min after layer A/,
  ],
  [{ kind: 'deadline', operations: ['a', 'b'], soonest: 1500 }, /layer A can't start before day 2, .* Add/],
  [
    { kind: 'capacity', operations: ['a', 'b'], resource: 'rack', needs: 9, has: 8 },
    /need 9 of the rack at the same time, .* are 8\. Make/,
  ],
  [{ kind: 'search', operations: ['a', 'b'], lifts: [] }, /No single change lifts it: take/],
  [
    {
      kind: 'search',
      operations: ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'],
      lifts: [
        { kind: 'capacity', resource: 'hands' },
        { kind: 'hours', calendar: 'evenings' },
        { kind: 'window', from: 'a', to: 'b' },
      ],
    },
    /layer F and 2 more\..*lifted by one more of the hands, or by longer hours in the hours of evenings, or by a wider window between layer A and layer B/,
  ],
];

describe('why there is no plan', () => {
  it.each(ALL)('%o', (conflict, words) => expect(conflictWords(conflict, naming)).toMatch(words));

  it('is told by ids and minutes where nothing else is known', () => {
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 100,
      operations: [{ id: 'a', minutes: 60, earliest: 20, latest: 70 }],
      objective: { makespan: 1 },
    });
    const { conflict } = solveProblem(problem, { iterations: 5 });
    expect(conflictWords(conflict!, BARE)).toContain(
      "“a” can't be done between its earliest start (minute 20) and its latest end (minute 70)",
    );
  });
});
