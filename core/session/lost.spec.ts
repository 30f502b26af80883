/** What the demo's bench comes to when evenings are lost that the plan counted on. */
import { describe, expect, it } from 'vitest';
import { startSearch, validateSolution } from '#core/kernel';
import { compiled } from './testing';

/** A few first plans: no search for dates is begun in them. */
const FIRST_PLANS = 5;

describe('a bench that loses one evening in five, or fewer', () => {
  it.each([5, 6, 7])('keeps every date from its first plans on: every %i. day lost', (every) => {
    const { problem } = compiled;
    const isLost = (minute: number): boolean => Math.floor(minute / 1440) % every === 1;
    const calendars = problem.calendars!.map((c) => ({
      ...c,
      open: c.open.filter(([from]) => !isLost(from)),
    }));
    const less = { ...problem, calendars };
    const search = startSearch(less, { seed: 1, progress: () => 0 });
    for (let k = 0; k < FIRST_PLANS; k++) search.step(1);
    expect(search.best().cost!.tardiness).toBe(0);
    expect(validateSolution(less, search.best()).violations).toEqual([]);
  });
});
