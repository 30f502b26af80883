/** A unit as a kit, and units out of it: sound, apart from the first, and whole. */
import { describe, expect, it } from 'vitest';
import { fenMuster } from '../../demo/fen';
import {
  admit,
  differences,
  kitOf,
  storesOf,
  withKit,
  withoutKit,
  withoutRecipe,
  withUnit,
  withUnitOfKit,
  type Muster,
} from './index';

const demo = fenMuster('2027-03-01');
let n = 0;
const newId = (): string => `kit-${++n}`;
const through = (m: Muster, edit: (m: Muster) => Muster): Muster => {
  const admitted = admit(m, differences(m, edit(m)));
  if (!admitted.ok) throw new Error(JSON.stringify(admitted.faults));
  return admitted.muster;
};

describe.each(demo.units.map((u) => [u.name, u] as const))('a kit of %s', (_, unit) => {
  const own = { ...unit, details: [{ id: 'd', name: 'Lamps' }] };
  const muster = through(demo, (m) => withKit(withUnit(m, own), kitOf(demo, own, newId)));
  const [kit] = muster.kits!;

  it('makes a unit like it, numbered on, under ids of its own', () => {
    const after = through(muster, (m) => withUnitOfKit(m, kit!, '2027-03-20T18:00', newId).muster);
    const last = after.units.at(-1)!;
    expect(last.name).toBe(`${unit.name} 2`);
    expect(last.details).toEqual(own.details);
    expect(last.pieces.map((p) => [p.name, p.count, p.recipe, p.size])).toEqual(
      unit.pieces.map((p) => [p.name, p.count, p.recipe, p.size]),
    );
    const ids = after.units.flatMap((u) => u.pieces.map((p) => p.id));
    expect(new Set(ids).size).toBe(ids.length);
    // What was joined is joined to the new host, at the same layer.
    last.pieces.forEach((p, k) => {
      const was = unit.pieces[k]!.joins;
      expect(p.joins?.layer).toBe(was?.layer);
      if (was) expect(p.joins!.piece).toBe(last.pieces[unit.pieces.findIndex((x) => x.id === was.piece)]!.id);
    });
  });

  it('brings the sheets of markings of its own box, once', () => {
    const sheets = (m: Muster, id: string): unknown[] =>
      storesOf(m)
        .markings.filter((x) => x.unit === id)
        .map(({ name, perPiece, left, policy }) => ({ name, perPiece, left, policy }));
    const after = through(muster, (m) => withUnitOfKit(m, kit!, '2027-03-20T18:00', newId).muster);
    expect(sheets(after, after.units.at(-1)!.id)).toEqual(sheets(demo, unit.id));
    expect(sheets(after, unit.id)).toEqual(sheets(demo, unit.id));
  });

  it('keeps of a sheet what goes where, its numbers and the sheet that it is on', () => {
    const sheet = {
      id: 'own-sheet',
      name: 'Numbers',
      unit: own.id,
      perPiece: 2,
      left: 9,
      leftAt: '2027-03-01T10:00:00Z',
      policy: 'seen-sides' as const,
      sides: ['left' as const],
      numbers: { from: 3, to: 9 },
      sheet: 'Fair sheet',
      perSheet: 12,
    };
    const stores = { ...storesOf(demo), markings: [sheet] };
    const { id, unit: of, leftAt, ...kept } = sheet;
    expect([id, of, leftAt]).not.toContain(undefined);
    expect(kitOf({ ...demo, stores }, own, newId).markings).toEqual([kept]);
  });

  it('of a single piece has its name, and joins nothing that is not in the box', () => {
    const piece = own.pieces.find((p) => p.joins) ?? own.pieces[0]!;
    const single = kitOf(demo, own, newId, new Set([piece.id]));
    expect(single.name).toBe(piece.name);
    expect(single.parts.map((p) => [p.name, p.joins])).toEqual([[piece.name, undefined]]);
  });

  it('is one by its name, and can be thrown away', () => {
    expect(withKit(muster, kitOf(demo, own, newId)).kits).toHaveLength(1);
    expect(withoutKit(muster, kit!.id).kits).toEqual([]);
  });

  it('outlives its recipes: what it makes then has none', () => {
    const bare = unit.pieces.reduce(
      (m, p) => (p.recipe ? through(m, (x) => withoutRecipe(x, p.recipe!)) : m),
      muster,
    );
    const made = through(bare, (m) => withUnitOfKit(m, kit!, '2027-03-20T18:00', newId).muster);
    expect(made.units.at(-1)!.pieces.every((p) => p.recipe === null && p.joins === null)).toBe(true);
  });
});
