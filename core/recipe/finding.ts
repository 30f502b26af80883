/** What a check has found: which rule, where, what is wrong, what to do. */
import type { RuleId } from './registry';
import { hands } from './rounds';
import { withRecipe, type Layer, type Muster, type Recipe } from '#core/muster';

export interface Place {
  readonly unit?: string;
  readonly piece?: string;
  readonly recipe?: string;
  readonly layer?: string;
  readonly zone?: string;
}

/** A cure that is mechanical: one click edits the muster. */
export interface Fix {
  readonly label: string;
  /** hands-on minutes a piece that it adds (negative: saves) */
  readonly addsMinutes: number;
  /** drying minutes that it adds */
  readonly addsDryMinutes: number;
  readonly apply: (muster: Muster) => Muster;
}

/** A cure that edits one recipe. */
export interface RecipeFix extends Omit<Fix, 'apply'> {
  readonly apply: (recipe: Recipe) => Recipe;
}

/** The same cure on the muster that holds the recipe; a muster without it stays as it is. */
export function onRecipe(id: string, fix: RecipeFix): Fix {
  return {
    ...fix,
    apply: (muster) => {
      const recipe = muster.recipes.find((r) => r.id === id);
      return recipe ? withRecipe(muster, fix.apply(recipe)) : muster;
    },
  };
}

/** One layer of a recipe made otherwise. */
export function layerFix(label: string, layer: Layer, to: Partial<Layer>): RecipeFix {
  const changed = { ...layer, ...to };
  return {
    label,
    addsMinutes: hands(changed) - hands(layer),
    addsDryMinutes: changed.dryMinutes - layer.dryMinutes,
    apply: (recipe) => ({
      ...recipe,
      layers: recipe.layers.map((l) => (l.id === layer.id ? { ...l, ...to } : l)),
    }),
  };
}

export interface Finding {
  readonly rule: RuleId;
  /** an error of the muster itself (not of the craft) keeps the plan from being made */
  readonly severity: 'error' | 'warning' | 'advice';
  /** a rule of the craft: told, but the plan is made all the same */
  readonly isCraft?: boolean;
  readonly place: Place;
  /** the place in words */
  readonly where: string;
  /** what is wrong, and what happens if it is left so */
  readonly text: string;
  readonly cure: string;
  readonly fix?: Fix;
}
