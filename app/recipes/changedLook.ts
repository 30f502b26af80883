/** Two recipes' looks side by side, in the zone where they differ. */
import type { Product, Recipe } from '#core/muster';
import { appearanceOf, productsByName, type Sight } from '#core/optics';
import { layersOn, zonesToSee } from '#core/recipe';

export interface ChangedLook {
  readonly zone: string;
  /** when all is done; null where nothing lies there */
  readonly before: Sight | null;
  readonly after: Sight | null;
}

/** In the first zone that looks otherwise; null where none does. */
export function changedLook(before: Recipe, after: Recipe, products: readonly Product[]): ChangedLook | null {
  const shelf = productsByName(products);
  const end = (recipe: Recipe, zone: string): Sight | null =>
    appearanceOf(layersOn(recipe, zone), shelf).at(-1) ?? null;
  for (const zone of zonesToSee(after)) {
    const looks = { before: end(before, zone.id), after: end(after, zone.id) };
    if (seen(looks.before) !== seen(looks.after)) return { zone: zone.name, ...looks };
  }
  return null;
}

function seen(sight: Sight | null): string {
  if (!sight) return '';
  const { recess, face, edge, sheen, marks } = sight;
  return [recess, face, edge, sheen, ...marks.map((m) => `${m.surface} ${m.share} ${m.colour}`)].join();
}
