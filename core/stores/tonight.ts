/** What a run would run out of, told before it is begun, with what on the shelf could stand in for it. */
import { familyOf } from '#core/materials';
import { differenceOf } from '#core/optics';
import { mixtureWords, storesOf, type Component, type MadeOf, type Muster, type Product } from '#core/muster';
import type { Plan } from '#core/plan';
import type { LogEntry } from '#core/log';
import { isWater, keyOf, leftOnShelf, shoppingList, type Shortage } from './usage';

export interface Equivalent {
  readonly name: string;
  /** there is so much of it: of what is mixed at home as much as its scarcest part allows */
  readonly leftMl: number;
  /** how far its colour is off, or that the user has said that it may stand for it */
  readonly off: string;
  /** what goes in, by shares of the whole */
  readonly parts: readonly Component[];
}

export interface RunShort {
  readonly name: string;
  readonly neededMl: number;
  readonly leftMl: number;
  /** with enough in the bottle: first what the user has named, then what is of the same kind, the nearest colour first; so many at most */
  readonly equivalents: readonly Equivalent[];
}

const MOST_OFFERED = 4;
/** Farther off than that it is another colour (from memory). */
const FARTHEST = 12;

/** @param cup what is to be mixed for the run, by product */
export function shortOf(
  muster: Muster,
  plan: Plan,
  log: readonly LogEntry[],
  cup: readonly { readonly name: string; readonly ml: number }[],
): RunShort[] {
  const left = leftOnShelf(muster, plan, log);
  const { products } = storesOf(muster);
  return cup.flatMap(({ name, ml }): RunShort[] => {
    const leftMl = left.get(keyOf(name)) ?? 0;
    if (isWater(name) || ml <= leftMl + 1e-9) return [];
    const own = products.find((p) => keyOf(p.name) === keyOf(name));
    return [{ name, neededMl: ml, leftMl, equivalents: own ? offered(own, products, left, ml) : [] }];
  });
}

function offered(
  own: Product,
  products: readonly Product[],
  left: ReadonlyMap<string, number>,
  ml: number,
): Equivalent[] {
  const named = (own.equivalents ?? []).flatMap((e) => namedStandIn(e.madeOf, left, ml));
  const known = new Set(named.map((e) => keyOf(e.name)));
  return [...named, ...alike(own, products, left, ml).filter((e) => !known.has(keyOf(e.name)))].slice(
    0,
    MOST_OFFERED,
  );
}

/** What the user has said may stand for it, where there is enough of every part. */
function namedStandIn(madeOf: MadeOf, left: ReadonlyMap<string, number>, ml: number): Equivalent[] {
  const all = madeOf.parts.reduce((sum, p) => sum + p.parts, 0);
  const parts = madeOf.parts.map((p) => ({ name: p.name, share: p.parts / all }));
  const leftMl = Math.min(
    ...parts.map((p) => (isWater(p.name) ? Infinity : (left.get(keyOf(p.name)) ?? 0) / p.share)),
  );
  // Of water alone there is no end, and it stands for no paint.
  return Number.isFinite(leftMl) && leftMl + 1e-9 >= ml
    ? [{ name: mixtureWords(madeOf), leftMl, off: 'may stand for it', parts }]
    : [];
}

function alike(
  own: Product,
  products: readonly Product[],
  left: ReadonlyMap<string, number>,
  ml: number,
): Equivalent[] {
  return products
    .filter(
      (p) =>
        p.id !== own.id &&
        p.verdict !== 'never' &&
        familyOf(p.family).role === familyOf(own.family).role &&
        familyOf(p.family).binder === familyOf(own.family).binder &&
        (left.get(keyOf(p.name)) ?? 0) >= ml,
    )
    .map((p) => ({ p, difference: differenceOf(p.colour, own.colour) }))
    .filter(({ difference }) => difference <= FARTHEST)
    .sort((a, b) => a.difference - b.difference)
    .map(({ p, difference }) => ({
      name: p.name,
      leftMl: left.get(keyOf(p.name)) ?? 0,
      off: offWords(difference),
      parts: [{ name: p.name, share: 1 }],
    }));
}

/** A difference of one is just seen side by side (from memory). */
function offWords(difference: number): string {
  if (difference < 1) return 'the same to the eye';
  return difference < 4 ? 'a shade off' : 'clearly another shade';
}

/** What has to be in the house for a session: what runs out in it, and what had run out before. */
export function shortBy(muster: Muster, plan: Plan, log: readonly LogEntry[], day: string): Shortage[] {
  return shoppingList(muster, plan, log).filter((s) => s.day <= day);
}
