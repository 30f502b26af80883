/** The odds against the plan itself, and against closed forms: the log-normal’s tail, the geometric law, Clark (1961) on the greater of two. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveProblem, type Problem } from '#core/kernel';
import { compile, present } from '#core/plan';
import { fenMuster } from '../../demo/fen';
import { foggyMuster } from '../../demo/foggy';
import { smallMuster } from '../plan/testing';
import type { Muster } from '#core/muster';
import { quantile, uniform } from './draws';
import { Player } from './play';
import { courseOf, Forecaster, noRisks, Oddsmaker, oddsWords, type Risks } from './index';

const DAY = 1440;

function sessionsIn(problem: Problem): readonly (readonly [number, number])[] {
  return problem.calendars!.find((c) => c.id === 'sessions')!.open;
}

describe('with nothing coming otherwise', () => {
  const musters: readonly (readonly [string, Muster])[] = [
    ['the demo', fenMuster('2027-03-01')],
    ['two units in fog', foggyMuster('2027-03-01', ['folk', 'patience'])],
    ['a small one', smallMuster()],
  ];
  it.each(musters)('a future of %s is its plan, to the minute', (_, muster) => {
    const { problem } = compile(muster);
    const solution = solveProblem(problem, { iterations: 12 });
    const course = courseOf(problem, solution, sessionsIn(problem));
    const player = new Player(course, noRisks(course.ids.length), 1);
    const played = player.play(0, 0);
    course.order.forEach((i) => {
      if (course.minutes[i]! > 0) expect(player.endOf(i), course.ids[i]).toBe(course.end[i]);
    });
    course.units.forEach((u, k) => expect(played.ready[k], u.id).toBe(course.end[u.ready]));
    expect(played.overrun.some((o) => o === 1)).toBe(false);
    expect([played.lost, played.again, played.mended]).toEqual([0, 0, 0]);
  });
});

/** One step a unit, each with hands of its own, ready as soon as it is done. */
function steps(minutes: readonly number[], due: number, open: [number, number][]): Problem {
  return {
    format: 'muster-problem/1',
    horizon: 100_000,
    calendars: [{ id: 'sessions', open }],
    resources: minutes.map((_, k) => ({ id: `hands${k}`, capacity: 1, calendar: 'sessions' })),
    operations: [
      ...minutes.map((m, k) => ({ id: `s${k}`, minutes: m, uses: [{ resource: `hands${k}`, amount: 1 }] })),
      { id: 'ready', minutes: 0 },
    ],
    lags: minutes.map((_, k) => ({ from: `s${k}`, to: 'ready', min: 0 })),
    units: [{ id: 'u', ready: 'ready', due, weight: 1 }],
    objective: { completion: 1 },
  };
}

function oddsOf(problem: Problem, change: (risks: Risks) => Risks, futures = 4000) {
  const solution = solveProblem(problem, { iterations: 5 });
  const course = courseOf(problem, solution, sessionsIn(problem));
  const risks = change(noRisks(course.ids.length));
  const player = new Player(course, risks, 3);
  const ready = Array.from({ length: futures }, (_, f) => player.play(f, 0).ready[0]!);
  return { odds: new Oddsmaker(course, risks, 0, 3).more(futures).units[0]!, ready };
}

describe('against closed forms', () => {
  const always: [number, number][] = [[0, 90_000]];
  const each =
    (sigma: number) =>
    (r: Risks): Risks => ({
      ...r,
      work: Int32Array.from(r.work, (_, i) => i),
      works: Array.from(r.work, () => ({ mean: 0, sigma })),
    });
  /** Standard error of a share, three of them. */
  const near = (n: number, p: number): number => 3 * Math.sqrt((p * (1 - p)) / n) + 1e-9;

  it('one step whose minutes are log-normal is in time as often as the normal distribution says', () => {
    // Table of the normal distribution: Φ(0.5) = 0.6915, Φ(1) = 0.8413, Φ(1.645) = 0.95.
    for (const [z, p] of [
      [0.5, 0.6915],
      [1, 0.8413],
      [1.645, 0.95],
    ] as const) {
      const due = Math.round(10_000 * Math.exp(0.3 * z));
      const { odds } = oddsOf(steps([10_000], due, always), each(0.3));
      expect(Math.abs(odds.inTime - p)).toBeLessThan(near(4000, p));
    }
  });

  it('the later of two is as late as Clark (1961) says: μ + σ/√π for two that are alike', () => {
    const { ready } = oddsOf(steps([10_000, 10_000], 90_000, always), each(0.05));
    const mean = ready.reduce((a, b) => a + b, 0) / ready.length;
    // Of a logarithm so narrow that it is normal to a thousandth.
    const expected = 10_000 * (1 + 0.05 / Math.sqrt(Math.PI) + 0.05 ** 2 / 2);
    expect(Math.abs(mean - expected)).toBeLessThan(3 * (420 / Math.sqrt(4000)));
  });

  it('a step that fits any evening is missed as often as all of them are lost', () => {
    const evenings: [number, number][] = Array.from({ length: 30 }, (_, d) => [
      d * DAY + 1140,
      d * DAY + 1260,
    ]);
    for (const [lost, days] of [
      [0.5, 3],
      [0.3, 2],
      [1 / 6, 1],
    ] as const) {
      const { odds } = oddsOf(steps([60], days * DAY, evenings), (r) => ({ ...r, lost }));
      const p = 1 - lost ** days;
      expect(Math.abs(odds.inTime - p)).toBeLessThan(near(4000, p));
    }
  });

  it('draws what it says: the quantiles of the normal distribution, and even shares', () => {
    // Abramowitz & Stegun, table 26.5.
    expect(quantile(0.975)).toBeCloseTo(1.959964, 5);
    expect(quantile(0.01)).toBeCloseTo(-2.326348, 5);
    expect(quantile(0.5)).toBeCloseTo(0, 9);
    const tenths = new Array<number>(10).fill(0);
    for (let f = 0; f < 20_000; f++) tenths[Math.floor(10 * uniform(5, f, 3, 17))]!++;
    for (const n of tenths) expect(Math.abs(n - 2000)).toBeLessThan(150);
  });
});

describe('a chain of coats on one piece', () => {
  const evenings: [number, number][] = Array.from({ length: 40 }, (_, d) => [d * DAY + 1140, d * DAY + 1260]);
  const coat = fc.record({
    minutes: fc.integer({ min: 5, max: 60 }),
    dry: fc.integer({ min: 5, max: 3000 }),
  });
  const chain = (coats: readonly { minutes: number; dry: number }[], due: number): Problem => ({
    format: 'muster-problem/1',
    horizon: 100_000,
    calendars: [{ id: 'sessions', open: evenings }],
    resources: [{ id: 'hands', capacity: 1, calendar: 'sessions' }],
    operations: [
      ...coats.map((c, k) => ({ id: `c${k}`, minutes: c.minutes, uses: [{ resource: 'hands', amount: 1 }] })),
      { id: 'ready', minutes: 0 },
    ],
    lags: coats.map((c, k) => ({
      from: `c${k}`,
      to: k + 1 < coats.length ? `c${k + 1}` : 'ready',
      min: c.dry,
    })),
    units: [{ id: 'u', ready: 'ready', due, weight: 1 }],
    objective: { completion: 1 },
  });
  /** each risk in two sizes, the second never smaller */
  const risk = fc.tuple(
    fc.double({ min: 0, max: 0.6, noNaN: true }),
    fc.double({ min: 0, max: 0.4, noNaN: true }),
  );
  const worse: readonly (readonly [string, (r: Risks, size: number) => Risks])[] = [
    ['evenings lost', (r, size) => ({ ...r, lost: size })],
    ['evenings cut short', (r, size) => ({ ...r, cut: size })],
    [
      'mending',
      (r, size) => ({
        ...r,
        mendChance: r.mendChance.map(() => size),
        mendMinutes: r.mendMinutes.map(() => 20),
        mendDrying: r.mendDrying.map(() => 300),
      }),
    ],
    ['slow hands', (r, size) => ({ ...r, work: r.work.map(() => 0), works: [{ mean: size, sigma: 0.2 }] })],
  ];
  it.each(worse)('is never likelier in time with more risk: %s', (_, change) => {
    fc.assert(
      fc.property(
        fc.array(coat, { minLength: 1, maxLength: 6 }),
        risk,
        fc.integer({ min: 2, max: 12 }),
        (coats, [low, more], days) => {
          const problem = chain(coats, days * DAY);
          const solution = solveProblem(problem, { iterations: 3 });
          const course = courseOf(problem, solution, sessionsIn(problem));
          const odds = (size: number): number =>
            new Oddsmaker(course, change(noRisks(course.ids.length), size), 0, 5).more(40).all;
          expect(odds(low + more)).toBeLessThanOrEqual(odds(low));
        },
      ),
      { numRuns: 60, seed: 21 },
    );
  });
});

describe('a window at the end of an evening', () => {
  const evenings: [number, number][] = [
    [1140, 1260],
    [DAY + 1140, DAY + 1260],
    [2 * DAY + 1140, 2 * DAY + 1260],
  ];
  /** A medium that another coat has to go on within so many minutes, after some other work. */
  const sandwich = (before: number, opens: number, closes: number): Problem => ({
    format: 'muster-problem/1',
    horizon: 10_000,
    calendars: [{ id: 'sessions', open: evenings }],
    clocks: [
      {
        id: 'air',
        points: [
          [0, 0],
          [20_000, 20_000],
        ],
      },
    ],
    resources: [{ id: 'hands', capacity: 1, calendar: 'sessions' }],
    operations: [
      { id: 'other', minutes: before, uses: [{ resource: 'hands', amount: 1 }] },
      { id: 'medium', minutes: 5, uses: [{ resource: 'hands', amount: 1 }] },
      { id: 'topcoat', minutes: 20, uses: [{ resource: 'hands', amount: 1 }] },
      { id: 'ready', minutes: 0 },
    ],
    lags: [
      { from: 'other', to: 'medium', min: 0 },
      { from: 'medium', to: 'topcoat', min: opens, max: closes, clock: 'air' },
      { from: 'topcoat', to: 'ready', min: 0 },
    ],
    units: [{ id: 'u', ready: 'ready', due: 2 * DAY, weight: 1 }],
    objective: { completion: 1 },
  });
  /** The other work takes, the medium dries, so many times longer than planned. */
  const playedWith = (problem: Problem, longer: number, slower: number) => {
    const course = courseOf(problem, solveProblem(problem, { iterations: 5 }), evenings);
    const risks = {
      ...noRisks(course.ids.length),
      work: Int32Array.from(course.ids, (id) => (id === 'other' ? 0 : -1)),
      works: [{ mean: Math.log(longer), sigma: 0 }],
      product: Int32Array.from(course.ids, (id) => (id === 'medium' ? 0 : -1)),
      products: [{ mean: Math.log(slower), sigma: 0 }],
    };
    const played = new Player(course, risks, 1).play(0, 0);
    return { ready: played.ready[0]!, again: played.again };
  };

  it('is met by staying a little longer, rather than lost over night', () => {
    // Planned to the last minute but five; the medium dries twelve minutes longer.
    const { ready, again } = playedWith(sandwich(50, 40, 60), 1, 1.3);
    expect(again).toBe(0);
    expect(ready).toBe(1267);
  });

  it('is not opened by who is behind and would hardly come out in time', () => {
    const { ready, again } = playedWith(sandwich(50, 40, 60), 1.08, 1.6);
    expect(again).toBe(0);
    expect(Math.floor(ready / DAY)).toBe(1);
  });
});

describe('the odds of a bench', () => {
  const muster = foggyMuster('2027-03-01', ['folk', 'patience']);
  const posed = compile(muster);
  const solution = solveProblem(posed.problem, { iterations: 40 });
  const solved = { ...posed, plan: present(muster, posed, solution) };
  const forecast = (m: Muster, futures: number) =>
    new Forecaster(solved, m, solution, [], null).more(futures);
  const losing = (lostEvenings: number): Muster => ({ ...muster, bench: { ...muster.bench, lostEvenings } });

  it('are the same for the same plan, and narrow as more is played', () => {
    const player = new Forecaster(solved, muster, solution, [], null);
    const [few, all] = [player.more(50), player.more(150)];
    expect(few.futures).toBe(50);
    expect(all.futures).toBe(200);
    expect(forecast(muster, 200)).toEqual(all);
  });

  it('never rise with more evenings lost: every future meets the same luck otherwise', () => {
    const shares = [0, 0.1, 0.3, 0.6].map((lost) => forecast(losing(lost), 300).units.map((u) => u.inTime));
    for (let k = 1; k < shares.length; k++)
      shares[k]!.forEach((share, u) => expect(share).toBeLessThanOrEqual(shares[k - 1]![u]!));
    expect(shares[3]![1]!).toBeLessThan(shares[0]![1]!);
  });

  it('say what the day hangs on, the most first: lost evenings, where four in ten of them are', () => {
    const { hangsOn, units } = forecast(losing(0.4), 400);
    expect(hangsOn[0]![0]!.text).toBe('evenings that are lost or cut short');
    for (const [k, u] of units.entries()) {
      const [soon, middle, late] = u.readyBy;
      expect(soon <= middle && middle <= late).toBe(true);
      expect(hangsOn[k]!.reduce((sum, h) => sum + h.share, 0)).toBeLessThanOrEqual(1 + 1e-9);
    }
  });

  it('are plain where there is nothing to hope for: a date that is past, and no evening left', () => {
    const past = {
      ...solved,
      problem: { ...posed.problem, units: posed.problem.units!.map((u) => ({ ...u, due: -10 })) },
    };
    const gone = new Forecaster(past, muster, solution, [], null).more(20);
    expect(gone.units.map((u) => u.inTime)).toEqual([0, 0]);
    expect(gone.all).toBe(0);
    const shut = {
      ...solved,
      problem: { ...posed.problem, calendars: posed.problem.calendars!.map((c) => ({ ...c, open: [] })) },
    };
    const none = new Forecaster(shut, muster, solution, [], null).more(20);
    expect(none.units.every((u) => u.inTime === 0 && u.readyBy[1] === Infinity)).toBe(true);
    expect(JSON.stringify(none)).not.toContain('NaN');
  });
});

describe('odds in words', () => {
  it('are those of painters, without a decimal', () => {
    const words = [1, 0.98, 0.94, 0.9, 0.7, 0.5, 0.3, 0.1, 0.05, 0.02, 0].map(oddsWords);
    expect(words).toEqual([
      'as good as certain',
      '29 in 30',
      '19 in 20',
      '9 in 10',
      '7 in 10',
      'a coin’s toss',
      '3 in 10',
      '1 in 10',
      '1 in 20',
      '1 in 30',
      'hardly ever',
    ]);
    for (let p = 0; p <= 1; p += 0.001) expect(oddsWords(p)).not.toMatch(/%|\d\.\d/);
    expect(oddsWords(NaN)).toBe('not known');
  });
});
