/** A unit as a kit, and units out of it: sound, apart from the first, and whole. */
import { describe, expect, it } from 'vitest';
import { fenMuster } from '../../demo/fen';
import {
  admit,
  differences,
  kitOf,
  unitOfKit,
  withKit,
  withoutKit,
  withoutRecipe,
  withUnit,
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
  const muster = through(demo, (m) => withKit(withUnit(m, own), kitOf(own, newId)));
  const [kit] = muster.kits!;

  it('makes a unit like it, numbered on, under ids of its own', () => {
    const made = unitOfKit(muster, kit!, '2027-03-20T18:00', newId);
    const after = through(muster, (m) => withUnit(m, made));
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

  it('is one by its name, and can be thrown away', () => {
    expect(withKit(muster, kitOf(own, newId)).kits).toHaveLength(1);
    expect(withoutKit(muster, kit!.id).kits).toEqual([]);
  });

  it('outlives its recipes: what it makes then has none', () => {
    const bare = unit.pieces.reduce(
      (m, p) => (p.recipe ? through(m, (x) => withoutRecipe(x, p.recipe!)) : m),
      muster,
    );
    const made = through(bare, (m) => withUnit(m, unitOfKit(m, kit!, '2027-03-20T18:00', newId)));
    expect(made.units.at(-1)!.pieces.every((p) => p.recipe === null && p.joins === null)).toBe(true);
  });
});
