import { describe, expect, it } from 'vitest';
import { byYield } from './byYield';
import { seededRandom } from '../model/random';

/** How much of the work each move gets when it always saves and costs the same. */
function workOf(moves: readonly { saves: number; costs: number }[], tries: number): number[] {
  const chances = byYield(moves.length, seededRandom(7));
  const work = moves.map(() => 0);
  for (let k = 0; k < tries; k++) {
    const m = chances.choose();
    work[m]! += moves[m]!.costs;
    chances.learn(m, moves[m]!.saves, moves[m]!.costs);
  }
  const all = work.reduce((a, b) => a + b, 0);
  return work.map((w) => w / all);
}

describe('moves chosen by what they save for their work', () => {
  it('get equal work while nothing is known of them, however much a try costs', () => {
    const [a, b] = workOf(
      [
        { saves: 0, costs: 100 },
        { saves: 0, costs: 1000 },
      ],
      20_000,
    );
    expect(a).toBeGreaterThan(0.4);
    expect(b).toBeGreaterThan(0.4);
  });

  it('get work nearly in proportion to what it saves', () => {
    const [a, b, c] = workOf(
      [
        { saves: 4, costs: 100 },
        { saves: 20, costs: 1000 },
        { saves: 1, costs: 100 },
      ],
      40_000,
    );
    expect(a! / b!).toBeGreaterThan(1.3);
    expect(a! / b!).toBeLessThan(2.1);
    expect(b! / c!).toBeGreaterThan(1.3);
    expect(b! / c!).toBeLessThan(2.1);
  });

  it('are never given up for good', () => {
    const [a, b] = workOf(
      [
        { saves: 5, costs: 100 },
        { saves: 0, costs: 100 },
      ],
      20_000,
    );
    expect(b).toBeGreaterThan(0.03);
    expect(b).toBeLessThan(0.2);
    expect(a).toBeGreaterThan(0.8);
  });

  it('are found out when they change: what paid before is forgotten', () => {
    const chances = byYield(2, seededRandom(3));
    const tries = [0, 0];
    for (let k = 0; k < 6000; k++) {
      const m = chances.choose();
      if (k >= 4000) tries[m]!++;
      const paysNow = k < 2000 ? 0 : 1;
      chances.learn(m, m === paysNow ? 10 : 0, 100);
    }
    expect(tries[1]).toBeGreaterThan(4 * tries[0]!);
  });
});
