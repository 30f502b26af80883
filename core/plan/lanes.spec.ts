/** Hands with names: each pair has its own row of work, and its runs are counted. */
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, validateSolution } from '#core/kernel';
import type { Muster, Person } from '#core/muster';
import { compile } from './compile';
import { horizonDays } from './horizon';
import { withLanes } from './lanes';
import { present } from './present';
import { layer, smallMuster } from './testing';

const people: Person[] = [
  { id: 'me', name: 'Me' },
  { id: 'pim', name: 'Pim', may: 'careful', hours: [{ id: 'h', weekday: 3, from: '19:00', to: '21:00' }] },
];
const base = smallMuster([
  layer('prime', { family: 'primer', method: 'airbrush', dryMinutes: 60 }),
  layer('coat', { minutes: 12 }),
  layer('dots', { minutes: 9 }),
]);
const muster: Muster = {
  ...base,
  bench: { ...base.bench, people, rackPlaces: 40 },
  units: [
    {
      ...base.units[0]!,
      table: '2027-03-12T12:00',
      pieces: Array.from({ length: 6 }, (_, k) => ({
        ...base.units[0]!.pieces[0]!,
        id: `p${k}`,
        name: `P${k}`,
      })),
    },
  ],
};

const compiled = compile(muster);
const pooled = present(muster, compiled, solveProblem(compiled.problem, { iterations: 60 }));
const doers = new Map([...pooled.steps].map(([id, s]) => [id, s.doer!]));
const problem = withLanes(compiled.problem, muster, doers, horizonDays(muster));

describe('lanes', () => {
  it('give each step to the one who would do it, and need no absences', () => {
    parseProblem(problem);
    for (const [id, { who }] of doers) {
      const uses = problem.operations.find((o) => o.id === id)!.uses!.map((u) => u.resource);
      expect(uses).toContain(who === 'Me' ? 'hands-me' : 'hands-pim');
      expect(uses).not.toContain('hands');
    }
    expect(problem.operations.some((o) => o.id.startsWith('away.'))).toBe(false);
    expect(compiled.problem.operations.some((o) => o.id.startsWith('away.'))).toBe(true);
  });

  it('count runs for each, and open while each is there', () => {
    const lanes = problem.resources!.filter((r) => r.runs);
    expect(lanes.map((r) => r.id)).toEqual(['hands-me', 'hands-pim']);
    const wednesday = problem.calendars!.find((c) => c.id === 'hands-pim')!.open;
    expect(wednesday.every(([a]) => Math.floor(a / 1440) % 7 === 2)).toBe(true);
  });

  it('have a plan, in which nobody does two things at once', () => {
    const solution = solveProblem(problem, { iterations: 60 });
    expect(validateSolution(problem, solution).violations).toEqual([]);
    const plan = present(muster, { ...compiled, problem, doers }, solution);
    for (const name of ['Me', 'Pim']) {
      const own = [...plan.steps.values()]
        .filter((s) => s.doer!.who === name)
        .sort((a, b) => a.start - b.start);
      for (let k = 1; k < own.length; k++)
        expect(own[k]!.start - own[k]!.setup).toBeGreaterThanOrEqual(own[k - 1]!.end);
    }
  });

  it('leave what has happened to nobody', () => {
    const done = { id: 'p0.prime', start: 1140, end: 1145 };
    const later = withLanes(
      { ...compiled.problem, fixed: [...compiled.problem.fixed!, done] },
      muster,
      doers,
      horizonDays(muster),
    );
    const uses = later.operations.find((o) => o.id === 'p0.prime')!.uses!.map((u) => u.resource);
    expect(uses.some((r) => r.startsWith('hands'))).toBe(false);
    expect(later.fixed).toContainEqual(done);
  });
});
