/** What a recipe asks of hands, room and time, in short. */
import { familyOf } from '#core/materials';
import type { Recipe } from '#core/muster';
import { linksOf } from './links';

export interface RecipeFacts {
  readonly layers: number;
  /** hands-on minutes of one piece or figure */
  readonly handsMinutes: number;
  /** drying minutes along the longest chain of layers, at 21 °C and 50 % */
  readonly dryMinutes: number;
  /** something in it smells: enamel, oil, lacquer, spray cans or powder fixer */
  readonly hasSolvent: boolean;
  readonly isSprayed: boolean;
}

export function factsOf(recipe: Recipe): RecipeFacts {
  return {
    layers: recipe.layers.length,
    handsMinutes: recipe.layers.reduce((sum, l) => sum + l.minutes * l.coats, 0),
    dryMinutes: longestDrying(recipe),
    hasSolvent: recipe.layers.some(
      (l) => ['solvent', 'oxidation'].includes(familyOf(l.family).drying) || l.method === 'can',
    ),
    isSprayed: recipe.layers.some((l) => l.method === 'airbrush'),
  };
}

function longestDrying(recipe: Recipe): number {
  const until = recipe.layers.map(() => 0);
  const links = linksOf(recipe)
    .filter((l) => l.from < l.to)
    .sort((a, b) => a.to - b.to);
  for (const l of links) until[l.to] = Math.max(until[l.to]!, until[l.from]! + l.min);
  return Math.max(0, ...recipe.layers.map((l, i) => until[i]! + l.dryMinutes));
}
