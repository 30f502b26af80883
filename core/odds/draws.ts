/**
 * What chance gives one future. Every draw has its own place (future, what it is of), so that two plans, or one plan under more or less
 * risk, meet the same luck: common random numbers.
 */

/** Streams of draws, so that none takes another's. */
export const STREAM = {
  product: 1,
  evening: 2,
  hands: 3,
  piece: 4,
  air: 5,
  lost: 6,
  cut: 7,
  rework: 8,
  absent: 9,
  usage: 10,
  pace: 11,
  mishaps: 12,
  first: 13,
} as const;

/** 0 ≤ u < 1, by what it is of; Murmur3’s finaliser (public domain) over the four numbers. */
export function uniform(seed: number, future: number, stream: number, of: number): number {
  let h = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b);
  h = mixed(h ^ future);
  h = mixed(h ^ Math.imul(stream, 0x27d4eb2f));
  h = mixed(h ^ of);
  return (h >>> 0) / 4294967296;
}

function mixed(x: number): number {
  let h = x;
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
  return (h ^ (h >>> 16)) + 0x9e3779b9;
}

/** Standard normal: the quantile of the uniform draw, so that a higher draw is a higher value. Acklam’s rational approximation, 1.15e-9 relative (from memory). */
export function normal(seed: number, future: number, stream: number, of: number): number {
  return quantile(Math.min(1 - 1e-9, Math.max(1e-9, uniform(seed, future, stream, of))));
}

const A = [
  -3.969683028665376e1, 2.209460984245205e2, -2.759285104469687e2, 1.38357751867269e2, -3.066479806614716e1,
  2.506628277459239,
];
const B = [
  -5.447609879822406e1, 1.615858368580409e2, -1.556989798598866e2, 6.680131188771972e1, -1.328068155288572e1,
];
const C = [
  -7.784894002430293e-3, -3.223964580411365e-1, -2.400758277161838, -2.549732539343734, 4.374664141464968,
  2.938163982698783,
];
const D = [7.784695709041462e-3, 3.224671290700398e-1, 2.445134137142996, 3.754408661907416];
const LOW = 0.02425;

/** The standard normal’s quantile of p, 0 < p < 1. */
export function quantile(p: number): number {
  if (p < LOW) return tail(Math.sqrt(-2 * Math.log(p)));
  if (p > 1 - LOW) return -tail(Math.sqrt(-2 * Math.log(1 - p)));
  const q = p - 0.5;
  const r = q * q;
  const top = ((((A[0]! * r + A[1]!) * r + A[2]!) * r + A[3]!) * r + A[4]!) * r + A[5]!;
  const under = ((((B[0]! * r + B[1]!) * r + B[2]!) * r + B[3]!) * r + B[4]!) * r + 1;
  return (top * q) / under;
}

function tail(q: number): number {
  const top = ((((C[0]! * q + C[1]!) * q + C[2]!) * q + C[3]!) * q + C[4]!) * q + C[5]!;
  return top / ((((D[0]! * q + D[1]!) * q + D[2]!) * q + D[3]!) * q + 1);
}
