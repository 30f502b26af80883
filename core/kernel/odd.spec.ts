/** Odd problems: holds that share an end or a tool, horizons of years, and a net thrown wider than any muster reaches. */
import { looks } from './document/horizon';
import { describe, expect, it } from 'vitest';
import { tortureKernel } from '../../torture/kernel';
import {
  explainer,
  parseProblem,
  ProblemError,
  settle,
  solveProblem,
  startSearch,
  validateSolution,
  type Problem,
} from './index';
import { instance } from './testing/problems';

const plan = (problem: Problem): ReturnType<typeof solveProblem> => {
  const solution = solveProblem(problem, { iterations: 60 });
  expect(validateSolution(problem, solution).violations).toEqual([]);
  expect(solution.operations.map((o) => o.id)).toEqual(problem.operations.map((o) => o.id));
  return solution;
};
const on = (resource: string) => [{ resource, amount: 1 }];

describe('holds that share a resource and an end', () => {
  const shared = (rack: number): Problem =>
    parseProblem({
      format: 'muster-problem/1',
      horizon: 400,
      resources: [
        { id: 'hands', capacity: 1 },
        { id: 'rack', capacity: rack },
      ],
      operations: ['a', 'b', 'c'].map((id) => ({ id, minutes: 10, uses: on('hands') })),
      lags: [
        { from: 'a', to: 'c', min: 30 },
        { from: 'b', to: 'c', min: 30 },
      ],
      holds: [
        { resource: 'rack', amount: 1, from: 'a', to: 'c' },
        { resource: 'rack', amount: 1, from: 'b', to: 'c' },
      ],
      units: [{ id: 'u', ready: 'c', due: 0, weight: 1 }],
      objective: { completion: 1 },
    });

  it('are counted together', () => {
    expect(plan(shared(2)).cost!.completion).toBe(60);
  });

  it('and a rack too small for both is a proved conflict, in the words of the problem', () => {
    const solution = solveProblem(shared(1), { iterations: 60 });
    expect(solution.status).toBe('infeasible');
    for (const id of solution.conflict!.operations) expect(['a', 'b', 'c']).toContain(id);
    expect(JSON.stringify(solution.conflict)).not.toMatch(/of hold/);
  });

  it('are settled, explained and planned again from an old plan', () => {
    const problem = shared(2);
    const before = plan(problem);
    const again = solveProblem(problem, { iterations: 5, previous: before, stability: 3 });
    expect(again.operations).toEqual(before.operations);
    expect(settle(problem, before).cost).toEqual(before.cost);
    const { explain } = explainer(problem, before);
    for (const o of before.operations) expect(() => explain(o.id)).not.toThrow();
  });
});

describe('a hold on a tool', () => {
  it('leaves no room for the set-up of what ends it, so that this is clean or comes from elsewhere', () => {
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 400,
      resources: [{ id: 'tool', capacity: 1, setup: { minutes: 5, between: [['a', 'b', 5]] } }],
      operations: ['a', 'b'].map((id) => ({ id, minutes: 10, uses: on('tool'), family: id })),
      lags: [{ from: 'a', to: 'b', min: 0 }],
      holds: [{ resource: 'tool', amount: 1, from: 'a', to: 'b' }],
      objective: { makespan: 1 },
    });
    expect(solveProblem(problem, { iterations: 40 }).status).toBe('infeasible');
    const same = parseProblem({
      ...problem,
      operations: problem.operations.map((o) => ({ ...o, family: 'a' })),
    });
    expect(plan(same).cost!.makespan).toBe(25);
  });
});

describe('a hold that need not be', () => {
  // Found by enumeration: what begins it ends only as what ends it begins, so that nothing is held, and the set-up has its room.
  it('is left out by the exact search where that is cheaper', () => {
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 24,
      resources: [
        { id: 'hands', capacity: 2 },
        { id: 'tool', capacity: 1, setup: { minutes: 2 } },
      ],
      operations: [
        { id: 'a', minutes: 1, uses: on('hands') },
        { id: 'b', minutes: 1, uses: [...on('hands'), ...on('tool')], family: 'b' },
      ],
      holds: [{ resource: 'tool', amount: 1, from: 'a', to: 'b' }],
      units: ['a', 'b'].map((ready) => ({ id: ready, ready, due: 3, weight: 1 })),
      objective: { tardiness: 5, setup: 1, completion: 0.1 },
    });
    const solution = plan(problem);
    // a ends at 2, as b begins after its two minutes of set-up.
    expect(solution.operations.map((o) => [o.id, o.start, o.end])).toEqual([
      ['a', 1, 2],
      ['b', 2, 3],
    ]);
    expect(solution.status).toBe('optimal');
    expect(solution.cost!.total).toBeCloseTo(2.5, 9);
  });
});

describe('a horizon of nineteen years', () => {
  const batch = instance('batch-60-1');
  const evenings = (days: number): Problem['calendars'] =>
    (batch.calendars ?? []).map((c) => ({
      ...c,
      open: Array.from({ length: days }, (_, d): [number, number] => [d * 1440 + 1140, d * 1440 + 1320]),
    }));
  const far = parseProblem({ ...batch, horizon: 10_000_000, calendars: evenings(6940) });

  it('costs what the work in it costs: the same plan in the same number of tries as one of three months', () => {
    const near = parseProblem({ ...batch, horizon: 150_000, calendars: evenings(105) });
    const a = solveProblem(far, { iterations: 20 });
    const b = solveProblem(near, { iterations: 20 });
    expect(a.cost).toEqual(b.cost);
    expect(a.operations).toEqual(b.operations);
    expect(validateSolution(far, a).violations).toEqual([]);
  });

  it('is looked at as far as it must be: what may begin only in its last week is planned there', () => {
    const late = parseProblem({
      ...far,
      operations: far.operations.map((o) => (o.minutes > 0 ? { ...o, earliest: 9_900_000 } : o)),
    });
    const solution = solveProblem(late, { iterations: 4 });
    expect(validateSolution(late, solution).violations).toEqual([]);
    expect(
      Math.min(...solution.operations.filter((o) => o.end > o.start).map((o) => o.start)),
    ).toBeGreaterThanOrEqual(9_900_000);
  });

  it('is at once looked at as far as the work reaches, not where it cannot fit', () => {
    // 300 days of one hour, and 250 hours of work: the first hundred days hold less than half of it.
    const days = Array.from({ length: 300 }, (_, k): [number, number] => [k * 1440, k * 1440 + 60]);
    const much = parseProblem({
      format: 'muster-problem/1',
      horizon: 432_000,
      calendars: [{ id: 'c', open: days }],
      resources: [{ id: 'hands', capacity: 1, calendar: 'c' }],
      operations: Array.from({ length: 500 }, (_, k) => ({ id: `o${k}`, minutes: 30, uses: on('hands') })),
      objective: { makespan: 1 },
    });
    expect(looks(much)[0]).toBeGreaterThanOrEqual(249 * 1440);
    const search = startSearch(much);
    search.step(1);
    expect(search.best().cost).not.toBeNull();
  });

  it('does not make a plan of half of it a proof, nor hide one that lies far ahead', () => {
    const rare = parseProblem({
      format: 'muster-problem/1',
      horizon: 10_000_000,
      calendars: [
        {
          id: 'c',
          open: [
            [5, 10],
            [7_000_000, 7_000_100],
          ],
        },
      ],
      resources: [{ id: 'hands', capacity: 1, calendar: 'c' }],
      operations: [{ id: 'a', minutes: 50, uses: on('hands') }],
      units: [{ id: 'u', ready: 'a', due: 100, weight: 1 }],
      objective: { tardiness: 1 },
    });
    const solution = plan(rare);
    expect(solution.operations[0]!.start).toBe(7_000_000);
  });

  it('and a minute more is refused, with its path', () => {
    expect(() => parseProblem({ ...batch, horizon: 10_000_001 })).toThrow(ProblemError);
    expect(() => parseProblem({ ...batch, horizon: 10_000_001 })).toThrow(
      /^horizon: is longer than 10000000 minutes/,
    );
  });

  it('is proved empty behind its last opening: waits that can’t be kept are no endless search', () => {
    const circle = parseProblem({
      format: 'muster-problem/1',
      horizon: 10_000_000,
      operations: [
        { id: 'a', minutes: 5 },
        { id: 'b', minutes: 5 },
      ],
      lags: [
        { from: 'a', to: 'b', min: 10, max: 20 },
        { from: 'a', to: 'b', min: 30 },
      ],
      objective: { makespan: 1 },
    });
    expect(startSearch(circle).best().status).toBe('infeasible');
  });
});

describe('problems of every kind', () => {
  it('throw no mistake, and every plan of theirs passes the judge', () => {
    expect(tortureKernel(400).faults).toEqual([]);
  });
});
