/** Masks in time: on before what goes over them, off after it, by piece. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, coveredIn, goesOn, present } from './index';
import { layer, smallMuster } from './testing';

const muster = smallMuster([
  layer('prime', { family: 'primer' }),
  layer('deck', { zones: ['deck'], dryMinutes: 120 }),
  layer('tape', { task: 'mask', family: 'work', zones: ['deck'], dryMinutes: 0 }),
  layer('hull', { dryMinutes: 20 }),
  layer('off', { task: 'unmask', family: 'work', zones: ['deck'], dryMinutes: 0 }),
]);
const zoned = {
  ...muster,
  recipes: muster.recipes.map((r) => ({ ...r, zones: [...r.zones, { id: 'deck', name: 'Deck' }] })),
};
const compiled = compile(zoned);
const plan = present(zoned, compiled, solveProblem(compiled.problem, { iterations: 30 }));

describe('masks in a plan', () => {
  const [mask] = coveredIn(plan, 'u');

  it('say what is covered, by what, what goes over it and where that then goes', () => {
    expect(mask!.zones).toEqual(['Deck']);
    expect(mask!.over.map((l) => l.id)).toEqual(['hull']);
    expect(goesOn(zoned.recipes[0]!, mask!.over[0]!)).toEqual(['Sides']);
  });

  it('say from when to when on each piece, and how old the paint over it is then', () => {
    expect(mask!.pieces.map((p) => p.name).sort()).toEqual(['Ferry 1', 'Ferry 2']);
    for (const p of mask!.pieces) {
      const at = (id: string) =>
        [...plan.steps.values()].find((s) => s.piece.name === p.name && s.layer.id === id)!;
      expect(p.from).toBe(at('tape').start);
      expect(p.to).toBe(at('off').start);
      expect(p.age).toBe(at('off').start - at('hull').end);
      expect(at('tape').end).toBeLessThanOrEqual(at('hull').start);
      expect(at('hull').end).toBeLessThanOrEqual(p.to!);
    }
  });

  it('are none for another unit', () => {
    expect(coveredIn(plan, 'nobody')).toEqual([]);
  });
});
