/** Craft rules over the pieces of a muster: what only a piece's own way brings, and a fleet of copies. */
import { describe, expect, it } from 'vitest';
import { unsound, type Muster, type Piece } from '#core/muster';
import type { Finding } from '#core/recipe';
import { dealOf, DEFAULT_DEAL } from '#core/variety';
import { checkMuster } from './index';
import { layer, smallMuster } from './testing';

const rulesOf = (muster: Muster): string[] => checkMuster(muster).map((f) => f.rule);
const withUnit = (muster: Muster, part: Partial<Muster['units'][number]>): Muster => ({
  ...muster,
  units: muster.units.map((u) => ({ ...u, ...part })),
});
const played = (muster: Muster): Muster =>
  withUnit(muster, { pieces: muster.units[0]!.pieces.map((p) => ({ ...p, use: 'played' as const })) });

describe('a piece that is handled', () => {
  const muster = played(
    smallMuster([
      layer('prime', { family: 'primer' }),
      layer('base', { level: 1 }),
      layer('matt', { family: 'varnish', sheen: 'matt' }),
    ]),
  );

  it('has its last coat with the whole recipe, and is asked for one where a level leaves it off', () => {
    expect(rulesOf(muster)).not.toContain('no-last-coat');
    const cut = checkMuster(withUnit(muster, { level: 1 })).filter((f) => f.rule === 'no-last-coat');
    expect(cut.map((f) => [f.severity, f.place.piece, f.where])).toEqual([
      ['error', 'p1', expect.stringContaining('Ferries, Ferry 1')],
    ]);
  });
});

describe('a fleet of copies', () => {
  const muster = smallMuster();
  const pieces = (n: number, count: number): Piece[] =>
    Array.from({ length: n }, (_, k) => ({
      ...muster.units[0]!.pieces[0]!,
      id: `p${k}`,
      name: `Ferry ${k}`,
      count,
    }));

  it.each([
    ['five single pieces', 5, 1, false],
    ['six single pieces', 6, 1, true],
    ['five trays of ten figures', 5, 10, true],
    ['two trays of five', 2, 5, false],
    ['one tray of twenty', 1, 20, false],
  ] as const)('%s: told %s', (_, n, count, isTold) => {
    expect(rulesOf(withUnit(muster, { pieces: pieces(n, count) })).includes('all-identical')).toBe(isTold);
  });
});

describe('one press', () => {
  const enamel = layer('wash', {
    family: 'enamel',
    colour: '#20140e',
    substitute: {
      name: 'Acrylic wash',
      family: 'acrylic-wash',
      method: 'brush',
      coats: 1,
      minutes: 5,
      dryMinutes: 30,
    },
  });
  const found = (muster: Muster, rule: string): Finding[] =>
    checkMuster(muster).filter((f) => f.rule === rule);

  it('deals copies out: neighbours differ, no hour is added, the muster stays sound', () => {
    const recipe = [
      layer('prime', { family: 'primer' }),
      layer('base'),
      layer('lights', { reach: 'edges', colour: '#f0f0e0' }),
      layer('shade', { family: 'acrylic-wash', colour: '#20140e' }),
    ];
    const muster = smallMuster(recipe);
    const eight = withUnit(muster, {
      pieces: Array.from({ length: 8 }, (_, k) => ({
        ...muster.units[0]!.pieces[0]!,
        id: `p${k}`,
        name: `Ferry ${k}`,
      })),
    });
    const [told] = found(eight, 'all-identical');
    const cured = told!.fix!.apply(eight);
    expect(found(cured, 'all-identical')).toEqual([]);
    expect(unsound(cured)).toEqual([]);
    const dealt = dealOf(cured, cured.units[0]!, cured.recipes[0]!, DEFAULT_DEAL);
    expect(dealt.traits.map((t) => t.name)).toEqual(['lights', 'shade', 'Age of the damage']);
    expect(dealt.alike).toEqual([]);
    expect(dealt.minutes).toBeLessThanOrEqual(0);
  });

  it('takes the acrylic ways on a piece finished long ago, and is not offered where there are none', () => {
    const muster = smallMuster([
      layer('prime', { family: 'primer' }),
      layer('seal', { family: 'varnish', sheen: 'gloss', dryMinutes: 240 }),
      enamel,
    ]);
    const old = withUnit(muster, { pieces: [{ ...muster.units[0]!.pieces[0]!, startsAt: 'seal' }] });
    const [told] = found(old, 'solvent-on-old');
    const cured = told!.fix!.apply(old);
    expect(cured.units[0]!.pieces[0]!.substitutes).toEqual(['wash']);
    expect(found(cured, 'solvent-on-old')).toEqual([]);
    const bare = {
      ...old,
      recipes: old.recipes.map((r) => ({
        ...r,
        layers: r.layers.map(({ substitute, ...l }) => (substitute ? l : l)),
      })),
    };
    expect(found(bare, 'solvent-on-old')[0]!.fix).toBeUndefined();
  });

  it('cures what only this piece’s own way brings, by the recipe’s cure or by following the recipe', () => {
    // The recipe is sound; with the lacquer of its substitute, brushed over acrylic, it is not.
    const muster = smallMuster([
      layer('prime', { family: 'primer' }),
      layer('base'),
      layer('coat', {
        family: 'varnish',
        sheen: 'satin',
        substitute: {
          name: 'Brushed lacquer',
          family: 'lacquer',
          method: 'brush',
          coats: 1,
          minutes: 4,
          dryMinutes: 20,
        },
      }),
    ]);
    const own = withUnit(muster, { pieces: [{ ...muster.units[0]!.pieces[0]!, substitutes: ['coat'] }] });
    expect(found(muster, 'lacquer-over-acrylic')).toEqual([]);
    const [told] = found(own, 'lacquer-over-acrylic');
    expect(told!.place).toMatchObject({ piece: own.units[0]!.pieces[0]!.id });
    const cured = told!.fix!.apply(own);
    expect(found(cured, 'lacquer-over-acrylic')).toEqual([]);
    expect(unsound(cured)).toEqual([]);
  });

  it('sends a can outdoors where nobody has said that the bench draws off', () => {
    const muster = smallMuster([layer('prime', { family: 'primer', method: 'can' })]);
    const silent = { ...muster, bench: { ...muster.bench, hasExtraction: undefined } };
    const [told] = found(silent, 'can-indoors');
    expect(told!.severity).toBe('warning');
    const cured = told!.fix!.apply(silent);
    expect(cured.recipes[0]!.layers[0]!.isOutdoors).toBe(true);
    expect(found(cured, 'can-indoors')).toEqual([]);
    expect(found({ ...silent, bench: { ...silent.bench, hasExtraction: true } }, 'can-indoors')).toEqual([]);
  });
});
