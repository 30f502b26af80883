import type { Recipe } from '#core/muster';
import { layerByBrush } from './byBrush';
import { revised } from './compose';

/** A recipe in which nothing needs an airbrush: composed anew where it is composed, else layer by layer. */
export function recipeByBrush(recipe: Recipe): Recipe {
  return recipe.looks
    ? revised(recipe, { looks: { ...recipe.looks, noAirbrush: true } }).recipe
    : { ...recipe, layers: recipe.layers.map(layerByBrush) };
}
