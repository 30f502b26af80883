/** What the forecast says beside the odds: margins, the latest day to begin, helpers who stay away, products that run out. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import type { Muster } from '#core/muster';
import { pose, solvedPlan } from '#core/session';
import { inPairs, waysOut } from '#core/plan';
import { foggyMuster } from '../../demo/foggy';
import { layer, smallMuster } from '../plan/testing';
import { Truth } from '../../bench/truth';
import { benchRisks, courseOf, Forecaster, Oddsmaker, Player, type LatestStart } from './index';

const DAY = 1440;

/** Two ferries, one coat each, an evening every day, due in so many days. */
function ferries(days: number, change: (m: Muster) => Muster = (m) => m): Muster {
  const muster = smallMuster([layer('coat', { minutes: 20, dryMinutes: 60, mixture: 'grey' })]);
  const [unit] = muster.units;
  return change({
    ...muster,
    units: [{ ...unit!, table: `2027-03-0${1 + days}T12:00` }],
  });
}

function forecasterOf(muster: Muster, iterations = 20): Forecaster {
  const posed = pose(muster, [], null);
  const solution = solveProblem(posed.problem, { iterations });
  return new Forecaster(solvedPlan(posed, solution), muster, solution, [], null);
}

function last<T>(work: Generator<void, T>): T {
  for (;;) {
    const step = work.next();
    if (step.done) return step.value;
  }
}

describe('the least margin', () => {
  it('names the evening of which nothing is left when it is lost, and no other', () => {
    // Due at noon of the second day: only the first evening is before it.
    const [margin] = last(forecasterOf(ferries(1)).margins());
    expect(margin!.needed).toHaveLength(1);
    expect(margin!.minutes).toBeLessThan(0);
    expect(margin!.evening).toBe(margin!.needed[0]);
  });

  it('is one evening less than planned where any may be lost', () => {
    const player = forecasterOf(ferries(5));
    const [margin] = last(player.margins());
    expect(margin!.needed).toEqual([]);
    const [planned] = last(forecasterOf(ferries(4)).margins());
    // A date a day later leaves a day more.
    expect(margin!.minutes - planned!.minutes).toBe(DAY);
    expect(margin!.minutes).toBeGreaterThan(2 * DAY);
  });
});

describe('the latest that a unit can be begun', () => {
  const begun = (days: number, lost: number): LatestStart =>
    last(
      forecasterOf(ferries(days, (m) => ({ ...m, bench: { ...m.bench, lostEvenings: lost } }))).latestStart(
        'u',
        0.9,
      ),
    );

  it('is the evening before its date where none is ever lost, and sooner the more are', () => {
    const never = begun(6, 0);
    const often = begun(6, 0.4);
    // The sixth evening ends fifteen hours before noon of the date: its coat is dry by then.
    expect(Math.floor(never.minute! / DAY)).toBe(5);
    expect(often.minute!).toBeLessThan(never.minute!);
    expect(never.isBegun).toBe(false);
  });

  it('is none where even as planned the odds are less', () => {
    expect(begun(1, 0.5)).toEqual({ unit: 'u', minute: null, isBegun: false });
  });
});

describe('what may run out', () => {
  const bottle = (leftMl: number): Muster =>
    ferries(
      2,
      (m) =>
        ({
          ...m,
          stores: {
            products: [
              { id: 'grey', name: 'grey', family: 'acrylic', colour: '#808080', leftMl, bottleMl: 17 },
            ],
            markings: [],
            jars: [],
            consumables: [],
          },
        }) as Muster,
    );

  it('is told with its share, and lowers the odds; a spare bottle among the ways out ends it', () => {
    const enough = forecasterOf(bottle(100)).more(200);
    expect(enough.mayRunOut).toEqual([]);
    // A bottle that holds just what is reckoned runs out in half of the futures.
    let ml = 0.05;
    let tight = forecasterOf(bottle(ml)).more(100);
    while (tight.mayRunOut.length === 0 && ml < 20) tight = forecasterOf(bottle((ml *= 1.15))).more(100);
    expect(tight.mayRunOut[0]!.name).toBe('grey');
    expect(tight.mayRunOut[0]!.share).toBeGreaterThan(0.2);
    expect(tight.all).toBeLessThan(enough.all);
    const way = waysOut(bottle(ml), ['u'], 0, ['grey']).find((w) => w.id === 'spare-grey')!;
    const spared = forecasterOf(way.apply(bottle(ml))).more(100);
    expect(spared.mayRunOut).toEqual([]);
    expect(spared.all).toBeGreaterThan(tight.all);
  });
});

describe('at benches whose truth is of another make than what is reckoned with', () => {
  // The short form of `npm run bench -- odds`, on another muster than its demo.
  it('what is given good odds comes, what is given poor ones does not, nearly as one would say who knows such benches', () => {
    const muster = foggyMuster('2027-03-01', ['folk', 'patience']);
    const posed = pose(muster, [], null);
    const solution = solveProblem(posed.problem, { iterations: 60 });
    const { plan, problem, steps, clocks } = solvedPlan(posed, solution);
    const open = problem.calendars!.find((c) => c.id === 'sessions')!.open;
    const { risks } = benchRisks(muster, problem, steps, clocks, plan, [], 0);
    const given: { share: number; knows: number; came: number }[] = [];
    for (let bench = 0; bench < 60; bench++) {
      const whole = courseOf(problem, solution, open);
      const shift = DAY * (((bench * 5) % 13) - 9);
      const course = { ...whole, units: whole.units.map((u) => ({ ...u, due: u.due + shift })) };
      const odds = new Oddsmaker(course, risks, 0, 11).more(60);
      const truth = (k: number): Float64Array =>
        new Player(course, risks, k, new Truth(course, risks, k, risks.lost)).play(k, 0).ready.slice();
      const came = truth(bench);
      const others = Array.from({ length: 30 }, (_, k) => truth(1000 + 30 * bench + k));
      course.units.forEach((u, k) =>
        given.push({
          share: odds.units[k]!.inTime,
          knows: others.filter((o) => o[k]! <= u.due).length / others.length,
          came: came[k]! <= u.due ? 1 : 0,
        }),
      );
    }
    const mean = (of: (g: (typeof given)[number]) => number, among = given): number =>
      among.reduce((sum, g) => sum + of(g), 0) / among.length;
    const good = given.filter((g) => g.share >= 0.85);
    const poor = given.filter((g) => g.share <= 0.15);
    expect(good.length).toBeGreaterThan(10);
    expect(poor.length).toBeGreaterThan(5);
    expect(mean((g) => g.came, good)).toBeGreaterThan(0.8);
    expect(mean((g) => g.came, poor)).toBeLessThan(0.25);
    const brier = mean((g) => (g.share - g.came) ** 2);
    const ideal = mean((g) => (g.knows - g.came) ** 2);
    expect(brier).toBeLessThan(ideal + 0.03);
  });
});

describe('ways out two at a time', () => {
  it('are both at once, and never two of a kind', () => {
    const muster = foggyMuster('2027-03-01', ['folk', 'patience']);
    const ways = waysOut(muster, ['folk'], 0);
    const pairs = inPairs(ways);
    expect(pairs.length).toBeGreaterThan(0);
    for (const pair of pairs) {
      const [a, b] = pair.id.split('+').map((id) => ways.find((w) => w.id === id)!);
      expect(a!.id.split('-')[0]).not.toBe(b!.id.split('-')[0]);
      expect(pair.apply(muster)).toEqual(b!.apply(a!.apply(muster)));
      expect(pair.costs).toContain(a!.costs);
      expect(pair.costs).toContain(b!.costs);
    }
  });
});
