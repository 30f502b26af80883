/** Problems for tests: the published and made instances that ship with the kernel, and random small ones. */
import { readdirSync, readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  parseProblem,
  type PlacedOperation,
  type Problem,
  type ProblemOperation,
  type Solution,
} from '../index';

const FOLDER = new URL('../instances/', import.meta.url);

export function instanceNames(): string[] {
  return readdirSync(FOLDER)
    .filter((f) => f.endsWith('.json'))
    .map((f) => f.replace('.json', ''))
    .sort();
}

export function instance(name: string): Problem {
  return parseProblem(JSON.parse(readFileSync(new URL(`${name}.json`, FOLDER), 'utf8')));
}

/** A plan by hand, its cost not yet reckoned: for the judge. */
export function byHand(operations: readonly PlacedOperation[]): Solution {
  return {
    format: 'muster-solution/1',
    status: 'feasible',
    operations,
    cost: null,
    bound: null,
    conflict: null,
  };
}

/** One machine, no calendar: jobs as [minutes, weight, due]. */
export function oneMachine(
  jobs: readonly (readonly [number, number, number])[],
  objective: Problem['objective'],
): Problem {
  return parseProblem({
    format: 'muster-problem/1',
    horizon: jobs.reduce((sum, [p]) => sum + p, 0) * 3 + 10,
    resources: [{ id: 'machine', capacity: 1 }],
    operations: jobs.map(([minutes], k) => ({
      id: `j${k}`,
      minutes,
      uses: [{ resource: 'machine', amount: 1 }],
    })),
    units: jobs.map(([, weight, due], k) => ({ id: `u${k}`, ready: `j${k}`, due, weight })),
    objective,
  });
}

/** Small problems with every feature of the format: calendars, clocks, windows, setups, holds, pausing, history. */
export const smallProblem: fc.Arbitrary<Problem> = fc
  .record({
    chains: fc.array(
      fc.record({
        steps: fc.array(
          fc.record({
            minutes: fc.integer({ min: 0, max: 25 }),
            tool: fc.boolean(),
            family: fc.constantFrom('', 'a', 'b'),
            pausable: fc.boolean(),
            min: fc.integer({ min: 0, max: 30 }),
            room: fc.option(fc.integer({ min: 0, max: 120 }), { nil: null }),
            prefer: fc.boolean(),
            clock: fc.boolean(),
            hold: fc.boolean(),
          }),
          { minLength: 1, maxLength: 4 },
        ),
        due: fc.integer({ min: 50, max: 1500 }),
        weight: fc.integer({ min: 0, max: 3 }),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    people: fc.integer({ min: 1, max: 2 }),
    rack: fc.integer({ min: 1, max: 3 }),
    idle: fc.option(fc.integer({ min: 5, max: 60 }), { nil: null }),
    change: fc.integer({ min: 0, max: 9 }),
    fog: fc.integer({ min: 2, max: 15 }),
    session: fc.integer({ min: 40, max: 150 }),
    isFirstFixed: fc.boolean(),
  })
  .map((r): Problem => {
    const operations: ProblemOperation[] = [];
    const lags: NonNullable<Problem['lags']> = [];
    const holds: NonNullable<Problem['holds']> = [];
    r.chains.forEach((chain, c) =>
      chain.steps.forEach((s, k) => {
        const id = `c${c}.${k}`;
        operations.push({
          id,
          minutes: s.minutes,
          uses: [{ resource: 'hands', amount: 1 }, ...(s.tool ? [{ resource: 'tool', amount: 1 }] : [])],
          family: s.family,
          pausable: s.pausable,
        });
        if (k === 0) return;
        const from = `c${c}.${k - 1}`;
        lags.push({
          from,
          to: id,
          min: s.min,
          ...(s.room === null ? {} : { max: s.min + s.room }),
          ...(s.prefer ? { prefer: s.min + Math.floor((s.room ?? 10) / 2) } : {}),
          ...(s.clock ? { clock: 'air' } : {}),
        });
        if (s.hold) holds.push({ resource: 'rack', amount: 1, from, to: id });
      }),
    );
    const first = operations[0]!;
    return {
      format: 'muster-problem/1',
      horizon: 2400,
      calendars: [
        { id: 'open', open: [0, 1, 2, 3, 4, 5, 6, 7].map((d) => [d * 300 + 10, d * 300 + 10 + r.session]) },
      ],
      clocks: [
        {
          id: 'air',
          points: [
            [0, 0],
            [600, 600],
            [1200, 600 + 60 * r.fog],
            [2400, 2400 + 60 * r.fog],
          ],
        },
      ],
      resources: [
        { id: 'hands', capacity: r.people, calendar: 'open' },
        {
          id: 'tool',
          capacity: 1,
          setup: {
            minutes: r.change,
            between: [
              ['', 'a', 2],
              ['b', 'a', r.change + 3],
            ],
            ...(r.idle === null ? {} : { idle: r.idle }),
          },
        },
        { id: 'rack', capacity: r.rack },
      ],
      operations,
      lags,
      holds,
      units: r.chains.map((chain, c) => ({
        id: `u${c}`,
        ready: `c${c}.${chain.steps.length - 1}`,
        due: chain.due,
        weight: chain.weight,
      })),
      objective: { tardiness: 10, setup: 1, overrun: 0.5, completion: 0.01, makespan: 0.1 },
      ...(r.isFirstFixed && first.minutes > 0
        ? { fixed: [{ id: first.id, start: 15, end: 15 + first.minutes + 2 }] }
        : {}),
    };
  });
