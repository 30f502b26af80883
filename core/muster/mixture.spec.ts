/** Mixtures of products: worded from their parts, called as the products are, read like words of one's own. */
import { describe, expect, it } from 'vitest';
import { layer, smallMuster } from '../plan/testing';
import {
  admit,
  differences,
  MIXTURE_LETTERS,
  mixOf,
  mixtureWords,
  paintShareOf,
  partsOf,
  remixed,
  renamedLayer,
  storesOf,
  unsound,
  withStores,
  type Layer,
  type MadeOf,
  type Muster,
  type Product,
} from './index';

const product = (id: string, name: string, part: Partial<Product> = {}): Product => ({
  id,
  name,
  family: 'acrylic',
  colour: '#888888',
  bottleMl: 17,
  leftMl: 17,
  ...part,
});
const madeOf: MadeOf = {
  parts: [
    { id: '1', product: 'cream', name: 'Cream', parts: 3 },
    { id: '2', name: 'water', parts: 1 },
  ],
};
const base = layer('base', { madeOf, mixture: mixtureWords(madeOf) });
const muster: Muster = withStores(smallMuster([base]), {
  products: [product('cream', 'Cream'), product('rust', 'Rust')],
  markings: [],
  consumables: [],
  jars: [],
});
const through = (edit: (m: Muster) => Muster): Muster => {
  const admitted = admit(muster, differences(muster, edit(muster)));
  if (!admitted.ok) throw new Error(JSON.stringify(admitted.faults));
  return admitted.muster;
};
const withProducts = (m: Muster, products: readonly Product[]): Muster =>
  withStores(m, { ...storesOf(m), products: [...products] });
const baseOf = (m: Muster): Layer => m.recipes[0]!.layers[0]!;

describe('a mixture made of products', () => {
  it('is worded from its parts, its target last; what is alike in parts is alike in words', () => {
    expect(mixtureWords(madeOf)).toBe('Cream, water 3:1');
    expect(mixtureWords({ parts: [madeOf.parts[0]!] })).toBe('Cream');
    expect(mixtureWords({ ...madeOf, target: 'the card' })).toBe('Cream, water 3:1, by eye to the card');
  });

  it('is read in the same components as its words', () => {
    const inWords = mixOf(layer('base', { mixture: mixtureWords(madeOf) }));
    expect(mixOf(base).components).toEqual(inWords.components);
    expect(mixOf(base).ratio).toBe(inWords.ratio);
    expect(mixOf(base).components).toEqual([
      { name: 'Cream', share: 0.75 },
      { name: 'water', share: 0.25 },
    ]);
    expect(paintShareOf(base)).toBe(0.75);
    expect(paintShareOf(layer('x', { mixture: 'cream' }))).toBeNull();
  });

  it('goes by the name of its product, and keeps the last one when the bottle leaves the shelf', () => {
    const renamed = through((m) => withProducts(m, [product('cream', 'Old cream'), product('rust', 'Rust')]));
    expect(baseOf(renamed).mixture).toBe('Old cream, water 3:1');
    const gone = through((m) => withProducts(m, [product('rust', 'Rust')]));
    expect(baseOf(gone).mixture).toBe('Cream, water 3:1');
    expect(baseOf(gone).madeOf!.parts[0]).toEqual({ id: '1', name: 'Cream', parts: 3 });
  });

  it('names only what is on the shelf: another file is refused with the place', () => {
    const off = { parts: [{ id: '1', product: 'nowhere', name: 'Cream', parts: 1 }] };
    const wrong = { ...muster, recipes: [{ ...muster.recipes[0]!, layers: [{ ...base, madeOf: off }] }] };
    expect(unsound(wrong).map((f) => f.path)).toEqual(['recipes[0].layers[0].madeOf.parts[0].product']);
  });

  it('gives way to words of one’s own, and is not renamed with its layer', () => {
    expect(remixed(base, 'by eye').madeOf).toBeUndefined();
    expect(remixed(base, 'by eye').mixture).toBe('by eye');
    expect(remixed(layer('x'), madeOf).mixture).toBe('Cream, water 3:1');
    expect(renamedLayer({ ...base, name: base.mixture }, 'Hull').mixture).toBe('Cream, water 3:1');
  });

  it('of the longest names still fits', () => {
    const long = Array.from({ length: 4 }, (_, k) => ({ id: `${k}`, name: 'n'.repeat(120), parts: 999.5 }));
    expect(mixtureWords({ parts: long, target: 't'.repeat(120) }).length).toBeLessThanOrEqual(
      MIXTURE_LETTERS,
    );
  });
});

describe('words as parts', () => {
  const { products } = storesOf(muster);

  it('find their products by name, whatever the case, and keep the proportion', () => {
    expect(partsOf(layer('x', { mixture: 'cream, rust, water 2:1:4' }), products)).toEqual([
      { product: 'cream', name: 'Cream', parts: 2 },
      { product: 'rust', name: 'Rust', parts: 1 },
      { name: 'water', parts: 4 },
    ]);
  });

  it('are none where there are no words, or none that can be read', () => {
    expect(partsOf(layer('x'), products)).toEqual([]);
    expect(partsOf(layer('x', { mixture: 'cream 0:0' }), products)).toEqual([]);
  });
});

describe('two loads wet into wet', () => {
  it('count half each, thinner and all', () => {
    const both = layer('x', { mixture: 'cream 3:1', wetWith: 'rust' });
    const of = (name: string): number =>
      mixOf(both)
        .components.filter((c) => c.name === name)
        .reduce((n, c) => n + c.share, 0);
    expect(of('cream')).toBeCloseTo(0.375, 9);
    expect(of('rust')).toBeCloseTo(0.5, 9);
    expect(mixOf(both).components.reduce((n, c) => n + c.share, 0)).toBeCloseTo(1, 9);
  });
});

describe('what may stand for a product', () => {
  const cream = (equivalents: Product['equivalents']): Product => product('cream', 'Cream', { equivalents });
  const rust = [{ id: 'e', madeOf: { parts: [{ id: '1', product: 'rust', name: 'Rust', parts: 1 }] } }];

  it('follows its name, and is never itself', () => {
    const renamed = through((m) => withProducts(m, [cream(rust), product('rust', 'Red rust')]));
    expect(storesOf(renamed).products[0]!.equivalents![0]!.madeOf.parts[0]!.name).toBe('Red rust');
    const itself = [{ id: 'e', madeOf: { parts: [{ id: '1', product: 'cream', name: 'Cream', parts: 1 }] } }];
    const after = withProducts(muster, [cream(itself), product('rust', 'Rust')]);
    expect(unsound(after).map((f) => f.path)).toEqual(['stores.products[0].equivalents[0].madeOf']);
  });
});

describe('a ratio with blanks in it', () => {
  it('is the ratio without them', () => {
    const spaced = mixOf(layer('x', { mixture: 'brown, water, medium 3 : 1 : 1' }));
    expect(spaced).toEqual(mixOf(layer('x', { mixture: 'brown, water, medium 3:1:1' })));
    expect(spaced.components.map((c) => c.share)).toEqual([0.6, 0.2, 0.2]);
  });
});
