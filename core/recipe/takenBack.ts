/** How a layer can be taken back, and where it no longer can: the point of no return. */
import type { Layer, Recipe } from '#core/muster';
import { isLoose, isSeal, isSolvent, isTask, isWashable } from './kinds';
import { zonesOf } from './links';

export interface TakenBack {
  /** with what, in words */
  readonly by: string;
  /** from this layer on no more; null: for good */
  readonly until: Layer | null;
}

/** What takes a layer back until it is sealed, where its recipe does not say: common practice, no source. */
const USUAL: readonly { readonly is: (l: Layer) => boolean; readonly by: string }[] = [
  { is: isTask('decal'), by: 'float it off with water before it is dry' },
  { is: isLoose, by: 'brush it off, the rest with a damp brush' },
  { is: isWashable, by: 'water on a soft brush' },
  { is: isSolvent, by: 'a swab barely damp with its thinner' },
];

/** @returns null where nothing but stripping takes it back */
export function takenBackOf(recipe: Recipe, layer: Layer): TakenBack | null {
  const { layers } = recipe;
  if (layer.takenBack) {
    const until = layers.find((l) => l.id === layer.takenBack!.until) ?? null;
    return { by: layer.takenBack.by, until };
  }
  const usual = USUAL.find((u) => u.is(layer));
  if (!usual) return null;
  const zones = new Set(zonesOf(recipe, layer));
  const at = layers.findIndex((l) => l.id === layer.id);
  const seal = layers.slice(at + 1).find((l) => isSeal(l) && zonesOf(recipe, l).some((z) => zones.has(z)));
  return { by: usual.by, until: seal ?? null };
}

/** Layers beneath, on the same zones, that can no longer be taken back once this one is on, and what still takes them back before. */
export function lastChances(
  recipe: Recipe,
  layer: Layer,
): readonly { readonly layer: Layer; readonly by: string }[] {
  return recipe.layers.flatMap((l) => {
    const back = takenBackOf(recipe, l);
    return back?.until?.id === layer.id ? [{ layer: l, by: back.by }] : [];
  });
}
