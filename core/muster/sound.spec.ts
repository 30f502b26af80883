/** Everything that may point nowhere, one by one: what is wrong is told at its path. */
import { describe, expect, it } from 'vitest';
import { layer, smallMuster } from '../plan/testing';
import { unsound, type Layer, type Muster, type Piece, type Product } from './index';

const base = smallMuster([layer('a'), layer('b', { waitsFor: ['a'] }), layer('c', { tones: [] })]);
const faults = (m: Muster): string[] => unsound(m).map((f) => `${f.path}: ${f.text}`);

const withLayers = (...layers: Layer[]): Muster => ({
  ...base,
  recipes: [{ ...base.recipes[0]!, layers: [...base.recipes[0]!.layers, ...layers] }],
});
const withPiece = (change: Partial<Piece>): Muster => {
  const [first, ...others] = base.units[0]!.pieces;
  return { ...base, units: [{ ...base.units[0]!, pieces: [{ ...first!, ...change }, ...others] }] };
};
const product = (id: string, more: Partial<Product> = {}): Product =>
  ({ id, name: id, kind: 'paint', dilution: '', sheet: '', mlLeft: 10, ...more }) as Product;
const withShelf = (stores: Partial<NonNullable<Muster['stores']>>): Muster => ({
  ...base,
  stores: { products: [], consumables: [], jars: [], markings: [], ...stores },
});
const part = (name: string, of?: string) => ({ id: name, name, parts: 1, ...(of ? { product: of } : {}) });

describe('a muster', () => {
  it('is sound where everything leads somewhere', () => {
    expect(unsound(base)).toEqual([]);
  });

  it.each<[string, Muster, string]>([
    [
      'a layer that waits for none',
      withLayers(layer('d', { waitsFor: ['x'] })),
      'recipes[0].layers[3].waitsFor[0]: the recipe has no layer “x”',
    ],
    [
      'a layer that waits for itself',
      withLayers(layer('d', { waitsFor: ['a', 'd'] })),
      'recipes[0].layers[3].waitsFor[1]: a layer can’t wait for itself',
    ],
    [
      'a zone that is none',
      withLayers(layer('d', { zones: ['z', 'q'] })),
      'recipes[0].layers[3].zones[1]: the recipe has no zone “q”',
    ],
    [
      'a window that reaches nowhere',
      withLayers(
        layer('d', { window: { opensMinutes: 1, closesMinutes: 9, preferMinutes: null, through: 'x' } }),
      ),
      'recipes[0].layers[3].window.through: the recipe has no layer “x”',
    ],
    [
      'a coat judged from none',
      withLayers(layer('d', { judgeFrom: 'x' })),
      'recipes[0].layers[3].judgeFrom: the recipe has no layer “x”',
    ],
    [
      'what is taken back until none',
      withLayers(layer('d', { takenBack: { by: 'water', until: 'x' } })),
      'recipes[0].layers[3].takenBack.until: the recipe has no layer “x”',
    ],
    ['a layer twice', withLayers(layer('a')), 'recipes[0].layers[3].id: “a” occurs twice'],
    [
      'a part that is not on the shelf',
      withLayers(layer('d', { madeOf: { parts: [part('thin', 'gone')] } })),
      'recipes[0].layers[3].madeOf.parts[0].product: there is no such product on the shelf: “thin”',
    ],
    [
      'a part twice',
      withLayers(layer('d', { madeOf: { parts: [part('thin'), part('thin')] } })),
      'recipes[0].layers[3].madeOf.parts[1].id: “thin” occurs twice',
    ],
    [
      'a finding silenced at none',
      {
        ...base,
        recipes: [{ ...base.recipes[0]!, silenced: [{ rule: 'r', layer: 'x', reason: 'tried' }] }],
      },
      'recipes[0].silenced[0].layer: the recipe has no layer “x”',
    ],
    [
      'zones that touch none',
      { ...base, recipes: [{ ...base.recipes[0]!, zones: [{ id: 'z', name: 'Sides', touches: ['q'] }] }] },
      'recipes[0].zones[0].touches[0]: the recipe has no zone “q”',
    ],
    [
      'a recipe twice',
      { ...base, recipes: [base.recipes[0]!, base.recipes[0]!] },
      'recipes[1].id: “r” occurs twice',
    ],
    ['a piece by no recipe', withPiece({ recipe: 'x' }), 'units[0].pieces[0].recipe: there is no recipe “x”'],
    [
      'a piece that begins nowhere',
      withPiece({ startsAt: 'x' }),
      'units[0].pieces[0].startsAt: its recipe has no layer “x”',
    ],
    [
      'a substitute for none',
      withPiece({ substitutes: ['a', 'x'] }),
      'units[0].pieces[0].substitutes[1]: its recipe has no layer “x”',
    ],
    [
      'a trial of none',
      withPiece({ trials: ['x'] }),
      'units[0].pieces[0].trials[0]: its recipe has no layer “x”',
    ],
    [
      'a tone of none',
      withPiece({ tones: [{ layer: 'c', tone: 't' }] }),
      'units[0].pieces[0].tones[0].tone: its recipe has no such layer, or no such tone of it',
    ],
    [
      'a piece twice',
      withPiece({ id: 'p2' }),
      'units[0].pieces[1].id: “p2” occurs twice: every piece has an id of its own',
    ],
    [
      'parts joined to none',
      withPiece({ joins: { piece: 'x', layer: 'a' } }),
      'units[0].pieces[0].joins.piece: the unit has no piece “x”',
    ],
    [
      'parts joined at none',
      withPiece({ joins: { piece: 'p2', layer: 'x' } }),
      'units[0].pieces[0].joins.layer: the recipe of “Ferry 2” has no layer “x”',
    ],
    [
      'a unit twice',
      { ...base, units: [{ ...base.units[0]!, pieces: [] }, base.units[0]!] },
      'units[1].id: “u” occurs twice',
    ],
    [
      'a session of the week twice',
      { ...base, bench: { ...base.bench, weekly: [base.bench.weekly[0]!, base.bench.weekly[0]!] } },
      'bench.weekly[1].id: “w1” occurs twice',
    ],
    [
      'a person twice',
      { ...base, bench: { ...base.bench, people: [base.bench.people[0]!, base.bench.people[0]!] } },
      'bench.people[1].id: “me” occurs twice',
    ],
    [
      'a run kept of no piece',
      { ...base, pins: [{ id: 'n', piece: 'x', layer: 'a', session: '2027-03-02T19:00' }] as never },
      'pins[0].piece: there is no piece “x”',
    ],
    [
      'a run kept of no layer',
      { ...base, pins: [{ id: 'n', piece: 'p1', layer: 'x', session: '2027-03-02T19:00' }] as never },
      'pins[0].layer: the recipe of “Ferry 1” has no layer “x”',
    ],
    [
      'markings of no unit',
      withShelf({
        markings: [{ id: 'm', name: 'Stripes', unit: 'x', perPiece: 1, left: 2, policy: 'every-side' }],
      }),
      'stores.markings[0].unit: there is no unit “x”',
    ],
    [
      'a product twice',
      withShelf({ products: [product('p'), product('p')] }),
      'stores.products[1].id: “p” occurs twice',
    ],
    [
      'what stands for a product, made of itself',
      withShelf({
        products: [
          product('p', { equivalents: [{ id: 'e', madeOf: { parts: [part('p', 'p')] } }] as never }),
        ],
      }),
      'stores.products[0].equivalents[0].madeOf: a product can’t stand for itself',
    ],
  ])('tells of %s', (_, muster, fault) => {
    expect(faults(muster)).toContain(fault);
  });

  it('spans at most two years, to either side', () => {
    const dated = (table: string, readyFrom: string | null = null): Muster => ({
      ...base,
      units: [{ ...base.units[0]!, table, readyFrom }],
    });
    expect(faults(dated('2029-03-01T12:00'))).toEqual([]);
    expect(faults(dated('2029-03-02T12:00'))).toEqual([
      'units[0].table: The table date, 2029-03-02, lies 2 years after the beginning of the plan, 2027-03-01; a plan spans at most two years',
    ]);
    expect(faults(dated('2023-03-01T12:00'))[0]).toContain('lies 4 years before the beginning of the plan');
    expect(faults(dated('2027-03-05T12:00', '2031-03-01T12:00'))).toEqual([
      'units[0].readyFrom: The date from which it is ready, 2031-03-01, lies 4 years after the beginning of the plan, 2027-03-01; a plan spans at most two years',
    ]);
  });

  it('lets a run be kept at what a piece gets before it joins', () => {
    const pins = [{ id: 'n', piece: 'p1', layer: '~glue', session: '2027-03-02T19:00' }] as never;
    expect(faults({ ...base, pins })).toEqual([]);
  });
});
