/** Edits of a muster: what they must leave alone, and that nothing points at what is gone. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fenMuster } from '../../demo/fen';
import { layer, smallMuster } from '../plan/testing';
import {
  duplicatedPiece,
  duplicatedUnit,
  mended,
  movedLayer,
  movedPieces,
  musterSchema,
  numberedNames,
  renamedLayer,
  withLayer,
  withoutLayer,
  withoutPieces,
  withoutRecipe,
  withoutUnit,
  withLayerAt,
  withPieces,
  withVersion,
  withRecipe,
  withUnit,
  type Muster,
  type Recipe,
} from './index';

const demo = fenMuster('2026-11-30');

/** Every string anywhere in a value, and where it stands. */
function strings(value: unknown, path = ''): { path: string; text: string }[] {
  if (typeof value === 'string') return [{ path, text: value }];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([key, v]) => strings(v, `${path}.${key}`));
}
const placesOf = (value: unknown, text: string): string[] =>
  strings(value)
    .filter((s) => s.text === text)
    .map((s) => s.path);
const counter = (): (() => string) => {
  let n = 0;
  return () => `new${++n}`;
};

/** Five layers that point at one another in every way there is. */
const knotted: Recipe = {
  id: 'knot',
  name: 'Knot',
  zones: [{ id: 'z', name: 'All' }],
  layers: ['l0', 'l1', 'l2', 'l3', 'l4'].map((id, k) =>
    layer(id, {
      waitsFor: k > 1 ? ['l0', `l${k - 1}`] : [],
      ...(k < 4
        ? {
            judgeFrom: `l${k + 1}`,
            window: { opensMinutes: 5, closesMinutes: 60, preferMinutes: null, through: `l${k + 1}` },
          }
        : {}),
    }),
  ),
  silenced: ['l1', 'l3'].map((id) => ({ rule: 'some-rule', layer: id, reason: 'tried' })),
};

describe('a layer taken out', () => {
  it('is named by nothing any more, and the others keep their order', () => {
    fc.assert(
      fc.property(fc.shuffledSubarray(['l0', 'l1', 'l2', 'l3', 'l4'], { minLength: 1 }), (gone) => {
        const rest = gone.reduce(withoutLayer, knotted);
        for (const id of gone) expect(placesOf(rest, id)).toEqual([]);
        expect(rest.layers.map((l) => l.id)).toEqual(
          knotted.layers.map((l) => l.id).filter((id) => !gone.includes(id)),
        );
      }),
    );
  });

  it('that is not there changes nothing', () => {
    expect(withoutLayer(knotted, 'nobody')).toEqual(knotted);
  });
});

describe('a layer moved', () => {
  it('stands where it was put; the others keep their order; back again is as before', () => {
    const place = fc.integer({ min: 0, max: 4 });
    fc.assert(
      fc.property(place, place, (from, to) => {
        const moved = movedLayer(knotted, from, to);
        expect(moved.layers[to]).toBe(knotted.layers[from]);
        const others = (r: Recipe): string[] =>
          r.layers.filter((l) => l !== knotted.layers[from]).map((l) => l.id);
        expect(others(moved)).toEqual(others(knotted));
        expect(movedLayer(moved, to, from)).toEqual(knotted);
      }),
    );
  });

  it('from or to nowhere loses nothing', () => {
    expect(movedLayer(knotted, 9, 0)).toEqual(knotted);
    expect(movedLayer(knotted, 0, 99).layers.map((l) => l.id)).toEqual(['l1', 'l2', 'l3', 'l4', 'l0']);
    expect(movedLayer(knotted, 4, -5).layers[0]!.id).toBe('l4');
  });
});

describe('a recipe taken out', () => {
  it('leaves its pieces without one, and touches no other', () => {
    for (const { id } of demo.recipes) {
      const rest = mended(demo, withoutRecipe(demo, id)).muster;
      expect(placesOf(rest.units, id).filter((p) => p.endsWith('.recipe'))).toEqual([]);
      const pieces = (m: Muster) => m.units.flatMap((u) => u.pieces);
      expect(pieces(rest)).toHaveLength(pieces(demo).length);
      pieces(demo).forEach((p, k) => {
        const host = pieces(demo).find((h) => h.id === p.joins?.piece);
        if (p.recipe !== id) expect(pieces(rest)[k]).toEqual(host?.recipe === id ? { ...p, joins: null } : p);
      });
      expect(musterSchema.safeParse(rest).success).toBe(true);
    }
  });
});

describe('copies', () => {
  it('of a unit have ids of their own and hold together among themselves', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...demo.units.map((u) => u.id)),
        fc.integer({ min: 1, max: 3 }),
        (id, copies) => {
          const more = duplicatedUnit(demo, id, copies, counter());
          const ids = more.units.flatMap((u) => [u.id, ...u.pieces.map((p) => p.id)]);
          expect(new Set(ids).size).toBe(ids.length);
          expect(more.units).toHaveLength(demo.units.length + copies);
          for (const u of more.units) {
            const own = new Set(u.pieces.map((p) => p.id));
            for (const p of u.pieces) if (p.joins) expect(own.has(p.joins.piece)).toBe(true);
          }
          expect(musterSchema.safeParse(more).success).toBe(true);
          const fresh = more.units.filter((u) => !demo.units.some((d) => d.id === u.id));
          expect(fresh.reduce((m, u) => withoutUnit(m, u.id), more)).toEqual(demo);
        },
      ),
    );
  });

  it('of a piece stand after it, and are gone again one by one', () => {
    const [unit] = demo.units;
    const [piece] = unit!.pieces;
    const more = duplicatedPiece(unit!, piece!.id, 3, counter());
    // Two trays are there already.
    expect(more.pieces.slice(0, 4).map((p) => p.name)).toEqual([
      'Cutters, tray 1',
      'Cutters, tray 3',
      'Cutters, tray 4',
      'Cutters, tray 5',
    ]);
    expect(withoutPieces(more, new Set(['new1', 'new2', 'new3']))).toEqual(unit);
  });
});

describe('names for more of the same', () => {
  it.each<[string, string[], string[]]>([
    ['Barge', ['Barge'], ['Barge 2', 'Barge 3']],
    ['Barge 1', ['Barge 1', 'Barge 4', 'Hull 9'], ['Barge 5', 'Barge 6']],
    ['Barge 1', ['barge 7'], ['Barge 8', 'Barge 9']],
    ['4th Company', ['4th Company'], ['4th Company 2', '4th Company 3']],
    ['Punt 12', [], ['Punt 1', 'Punt 2']],
    ['Punt  12', ['Punt   3'], ['Punt 4', 'Punt 5']],
    ['Punt 2 left', ['Punt 2 left'], ['Punt 2 left 2', 'Punt 2 left 3']],
    [' 7', [' 7'], [' 7 8', ' 7 9']],
  ])('after %j beside %j are %j', (name, taken, names) => {
    expect(numberedNames(name, 2, taken)).toEqual(names);
  });

  it('are never longer than a name may be', () => {
    const [name] = numberedNames('x'.repeat(120), 1, ['x'.repeat(120)]);
    expect(name).toBe(`${'x'.repeat(118)} 2`);
  });
});

describe('several pieces at once', () => {
  it('are changed alike, and the others left', () => {
    const [unit] = demo.units;
    const [first, second, ...others] = unit!.pieces;
    const changed = withPieces(unit!, new Set([first!.id, second!.id]), { count: 7 });
    expect(changed.pieces.map((p) => p.count)).toEqual([7, 7, ...others.map((p) => p.count)]);
  });

  it('go to another unit whole, and what held them to the first is cut', () => {
    for (const unit of demo.units) {
      const to = demo.units.find((u) => u.id !== unit.id)!;
      const ids = new Set(unit.pieces.slice(0, 2).map((p) => p.id));
      const after = mended(demo, movedPieces(demo, unit.id, ids, to.id)).muster;
      const units = new Map(after.units.map((u) => [u.id, u]));
      expect(
        units
          .get(to.id)!
          .pieces.slice(-ids.size)
          .map((p) => p.id),
      ).toEqual([...ids]);
      expect(units.get(unit.id)!.pieces.some((p) => ids.has(p.id))).toBe(false);
      for (const u of after.units)
        for (const p of u.pieces)
          if (p.joins) expect(u.pieces.some((x) => x.id === p.joins!.piece)).toBe(true);
    }
  });
});

describe('a version of a recipe', () => {
  const [unit] = demo.units;
  const own = demo.recipes.find((r) => r.id === unit!.pieces[0]!.recipe)!;

  it('is followed by the pieces that are to, from the layers that they had', () => {
    const pieces = new Set([unit!.pieces[0]!.id, 'another']);
    const { muster, id } = withVersion(demo, own, pieces, () => 'v');
    expect(id).toBe('v');
    expect(muster.recipes.at(-1)).toEqual({ ...own, id: 'v', name: `${own.name} 2` });
    for (const [k, u] of muster.units.entries())
      u.pieces.forEach((p, i) =>
        expect(p.recipe).toBe(pieces.has(p.id) ? 'v' : demo.units[k]!.pieces[i]!.recipe),
      );
    expect(musterSchema.safeParse(muster).success).toBe(true);
  });

  it('takes no piece of another recipe along', () => {
    const foreign = demo.units.flatMap((u) => u.pieces).find((p) => p.recipe !== own.id)!;
    const { muster } = withVersion(demo, own, new Set([foreign.id]), () => 'v');
    expect(muster.units).toEqual(demo.units);
  });
});

describe('a layer put in', () => {
  it.each([
    [0, ['new', 'l0', 'l1', 'l2', 'l3', 'l4']],
    [2, ['l0', 'l1', 'new', 'l2', 'l3', 'l4']],
    [99, ['l0', 'l1', 'l2', 'l3', 'l4', 'new']],
  ])('at %i stands there', (place, ids) => {
    expect(withLayerAt(knotted, layer('new'), place).layers.map((l) => l.id)).toEqual(ids);
  });
});

describe('a piece taken out', () => {
  it('is joined by nothing any more', () => {
    for (const unit of demo.units)
      for (const { id } of unit.pieces) {
        const rest = mended(demo, withUnit(demo, withoutPieces(unit, new Set([id])))).muster;
        expect(placesOf(rest.units, id)).toEqual([]);
      }
  });
});

describe('putting in', () => {
  it('takes the place of what has the same id, or comes last', () => {
    const muster = smallMuster();
    const [unit] = muster.units;
    expect(withUnit(muster, { ...unit!, name: 'Barges' }).units.map((u) => u.name)).toEqual(['Barges']);
    expect(withUnit(muster, { ...unit!, id: 'v' }).units.map((u) => u.id)).toEqual(['u', 'v']);
    expect(withRecipe(muster, knotted).recipes.map((r) => r.id)).toEqual(['r', 'knot']);
    const renamed = withLayer(knotted, layer('l2', { name: 'Second' }));
    expect(renamed.layers.map((l) => l.name)).toEqual(['l0', 'l1', 'Second', 'l3', 'l4']);
  });
});

describe('a layer renamed', () => {
  it('takes a mixture along that was called as it was; one set apart stays', () => {
    const own = layer('l', { name: 'Reed green', mixture: 'reed green' });
    expect(renamedLayer(own, 'Marsh green')).toEqual({ ...own, name: 'Marsh green', mixture: 'Marsh green' });
    const apart = layer('l', { name: 'Reed green', mixture: 'green, white 3:1' });
    expect(renamedLayer(apart, 'Marsh green').mixture).toBe('green, white 3:1');
  });
});
