/** Moves late in the search: what they take out, and that each of them alone finds the order with the fewest set-ups. */
import { describe, expect, it } from 'vitest';
import { exactSearch } from '../prove/exact';
import { FINE_MOVES, fineMoves } from './fineMoves';
import { improver } from './improve';
import { MOVES, parseProblem, seededRandom } from '../index';
import { sharesResource } from '../model/model';
import { planned } from '../testing/planned';
import { instance } from '../testing/problems';

describe('what a fine move takes out', () => {
  const { model, structure, schedule } = planned(instance('batch-60-1'));
  let taken: number[] = [];
  const fine = fineMoves(schedule, structure, seededRandom(7), {
    get size() {
      return taken.length;
    },
    take: (i) => taken.push(i),
  });
  const choose = (move: (typeof FINE_MOVES)[number]) => {
    taken = [];
    return fine.choose(move);
  };

  it.each(FINE_MOVES)('is something, each operation once, and held back by whole minutes: %s', (move) => {
    for (let k = 0; k < 300; k++) {
      const { delay } = choose(move);
      expect(taken.length).toBeGreaterThan(0);
      if (move !== 'piece') expect(new Set(taken).size).toBe(taken.length);
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

describe('each fine move alone', () => {
  /** Three coats on one airbrush, due in the order red, blue, red, and so set up thrice; two set-ups are enough. */
  const problem = parseProblem({
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

  it.each(FINE_MOVES)('finds what the exact search proves: %s', (move) => {
    const { model, bounds, order, structure, schedule } = planned(problem);
    const exact = exactSearch(model, bounds, order);
    while (!exact.isComplete) exact.step(100);
    expect(schedule.cost()).toBeGreaterThan(exact.best!.cost);
    const without = [...MOVES, ...FINE_MOVES.filter((m) => m !== move)];
    const improve = improver(schedule, structure, seededRandom(1), {
      progress: () => 0.99,
      tried: 1e6,
      without,
    });
    for (let k = 0; k < 300; k++) improve.step();
    expect(schedule.cost()).toBe(exact.best!.cost);
  });
});
