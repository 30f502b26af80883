/** Deals and briefs the pieces of a unit away from the page: two hundred of them take longer than a page may stand still. */
import { expose } from 'comlink';
import type { Muster, Unit } from '#core/muster';
import {
  briefsOf,
  dealOf,
  dealtRecipes,
  DEFAULT_DEAL,
  withDeal,
  type Brief,
  type Dealt,
  type DealOptions,
} from '#core/variety';

/** A unit as it is dealt now, and where the marks of its pieces go. */
export interface Variety {
  readonly unit: Unit;
  /** by recipe that several pieces follow */
  readonly dealt: readonly Dealt[];
  readonly briefs: readonly Brief[];
}

export function varietyOf(muster: Muster, unit: Unit): Variety {
  const options = unit.deal ?? DEFAULT_DEAL;
  return {
    unit,
    dealt: dealtRecipes(muster, unit).map((recipe) => dealOf(muster, unit, recipe, options)),
    briefs: briefsOf(muster, unit),
  };
}

/** The unit with its pieces dealt; null: it is no longer in the muster. */
export function dealUnit(muster: Muster, unit: string, options: DealOptions): Unit | null {
  return withDeal(muster, unit, options).units.find((u) => u.id === unit) ?? null;
}

expose({ varietyOf, dealUnit, briefsOf });
