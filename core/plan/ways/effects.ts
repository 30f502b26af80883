/** An effect left off: of one unit alone, and none that a craft rule needs. */
import { withoutLayer, withSuffix, type Layer, type Muster, type Recipe, type Unit } from '#core/muster';
import { checkCraft, isFor } from '#core/recipe';
import type { Offer } from './way';

const MOST = 2;

export const withoutEffect: Offer = ({ muster, worst }) =>
  optionalLayers(muster, worst)
    .slice(0, MOST)
    .map(({ recipe, layer }) => ({
      id: `without-${recipe.id}-${layer.id}`,
      costs: 'that effect',
      label: `Leave “${layer.name}” off ${worst.name}`,
      apply: (m) => withShorterRecipe(m, worst.id, recipe.id, layer.id),
    }));

/** Effects on top of the colours: what a hurried painter leaves off first. Ground, colour and seal stay. */
function isEffect(layer: Layer): boolean {
  return isFor('wash', 'powder', 'mark')(layer) || layer.family === 'ink' || layer.method === 'sponge';
}

/**
 * Effects of the unit's recipes that can be left off without breaking a craft rule that holds with them, what saves most first.
 */
export function optionalLayers(muster: Muster, unit: Unit): { recipe: Recipe; layer: Layer }[] {
  const found: { recipe: Recipe; layer: Layer; saves: number }[] = [];
  for (const recipe of muster.recipes) {
    const pieces = unit.pieces.filter((p) => p.recipe === recipe.id);
    if (pieces.length === 0) continue;
    const uses = [...new Set(pieces.flatMap((p) => p.use ?? []))];
    const faults = new Set(checkCraft(recipe, uses).map((f) => f.text));
    for (const layer of recipe.layers) {
      if (!isEffect(layer) || recipe.layers.some((l) => isTiedTo(l, layer.id))) continue;
      if (unit.pieces.some((p) => p.joins?.layer === layer.id || p.startsAt === layer.id)) continue;
      const shorter = withoutLayer(recipe, layer.id);
      if (checkCraft(shorter, uses).some((f) => !faults.has(f.text))) continue;
      found.push({ recipe, layer, saves: layer.minutes * layer.coats * pieces.length + layer.dryMinutes });
    }
  }
  return found.sort((a, b) => b.saves - a.saves);
}

function isTiedTo(layer: Layer, id: string): boolean {
  return layer.waitsFor.includes(id) || layer.window?.through === id || layer.judgeFrom === id;
}

/** The unit's pieces follow a copy of the recipe that has no such layer; other units keep theirs. */
function withShorterRecipe(muster: Muster, unit: string, recipe: string, layer: string): Muster {
  const whole = muster.recipes.find((r) => r.id === recipe);
  if (!whole) return muster;
  const id = `${recipe}~${unit}~${layer}`.slice(-80);
  const name = whole.layers.find((l) => l.id === layer)?.name ?? layer;
  const shorter: Recipe = {
    ...withoutLayer(whole, layer),
    id,
    name: withSuffix(whole.name, `, without ${name}`.slice(0, 60)),
  };
  return {
    ...muster,
    recipes: [...muster.recipes.filter((r) => r.id !== id), shorter],
    units: muster.units.map((u) =>
      u.id === unit
        ? { ...u, pieces: u.pieces.map((p) => (p.recipe === recipe ? { ...p, recipe: id } : p)) }
        : u,
    ),
  };
}
