/** The learning of minutes and of products against plain numerical integration of the same model (Bayes, on a grid). */
import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/kernel';
import {
  dryingFactor,
  factorForRun,
  layerFactors,
  productFactors,
  type HandsLook,
  type ProductLook,
} from './index';

/** The model as its comments give it: log factor N(0, 0.35), slope N(log2 0.95, 0.1), noise 0.25 on logarithms. */
function byGrid(looks: readonly HandsLook[]): { mean: number; sd: number; slope: number } {
  let sum = 0;
  let m = 0;
  let mm = 0;
  let s = 0;
  const density = (x: number, mean: number, sigma: number): number =>
    Math.exp(-((x - mean) ** 2) / 2 / sigma ** 2);
  for (let factor = -1.6; factor <= 1.6; factor += 0.01)
    for (let slope = -0.6; slope <= 0.45; slope += 0.01) {
      let p = density(factor, 0, 0.35) * density(slope, Math.log2(0.95), 0.1);
      for (const l of looks) p *= density(Math.log(l.ratio), factor + slope * Math.log(l.nth), 0.25);
      sum += p;
      m += p * factor;
      mm += p * factor * factor;
      s += p * slope;
    }
  const mean = m / sum;
  return { mean, sd: Math.sqrt(mm / sum - mean * mean), slope: s / sum };
}

describe('minutes by layer', () => {
  it('are what integration over factor and slope gives', () => {
    const seed = 77;
    const random = seededRandom(seed);
    for (let round = 0; round < 6; round++) {
      const looks: HandsLook[] = Array.from({ length: 1 + Math.floor(random() * 8) }, () => ({
        of: 'base, figure',
        nth: 1 + Math.floor(random() * 12),
        ratio: 0.5 + random() * 1.5,
      }));
      const [factor] = layerFactors(looks);
      const grid = byGrid(looks);
      expect(Math.log(factor!.median), `seed ${seed}`).toBeCloseTo(grid.mean, 2);
      expect(Math.log2(factor!.curve), `seed ${seed}`).toBeCloseTo(grid.slope, 2);
      // 90 % of a normal distribution lie within 1.645 standard deviations.
      expect(Math.log(factor!.high / factor!.low) / 2 / 1.645, `seed ${seed}`).toBeCloseTo(grid.sd, 2);
      expect(factor!.logged).toBe(looks.length);
    }
  });

  it('tell the first time from the others, and one person from another', () => {
    const seed = 5;
    const random = seededRandom(seed);
    // The truth of this bench: the first time takes half as long again, Teal two thirds of what Wren takes.
    const looks: HandsLook[] = Array.from({ length: 120 }, (_, k) => {
      const who = k % 2 === 0 ? 'Wren' : 'Teal';
      const isFirst = k < 30;
      const truth = (isFirst ? 1.5 : 1) * (who === 'Wren' ? 1.2 : 0.8);
      return { of: 'wash', nth: 1, isFirst, who, ratio: truth * Math.exp(0.3 * (random() - 0.5)) };
    });
    const [f] = layerFactors(looks);
    expect(f!.first, `seed ${seed}`).toBeGreaterThan(1.35);
    expect(f!.first).toBeLessThan(1.65);
    const [teal, wren] = f!.people;
    expect([teal!.who, wren!.who, teal!.logged]).toEqual(['Teal', 'Wren', 60]);
    expect(wren!.factor / teal!.factor).toBeGreaterThan(1.4);
    expect(wren!.factor / teal!.factor).toBeLessThan(1.6);
    expect(f!.median).toBeGreaterThan(0.85);
    expect(f!.median).toBeLessThan(1.15);
    // Where one works alone nobody is compared, and without a first time none is told.
    const [alone] = layerFactors(looks.filter((l) => l.who === 'Wren' && !l.isFirst));
    expect(alone!.people).toEqual([]);
    expect(alone!.first).toBeNull();
    expect(alone!.median).toBeGreaterThan(1.1);
  });

  it('keep what is not alike apart, and leave out what cannot be', () => {
    const look = (of: string, ratio: number): HandsLook => ({ of, nth: 1, ratio });
    const factors = layerFactors([
      look('wash', 2),
      look('base', 1),
      look('wash', 2),
      look('base', 0),
      look('x', 1e6),
    ]);
    expect(factors.map((f) => [f.of, f.logged])).toEqual([
      ['base', 1],
      ['wash', 2],
    ]);
    expect(factors[1]!.median).toBeGreaterThan(factors[0]!.median);
    expect(layerFactors([])).toEqual([]);
  });

  it('are surer the more was measured', () => {
    const width = (n: number): number => {
      const [f] = layerFactors(Array.from({ length: n }, () => ({ of: 'a', nth: 1, ratio: 1.3 })));
      return f!.high / f!.low;
    };
    const widths = [1, 2, 4, 8, 16, 32].map(width);
    expect([...widths].sort((a, b) => b - a)).toEqual(widths);
    const [long] = layerFactors(Array.from({ length: 400 }, () => ({ of: 'a', nth: 1, ratio: 1.3 })));
    expect(long!.median).toBeCloseTo(1.3, 2);
  });
});

describe('the learning curve over a run', () => {
  // Wright (1936), "Factors affecting the cost of airplanes": at 80 % the second takes 0.8, the fourth 0.64, the eighth 0.512.
  it('follows Wright’s table', () => {
    const factor = { median: 1, curve: 0.8 };
    const nth = (n: number): number => n * factorForRun(factor, n) - (n - 1) * factorForRun(factor, n - 1);
    expect(factorForRun(factor, 1)).toBe(1);
    expect(nth(2)).toBeCloseTo(0.8, 10);
    expect(nth(4)).toBeCloseTo(0.64, 10);
    expect(nth(8)).toBeCloseTo(0.512, 10);
  });

  it('is flat where nothing is learned', () => {
    for (const n of [1, 3, 20]) expect(factorForRun({ median: 1.4, curve: 1 }, n)).toBeCloseTo(1.4, 12);
  });
});

describe('drying by product', () => {
  const looks = (product: string, family: string, truth: number, n: number): ProductLook[] =>
    Array.from({ length: n }, (_, k) => {
      const share = truth * (0.7 + (0.6 * (k + 0.5)) / n);
      return { product, family, share, wasDry: share >= truth };
    });

  it('begins where its relatives stand; strangers teach it only how much evenings differ', () => {
    const relatives = looks('old grey', 'acrylic', 1.8, 12);
    const one = looks('new grey', 'acrylic', 1.8, 1);
    const strangers = looks('thick white', 'enamel', 1.8, 12);
    const among = productFactors([...relatives, ...one]).find((f) => f.product === 'new grey')!;
    const alone = productFactors([...strangers, ...one]).find((f) => f.product === 'new grey')!;
    expect([among.relatives, alone.relatives]).toEqual([12, 0]);
    expect(Math.abs(Math.log(among.median / 1.8))).toBeLessThan(Math.abs(Math.log(alone.median / 1.8)));
    expect(Math.abs(Math.log(alone.median / dryingFactor(one).median))).toBeLessThan(0.02);
    expect(alone.high / alone.low).not.toBeCloseTo(dryingFactor(one).high / dryingFactor(one).low, 3);
  });

  it('goes by its own looks in the end, whatever the relatives show', () => {
    const [own] = productFactors([
      ...looks('quick', 'acrylic', 0.6, 60),
      ...looks('slow', 'acrylic', 2.2, 60),
    ]).filter((f) => f.product === 'quick');
    expect(own!.median).toBeGreaterThan(0.5);
    expect(own!.median).toBeLessThan(0.75);
    expect(own!.low).toBeLessThan(0.6);
    expect(own!.high).toBeGreaterThan(0.6);
  });
});
