import type { Recipe } from '#core/muster';
import { revised } from './compose';

/** The recipe with its zones otherwise: what is composed of wishes follows them, what a hand has made stays. */
export function withZones(recipe: Recipe, zones: Recipe['zones']): Recipe {
  return recipe.looks ? revised(recipe, { looks: recipe.looks, zones }).recipe : { ...recipe, zones };
}
