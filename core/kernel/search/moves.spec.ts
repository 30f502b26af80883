/** Each move of the search alone makes a first plan cheaper, so that none of them can be broken unseen. */
import { describe, expect, it } from 'vitest';
import { FINE_MOVES } from './fineMoves';
import { improver } from './improve';
import { MOVES, seededRandom } from '../index';
import { instance } from '../testing/problems';
import { planned } from '../testing/planned';

/** Where each has most to do: `gather` needs runs to gather, `late` somebody late, `promote` many units. */
const FIELD = { promote: 'batch-600-1', gather: 'rhythm-300-1', late: 'tight-600' } as const;

describe('with one move alone', () => {
  it.each(MOVES)('a first plan becomes cheaper: %s', (move) => {
    const name = move in FIELD ? FIELD[move as keyof typeof FIELD] : 'batch-60-1';
    const { structure, schedule } = planned(instance(name));
    const before = schedule.cost();
    let tries = 0;
    const improve = improver(schedule, structure, seededRandom(5), {
      progress: () => tries / 400,
      without: [...MOVES.filter((m) => m !== move), ...FINE_MOVES],
    });
    for (; tries < 400; tries++) improve.step();
    expect(schedule.cost()).toBeLessThan(before);
  });
});

describe('gathering', () => {
  it('takes fewer runs than the same search without it: the same work is done in one go', () => {
    const runsAfter = (without: readonly 'gather'[]): number => {
      const { structure, schedule } = planned(instance('rhythm-300-1'));
      let tries = 0;
      const improve = improver(schedule, structure, seededRandom(2), {
        progress: () => tries / 1500,
        without,
      });
      for (; tries < 1500; tries++) improve.step();
      return schedule.runs!.count;
    };
    expect(runsAfter([])).toBeLessThan(0.9 * runsAfter(['gather']));
  });
});
