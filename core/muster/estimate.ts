/** Figures that say where they come from: nominal, the user's own, or learned at this bench; and can be nominal again. */
import type { Estimate, Layer } from './document';

type Figure = 'minutes' | 'dryMinutes';
const FROM = { minutes: 'minutesFrom', dryMinutes: 'dryFrom' } as const;

/** `nominal`, `yours` or `learned from 12`. */
export function estimateWords(from: Estimate | undefined): string {
  if (from === undefined) return 'nominal';
  return from.source === 'yours' ? 'yours' : `learned from ${from.learnedFrom ?? 1}`;
}

/** The figure as it was before anyone changed it. */
export function nominalOf(layer: Layer, figure: Figure): number {
  return layer[FROM[figure]]?.nominalMinutes ?? layer[figure];
}

/**
 * The layer with another figure.
 * @param learnedFrom looks it was learned from; without it the figure is the user's own
 */
export function withEstimate(layer: Layer, figure: Figure, value: number, learnedFrom?: number): Layer {
  const nominalMinutes = nominalOf(layer, figure);
  if (value === nominalMinutes && learnedFrom === undefined) return asNominal(layer, figure);
  const from: Estimate =
    learnedFrom === undefined
      ? { source: 'yours', nominalMinutes }
      : { source: 'learned', nominalMinutes, learnedFrom };
  return { ...layer, [figure]: value, [FROM[figure]]: from };
}

/** The layer with the nominal figure again. */
export function asNominal(layer: Layer, figure: Figure): Layer {
  const plain: Layer = { ...layer, [figure]: nominalOf(layer, figure) };
  if (figure === 'minutes') delete plain.minutesFrom;
  else delete plain.dryFrom;
  return plain;
}
