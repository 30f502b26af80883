/** Films on grounds, against the limiting cases and other published forms of the same theory. */
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { absorptionOf, filmFrom, infiniteOf, overGround, scatterFor, termsOf } from './film';
import { seenThrough, withinOf } from './surface';

const filmOver = (infinite: number, scatter: number, ground: number): number =>
  overGround(termsOf(infinite, scatter), ground);
const reflectance = fc.double({ min: 0.02, max: 0.95, noNaN: true });
const power = fc.double({ min: 0.02, max: 5, noNaN: true });

describe('a film on a ground (Kubelka and Munk 1931; Kubelka 1948)', () => {
  it('is the ground where there is no film, and the paint where it is thick', () => {
    expect(filmOver(0.3, 0, 0.8)).toBe(0.8);
    expect(filmOver(0.3, 1e-9, 0.8)).toBeCloseTo(0.8, 6);
    expect(filmOver(0.3, 60, 0.8)).toBeCloseTo(0.3, 9);
    expect(filmOver(0.3, 60, 0.02)).toBeCloseTo(0.3, 9);
  });

  it('over its own colour changes nothing, however thick', () => {
    fc.assert(
      fc.property(reflectance, power, (r, s) => {
        expect(filmOver(r, s, r)).toBeCloseTo(r, 9);
      }),
    );
  });

  it('scatters S·X / (1 + S·X) over black where nothing is swallowed', () => {
    // The limit for K = 0 in every account of the theory; the lightest paint that is possible here is 0.985, so nearly.
    for (const s of [0.1, 0.5, 1]) expect(filmOver(1, s, 0)).toBeCloseTo(s / (1 + s), 2);
  });

  it('is the exponential form that Kubelka and Munk printed in 1931', () => {
    fc.assert(
      fc.property(reflectance, power, reflectance, (r, s, g) => {
        const e = Math.exp(s * (1 / r - r));
        const printed = ((g - r) / r - r * (g - 1 / r) * e) / (g - r - (g - 1 / r) * e);
        expect(filmOver(r, s, g)).toBeCloseTo(printed, 7);
      }),
    );
  });

  it('has the scattering that ISO 9416 reads from its reflectance over black', () => {
    // From memory of the standard: s·w = R∞/(1 − R∞²) · ln[R∞(1 − R0·R∞)/(R∞ − R0)], paper's basis weight w left in.
    fc.assert(
      fc.property(reflectance, fc.double({ min: 0.05, max: 2, noNaN: true }), (r, s) => {
        fc.pre(s * (1 / r - r) < 10);
        const overBlack = filmOver(r, s, 0);
        const printed = (r / (1 - r * r)) * Math.log((r * (1 - overBlack * r)) / (r - overBlack));
        expect(printed / s).toBeCloseTo(1, 4);
        expect(scatterFor(r, overBlack, 0) / s).toBeCloseTo(1, 4);
      }),
    );
  });

  it('has K/S of 0.25 at half the light, and back (a worked line in most textbooks: (1 − 0.5)² / (2 · 0.5))', () => {
    expect(absorptionOf(0.5)).toBeCloseTo(0.25, 12);
    expect(infiniteOf(0.25)).toBeCloseTo(0.5, 12);
    fc.assert(
      fc.property(reflectance, (r) => {
        expect(infiniteOf(absorptionOf(r))).toBeCloseTo(r, 9);
      }),
    );
  });

  it('is found again from a test card in white and black', () => {
    fc.assert(
      fc.property(reflectance, fc.double({ min: 0.05, max: 1.5, noNaN: true }), (r, s) => {
        const found = filmFrom(filmOver(r, s, 0.85), filmOver(r, s, 0.03), 0.85, 0.03);
        fc.pre(Math.abs(filmOver(r, s, 0.85) - filmOver(r, s, 0.03)) > 0.01);
        expect(found!.infinite).toBeCloseTo(r, 4);
        expect(found!.scatter).toBeCloseTo(s, 3);
      }),
    );
    // Lighter over black than over white is no film; no difference is one that hides.
    expect(filmFrom(0.2, 0.5, 0.85, 0.03)).toBeNull();
    expect(filmFrom(0.4, 0.4, 0.85, 0.03)!.scatter).toBeGreaterThan(5);
  });
});

describe('the surface of a film (Saunderson 1942)', () => {
  it('keeps the ends: all light that is not mirrored comes out of a perfect white', () => {
    expect(seenThrough(1, 'wet')).toBeCloseTo(0.96 + 0.04 * 0.005, 9);
    expect(seenThrough(0, 'matt')).toBeCloseTo(0.04 * 0.15, 9);
  });

  it('comes back to what is within', () => {
    fc.assert(
      fc.property(reflectance, fc.constantFrom('matt', 'satin', 'gloss', 'wet' as const), (r, sheen) => {
        expect(withinOf(seenThrough(r, sheen), sheen)).toBeCloseTo(r, 9);
      }),
    );
  });

  it('is darker in gloss than in matt, and much more so in black than in white', () => {
    const gain = (r: number): number => seenThrough(r, 'matt') / seenThrough(r, 'gloss');
    expect(gain(0.02)).toBeGreaterThan(1.5);
    expect(gain(0.9)).toBeLessThan(1.03);
  });
});
