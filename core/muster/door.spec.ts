/** The one door: whatever is done to a muster, what comes out is sound, says what was mended, and two changes made apart come together. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fenMuster } from '../../demo/fen';
import { layer, smallMuster } from '../plan/testing';
import {
  admit,
  checked,
  differences,
  duplicatedUnit,
  GoneError,
  mended,
  touches,
  unsound,
  withEdits,
  withLayer,
  withoutLayer,
  withoutRecipe,
  withoutUnit,
  withRecipe,
  withStores,
  withUnit,
  storesOf,
  type Edit,
  type Muster,
  type Piece,
  type Recipe,
} from './index';

const demo = fenMuster('2026-11-30');
const recipe = (m: Muster, id = 'r'): Recipe => m.recipes.find((r) => r.id === id)!;
const piece = (m: Muster, id: string): Piece => m.units.flatMap((u) => u.pieces).find((p) => p.id === id)!;
const through = (m: Muster, edit: (m: Muster) => Muster): Muster => {
  const admitted = admit(m, differences(m, edit(m)));
  if (!admitted.ok) throw new Error(JSON.stringify(admitted.faults));
  return admitted.muster;
};
const refusal = (m: Muster, edit: (m: Muster) => Muster): string[] => {
  const admitted = admit(m, differences(m, edit(m)));
  return admitted.ok ? [] : admitted.faults.map((f) => f.path);
};

/** A muster in which everything points at something. */
function knotted(): Muster {
  const m = smallMuster([
    layer('a'),
    layer('b', { waitsFor: ['a'] }),
    layer('c', {
      waitsFor: ['b'],
      window: { opensMinutes: 15, closesMinutes: 90, preferMinutes: null, through: 'e' },
    }),
    layer('d', { judgeFrom: 'e', zones: ['z'] }),
    layer('e', {
      substitute: { name: 'brush', family: 'acrylic', method: 'brush', coats: 1, minutes: 5, dryMinutes: 15 },
    }),
    layer('f'),
  ]);
  const unit = m.units[0]!;
  const [p1, p2] = unit.pieces;
  return {
    ...m,
    recipes: [{ ...recipe(m), silenced: [{ rule: 'x', layer: 'e', reason: 'tried' }] }],
    units: [
      {
        ...unit,
        pieces: [
          { ...p1!, startsAt: 'e', substitutes: ['e'] },
          { ...p2!, joins: { piece: 'p1', layer: 'e' } },
        ],
      },
    ],
    stores: {
      products: [],
      consumables: [],
      jars: [],
      markings: [{ id: 'mk', name: 'Stripes', unit: 'u', perPiece: 1, left: 9, policy: 'every-side' }],
    },
  };
}

describe('what is mended when a layer goes', () => {
  const admitted = admit(
    knotted(),
    differences(
      knotted(),
      withRecipe(knotted(), {
        ...recipe(knotted()),
        layers: recipe(knotted()).layers.filter((l) => l.id !== 'e'),
      }),
    ),
  );
  const m = admitted.ok ? admitted.muster : knotted();

  it('everything that pointed at it points at what comes nearest', () => {
    expect(admitted.ok).toBe(true);
    expect(piece(m, 'p1').startsAt).toBe('f');
    expect(piece(m, 'p1').substitutes).toEqual([]);
    expect(piece(m, 'p2').joins).toEqual({ piece: 'p1', layer: 'f' });
    expect(recipe(m).layers.find((l) => l.id === 'c')!.window!.through).toBe('d');
    expect(recipe(m).layers.find((l) => l.id === 'd')!.judgeFrom).toBe('f');
    expect(recipe(m).silenced).toEqual([]);
  });

  it('and that is said', () => {
    expect(admitted.ok && admitted.notes).toEqual([
      'The window after “c” now covers the layers up to “d”.',
      'Ferry 1 (Ferries) now starts at “f”.',
      'Ferry 2 (Ferries) now joins Ferry 1 before “f”.',
    ]);
  });

  it('a wait for it becomes a wait for what it waited for', () => {
    const less = through(knotted(), (k) => withRecipe(k, withoutLayer(recipe(k), 'b')));
    expect(recipe(less).layers.find((l) => l.id === 'c')!.waitsFor).toEqual(['a']);
  });
});

describe('what is mended besides', () => {
  it('a layer gone: no piece speaks of its strength any more', () => {
    const m = knotted();
    const [r] = m.recipes;
    const [u] = m.units;
    const layerId = r!.layers[1]!.id;
    const own = withUnit(m, {
      ...u!,
      pieces: u!.pieces.map((p) =>
        p.recipe === r!.id ? { ...p, effects: [{ layer: layerId, is: 'heavy' as const }] } : p,
      ),
    });
    const after = through(own, (k) => withRecipe(k, withoutLayer(r!, layerId)));
    expect(after.units.flatMap((x) => x.pieces).flatMap((p) => p.effects ?? [])).toEqual([]);
  });

  it('a recipe gone: pieces without one, starting bare and joined to nobody', () => {
    const m = through(knotted(), (k) => withoutRecipe(k, 'r'));
    expect(piece(m, 'p1')).toEqual({
      id: 'p1',
      name: 'Ferry 1',
      recipe: null,
      count: 1,
      places: 1,
      joins: null,
      substitutes: [],
    });
    expect(piece(m, 'p2').joins).toBeNull();
  });
  it('a unit gone: its markings serve all', () => {
    expect(storesOf(through(knotted(), (k) => withoutUnit(k, 'u'))).markings[0]!.unit).toBeNull();
  });
  it('a zone gone: its own layers go with it, instead of covering everything', () => {
    const m = through(knotted(), (k) => withRecipe(k, { ...recipe(k), zones: [] }));
    expect(recipe(m).layers.map((l) => l.id)).toEqual(['a', 'b', 'c', 'e', 'f']);
    expect(recipe(m).layers.find((l) => l.id === 'c')!.window!.through).toBe('e');
  });
  it('a piece that takes another recipe forgets the layers of the old one', () => {
    const m = through(knotted(), (k) => ({
      ...k,
      recipes: [...k.recipes, { id: 'r2', name: 'Other', zones: [], layers: [layer('x')] }],
      units: k.units.map((u) => ({
        ...u,
        pieces: u.pieces.map((p) => (p.id === 'p1' ? { ...p, recipe: 'r2' } : p)),
      })),
    }));
    expect(piece(m, 'p1').startsAt).toBeUndefined();
    expect(piece(m, 'p2').joins).toEqual({ piece: 'p1', layer: 'x' });
  });
});

describe('what is refused, with its place', () => {
  const unit = demo.units[0]!;
  it.each([
    [
      'a year of five digits',
      (m: Muster) => withUnit(m, { ...unit, table: '20277-03-01T12:00' }),
      'units[0].table',
    ],
    ['a year mistyped', (m: Muster) => withUnit(m, { ...unit, table: '2077-03-01T12:00' }), 'units[0].table'],
    ['a beginning long ago', (m: Muster) => ({ ...m, startsOn: '1927-11-30T18:00' }), 'startsOn'],
    ['a beginning years before', (m: Muster) => ({ ...m, startsOn: '2016-11-30T18:00' }), 'units[0].table'],
    ['a name of 121 letters', (m: Muster) => ({ ...m, name: 'x'.repeat(121) }), 'name'],
    [
      'no zone of the earth',
      (m: Muster) => ({ ...m, bench: { ...m.bench, timeZone: 'Mars/Olympus' } }),
      'bench.timeZone',
    ],
    [
      'a layer twice',
      (m: Muster) =>
        withRecipe(m, { ...m.recipes[0]!, layers: [...m.recipes[0]!.layers, m.recipes[0]!.layers[0]!] }),
      `recipes[0].layers[${demo.recipes[0]!.layers.length}].id`,
    ],
    [
      'a reference twice',
      (m: Muster) => {
        const one = { id: 'x', name: 'Photograph' };
        return withRecipe(m, { ...m.recipes[0]!, references: [one, one] });
      },
      'recipes[0].references[1].id',
    ],
    ['not a number', (m: Muster) => ({ ...m, bench: { ...m.bench, rackPlaces: NaN } }), 'bench.rackPlaces'],
  ])('%s', (_, edit, path) => {
    expect(refusal(demo, edit)).toContain(path);
  });

  it('two years are a plan, a day more is none', () => {
    const m = { ...smallMuster(), startsOn: '2027-03-01T18:00' };
    const at = (table: string): Muster => ({ ...m, units: [{ ...m.units[0]!, table }] });
    expect(unsound(at('2029-03-01T12:00'))).toEqual([]);
    expect(unsound(at('2029-03-02T12:00')).map((f) => f.path)).toEqual(['units[0].table']);
  });

  it.each([
    ['units[0].pieces[0].recipe', (m: Muster) => void (m.units[0]!.pieces[0]!.recipe = 'gone')],
    ['units[0].pieces[0].startsAt', (m: Muster) => void (m.units[0]!.pieces[0]!.startsAt = 'gone')],
    [
      'units[0].pieces[0].substitutes[0]',
      (m: Muster) => void (m.units[0]!.pieces[0]!.substitutes = ['gone']),
    ],
    ['units[0].pieces[1].joins.piece', (m: Muster) => void (m.units[0]!.pieces[1]!.joins!.piece = 'gone')],
    ['units[0].pieces[1].joins.layer', (m: Muster) => void (m.units[0]!.pieces[1]!.joins!.layer = 'gone')],
    ['recipes[0].layers[1].waitsFor[0]', (m: Muster) => void (m.recipes[0]!.layers[1]!.waitsFor = ['gone'])],
    ['recipes[0].layers[1].waitsFor[0]', (m: Muster) => void (m.recipes[0]!.layers[1]!.waitsFor = ['b'])],
    [
      'recipes[0].layers[2].window.through',
      (m: Muster) => void (m.recipes[0]!.layers[2]!.window!.through = 'gone'),
    ],
    ['recipes[0].layers[3].judgeFrom', (m: Muster) => void (m.recipes[0]!.layers[3]!.judgeFrom = 'gone')],
    ['recipes[0].layers[3].zones[0]', (m: Muster) => void (m.recipes[0]!.layers[3]!.zones = ['gone'])],
    ['recipes[0].silenced[0].layer', (m: Muster) => void (m.recipes[0]!.silenced![0]!.layer = 'gone')],
    ['stores.markings[0].unit', (m: Muster) => void (m.stores!.markings[0]!.unit = 'gone')],
  ])('a file that dangles at %s; brought in from the first format it is cut', (path, spoil) => {
    const m = knotted();
    spoil(m);
    const read = checked(m);
    expect(read.ok ? null : read.faults[0]!.path).toBe(path);
    expect(unsound(mended(null, m).muster)).toEqual([]);
  });
});

describe('a copy of a unit with the longest name', () => {
  it('has a name that may be kept', () => {
    const m = smallMuster();
    const long = { ...m, units: [{ ...m.units[0]!, name: 'x'.repeat(120) }] };
    let n = 0;
    const copy = through(long, (k) => duplicatedUnit(k, 'u', 12, () => `n${n++}`));
    expect(copy.units).toHaveLength(13);
    expect(copy.units[12]!.name).toMatch(/x 13$/);
  });
});

/** Edits of all kinds at the demo, by number. */
const deeds: readonly ((m: Muster, k: number) => Muster)[] = [
  (m, k) => ({ ...m, name: `named ${k}` }),
  (m, k) => withoutUnit(m, m.units[k % Math.max(1, m.units.length)]?.id ?? ''),
  (m, k) => withoutRecipe(m, m.recipes[k % Math.max(1, m.recipes.length)]?.id ?? ''),
  (m, k) => {
    const r = m.recipes[k % Math.max(1, m.recipes.length)];
    return r ? withRecipe(m, { ...r, layers: r.layers.filter((_, i) => i !== k % r.layers.length) }) : m;
  },
  (m, k) => {
    const r = m.recipes[k % Math.max(1, m.recipes.length)];
    return r ? withRecipe(m, { ...r, layers: [...r.layers.slice(1), ...r.layers.slice(0, 1)] }) : m;
  },
  (m, k) => {
    const r = m.recipes[k % Math.max(1, m.recipes.length)];
    return r ? withRecipe(m, withLayer(r, layer(`new${k}`))) : m;
  },
  (m, k) => {
    const u = m.units[k % Math.max(1, m.units.length)];
    return u
      ? withUnit(m, { ...u, pieces: u.pieces.filter((_, i) => i !== k % Math.max(1, u.pieces.length)) })
      : m;
  },
  (m, k) => {
    const u = m.units[k % Math.max(1, m.units.length)];
    const to = m.recipes[(k * 7) % Math.max(1, m.recipes.length)]?.id ?? null;
    return u ? withUnit(m, { ...u, pieces: u.pieces.map((p) => ({ ...p, recipe: to })) }) : m;
  },
  (m, k) => ({
    ...m,
    bench: { ...m.bench, weekly: m.bench.weekly.filter((_, i) => i !== k % 6), cupMl: 1 + (k % 9) },
  }),
  (m, k) => withStores(m, { ...storesOf(m), jars: [{ id: `j${k}`, mixture: 'grey', leftMl: k, note: '' }] }),
];
const deed = fc.tuple(fc.nat(deeds.length - 1), fc.nat(60)).map(
  ([d, k]) =>
    (m: Muster) =>
      deeds[d]!(m, k),
);

describe('any edits', () => {
  it('come to the same muster as the whole edit does, and leave it sound', () => {
    fc.assert(
      fc.property(fc.array(deed, { minLength: 1, maxLength: 8 }), (list) => {
        let m = demo;
        for (const d of list) {
          const wanted = d(m);
          expect(withEdits(m, differences(m, wanted))).toEqual(JSON.parse(JSON.stringify(wanted)));
          m = through(m, d);
          expect(checked(m).ok).toBe(true);
        }
      }),
    );
  });

  it('made apart on a list that neither has begun yet come together: what both put in stands in it', () => {
    const fresh = {
      ...demo,
      pins: undefined,
      stores: undefined,
      bench: { ...demo.bench, quiet: undefined, away: undefined },
    };
    const [plain] = [JSON.parse(JSON.stringify(fresh)) as Muster];
    const quiet = (id: string) => (m: Muster) => ({
      ...m,
      bench: { ...m.bench, quiet: [{ id, from: '22:00', to: '06:00' }] },
    });
    const jar = (id: string) => (m: Muster) =>
      withStores(m, { ...storesOf(m), jars: [{ id, mixture: 'cream', leftMl: 3, note: '' }] });
    for (const [one, other, read] of [
      [quiet('a'), quiet('b'), (m: Muster) => m.bench.quiet],
      [jar('a'), jar('b'), (m: Muster) => m.stores?.jars],
    ] as const) {
      const here = differences(plain, one(plain));
      const there = differences(plain, other(plain));
      const both = withEdits(withEdits(plain, here), there);
      expect(new Set(read(both)?.map((x) => x.id))).toEqual(new Set(['a', 'b']));
    }
  });

  it('that end a list leave in it what somebody else has put there meanwhile', () => {
    const begun = { ...demo, bench: { ...demo.bench, quiet: [{ id: 'a', from: '22:00', to: '06:00' }] } };
    const ends = differences(begun, { ...begun, bench: { ...begun.bench, quiet: undefined } });
    expect(withEdits(begun, ends).bench).not.toHaveProperty('quiet');
    const more = {
      ...begun,
      bench: { ...begun.bench, quiet: [...begun.bench.quiet, { id: 'b', from: '12:00', to: '13:00' }] },
    };
    expect(withEdits(more, ends).bench.quiet).toEqual([{ id: 'b', from: '12:00', to: '13:00' }]);
  });

  it('made apart on the same muster come together: what only one touched is as that one made it', () => {
    fc.assert(
      fc.property(deed, deed, (one, other) => {
        const first = differences(demo, one(demo));
        const second = differences(demo, other(demo));
        const a = admit(demo, first);
        if (!a.ok) return;
        let both;
        try {
          both = admit(a.muster, second);
        } catch (error) {
          // What the second was meant for is gone: told, nothing done.
          expect(error).toBeInstanceOf(GoneError);
          return;
        }
        if (!both.ok) return;
        expect(checked(both.muster).ok).toBe(true);
        const theirs = first.flatMap((e) => touches(e) ?? []);
        const ours = second.flatMap((e) => touches(e) ?? []);
        if (theirs.some((a) => ours.some((b) => a.startsWith(b) || b.startsWith(a)))) return;
        const merged = both.muster;
        const hasAll = (edits: readonly Edit[]): void => {
          for (const e of edits)
            if (e.do === 'set' && e.at.length === 1) expect(merged[e.at[0] as keyof Muster]).toEqual(e.value);
        };
        hasAll(first);
        hasAll(second);
      }),
    );
  });

  it('two fields of one piece, edited apart, are both kept; one field twice: the later', () => {
    const set =
      (part: Partial<Piece>) =>
      (m: Muster): Muster => ({
        ...m,
        units: m.units.map((u) => ({
          ...u,
          pieces: u.pieces.map((p) => (p.id === 'heron1' ? { ...p, ...part } : p)),
        })),
      });
    const base = demo;
    const named = differences(base, set({ name: 'Old heron' })(base));
    const counted = differences(base, set({ count: 3 })(base));
    const renamed = differences(base, set({ name: 'Young heron' })(base));
    const merged = withEdits(withEdits(withEdits(base, named), counted), renamed);
    expect(piece(merged, 'heron1')).toMatchObject({ name: 'Young heron', count: 3 });
    expect(named.map(touches)).toEqual(renamed.map(touches));
    expect(named.map(touches)).not.toEqual(counted.map(touches));
  });

  it('that bring many items in a row come to the same as one by one', () => {
    const unit = (k: number): Muster['units'][number] => ({ ...demo.units[0]!, id: `new${k}`, pieces: [] });
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9 }), { maxLength: 8 }),
        fc.constantFrom(null, ...demo.units.map((u) => u.id), 'gone'),
        (numbers, first) => {
          // Items that come twice among them, and a row that follows what is not there.
          const edits = numbers.map((n, k): Edit => ({
            do: 'add',
            at: ['units'],
            item: unit(n),
            after: k === 0 ? first : `new${numbers[k - 1]}`,
          }));
          const single = edits.reduce((m, e) => withEdits(m, [e]), demo);
          expect(withEdits(demo, edits).units.map((u) => u.id)).toEqual(single.units.map((u) => u.id));
        },
      ),
    );
  });

  it('for what is gone say so', () => {
    const edits = differences(demo, withUnit(demo, { ...demo.units[0]!, name: 'Folk' }));
    expect(() => admit(withoutUnit(demo, demo.units[0]!.id), edits)).toThrow(GoneError);
  });
});
