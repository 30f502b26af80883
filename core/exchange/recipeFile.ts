/** One recipe as a file, and back. */
import * as z from 'zod';
import {
  checked,
  type Muster,
  MUSTER_FORMAT,
  MusterFileError,
  type Recipe,
  recipeSchema,
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
  const alone = { ...muster, format: MUSTER_FORMAT, units: [], recipes: [read.data.recipe], pins: [] };
  const sound = checked({ ...alone, stores: undefined });
  if (!sound.ok) throw new MusterFileError(sound.faults);
  return read.data.recipe;
}
