/** A mix by the cup. */
import { AmountError, dropsOf } from '#core/materials';
import type { Mix } from '#core/muster';

export interface CupPlan {
  readonly ml: number;
  readonly cups: number;
  readonly refills: number;
  /** each component, millilitres and drops, of one full cup and of all */
  readonly components: readonly { readonly name: string; readonly ml: number; readonly drops: number }[];
  /** what a mix of whole drops leaves over */
  readonly leftMl: number;
}

/**
 * So much of a mix, by cups.
 * @throws AmountError for a cup of nothing
 */
export function cupsFor(mix: Mix, ml: number, cupMl: number): CupPlan {
  if (!(cupMl > 0)) throw new AmountError('A cup must hold more than 0 ml.');
  if (!(ml >= 0) || ml > 100_000) throw new AmountError(`${ml} ml cannot be mixed here.`);
  const components = mix.components.map((c) => {
    const drops = ml === 0 ? 0 : Math.max(1, dropsOf(ml * c.share));
    return { name: c.name, ml: ml * c.share, drops };
  });
  const mixed = components.reduce((sum, c) => sum + c.drops * 0.05, 0);
  const cups = Math.ceil(ml / cupMl - 1e-9);
  return { ml, cups, refills: Math.max(0, cups - 1), components, leftMl: Math.max(0, mixed - ml) };
}
