/** Learning against simulated benches whose truth is known. */
import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/kernel';
import { dryingFactor, handsFactor, type DryingLook } from './index';

const BENCHES = 500;
const LOOKS = 10;

/** Standard normal by Box and Muller (1958). */
function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(Math.max(1e-12, random()))) * Math.cos(2 * Math.PI * random());
}

describe('the drying factor', () => {
  const seed = 20_261;
  const random = seededRandom(seed);
  let covered = 0;
  let learnedError = 0;
  let nominalError = 0;
  for (let b = 0; b < BENCHES; b++) {
    const truth = Math.exp(0.4 * normal(random));
    const looks: DryingLook[] = [];
    for (let k = 0; k < LOOKS; k++) {
      // People look at about the time at which they expect it dry, some too soon, some too late.
      const guess = dryingFactor(looks).median;
      const share = guess * Math.exp(0.3 * normal(random));
      const own = truth * Math.exp(0.15 * normal(random));
      looks.push({ share, wasDry: own <= share });
    }
    const learned = dryingFactor(looks);
    if (learned.low <= truth && truth <= learned.high) covered++;
    learnedError += Math.abs(Math.log(learned.median / truth));
    nominalError += Math.abs(Math.log(1 / truth));
  }

  it(`covers the truth with its 90 % interval in 85 to 95 % of ${BENCHES} benches (seed ${seed})`, () => {
    expect(covered / BENCHES).toBeGreaterThan(0.85);
    expect(covered / BENCHES).toBeLessThan(0.95);
  });

  it('errs at most half as much as the nominal figure after ten looks', () => {
    expect(learnedError / nominalError).toBeLessThan(0.5);
  });

  it('is nominal before any look, and moves the right way', () => {
    expect(dryingFactor([]).median).toBeCloseTo(1, 1);
    expect(dryingFactor([{ share: 1.5, wasDry: false }]).median).toBeGreaterThan(1.2);
    expect(dryingFactor([{ share: 0.6, wasDry: true }]).median).toBeLessThan(0.9);
  });
});

describe('the hands factor', () => {
  it('moves from nominal towards what was logged, with an interval that narrows', () => {
    const none = handsFactor([]);
    const some = handsFactor([1.5, 1.4, 1.6]);
    const many = handsFactor(Array.from({ length: 30 }, () => 1.5));
    expect(none.median).toBe(1);
    expect(some.median).toBeGreaterThan(1.2);
    expect(Math.abs(many.median - 1.5)).toBeLessThan(Math.abs(some.median - 1.5));
    expect(many.high - many.low).toBeLessThan(some.high - some.low);
  });
});
