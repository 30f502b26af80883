import { describe, expect, it } from 'vitest';
import type { Problem } from '../document/document';
import { validateSolution } from '../document/validate';
import { inHours } from './inHours';
import { solveProblem } from './solveProblem';

/** Two evenings; sewing may pause, and something waits a day for it. */
const evenings = (end: number, max?: number): Problem => ({
  format: 'muster-problem/1',
  horizon: 10_000,
  calendars: [
    {
      id: 'sessions',
      open: [
        [0, end],
        [1440, 1440 + end],
        [2880, 2880 + end],
      ],
    },
  ],
  resources: [{ id: 'hands', capacity: 1, calendar: 'sessions' }],
  operations: [
    { id: 'glue', minutes: 60, uses: [{ resource: 'hands', amount: 1 }] },
    { id: 'sew', minutes: 90, pausable: true, uses: [{ resource: 'hands', amount: 1 }] },
    { id: 'paint', minutes: 30, uses: [{ resource: 'hands', amount: 1 }] },
  ],
  lags: [
    { from: 'glue', to: 'sew', min: 0 },
    { from: 'sew', to: 'paint', min: 1400, ...(max === undefined ? {} : { max }) },
  ],
  units: [],
  objective: { makespan: 1 },
});

describe('a plan made for fewer hours', () => {
  const whole = evenings(120);
  const less = solveProblem(evenings(100), { iterations: 20 });

  it('keeps every start; what may pause ends sooner where it pauses less', () => {
    const at = (list: readonly { id: string; start: number; end: number }[], id: string): number[] => {
      const o = list.find((x) => x.id === id)!;
      return [o.start, o.end];
    };
    expect(at(less.operations, 'sew')).toEqual([60, 1440 + 50]);
    const read = inHours(whole, less)!;
    expect(at(read.operations, 'sew')).toEqual([60, 1440 + 30]);
    expect(read.operations.map((o) => o.start)).toEqual(less.operations.map((o) => o.start));
    expect(validateSolution(whole, read)).toEqual({ violations: [], cost: read.cost });
    // What was proved of fewer hours is not proved of all.
    expect([read.status, read.bound]).toEqual(['feasible', null]);
  });

  it('is none where a window shuts sooner with what ends sooner', () => {
    const made = solveProblem(evenings(100, 1410), { iterations: 20 });
    expect(made.cost).not.toBeNull();
    expect(inHours(evenings(120, 1390), made)).toBeNull();
  });

  it('is none where there was none', () => {
    const none = solveProblem({ ...evenings(100), horizon: 50 }, { iterations: 5 });
    expect(none.cost).toBeNull();
    expect(inHours(whole, none)).toBeNull();
  });
});
