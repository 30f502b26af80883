/** What a run would run out of, told before it is begun, with what on the shelf could stand in for it. */
import { familyOf } from '#core/materials';
import { differenceOf } from '#core/optics';
import { storesOf, type Muster, type Product } from '#core/muster';
import type { Plan } from '#core/plan';
import type { Ended } from '#core/log';
import { isWater, keyOf, productUses, shoppingList, type Shortage } from './usage';

export interface Equivalent {
  readonly name: string;
  readonly leftMl: number;
  /** how far its colour is off, in words; the figure is CIEDE2000 */
  readonly off: string;
  readonly difference: number;
}

export interface RunShort {
  readonly name: string;
  readonly neededMl: number;
  readonly leftMl: number;
  /** of the same kind with enough in the bottle, the nearest colour first; at most three */
  readonly equivalents: readonly Equivalent[];
}

const MOST_OFFERED = 3;
/** Farther off than that it is another colour (from memory). */
const FARTHEST = 12;

/** @param cup what is to be mixed for the run, by product */
export function shortOf(
  muster: Muster,
  plan: Plan,
  ended: Ended,
  cup: readonly { readonly name: string; readonly ml: number }[],
): RunShort[] {
  const left = new Map(productUses(muster, plan, ended).map((u) => [keyOf(u.name), u.leftMl]));
  const { products } = storesOf(muster);
  return cup.flatMap(({ name, ml }): RunShort[] => {
    const leftMl = left.get(keyOf(name)) ?? 0;
    if (isWater(name) || ml <= leftMl + 1e-9) return [];
    const own = products.find((p) => keyOf(p.name) === keyOf(name));
    return [{ name, neededMl: ml, leftMl, equivalents: own ? standIns(own, products, left, ml) : [] }];
  });
}

function standIns(
  own: Product,
  products: readonly Product[],
  left: ReadonlyMap<string, number>,
  ml: number,
): Equivalent[] {
  return products
    .filter(
      (p) =>
        p.id !== own.id &&
        familyOf(p.family).role === familyOf(own.family).role &&
        familyOf(p.family).binder === familyOf(own.family).binder &&
        (left.get(keyOf(p.name)) ?? 0) >= ml,
    )
    .map((p) => ({ p, difference: differenceOf(p.colour, own.colour) }))
    .filter(({ difference }) => difference <= FARTHEST)
    .sort((a, b) => a.difference - b.difference)
    .slice(0, MOST_OFFERED)
    .map(({ p, difference }) => ({
      name: p.name,
      leftMl: left.get(keyOf(p.name)) ?? 0,
      difference,
      off: offWords(difference),
    }));
}

/** A difference of one is just seen side by side (from memory). */
function offWords(difference: number): string {
  if (difference < 1) return 'the same to the eye';
  return difference < 4 ? 'a shade off' : 'clearly another shade';
}

/** What has to be in the house for a session: what runs out in it, and what had run out before. */
export function shortBy(muster: Muster, plan: Plan, ended: Ended, day: string): Shortage[] {
  return shoppingList(muster, plan, ended).filter((s) => s.day <= day);
}
