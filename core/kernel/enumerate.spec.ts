/**
 * The exact search against every plan there is: problems of three operations and a day of two dozen minutes are small enough to try
 * each combination of starts, with the judge (which shares no code with the search) to say which of them are plans.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, validateSolution, type PlacedOperation, type Problem } from './index';
import { byHand } from './testing/problems';

/** A long run of two thousand: `TORTURE=1`. */
const RUNS = process.env['TORTURE'] ? 2000 : 150;
const HORIZON = 24;
const OPEN: readonly (readonly [number, number])[] = [
  [1, 9],
  [13, 22],
];
const isOpen = (t: number): boolean => OPEN.some(([a, b]) => t >= a && t < b);

const step = fc.record({
  minutes: fc.integer({ min: 1, max: 5 }),
  usesTool: fc.boolean(),
  family: fc.constantFrom('a', 'b'),
  isPausable: fc.boolean(),
});
const tiny: fc.Arbitrary<Problem> = fc
  .record({
    steps: fc.tuple(step, step, step),
    hands: fc.integer({ min: 1, max: 2 }),
    /** where runs count, and what one costs */
    runs: fc.constantFrom('', 'hands', 'tool', 'both'),
    run: fc.constantFrom(0.4, 3),
    change: fc.integer({ min: 0, max: 3 }),
    idle: fc.option(fc.integer({ min: 1, max: 6 }), { nil: null }),
    /** the third operation follows the first, in this many minutes or ticks */
    lag: fc.record({
      min: fc.integer({ min: 0, max: 6 }),
      room: fc.option(fc.integer({ min: 0, max: 8 }), { nil: null }),
      prefer: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
      isDamp: fc.boolean(),
    }),
    /** on the rack, or on the tool itself; several may share an end */
    holds: fc.subarray(
      [
        ['rack', 'o0', 'o2'],
        ['rack', 'o1', 'o2'],
        ['rack', 'o0', 'o1'],
        ['tool', 'o0', 'o2'],
        ['tool', 'o0', 'o1'],
      ] as const,
      { maxLength: 3 },
    ),
    rack: fc.integer({ min: 1, max: 2 }),
    dues: fc.tuple(fc.integer({ min: 3, max: 22 }), fc.integer({ min: 3, max: 22 })),
    makespan: fc.constantFrom(0, 0.3),
  })
  .map((r) =>
    parseProblem({
      format: 'muster-problem/1',
      horizon: HORIZON,
      calendars: [{ id: 'open', open: OPEN }],
      // From minute 8 on everything dries at half the pace.
      clocks: [
        {
          id: 'air',
          points: [
            [0, 0],
            [8, 8],
            [24, 16],
          ],
        },
      ],
      resources: [
        {
          id: 'hands',
          capacity: r.hands,
          calendar: 'open',
          runs: r.hands === 1 && (r.runs === 'hands' || r.runs === 'both'),
        },
        {
          id: 'tool',
          capacity: 1,
          runs: r.runs === 'tool' || r.runs === 'both',
          setup: {
            minutes: r.change,
            between: [['', 'a', 1]],
            ...(r.idle === null ? {} : { idle: r.idle }),
          },
        },
        { id: 'rack', capacity: r.rack },
      ],
      operations: r.steps.map((s, k) => ({
        id: `o${k}`,
        minutes: s.minutes,
        uses: [{ resource: 'hands', amount: 1 }, ...(s.usesTool ? [{ resource: 'tool', amount: 1 }] : [])],
        family: s.family,
        // What pauses needs no tool here: a set-up before a pause is another matter.
        pausable: s.isPausable && !s.usesTool,
      })),
      lags: [
        {
          from: 'o0',
          to: 'o2',
          min: r.lag.min,
          ...(r.lag.room === null ? {} : { max: r.lag.min + r.lag.room }),
          ...(r.lag.prefer === null ? {} : { prefer: r.lag.min + Math.min(r.lag.prefer, r.lag.room ?? 99) }),
          ...(r.lag.isDamp ? { clock: 'air' } : {}),
        },
      ],
      holds: r.holds.map(([resource, from, to]) => ({ resource, amount: 1, from, to })),
      units: [
        { id: 'u', ready: 'o1', due: r.dues[0], weight: 1 },
        { id: 'v', ready: 'o2', due: r.dues[1], weight: 2 },
      ],
      objective: { tardiness: 5, setup: 1, overrun: 0.7, runs: r.run, completion: 0.1, makespan: r.makespan },
    }),
  );

/** When work that begins at `start` is done, minute by minute; null when it cannot begin or does not end. */
function endOf(minutes: number, isPausable: boolean, start: number): number | null {
  if (!isOpen(start)) return null;
  let t = start;
  for (let left = minutes; left > 0; t++) {
    if (t >= HORIZON) return null;
    if (isOpen(t)) left--;
    else if (!isPausable) return null;
  }
  return t;
}

/** The set-up of every operation, read off the order on the tool. */
function withSetups(problem: Problem, placed: readonly PlacedOperation[]): PlacedOperation[] {
  const rule = problem.resources!.find((r) => r.id === 'tool')!.setup!;
  const operation = new Map(problem.operations.map((o) => [o.id, o]));
  const between = (from: string, to: string): number =>
    from === to ? 0 : (rule.between!.find(([a, b]) => a === from && b === to)?.[2] ?? rule.minutes);
  const onTool = placed
    .filter((p) => operation.get(p.id)!.uses!.some((u) => u.resource === 'tool'))
    .sort((a, b) => a.start - b.start);
  return placed.map((p) => {
    const k = onTool.indexOf(p);
    if (k < 0) return p;
    const family = operation.get(p.id)!.family!;
    const before = onTool[k - 1];
    if (!before) return { ...p, setup: between('', family) };
    const loaded = between(operation.get(before.id)!.family!, family);
    const stood = p.start - loaded - before.end;
    return { ...p, setup: rule.idle !== undefined && stood > rule.idle ? between('', family) : loaded };
  });
}

/** The cheapest of all plans, or null when there is none. */
function cheapest(problem: Problem): number | null {
  const choices = problem.operations.map((o) =>
    Array.from({ length: HORIZON }, (_, start) => ({
      id: o.id,
      start,
      end: endOf(o.minutes, o.pausable ?? false, start),
    })).filter((c): c is { id: string; start: number; end: number } => c.end !== null),
  );
  let best: number | null = null;
  for (const a of choices[0]!)
    for (const b of choices[1]!)
      for (const c of choices[2]!) {
        if (c.start < a.end) continue;
        const operations = withSetups(
          problem,
          [a, b, c].map((p) => ({ ...p, setup: 0 })),
        );
        const { violations, cost } = validateSolution(problem, byHand(operations));
        if (cost === null || violations.some((v) => v.rule !== 8)) continue;
        if (best === null || cost.total < best) best = cost.total;
      }
  return best;
}

describe('of all plans of three operations', () => {
  it('the exact search finds the cheapest, or proves that there is none', () => {
    let possible = 0;
    let impossible = 0;
    fc.assert(
      fc.property(tiny, (problem) => {
        const best = cheapest(problem);
        const solution = solveProblem(problem, { iterations: 200 });
        if (best === null) {
          impossible++;
          expect(solution.status).toBe('infeasible');
          expect(solution.conflict!.operations.length).toBeGreaterThan(0);
          return;
        }
        possible++;
        expect(solution.status).toBe('optimal');
        expect(solution.cost!.total).toBeCloseTo(best, 6);
        expect(solution.bound!).toBeCloseTo(best, 6);
      }),
      { numRuns: RUNS },
    );
    // Both kinds were among them.
    expect(possible).toBeGreaterThan(30);
    expect(impossible).toBeGreaterThan(0);
  }, 900_000);
});
