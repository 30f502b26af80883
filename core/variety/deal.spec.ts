/** Variety dealt over the pieces of a unit: what differs, what stays, what it costs. */
import { describe, expect, it } from 'vitest';
import { unsound, type Layer, type Muster, type Piece } from '#core/muster';
import { sideBySide } from './deal';
import { layer, smallMuster } from '../plan/testing';
import {
  placesOf,
  couldVary,
  deal,
  dealOf,
  DEFAULT_DEAL,
  swapped,
  withDeal,
  withOptional,
  withTrait,
} from './index';

const LAYERS: Layer[] = [
  layer('prime', { family: 'primer' }),
  layer('base', { mixture: 'green' }),
  layer('trim', { mixture: 'rust brown' }),
  layer('lights', { reach: 'edges', isOptional: true, minutes: 6 }),
  layer('shade', { family: 'acrylic-wash', isOptional: true, minutes: 4 }),
  layer('spots', {
    method: 'sponge',
    mixture: 'dark brown',
    tones: [
      { id: 't1', mixture: 'Rust brown', colour: '#8a4b2e' },
      { id: 't2', mixture: 'a load of its own', colour: '#101010' },
    ],
  }),
];

function fleet(count: number, layers = LAYERS, part: (k: number) => Partial<Piece> = () => ({})): Muster {
  const muster = smallMuster(layers);
  const [piece] = muster.units[0]!.pieces;
  const pieces = Array.from({ length: count }, (_, k) => ({
    ...piece!,
    id: `p${k}`,
    name: `Ferry ${k + 1}`,
    ...part(k),
  }));
  return { ...muster, units: [{ ...muster.units[0]!, pieces }] };
}

const told = (m: Muster, part = {}) => dealOf(m, m.units[0]!, m.recipes[0]!, { ...DEFAULT_DEAL, ...part });
const looks = (m: Muster): unknown[] =>
  m.units[0]!.pieces.map(({ effects, tones, age }) => ({ effects, tones, age }));

describe('dealing a unit', () => {
  const dealt = withDeal(fleet(12), 'u', DEFAULT_DEAL);

  it('leaves nobody like the piece beside or behind it, adds no hour, and stays sound', () => {
    expect(unsound(dealt)).toEqual([]);
    expect(told(fleet(12)).alike.length).toBe(17);
    const now = told(dealt);
    expect(now.alike).toEqual([]);
    expect(now.minutes).toBeLessThanOrEqual(0);
    expect(dealt.units[0]!.deal).toEqual(DEFAULT_DEAL);
  });

  it('uses every strength, tone and age about equally', () => {
    for (const trait of told(dealt).traits) {
      const t = told(dealt).traits.indexOf(trait);
      const uses = trait.values.map((_, v) => told(dealt).of.filter((d) => d[t] === v).length);
      expect(Math.max(...uses) - Math.min(...uses)).toBeLessThanOrEqual(1);
    }
  });

  it('deals only tones whose mixture is taken up anyway', () => {
    const tone = told(dealt).traits.find((t) => t.kind === 'tone');
    expect(tone?.values.map((v) => v.text)).toEqual(['dark brown', 'Rust brown']);
  });

  it('repeats by its seed, deals others by another, and makes neighbours more unlike or less', () => {
    expect(withDeal(fleet(12), 'u', DEFAULT_DEAL)).toEqual(dealt);
    expect(looks(withDeal(fleet(12), 'u', { ...DEFAULT_DEAL, seed: 2 }))).not.toEqual(looks(dealt));
    const various = withDeal(fleet(12), 'u', { ...DEFAULT_DEAL, variety: 'various' });
    expect(told(various, { variety: 'various' }).alike).toEqual([]);
    expect(various.units[0]!.pieces.some((p) => p.effects?.some((e) => e.is === 'heavy'))).toBe(true);
    const alike = withDeal(fleet(12), 'u', { ...DEFAULT_DEAL, variety: 'alike' });
    expect(alike.units[0]!.pieces.flatMap((p) => p.effects ?? []).map((e) => e.is)).not.toContain('off');
  });

  it('leaves the leader as the user set it, and those beside it differ from it', () => {
    const set = withDeal(
      fleet(12, LAYERS, (k) =>
        k === 4 ? { isSet: true, age: 'old', effects: [{ layer: 'shade', is: 'heavy' }] } : {},
      ),
      'u',
      DEFAULT_DEAL,
    );
    expect(set.units[0]!.pieces[4]).toMatchObject({ age: 'old', effects: [{ layer: 'shade', is: 'heavy' }] });
    expect(deal(set, set.units[0]!, set.recipes[0]!, DEFAULT_DEAL).alike).toEqual([]);
  });

  it('goes on for reinforcements: those dealt before keep what they have', () => {
    const more = {
      ...dealt,
      units: [
        {
          ...dealt.units[0]!,
          pieces: [...dealt.units[0]!.pieces, ...fleet(3, LAYERS, (k) => ({ id: `n${k}` })).units[0]!.pieces],
        },
      ],
    };
    const after = withDeal(more, 'u', { ...DEFAULT_DEAL, seed: 9, isMore: true });
    expect(looks(after).slice(0, 12)).toEqual(looks(dealt));
    expect(after.units[0]!.pieces.slice(12).every((p) => p.age !== undefined)).toBe(true);
    expect(told(after).alike).toEqual([]);
  });

  it('lets a part stand where its host does: masts are beside masts though boats come between in the list', () => {
    const boats = fleet(8, LAYERS, (k) => (k % 2 ? { joins: { piece: `p${k - 1}`, layer: 'base' } } : {}));
    expect([...placesOf(boats.units[0]!).values()]).toEqual([0, 0, 1, 1, 2, 2, 3, 3]);
    expect(sideBySide(boats.units[0]!, boats.units[0]!.pieces, 2)).toContainEqual([1, 3]);
    expect(sideBySide(boats.units[0]!, boats.units[0]!.pieces, 2)).toContainEqual([0, 4]);
    expect(sideBySide(boats.units[0]!, boats.units[0]!.pieces, 2)).not.toContainEqual([2, 4]);
  });

  it('swaps two, and holds what was set by hand', () => {
    const unit = swapped(dealt.units[0]!, 'p0', 'p7');
    expect(unit.pieces[0]!.effects).toEqual(dealt.units[0]!.pieces[7]!.effects);
    expect(unit.pieces[7]!.age).toEqual(dealt.units[0]!.pieces[0]!.age);
    expect(unit.pieces[0]!.name).toBe('Ferry 1');
    const trait = told(dealt).traits.find((t) => t.layer === 'shade')!;
    const by = withTrait(dealt.units[0]!, 'p3', trait, 'trace').pieces[3]!;
    expect(by.effects).toContainEqual({ layer: 'shade', is: 'trace' });
    expect(by.isSet).toBe(true);
  });
});

describe('a recipe with nothing to deal', () => {
  const plain = fleet(6, [
    layer('prime', { family: 'primer' }),
    layer('base'),
    layer('lights', { reach: 'edges' }),
  ]);

  it('says what could vary, and varies it once that is allowed', () => {
    expect(told(plain).traits.map((t) => t.kind)).toEqual(['age']);
    expect(told(plain).apart).toBe(1);
    expect(couldVary(plain.recipes[0]!).map((l) => l.id)).toEqual(['lights']);
    const open = withOptional(plain, 'r', ['lights']);
    expect(told(open).traits.map((t) => t.kind)).toEqual(['strength', 'age']);
  });

  it('does not leave off a layer that another waits for, or that a part is glued before', () => {
    const tied = fleet(4, [
      layer('base'),
      layer('lights', { reach: 'edges', isOptional: true }),
      layer('end', { waitsFor: ['lights'] }),
    ]);
    expect(told(tied).traits[0]!.values.map((v) => v.id)).toEqual(['trace', 'normal']);
    const seam = withOptional(
      fleet(4, [layer('base'), layer('lights', { reach: 'edges' })], (k) =>
        k === 3 ? { joins: { piece: 'p0', layer: 'lights' } } : {},
      ),
      'r',
      ['lights'],
    );
    expect(told(seam).traits[0]!.values.map((v) => v.id)).toEqual(['trace', 'normal']);
  });
});
