/** The pieces of a unit as stacks: those that follow one recipe side by side while there is room, else as one with their number. */
import type { Recipe, Unit } from '#core/muster';

export interface Stack {
  readonly key: string;
  readonly name: string;
  /** null: without a recipe */
  readonly colours: readonly string[] | null;
  /** stands for many pieces */
  readonly isMany: boolean;
}

const SIDE_BY_SIDE = 9;

export function stacksOf(unit: Unit, recipes: ReadonlyMap<string, Recipe>): Stack[] {
  const colours = (id: string | null): string[] | null =>
    recipes.get(id ?? '')?.layers.map((l) => l.colour) ?? null;
  if (unit.pieces.length <= SIDE_BY_SIDE)
    return unit.pieces.map((p) => ({
      key: p.id,
      name: p.count > 1 ? `${p.name} ×${p.count}` : p.name,
      colours: colours(p.recipe),
      isMany: false,
    }));
  const counts = new Map<string | null, number>();
  for (const p of unit.pieces) counts.set(p.recipe, (counts.get(p.recipe) ?? 0) + 1);
  return [...counts].map(([recipe, n]) => ({
    key: recipe ?? 'none',
    name: `${n} × ${recipes.get(recipe ?? '')?.name ?? 'no recipe'}`,
    colours: colours(recipe),
    isMany: true,
  }));
}
