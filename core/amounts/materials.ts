/** What a recipe takes in all: its list of materials. */
import { AmountError, familyOf } from '#core/materials';
import { mixOf, type Piece, type Recipe } from '#core/muster';
import { amountOf } from './amount';

export interface Material {
  readonly name: string;
  readonly ml: number;
  /** layers that use it, by name */
  readonly layers: readonly string[];
}

/** By its own name, one line each, the most first; what a layer takes whose mixture cannot be read goes under the layer's name. */
export function materialsOf(recipe: Recipe, pieces: readonly Piece[]): Material[] {
  const found = new Map<string, { name: string; ml: number; layers: Set<string> }>();
  const add = (name: string, ml: number, layer: string): void => {
    const key = name.trim().toLowerCase();
    const known = found.get(key) ?? { name: name.trim(), ml: 0, layers: new Set<string>() };
    known.ml += ml;
    known.layers.add(layer);
    found.set(key, known);
  };
  for (const layer of recipe.layers) {
    const ml = pieces.reduce((sum, piece) => sum + amountOf(recipe, layer, piece).ml, 0);
    if (ml === 0) continue;
    try {
      for (const c of mixOf(layer).components) add(c.name, ml * c.share, layer.name);
    } catch (error) {
      if (!(error instanceof AmountError)) throw error;
      add(layer.mixture || `${layer.name} (${familyOf(layer.family).name.toLowerCase()})`, ml, layer.name);
    }
  }
  return [...found.values()]
    .map(({ name, ml, layers }) => ({ name, ml, layers: [...layers] }))
    .sort((a, b) => b.ml - a.ml || a.name.localeCompare(b.name));
}
