/** The moves of the search, each alone: what it takes out, and that a plan becomes cheaper by it, so that none can be broken unseen. */
import { describe, expect, it } from 'vitest';
import { MOVES, parseProblem, seededRandom, solveProblem, type Move, type Problem } from '../index';
import { sharesResource } from '../model/model';
import { calmOf, type Calm } from '../place/calm';
import { Schedule } from '../place/schedule';
import { ExactSearch } from '../prove/exact';
import { planned } from '../testing/planned';
import { instance } from '../testing/problems';
import { improver } from './improve';

/** Where each has most to do: `gather` needs runs to gather, `late` somebody late, `promote` many units. */
const FIELD: Readonly<Record<string, string>> = {
  promote: 'batch-600-1',
  gather: 'rhythm-300-1',
  late: 'tight-600',
};
const TRIES = 400;

/** A first plan, improved with one move alone. @returns what it cost before and after */
function withOnly(
  move: Move,
  problem: Problem,
  progress: (tries: number) => number,
  calm: Calm | null = null,
) {
  const { model, bounds, structure, schedule: first } = planned(problem);
  const schedule = new Schedule(model, bounds, calm);
  for (let i = 0; i < model.count; i++)
    if (!schedule.isPlaced(i)) schedule.assign(i, first.start[i]!, first.end[i]!, first.setup[i]!);
  const before = schedule.cost();
  let tries = 0;
  const improve = improver(schedule, structure, seededRandom(5), {
    progress: () => progress(tries),
    tried: move.stage === 'fine' ? 1e6 : 0,
    without: MOVES.filter((m) => m !== move).map((m) => m.name),
  });
  for (; tries < TRIES; tries++) improve.step();
  return { before, after: schedule.cost() };
}

describe('the registry', () => {
  it('knows every move by a name of its own, and says what it is for', () => {
    expect(new Set(MOVES.map((m) => m.name)).size).toBe(MOVES.length);
    for (const { purpose } of MOVES) expect(purpose).toMatch(/^[A-Z].{20,}\.$/);
  });
});

describe('with one move alone', () => {
  it.each(MOVES.filter((m) => m.stage === 'coarse' && m.name !== 'return'))(
    'a first plan becomes cheaper: $name',
    (move) => {
      const { before, after } = withOnly(move, instance(FIELD[move.name] ?? 'batch-60-1'), (n) => n / TRIES);
      expect(after).toBeLessThan(before);
    },
  );

  it('what has left its session goes back: return', () => {
    const problem = instance('rhythm-300-1');
    const { model } = planned(problem);
    const other = solveProblem(problem, { iterations: 30, seed: 9 });
    const move = MOVES.find((m) => m.name === 'return')!;
    const { before, after } = withOnly(move, problem, () => 0.5, calmOf(model, other, 1000));
    expect(after).toBeLessThan(before - 1000);
  });

  /** Three coats on one airbrush, due in the order red, blue, red, and so set up thrice; two set-ups are enough. */
  const coats = parseProblem({
    format: 'muster-problem/1',
    horizon: 600,
    resources: [{ id: 'airbrush', capacity: 1, setup: { minutes: 10 } }],
    operations: ['red', 'blue', 'red'].map((family, k) => ({
      id: `coat${k}`,
      minutes: 20,
      family,
      uses: [{ resource: 'airbrush', amount: 1 }],
    })),
    units: [0, 1, 2].map((k) => ({ id: `u${k}`, ready: `coat${k}`, due: 300 + k, weight: 1 })),
    objective: { tardiness: 100, setup: 1 },
  });

  it.each(MOVES.filter((m) => m.stage === 'fine'))(
    'late in a search it finds what the exact search proves: $name',
    (move) => {
      const { model, bounds, order } = planned(coats);
      const exact = new ExactSearch(model, bounds, order);
      while (!exact.isComplete) exact.step(100);
      const { before, after } = withOnly(move, coats, () => 0.99);
      expect(before).toBeGreaterThan(exact.best!.cost);
      expect(after).toBe(exact.best!.cost);
    },
  );
});

describe('what a fine move takes out', () => {
  const { model, structure, schedule } = planned(instance('batch-60-1'));
  let taken: number[] = [];
  const out = {
    get size() {
      return taken.length;
    },
    take: (i: number) => taken.push(i),
  };
  const ground = { schedule, structure, sessions: [], random: seededRandom(7), out };
  const fine = MOVES.filter((m) => m.stage === 'fine');
  const ready = new Map(fine.map((m) => [m.name, m.on(ground)]));
  const choose = (name: string) => {
    taken = [];
    return ready.get(name)!();
  };

  it.each(fine)('is something, each operation once, and held back by whole minutes: $name', ({ name }) => {
    for (let k = 0; k < 300; k++) {
      const { delay } = choose(name);
      expect(taken.length).toBeGreaterThan(0);
      if (name !== 'piece') expect(new Set(taken).size).toBe(taken.length);
      expect(Number.isInteger(delay)).toBe(true);
      expect(delay).toBeGreaterThanOrEqual(0);
    }
  });

  it('stands in a row on one tool, or in the way of the one that goes elsewhere', () => {
    let shifted = 0;
    for (let k = 0; k < 300; k++) {
      choose('row');
      expect(new Set(taken.map((i) => model.tool[i])).size).toBe(1);
      if (choose('shift').isWhole) continue;
      shifted++;
      for (const i of taken.slice(1)) expect(sharesResource(model, i, taken[0]!)).toBe(true);
    }
    expect(shifted).toBeGreaterThan(100);
  });
});

describe('gathering', () => {
  it('takes red, blue, red, blue up as two runs, as the exact search proves best', () => {
    const problem = parseProblem({
      format: 'muster-problem/1',
      horizon: 600,
      resources: [{ id: 'hands', capacity: 1, runs: true }],
      operations: ['red', 'blue', 'red', 'blue'].map((family, k) => ({
        id: `coat${k}`,
        minutes: 20,
        family,
        uses: [{ resource: 'hands', amount: 1 }],
      })),
      units: [0, 1, 2, 3].map((k) => ({ id: `u${k}`, ready: `coat${k}`, due: 300 + k, weight: 1 })),
      objective: { tardiness: 100, runs: 8 },
    });
    const { before, after } = withOnly(
      MOVES.find((m) => m.name === 'gather')!,
      problem,
      () => 0.9,
    );
    expect([before, after]).toEqual([32, 16]);
    expect(solveProblem(problem, { iterations: 200 })).toMatchObject({
      status: 'optimal',
      cost: { total: 16 },
    });
  });
});
