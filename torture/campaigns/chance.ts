/** Draws from a seeded source. */
import type { Random } from '#core/kernel';

/** A whole number from 0 to below n. */
export function whole(random: Random, n: number): number {
  return Math.floor(random() * n);
}

/** One of the list. @throws Error where it is empty */
export function pickOne<T>(random: Random, list: readonly T[]): T {
  const one = list[whole(random, list.length)];
  if (one === undefined) throw new Error('There is nothing to pick from.');
  return one;
}

/** Several of the list, in its order; each with that chance, and at least one. */
export function pickSome<T>(random: Random, list: readonly T[], chance: number): T[] {
  const some = list.filter(() => random() < chance);
  return some.length > 0 ? some : [pickOne(random, list)];
}
