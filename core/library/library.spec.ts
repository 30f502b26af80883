import { describe, expect, it } from 'vitest';
import { FAMILY_IDS } from '#core/materials';
import { recipeSchema, TASKS } from '#core/muster';
import {
  checkCraft,
  checkRecipe,
  composed,
  QUESTIONS,
  recipeByBrush,
  revised,
  withoutLook,
} from '#core/recipe';
import { LIBRARY } from './index';

describe('the library of recipes', () => {
  it('has at least twelve, each under its own id', () => {
    expect(LIBRARY.length).toBeGreaterThanOrEqual(12);
    expect(new Set(LIBRARY.map((r) => r.id)).size).toBe(LIBRARY.length);
  });

  it.each(LIBRARY.map((r) => [r.name, r] as const))('%s passes the checker', (_, recipe) => {
    expect(recipeSchema.parse(recipe)).toEqual(recipe);
    const findings = [...checkRecipe(recipe), ...checkCraft(recipe)].filter((f) => f.severity !== 'advice');
    expect(findings.map((f) => `${f.rule}: ${f.where}: ${f.text}`)).toEqual([]);
  });

  it('is sets of wishes: whoever takes one up goes on from what is composed of them', () => {
    for (const recipe of LIBRARY) {
      expect(recipe.looks, recipe.name).toBeDefined();
      expect(composed(recipe, recipe.looks!)).toEqual(recipe.layers);
      const without = revised(recipe, { looks: withoutLook(recipe.looks!, recipe.looks!.list.at(-1)!.id) });
      expect(without.kept).toEqual([]);
      expect(without.changes.length).toBeGreaterThan(0);
      expect(without.recipe.layers.length).toBeLessThanOrEqual(recipe.layers.length);
    }
  });

  it('stays a set of wishes on a bench without an airbrush', () => {
    for (const recipe of LIBRARY) {
      const own = recipeByBrush(recipe);
      expect(own.layers.some((l) => l.method === 'airbrush')).toBe(false);
      expect(composed(own, own.looks!)).toEqual(own.layers);
    }
  });

  it('uses every family, every kind of layer and every school between them', () => {
    const layers = LIBRARY.flatMap((r) => r.layers);
    const families = new Set(layers.map((l) => l.family));
    expect(FAMILY_IDS.filter((f) => !families.has(f) && f !== 'lacquer')).toEqual([]);
    const tasks = new Set(layers.map((l) => l.task));
    expect(TASKS.filter((t) => !tasks.has(t))).toEqual([]);
    const schools = new Set(
      LIBRARY.flatMap((r) => Object.entries(r.schools ?? {}).map(([q, s]) => `${q}: ${s}`)),
    );
    const missing = QUESTIONS.flatMap((q) => q.schools.map((s) => `${q.id}: ${s.id}`)).filter(
      (s) => !schools.has(s),
    );
    expect(missing).toEqual(['washes: either']);
    expect(layers.some((l) => l.passes)).toBe(true);
    expect(layers.some((l) => l.faces)).toBe(true);
    expect(layers.some((l) => l.level === 2)).toBe(true);
    expect(layers.some((l) => l.substitute)).toBe(true);
  });
});
