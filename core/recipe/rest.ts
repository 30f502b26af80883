/** How long a finished coat rests before the piece may be used: stages of drying by family (common practice, no source). */
import { familyOf } from '#core/materials';
import type { Layer, Piece } from '#core/muster';
import { dryingOf } from './rounds';

/** Drying minutes until a layer has hardened through, at 21 °C and 50 %. */
export function curedAfter(layer: Layer): number {
  return Math.max(dryingOf(layer), familyOf(layer.family).stages.cured);
}

/**
 * Drying minutes until a layer bears what its piece is for: gone over for display, handled for play, hardened through to be packed; no longer
 * than the next layer waits where the piece is packed soft on purpose.
 */
export function bearsUseAfter(layer: Layer, piece: Pick<Piece, 'use' | 'isPackedSoft'>): number {
  if (piece.use === 'shipped' && !piece.isPackedSoft) return curedAfter(layer);
  if (piece.use === 'played') return Math.max(dryingOf(layer), familyOf(layer.family).stages.handle);
  return dryingOf(layer);
}
