/** Colours of mixtures. Absorption and scattering add up by share: D. R. Duncan (1940), Proc. Phys. Soc. 52, 390 (from memory). */
import { describe, expect, it } from 'vitest';
import type { Product } from '#core/muster';
import { labOf, differenceOf } from './colour';
import { mixedFilm, mixtureColour } from './mixture';
import { layer } from '../plan/testing';
import { productOf, type Film } from './paint';

const product = (name: string, colour: string, part: Partial<Product> = {}): Product => ({
  id: name,
  name,
  family: 'acrylic',
  colour,
  bottleMl: 17,
  leftMl: 17,
  ...part,
});
const shelf = (...products: Product[]): ReadonlyMap<string, Product> =>
  new Map(products.map((p) => [p.name, p]));
const grey = (infinite: number, scatter: number): Film => ({
  infinite: [infinite, infinite, infinite],
  scatter: [scatter, scatter, scatter],
});

describe('a mixture of paints', () => {
  it('of one is that one, and of two alike as well', () => {
    const products = shelf(product('a', '#8f3a34'), product('b', '#8f3a34'));
    for (const paints of [
      [{ name: 'a', share: 1 }],
      [
        { name: 'a', share: 0.2 },
        { name: 'b', share: 0.6 },
      ],
    ])
      expect(differenceOf(mixtureColour(paints, products)!, '#8f3a34')).toBeLessThan(0.6);
  });

  it('adds up K and S by share: half of K/S 2 and half of K/S 0.125, of equal scattering, have K/S 1.0625', () => {
    // K/S = (1 − R)² / 2R: 2 at R = 0.172…, 0.125 at R = 0.6096…; worked by hand.
    const of = (ks: number): number => 1 + ks - Math.sqrt((1 + ks) ** 2 - 1);
    const mixed = mixedFilm([
      { film: grey(of(2), 1), share: 1 },
      { film: grey(of(0.125), 1), share: 1 },
    ]);
    expect(mixed.infinite[0]).toBeCloseTo(of(1.0625), 6);
    expect(mixed.scatter[0]).toBeCloseTo(1, 9);
  });

  it('goes by what scatters more: a strong white holds its own against a weak black', () => {
    const weak = mixedFilm([
      { film: grey(0.9, 4), share: 1 },
      { film: grey(0.02, 0.1), share: 1 },
    ]);
    const strong = mixedFilm([
      { film: grey(0.9, 4), share: 1 },
      { film: grey(0.02, 4), share: 1 },
    ]);
    expect(weak.infinite[0]).toBeGreaterThan(strong.infinite[0]);
  });

  it('of blue and yellow is green, as no mixing of light is (common practice, no source)', () => {
    const products = shelf(product('blue', '#2b5fae'), product('yellow', '#ecc531'));
    const { a, b } = labOf(
      mixtureColour(
        [
          { name: 'blue', share: 0.35 },
          { name: 'yellow', share: 0.65 },
        ],
        products,
      )!,
    );
    expect(a).toBeLessThan(-8);
    expect(b).toBeGreaterThan(0);
  });

  it('is found on the shelf by its first paint; a medium by itself is found as well', () => {
    const products = shelf(product('cream', '#efe6c8'), product('chipping medium', '#7f86c9'));
    const of = (mixture: string) => productOf(layer('l', { mixture }), products)?.name;
    expect(of('water, cream 1:3')).toBe('cream');
    expect(of('chipping medium, undiluted')).toBe('chipping medium');
    expect(of('cream 0:0')).toBeUndefined();
  });

  it('is not known where one of them is not on the shelf', () => {
    expect(mixtureColour([{ name: 'nowhere', share: 1 }], shelf())).toBeNull();
    expect(mixtureColour([], shelf())).toBeNull();
  });
});
