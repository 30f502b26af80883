/** Painted area of a piece. Class figures are rough, from memory of measured models; the user's own measure comes first. */
import type { Layer, Piece, Recipe, SizeClass } from '#core/muster';
import { zonesOf, zoneShares } from '#core/recipe';

interface Class {
  readonly name: string;
  readonly areaCm2: number;
  /** the scale at which the figure holds, 1:n */
  readonly scale: number;
}

export const SIZES: Readonly<Record<SizeClass, Class>> = {
  figure: { name: 'figure on foot', areaCm2: 20, scale: 60 },
  mounted: { name: 'mounted or large figure', areaCm2: 55, scale: 60 },
  small: { name: 'small craft or part', areaCm2: 120, scale: 60 },
  craft: { name: 'hand-sized craft', areaCm2: 350, scale: 60 },
  large: { name: 'large craft', areaCm2: 900, scale: 60 },
  base: { name: 'base or scenery', areaCm2: 300, scale: 60 },
};

/** Area of one figure or piece in cm², and from what it was taken. */
export function areaOf(piece: Piece): { readonly cm2: number; readonly from: string } {
  const size = piece.size;
  if (size?.areaCm2 !== undefined) return { cm2: size.areaCm2, from: 'measured' };
  const known = SIZES[size?.class ?? (piece.count > 1 ? 'figure' : 'small')];
  const scale = size?.scale ?? known.scale;
  // Area goes with the square of the length.
  const cm2 = known.areaCm2 * (known.scale / scale) ** 2;
  return {
    cm2,
    from: size ? `${known.name}${size.scale ? `, 1:${size.scale}` : ''}` : `${known.name}, assumed`,
  };
}

/** Share of the area that a layer covers. */
export function shareOf(recipe: Recipe, layer: Layer): number {
  if (recipe.zones.length === 0) return 1;
  const shares = zoneShares(recipe.zones);
  const on = new Set(zonesOf(recipe, layer));
  return recipe.zones.reduce((sum, z) => sum + (on.has(z.id) ? shares.get(z.id)! : 0), 0);
}
