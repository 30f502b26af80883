/** Units against their definitions, ratios by worked examples, amounts by hand. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  AmountError,
  dilution,
  dropsOf,
  parseRatio,
  psiToBar,
  psiToKpa,
  rational,
  sharesOf,
  plus,
  sprayGuide,
  toMillilitres,
  toNumber,
} from '#core/materials';
import { mixOf, type Piece, type Recipe } from '#core/muster';
import { fenMuster } from '../../demo/fen';
import { layer } from '../plan/testing';
import { amountOf, areaOf, cupsFor, materialsOf, shareOf } from './index';

describe('units', () => {
  // NIST Special Publication 811 (2008), appendix B.8.
  it('1 psi is 6.894757 kPa, 1 US fl oz 29.57353 ml', () => {
    expect(psiToKpa(1)).toBeCloseTo(6.894757, 6);
    expect(psiToBar(20)).toBeCloseTo(1.3789514, 6);
    expect(toMillilitres(1, 'fl oz')).toBeCloseTo(29.5735, 4);
    expect(toMillilitres(20, 'drop')).toBeCloseTo(1, 12);
  });

  it('refuses unknown units and volumes that make no sense', () => {
    expect(() => toMillilitres(1, 'cup')).toThrow(/“cup” is no unit/);
    expect(() => toMillilitres(-1, 'ml')).toThrow(AmountError);
    expect(() => toMillilitres(2000, 'l')).toThrow(/more than 100 l/);
  });

  it('counts drops that are enough', () => {
    expect(dropsOf(1)).toBe(20);
    expect(dropsOf(1.01)).toBe(21);
  });
});

describe('ratios', () => {
  it('are exact: shares of any ratio sum to exactly 1', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 999 }), { minLength: 2, maxLength: 4 }), (parts) => {
        fc.pre(parts.some((p) => p > 0));
        const sum = sharesOf(parseRatio(parts.join(':'))).reduce(plus, rational(0n));
        expect([sum.n, sum.d]).toEqual([1n, 1n]);
      }),
    );
  });

  it('reads decimals exactly: 1:0.5 is 2:1', () => {
    expect(sharesOf(parseRatio('1:0.5')).map(toNumber)).toEqual([2 / 3, 1 / 3]);
  });

  it.each(['0:0', 'a:b', '-1:2', '1:2:3:4:5', ''])('refuses %s', (text) => {
    expect(() => parseRatio(text)).toThrow(AmountError);
  });

  // Worked example: 4 ml of 3:1 hold 3 and 1; for 5:1 the 1 stays and the 3 becomes 5: 2 ml of the first, none of the second.
  it('4 ml of 3:1 become 5:1 by adding 2 ml of the first part', () => {
    const add = dilution(parseRatio('3:1'), parseRatio('5:1')).map((r) => toNumber(r) * 4);
    expect(add[0]).toBeCloseTo(2, 12);
    expect(add[1]).toBeCloseTo(0, 12);
  });

  it('never takes anything out, and ends at the ratio wanted', () => {
    const part = fc.integer({ min: 1, max: 60 });
    fc.assert(
      fc.property(part, part, part, part, (a, b, c, d) => {
        const from = parseRatio(`${a}:${b}`);
        const to = parseRatio(`${c}:${d}`);
        const add = dilution(from, to);
        const have = sharesOf(from);
        const end = add.map((x, k) => plus(x, have[k]!));
        for (const x of add) expect(x.n >= 0n).toBe(true);
        expect(end[0]!.n * end[1]!.d * BigInt(d)).toBe(end[1]!.n * end[0]!.d * BigInt(c));
      }),
    );
  });

  it('cannot take out what is in', () => {
    expect(() => dilution(parseRatio('1:1'), parseRatio('1:0'))).toThrow(/taken out/);
  });
});

const recipe: Recipe = {
  id: 'r',
  name: 'R',
  zones: [
    { id: 'a', name: 'A' },
    { id: 'b', name: 'B' },
  ],
  layers: [],
};
const piece: Piece = {
  id: 'p',
  name: 'P',
  recipe: 'r',
  count: 1,
  places: 1,
  joins: null,
  size: { class: 'craft', areaCm2: 100 },
};

describe('amounts', () => {
  it('are area × film × coats ÷ what lands: 100 cm² × 20 µm × 2 ÷ 45 % = 0.889 ml', () => {
    const amount = amountOf(recipe, layer('l', { method: 'airbrush', coats: 2 }), piece);

    expect(amount.ml).toBeCloseTo(0.8889, 3);
    expect(amount.from).toMatch(/100 cm² \(measured\).*20 µm wet.*2 coats.*45 % that lands/);
  });

  it('cover only the zones of the layer, and the user’s own figure comes first', () => {
    const all = amountOf(recipe, layer('l'), piece).ml;
    expect(amountOf(recipe, layer('l', { zones: ['a'] }), piece).ml).toBeCloseTo(all / 2, 12);
    expect(amountOf(recipe, layer('l', { millilitres: 3 }), piece)).toEqual({
      ml: 3,
      keptMl: 0,
      from: 'your own figure, 3 ml a piece',
    });
  });

  it('go with the square of the scale', () => {
    const at = (scale: number): number => areaOf({ ...piece, size: { class: 'craft', scale } }).cm2;
    expect(at(30)).toBeCloseTo(4 * at(60), 9);
  });

  it('pour by depth: 100 cm² × 6 mm is 60 ml and what clings', () => {
    const pour = layer('w', {
      family: 'water',
      method: 'pour',
      depthMm: 6,
      passes: { expected: 2, waitMinutes: 1440 },
    });
    expect(amountOf(recipe, pour, piece).ml).toBeCloseTo(60 / 0.95, 6);
  });

  it('mix by the cup, in whole drops that are enough', () => {
    const mix = mixOf(layer('l', { mixture: 'cream 3:1' }));
    expect(mix.components).toEqual([
      { name: 'cream', share: 0.75 },
      { name: 'acrylic thinner', share: 0.25 },
    ]);
    const cups = cupsFor(mix, 16, 7);
    expect([cups.cups, cups.refills]).toEqual([3, 2]);
    expect(cups.components.map((c) => [c.ml, c.drops])).toEqual([
      [12, 240],
      [4, 80],
    ]);
    expect(() => cupsFor(mix, 5, 0)).toThrow(AmountError);
    expect(() => mixOf(layer('l', { mixture: 'nothing 0:0' }))).toThrow(AmountError);
  });

  it('knows nozzle and pressure for what is sprayed, in psi and bar', () => {
    expect(sprayGuide('medium', 'airbrush')).toEqual({ nozzleMm: 0.7, psi: 20, bar: 1.4 });
    expect(sprayGuide('acrylic', 'brush')).toBeNull();
  });
});

describe('the materials of a recipe', () => {
  const muster = fenMuster('2027-03-01');

  it('are all that its layers take, each once, the most first', () => {
    for (const recipe of muster.recipes) {
      const pieces = muster.units.flatMap((u) => u.pieces).filter((p) => p.recipe === recipe.id);
      const list = materialsOf(recipe, pieces);
      const whole = recipe.layers.reduce(
        (sum, l) => sum + pieces.reduce((s, p) => s + amountOf(recipe, l, p).ml, 0),
        0,
      );
      expect(list.reduce((sum, m) => sum + m.ml, 0)).toBeCloseTo(whole, 6);
      expect(new Set(list.map((m) => m.name.toLowerCase())).size).toBe(list.length);
      expect([...list].sort((a, b) => b.ml - a.ml).map((m) => m.ml)).toEqual(list.map((m) => m.ml));
    }
  });

  it('of no piece are nothing', () => {
    expect(materialsOf(muster.recipes[0]!, [])).toEqual([]);
  });
});

describe('the share of the surface that a layer covers', () => {
  const share = (zones: Recipe['zones'], on: string[]): number =>
    shareOf({ id: 'r', name: 'R', zones, layers: [] }, layer('l', { zones: on }));
  const [a, b, c] = ['a', 'b', 'c'].map((id) => ({ id, name: id }));

  it('is what is said of its zones; those of which nothing is said share the rest', () => {
    expect(share([], [])).toBe(1);
    expect(share([a!, b!], ['a'])).toBe(0.5);
    expect(share([{ ...a!, percent: 80 }, b!], ['b'])).toBeCloseTo(0.2);
    expect(share([{ ...a!, percent: 60 }, b!, c!], ['b', 'a'])).toBeCloseTo(0.8);
    expect(share([{ ...a!, percent: 60 }, b!, c!], [])).toBeCloseTo(1);
  });

  it('is never more than all of it, whatever is said', () => {
    const zones = [
      { ...a!, percent: 90 },
      { ...b!, percent: 90 },
    ];
    expect(share(zones, ['a'])).toBeCloseTo(0.5);
    expect(share(zones, ['a', 'b'])).toBeCloseTo(1);
    expect(share([{ ...a!, percent: 100 }, b!], ['b'])).toBe(0);
  });
});

describe('what is kept for touching up', () => {
  it('is mixed besides, for each figure, and told', () => {
    const recipe: Recipe = { id: 'r', name: 'Hull', zones: [], layers: [] };
    const piece: Piece = { id: 'p', name: 'Tray', recipe: 'r', count: 10, places: 1, joins: null };
    const plain = amountOf(recipe, layer('l'), piece);
    const kept = amountOf(recipe, layer('l', { reserveMl: 0.2 }), piece);
    expect(kept.ml).toBeCloseTo(plain.ml + 2, 9);
    expect(kept.keptMl).toBeCloseTo(2, 9);
    expect(kept.from).toContain('2 ml kept for touching up');
    expect(amountOf(recipe, layer('l', { family: 'work', reserveMl: 0.2 }), piece).ml).toBe(0);
  });
});
