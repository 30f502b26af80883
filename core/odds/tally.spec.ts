/** Futures played in parts come to what they come to in one go. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, present } from '#core/plan';
import { smallMuster } from '../plan/testing';
import { benchRisks, courseOf, Oddsmaker } from './index';

const muster = smallMuster();
const compiled = compile(muster);
const { problem, steps, clocks } = compiled;
const solution = solveProblem(problem, { iterations: 12 });
const course = courseOf(problem, solution, problem.calendars!.find((c) => c.id === 'sessions')!.open);
const plan = present(muster, compiled, solution);
const { risks } = benchRisks(muster, problem, steps, clocks, plan, [], 0);
const maker = (): Oddsmaker => new Oddsmaker(course, risks, 0, 7);

describe('a tally', () => {
  it('of some futures and one of the others add up to the tally of all, in whatever order they come', () => {
    const whole = maker().more(60);
    fc.assert(
      fc.property(fc.array(fc.boolean(), { minLength: 6, maxLength: 6 }), fc.boolean(), (left, isLate) => {
        const first = maker();
        const second = maker();
        const taken = left.map((isLeft) => {
          if (isLeft) return second.played(first.leave(10), 10);
          for (let k = 0; k < 10; k++) first.play();
          return null;
        });
        if (isLate) taken.reverse();
        for (const tally of taken) if (tally) first.take(tally);
        const odds = first.count();
        expect(odds.futures).toBe(60);
        expect(odds.all).toBe(whole.all);
        expect(odds.overruns).toEqual(whole.overruns);
        odds.units.forEach((u, k) => {
          expect([u.inTime, u.readyBy]).toEqual([whole.units[k]!.inTime, whole.units[k]!.readyBy]);
          expect(u.drivers.map((d) => [d.kind, d.of])).toEqual(
            whole.units[k]!.drivers.map((d) => [d.kind, d.of]),
          );
          u.drivers.forEach((d, n) => expect(d.share).toBeCloseTo(whole.units[k]!.drivers[n]!.share, 6));
        });
      }),
      { numRuns: 20 },
    );
  });

  it('does not count what was left and has not come', () => {
    const first = maker();
    first.leave(5);
    expect(first.more(3).futures).toBe(3);
  });
});
