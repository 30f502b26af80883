/** What chance gives one future: evenings lost in rows, helpers who stay away, the first evening of a kind of work. */
import { describe, expect, it } from 'vitest';
import { solveProblem, type Problem } from '#core/kernel';
import { courseOf, Luck, noRisks, Player, type Risks } from './index';

const DAY = 1440;
const EVENINGS = 60;
const evenings: [number, number][] = Array.from({ length: EVENINGS }, (_, d) => [
  d * DAY + 1140,
  d * DAY + 1260,
]);

/** Two people, each with a row of steps of half an hour; `yours` may stay away. */
function twoPeople(steps: number): Problem {
  const row = (who: string): string[] => Array.from({ length: steps }, (_, k) => `${who}${k}`);
  return {
    format: 'muster-problem/1',
    horizon: 100_000,
    calendars: [{ id: 'sessions', open: evenings }],
    resources: ['mine', 'yours'].map((id) => ({ id, capacity: 1, calendar: 'sessions' })),
    operations: [
      ...row('mine').map((id) => ({ id, minutes: 30, uses: [{ resource: 'mine', amount: 1 }] })),
      ...row('yours').map((id) => ({ id, minutes: 30, uses: [{ resource: 'yours', amount: 1 }] })),
      { id: 'ready', minutes: 0 },
    ],
    lags: [...row('mine'), ...row('yours')].map((from) => ({ from, to: 'ready', min: 0 })),
    units: [{ id: 'u', ready: 'ready', due: 2 * DAY, weight: 1 }],
    objective: { completion: 1 },
  };
}

const problem = twoPeople(4);
const course = courseOf(problem, solveProblem(problem, { iterations: 5 }), evenings);
const none = noRisks(course.ids.length);
const FUTURES = 400;

describe('lost evenings', () => {
  const lostIn = (risks: Risks): boolean[][] => {
    const luck = new Luck(course, risks, 3);
    return Array.from({ length: FUTURES }, (_, f) => {
      luck.draw(f, 0, {});
      return [...luck.isLost].map((l) => l === 1);
    });
  };
  const share = (list: readonly boolean[]): number => list.filter((l) => l).length / list.length;

  it('are as many as said, in rows or singly', () => {
    for (const inRows of [0, 1 / 3, 0.6])
      for (const lost of [0.05, 1 / 6, 0.3]) {
        const all = lostIn({ ...none, lost, inRows }).flat();
        expect(Math.abs(share(all) - lost), `${lost} ${inRows}`).toBeLessThan(0.02);
      }
  });

  it('follow one another as often as said', () => {
    const after = lostIn({ ...none, lost: 1 / 6, inRows: 1 / 3 }).flatMap((f) =>
      f.slice(1).filter((_, k) => f[k]),
    );
    expect(Math.abs(share(after) - 1 / 3)).toBeLessThan(0.04);
  });

  it('are more in every future where more are lost', () => {
    const few = lostIn({ ...none, lost: 0.1, inRows: 1 / 3 });
    const many = lostIn({ ...none, lost: 0.25, inRows: 1 / 3 });
    few.forEach((f, k) => f.forEach((l, e) => expect(!l || many[k]![e]).toBe(true)));
  });

  it('may be one that is named, whatever is drawn', () => {
    const luck = new Luck(course, none, 3);
    luck.draw(0, 0, { lost: 4 });
    expect([...luck.isLost].flatMap((l, k) => (l ? [k] : []))).toEqual([4]);
  });
});

describe('a helper who stays away', () => {
  const hands = (id: string): number => problem.resources!.findIndex((r) => r.id === id);
  const readyWith = (absent: number): number => {
    const helpers = [{ hands: hands('yours'), instead: hands('mine'), absent }];
    return new Player(course, { ...none, helpers }, 3).play(0, 0).ready[0]!;
  };

  it('leaves what was theirs to the other, and it takes that one twice as long', () => {
    // Both side by side fill one evening; one alone needs the next as well.
    expect(Math.floor(readyWith(0) / DAY)).toBe(0);
    expect(Math.floor(readyWith(1) / DAY)).toBe(1);
  });
});

describe('work that this bench has never done', () => {
  it('takes longer on its first evening, and as planned from the second on', () => {
    const risks: Risks = {
      ...none,
      work: Int32Array.from(none.work, () => 0),
      works: [{ mean: 0, sigma: 0 }],
      isNew: Uint8Array.of(1),
      firstTime: { mean: Math.log(1.5), sigma: 0 },
    };
    const luck = new Luck(course, risks, 3);
    luck.draw(0, 0, {});
    expect(luck.minutes(0, 1140)).toBe(45);
    expect(luck.minutes(1, 1200)).toBe(45);
    expect(luck.minutes(2, DAY + 1140)).toBe(30);
    luck.draw(1, 0, {});
    expect(luck.minutes(2, DAY + 1140)).toBe(45);
  });

  it('takes as much longer as these hands are slow at what is new, the same in all of a future', () => {
    const risks: Risks = {
      ...none,
      work: Int32Array.from(none.work, (_, i) => i % 2),
      works: [
        { mean: 0, sigma: 0 },
        { mean: 0, sigma: 0 },
      ],
      isNew: Uint8Array.of(1, 1),
      firstTime: { mean: Math.log(1.25), sigma: 0.2 },
    };
    const luck = new Luck(course, risks, 3);
    const logs = Array.from({ length: FUTURES }, (_, f) => {
      luck.draw(f, 0, {});
      expect(luck.minutes(1, 1200)).toBe(luck.minutes(0, 1140));
      return Math.log(luck.minutes(0, 1140) / 30);
    });
    const mean = logs.reduce((a, b) => a + b, 0) / FUTURES;
    const spread = Math.sqrt(logs.reduce((a, b) => a + (b - mean) ** 2, 0) / FUTURES);
    expect(mean).toBeCloseTo(Math.log(1.25), 1);
    expect(spread).toBeCloseTo(0.2, 1);
  });
});

describe('pieces of one kind in a row', () => {
  // Wright (1936), T. P., Factors Affecting the Cost of Airplanes: the same share of the minutes less at every doubling.
  it('take less of the hands at every doubling, until the next evening', () => {
    const risks: Risks = {
      ...none,
      work: Int32Array.from(none.work, () => 0),
      works: [{ mean: 0, sigma: 0 }],
      slopes: Float64Array.of(Math.log2(0.8)),
    };
    const luck = new Luck(course, risks, 3);
    luck.draw(0, 0, {});
    const first = [0, 1, 2, 3].map((i) => luck.minutes(i, 1140));
    // 30, 30 · 0.8, and 30 · 0.8 · 0.8 at the fourth.
    expect([first[0], first[1], first[3]]).toEqual([30, 24, 19]);
    expect(luck.minutes(4, DAY + 1140)).toBe(30);
    luck.draw(1, 0, {});
    expect(luck.minutes(0, 1140)).toBe(30);
  });
});

describe('mishaps of one kind', () => {
  const count = course.ids.length;
  const mishapsWith = (sigma: number): readonly number[] => {
    const risks: Risks = {
      ...none,
      mendChance: none.mendChance.map(() => 0.04),
      mishap: new Int32Array(count),
      mishaps: [sigma],
    };
    const luck = new Luck(course, risks, 3);
    return Array.from({ length: 4000 }, (_, f) => {
      luck.draw(f, 0, {});
      return Array.from({ length: count }, (_i, i) => luck.isMended(i)).filter((m) => m).length;
    });
  };
  const mean = (list: readonly number[]): number => list.reduce((a, b) => a + b, 0) / list.length;

  it('are as many on the mean as said, however little is known of their rate', () => {
    for (const sigma of [0, 0.5, 0.9]) expect(mean(mishapsWith(sigma)) / count).toBeCloseTo(0.04, 2);
  });

  it('come together where little is known of their rate: many of them, or none', () => {
    const three = (sigma: number): number => mean(mishapsWith(sigma).map((m) => (m > 2 ? 1 : 0)));
    expect(three(0.9)).toBeGreaterThan(2 * three(0));
  });
});
