import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Recipe } from '#core/muster';
import { layer } from '../plan/testing';
import { compareRecipes } from './index';

const recipe = (...layers: ReturnType<typeof layer>[]): Recipe => ({ id: 'r', name: 'R', zones: [], layers });

describe('two recipes compared', () => {
  it('differ in nothing from themselves', () => {
    const own = recipe(layer('a'), layer('b'), layer('c'));
    expect(compareRecipes(own, own).map((r) => [r.left?.id, r.right?.id, r.differs])).toEqual([
      ['a', 'a', []],
      ['b', 'b', []],
      ['c', 'c', []],
    ]);
  });

  it('show what is only in one, and in what a layer differs', () => {
    const rows = compareRecipes(
      recipe(layer('prime'), layer('base', { minutes: 5, note: 'x' }), layer('wash'), layer('matt')),
      recipe(layer('prime'), layer('base', { minutes: 8, coats: 2 }), layer('matt'), layer('dust')),
    );
    expect(rows.map((r) => [r.left?.id ?? null, r.right?.id ?? null, r.differs])).toEqual([
      ['prime', 'prime', []],
      ['base', 'base', ['coats: 1 → 2', 'hands: 5 min → 8 min', 'the note']],
      ['wash', null, []],
      ['matt', 'matt', []],
      [null, 'dust', []],
    ]);
  });

  it('find a layer of another id by its name', () => {
    const rows = compareRecipes(
      recipe(layer('x', { name: 'Matt coat' })),
      recipe(layer('y', { name: 'matt coat' })),
    );
    expect(rows).toHaveLength(1);
  });

  it('hold every layer of both once, in order', () => {
    const ids = fc
      .array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 6 })
      .map((l) => [...new Set(l)]);
    fc.assert(
      fc.property(ids, ids, (left, right) => {
        const rows = compareRecipes(
          recipe(...left.map((id) => layer(id))),
          recipe(...right.map((id) => layer(id))),
        );
        expect(rows.flatMap((r) => r.left?.id ?? [])).toEqual(left);
        expect(rows.flatMap((r) => r.right?.id ?? [])).toEqual(right);
      }),
    );
  });
});
