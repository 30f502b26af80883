/** Where a part meets the piece that it joins. */
import type { Layer, Muster, Piece, Recipe, Unit } from '#core/muster';
import { dryingOf, effectiveRecipe, linksOf, roundsOf, topLayers } from '#core/recipe';
import { operationId } from './stepRef';

/** The operation that waits for a part: its seam. Null where it joins nothing, or only after the host's last layer. */
export function joinedAt(muster: Muster, unit: Unit, piece: Piece): string | null {
  const host = piece.joins && unit.pieces.find((p) => p.id === piece.joins!.piece);
  const recipe = host && muster.recipes.find((r) => r.id === host.recipe);
  if (!host || !recipe) return null;
  const seam = seamOf(recipe, effectiveRecipe(recipe, host, unit.level), piece.joins!.layer);
  return seam ? operationId(host, seam) : null;
}

/**
 * A part is glued to what its host is by then: its gluing waits until all that the host's next layer rests on is on and dry. Where a window
 * closes on that, the part may be glued before. Nothing where the part has no layer that glues.
 */
export function gluedOnto(
  muster: Muster,
  unit: Unit,
  piece: Piece,
  recipe: Recipe,
): { from: string; to: string; min: number; layer: Layer }[] {
  const glue = recipe.layers.findLast((l) => l.task === 'glue');
  const host = piece.joins && unit.pieces.find((p) => p.id === piece.joins!.piece);
  const whole = host && muster.recipes.find((r) => r.id === host.recipe);
  if (!glue || !host || !whole) return [];
  const own = effectiveRecipe(whole, host, unit.level);
  const seam = seamOf(whole, own, piece.joins!.layer);
  const at = seam ? own.layers.indexOf(seam) : own.layers.length;
  const beneath = seam
    ? linksOf(own).filter((l) => l.to === at && l.dries && l.max === Infinity)
    : topLayers(own).map((from) => ({ from, min: dryingOf(own.layers[from]!) }));
  return beneath.map(({ from, min }) => {
    const layer = own.layers[from]!;
    return { from: operationId(host, layer, roundsOf(layer)), to: operationId(piece, glue), min, layer };
  });
}

/** The layer of the host at which a part joins or, where the host leaves that one off, the next that it has. */
function seamOf(whole: Recipe, own: Recipe, layer: string): Layer | undefined {
  const at = whole.layers.findIndex((l) => l.id === layer);
  const has = new Map(own.layers.map((l) => [l.id, l]));
  const next = whole.layers.slice(Math.max(0, at)).find((l) => has.has(l.id));
  return next && has.get(next.id);
}
