/** Ratios of two to four parts in exact rational arithmetic. */
import { AmountError } from './units';

export interface Rational {
  readonly n: bigint;
  readonly d: bigint;
}

export type Ratio = readonly Rational[];

function gcd(a: bigint, b: bigint): bigint {
  while (b !== 0n) [a, b] = [b, a % b];
  return a < 0n ? -a : a;
}

export function rational(n: bigint, d = 1n): Rational {
  if (d === 0n) throw new AmountError('A ratio cannot be divided by 0.');
  const g = gcd(n, d) || 1n;
  return d < 0n ? { n: -n / g, d: -d / g } : { n: n / g, d: d / g };
}

export const plus = (a: Rational, b: Rational): Rational => rational(a.n * b.d + b.n * a.d, a.d * b.d);
export const times = (a: Rational, b: Rational): Rational => rational(a.n * b.n, a.d * b.d);
export const over = (a: Rational, b: Rational): Rational => rational(a.n * b.d, a.d * b.n);
export const toNumber = (a: Rational): number => Number(a.n) / Number(a.d);

/** A decimal such as `0.5` as an exact fraction. */
function parsePart(text: string): Rational {
  const match = /^(\d{1,6})(?:\.(\d{1,6}))?$/.exec(text.trim());
  if (!match) throw new AmountError(`“${text.trim()}” is no part of a ratio; write it like 3:1 or 1:1:0.5.`);
  const digits = match[2] ?? '';
  return rational(BigInt(match[1]! + digits), 10n ** BigInt(digits.length));
}

/**
 * Reads `3:1`, `1:1:1`, `2:0.5`.
 * @throws AmountError for fewer than one or more than four parts, for no numbers, and where all parts are 0
 */
export function parseRatio(text: string): Ratio {
  const parts = text.split(':').map(parsePart);
  if (parts.length > 4)
    throw new AmountError(`${text} has ${parts.length} parts; four are the most that are mixed here.`);
  if (parts.every((p) => p.n === 0n))
    throw new AmountError(`${text} mixes nothing: at least one part must be more than 0.`);
  return parts;
}

/** Each part's share of the whole; the shares sum to exactly 1. */
export function sharesOf(ratio: Ratio): Rational[] {
  const sum = ratio.reduce(plus);
  return ratio.map((p) => over(p, sum));
}

/**
 * What to add to so much of a mix `from` to turn it into `to` (same components, in the same order): exact shares of the volume.
 * Nothing is taken out, so the part that `to` has least of, against `from`, sets the size.
 * @throws AmountError when the two have different components
 */
export function dilution(from: Ratio, to: Ratio): Rational[] {
  if (from.length !== to.length)
    throw new AmountError('Both mixes must have the same components in the same order.');
  const have = sharesOf(from);
  const want = sharesOf(to);
  let size = rational(1n);
  have.forEach((h, k) => {
    const w = want[k]!;
    if (h.n === 0n) return;
    if (w.n === 0n)
      throw new AmountError(
        'What is in the mix cannot be taken out again: that component must stay above 0.',
      );
    const needed = over(h, w);
    if (needed.n * size.d > size.n * needed.d) size = needed;
  });
  return want.map((w, k) => plus(times(w, size), times(rational(-1n), have[k]!)));
}
