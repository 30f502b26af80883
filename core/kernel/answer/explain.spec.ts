/** Why a step is not sooner: each kind of reason in a plan worked by hand, and what must hold of every explanation. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  explainer,
  parseProblem,
  solveProblem,
  validateSolution,
  type PlacedOperation,
  type Problem,
  type Solution,
} from '../index';
import { byHand, smallProblem } from '../testing/problems';

/** Two evenings, 100–200 and 500–600; one pair of hands; a rack of one place. */
function bench(changes: Partial<Problem> & Pick<Problem, 'operations'>): Problem {
  return parseProblem({
    format: 'muster-problem/1',
    horizon: 1000,
    calendars: [
      {
        id: 'evenings',
        open: [
          [100, 200],
          [500, 600],
        ],
      },
    ],
    resources: [
      { id: 'hands', capacity: 1, calendar: 'evenings' },
      { id: 'rack', capacity: 1 },
    ],
    objective: { completion: 1 },
    ...changes,
  });
}

const task = (id: string, minutes: number, more: object = {}): Problem['operations'][number] => ({
  id,
  minutes,
  uses: [{ resource: 'hands', amount: 1 }],
  ...more,
});

/** A plan by hand that the judge has passed. */
function plan(
  problem: Problem,
  times: Readonly<Record<string, readonly [start: number, end: number]>>,
): Solution {
  const operations: PlacedOperation[] = Object.entries(times).map(([id, [start, end]]) => ({
    id,
    start,
    end,
    setup: 0,
  }));
  const solution = byHand(operations);
  expect(validateSolution(problem, solution).violations.filter((v) => v.rule !== 8)).toEqual([]);
  return solution;
}

describe('the reason why a step is not sooner', () => {
  it('is the shut bench, where nothing else is in the way', () => {
    const problem = bench({ operations: [task('a', 30)] });
    const { explain } = explainer(problem, plan(problem, { a: [100, 130] }));
    expect(explain('a')).toMatchObject([{ kind: 'closed', until: 100, operations: [] }]);
  });

  it('names when the bench opens, not when the set-up after it is over; and tells a shut one from one open too short', () => {
    const problem = bench({
      resources: [
        { id: 'hands', capacity: 1, calendar: 'evenings' },
        { id: 'tool', capacity: 1, setup: { minutes: 11 } },
      ],
      operations: [
        task('a', 60),
        task('b', 50, {
          family: 'b',
          uses: [
            { resource: 'hands', amount: 1 },
            { resource: 'tool', amount: 1 },
          ],
        }),
      ],
      lags: [{ from: 'a', to: 'b', min: 5 }],
    });
    const solution = byHand([
      { id: 'a', start: 100, end: 160, setup: 0 },
      { id: 'b', start: 511, end: 561, setup: 11 },
    ]);
    expect(validateSolution(problem, solution).violations.filter((v) => v.rule !== 8)).toEqual([]);
    const { explain } = explainer(problem, solution);
    // Dry at 165, 35 minutes are left of the evening; the next opens at 500.
    expect(explain('b')).toMatchObject([
      { kind: 'drying', until: 165 },
      { kind: 'short', from: 165, until: 500, resource: 'hands' },
    ]);
    expect(explain('a')).toMatchObject([{ kind: 'closed', from: 0, until: 100, resource: 'hands' }]);
  });

  it('is its own date', () => {
    const problem = bench({ operations: [task('a', 30, { earliest: 140 })] });
    const { explain } = explainer(problem, plan(problem, { a: [140, 170] }));
    expect(explain('a')).toMatchObject([{ kind: 'earliest', until: 140, operations: [] }]);
  });

  it('is the layer below, until it is dry, then the shut bench until it opens', () => {
    const problem = bench({
      operations: [task('a', 30), task('b', 10)],
      lags: [{ from: 'a', to: 'b', min: 120 }],
    });
    const { explain, chain } = explainer(problem, plan(problem, { a: [100, 130], b: [500, 510] }));
    expect(explain('b')).toMatchObject([
      { kind: 'drying', until: 250, operations: ['a'] },
      { kind: 'closed', until: 500, operations: [] },
    ]);
    expect(chain('b').map((l) => [l.operation, l.reason.kind])).toEqual([
      ['b', 'closed'],
      ['a', 'closed'],
    ]);
  });

  it('is whoever has the hands', () => {
    const problem = bench({ operations: [task('a', 30), task('b', 20), task('c', 10)] });
    const { explain } = explainer(problem, plan(problem, { a: [100, 130], b: [130, 150], c: [150, 160] }));
    expect(explain('c')).toMatchObject([
      { kind: 'closed', until: 100, operations: [] },
      { kind: 'busy', until: 150, operations: ['b', 'a'], resource: 'hands' },
    ]);
  });

  it('is the window of what comes after', () => {
    // b cannot be before 500; a must end within 50 minutes of it, so a waits for the second evening too.
    const problem = bench({
      operations: [task('a', 10), task('b', 10, { earliest: 540 })],
      lags: [{ from: 'a', to: 'b', min: 0, max: 50 }],
    });
    const { explain } = explainer(problem, plan(problem, { a: [500, 510], b: [540, 550] }));
    expect(explain('a').at(-1)).toMatchObject({ kind: 'window', until: 500, operations: ['b'] });
  });

  it('is a full rack', () => {
    const problem = bench({
      operations: [task('a', 10), task('b', 10), task('x', 10), task('y', 10)],
      lags: [
        { from: 'a', to: 'b', min: 60 },
        { from: 'x', to: 'y', min: 60 },
      ],
      holds: [
        { resource: 'rack', amount: 1, from: 'a', to: 'b' },
        { resource: 'rack', amount: 1, from: 'x', to: 'y' },
      ],
    });
    const { explain } = explainer(
      problem,
      plan(problem, { a: [100, 110], b: [170, 180], x: [160, 170], y: [500, 510] }),
    );
    expect(explain('x').at(-1)).toMatchObject({ kind: 'full', until: 160, operations: [], resource: 'rack' });
  });

  it('is a pin', () => {
    const problem = bench({
      operations: [task('a', 10)],
      fixed: [{ id: 'a', start: 150, end: 160 }],
    });
    const { explain } = explainer(problem, plan(problem, { a: [150, 160] }));
    expect(explain('a')).toMatchObject([{ kind: 'pinned', until: 150, operations: [] }]);
  });

  it('is none at all, and said so, where it could have been sooner', () => {
    const problem = bench({ operations: [task('a', 10)] });
    const { explain } = explainer(problem, plan(problem, { a: [180, 190] }));
    expect(explain('a').at(-1)!.kind).toBe('free');
  });

  it('is not asked of an operation that is none, nor of a problem without a plan', () => {
    const problem = bench({ operations: [task('a', 10)] });
    const { explain, chain } = explainer(problem, plan(problem, { a: [100, 110] }));
    expect(() => explain('b')).toThrow('“b”');
    expect(() => chain('b')).toThrow('“b”');
    const hopeless = bench({ operations: [task('a', 150)] });
    expect(() =>
      explainer(hopeless, { ...solveProblem(problem, { iterations: 1 }), operations: [] }),
    ).toThrow('no plan to explain');
  });
});

describe('an explanation', () => {
  it('pushes the start back reason by reason, names others only, and its chain ends', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const solution = solveProblem(problem, { iterations: 20 });
        if (solution.status !== 'feasible' && solution.status !== 'optimal') return;
        const { explain, chain } = explainer(problem, solution);
        const start = new Map(solution.operations.map((o) => [o.id, o.start]));
        for (const { id } of solution.operations) {
          const reasons = explain(id);
          for (let k = 1; k < reasons.length; k++)
            expect(reasons[k]!.until).toBeGreaterThanOrEqual(reasons[k - 1]!.until);
          for (const r of reasons) {
            expect(r.operations).not.toContain(id);
            for (const other of r.operations) expect(start.has(other)).toBe(true);
          }
          const links = chain(id).map((l) => l.operation);
          expect(new Set(links).size).toBe(links.length);
          if (reasons.length > 0) expect(links[0]).toBe(id);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('says “drying” only of what must be over before, and until it is dry', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const solution = solveProblem(problem, { iterations: 20 });
        if (solution.status !== 'feasible' && solution.status !== 'optimal') return;
        const { explain } = explainer(problem, solution);
        const end = new Map(solution.operations.map((o) => [o.id, o.end]));
        for (const { id } of solution.operations)
          for (const r of explain(id).filter((x) => x.kind === 'drying'))
            for (const from of r.operations) {
              const lag = problem.lags!.find((l) => l.from === from && l.to === id);
              expect(lag).toBeDefined();
              if (lag!.clock === undefined) expect(r.until).toBe(end.get(from)! + lag!.min);
              else expect(r.until).toBeGreaterThanOrEqual(end.get(from)!);
            }
      }),
      { numRuns: 60 },
    );
  });
});
