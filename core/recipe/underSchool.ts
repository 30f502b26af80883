import type { Recipe } from '#core/muster';
import { changesOf, revised, type Revision } from './compose';
import { withSchool } from './schools';

/** The recipe as another school in a question would have it, and what that changes; what a hand has made stays. */
export function underSchool(recipe: Recipe, question: string, school: string): Revision {
  const chosen = withSchool(recipe, question, school);
  return recipe.looks
    ? revised(recipe, { looks: recipe.looks, schools: chosen.schools })
    : { recipe: chosen, changes: changesOf(recipe.layers, chosen.layers), kept: [] };
}
