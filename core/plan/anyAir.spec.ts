/** Library recipes taken unchanged, in the airs that rooms have: there is always a plan. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { LIBRARY } from '#core/library';
import { recipeByBrush } from '#core/recipe';
import type { Muster, Recipe } from '#core/muster';
import { checkMuster } from './checkMuster';
import { hasErrors } from './hasErrors';
import { compile } from './compile';
import { smallMuster } from './testing';

/** Celsius, percent: nominal, heated, cool and damp, cellar, summer, dry. */
const AIRS = [
  [21, 50],
  [19, 40],
  [17, 55],
  [12, 65],
  [18, 80],
  [30, 30],
] as const;

function musterOf(recipe: Recipe, celsius: number, humidityPercent: number, hasAirbrush = true): Muster {
  const muster = smallMuster();
  const air = { celsius, humidityPercent };
  const [unit] = muster.units;
  return {
    ...muster,
    bench: {
      ...muster.bench,
      hasAirbrush,
      weekly: [2, 4, 6].map((weekday) => ({ id: `w${weekday}`, weekday, from: '19:00', to: '21:30' })),
      climate: { ...muster.bench.climate, day: air, night: air },
    },
    recipes: [recipe],
    units: [
      {
        ...unit!,
        table: '2027-05-28T18:00',
        pieces: [{ id: 'p', name: 'Piece', recipe: recipe.id, count: 1, places: 1, joins: null }],
      },
    ],
  };
}

describe.each(LIBRARY.map((r) => [r.name, r] as const))('“%s”', (_, recipe) => {
  it.each(AIRS)('can be planned at %i °C and %i %%', (celsius, humidityPercent) => {
    const muster = musterOf(recipe, celsius, humidityPercent);
    expect(checkMuster(muster).filter((f) => f.severity === 'error')).toEqual([]);
    expect(solveProblem(compile(muster).problem, { iterations: 5 }).status).toMatch(/feasible|optimal/);
  });

  it('without an airbrush by brush', () => {
    const sprayed = recipe.layers.some((l) => l.method === 'airbrush');
    const rules = checkMuster(musterOf(recipe, 21, 50, false)).map((f) => f.rule);
    expect(rules.includes('airbrush-none')).toBe(sprayed);
    const brushed = musterOf(recipeByBrush(recipe), 21, 50, false);
    expect(hasErrors(checkMuster(brushed))).toBe(false);
    expect(solveProblem(compile(brushed).problem, { iterations: 5 }).status).toMatch(/feasible|optimal/);
  });
});
