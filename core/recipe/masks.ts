/** What is covered, with what, from which layer to which: a layer over a covered zone does not go on it. */
import { maskingFacts, type Masking } from '#core/materials';
import type { Layer, Recipe } from '#core/muster';

/** What a layer masks with; null: it does not mask. */
export function maskingOf({ task, masking }: Pick<Layer, 'task' | 'masking'>): Masking | null {
  if (task === 'putty') return maskingFacts('putty');
  return task === 'mask' ? maskingFacts(masking ?? 'tape') : null;
}

export interface Mask {
  readonly layer: Layer;
  /** place in the stack of what covers */
  readonly from: number;
  /** … and of what takes it off; null: nothing does */
  readonly to: number | null;
  /** zones that are covered whole; empty: parts of what it names, such as a stripe */
  readonly zones: readonly string[];
}

/** Everything that is masked in a recipe, bottom to top. A mask that names zones covers them whole; one that names none, or lies in spots, covers parts. */
export function masksOf(recipe: Recipe): Mask[] {
  const all = recipe.zones.map((z) => z.id);
  return recipe.layers.flatMap((layer, from): Mask[] => {
    const masking = maskingOf(layer);
    if (!masking) return [];
    const named = layer.zones.filter((z) => all.includes(z));
    const off = recipe.layers.findIndex((l, k) => k > from && l.task === 'unmask' && sharesZone(l, layer));
    const isWhole = !masking.isInSpots && named.length < all.length;
    return [{ layer, from, to: off < 0 ? null : off, zones: isWhole ? named : [] }];
  });
}

const sharesZone = (a: Layer, b: Layer): boolean =>
  a.zones.length === 0 || b.zones.length === 0 || a.zones.some((z) => b.zones.includes(z));

/** The zones that are covered when layer `index` goes on. What is never taken off covers nothing: it is told as a finding. */
export function coveredAt(masks: readonly Mask[], index: number): ReadonlySet<string> {
  return new Set(masks.flatMap((m) => (m.to !== null && m.from < index && index < m.to ? m.zones : [])));
}
