/** One recipe as a file, and back. */
import * as z from 'zod';
import {
  checked,
  type Muster,
  MUSTER_FORMAT,
  MusterFileError,
  type Product,
  type Recipe,
  recipeSchema,
  remixed,
  storesOf,
  toFaults,
} from '#core/muster';

export const RECIPE_FORMAT = 'patient-muster-recipe/1';
const fileSchema = z.strictObject({ format: z.literal(RECIPE_FORMAT), recipe: recipeSchema });

export function writeRecipe(recipe: Recipe): string {
  return `${JSON.stringify({ format: RECIPE_FORMAT, recipe }, null, 2)}\n`;
}

/**
 * @param muster into which it is to go: it must hold together there
 * @throws MusterFileError naming everything that is wrong
 */
export function readRecipe(text: string, muster: Muster): Recipe {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new MusterFileError([{ path: 'file', text: 'is no JSON' }]);
  }
  const read = fileSchema.safeParse(value);
  if (!read.success) throw new MusterFileError(toFaults(read.error.issues, value));
  const { products } = storesOf(muster);
  const recipe = onShelf(read.data.recipe, products);
  const alone = { ...muster, format: MUSTER_FORMAT, units: [], recipes: [recipe], pins: [] };
  const sound = checked({ ...alone, stores: { products, markings: [], consumables: [], jars: [] } });
  if (!sound.ok) throw new MusterFileError(sound.faults);
  return recipe;
}

/** Its mixtures are made of what is called so on this shelf; ids of another shelf say nothing here. */
function onShelf(recipe: Recipe, products: readonly Product[]): Recipe {
  const ids = new Map(products.map((p) => [p.name.trim().toLowerCase(), p.id]));
  const layers = recipe.layers.map((layer) => {
    if (!layer.madeOf) return layer;
    const parts = layer.madeOf.parts.map(({ id, name, parts: own }) => {
      const product = ids.get(name.trim().toLowerCase());
      return { id, name, parts: own, ...(product === undefined ? {} : { product }) };
    });
    return remixed(layer, { ...layer.madeOf, parts });
  });
  return { ...recipe, layers };
}
