/**
 * Minutes a piece by layer and size, with a learning curve over a wave: the n-th piece of a run takes `factor * n^slope` of the
 * planned minutes (Wright 1936: a constant share less at every doubling). Bayesian linear regression on logarithms.
 */

export interface HandsLook {
  /** layer and size class together: what is alike */
  readonly of: string;
  /** the how many-th piece of its run */
  readonly nth: number;
  /** measured over planned minutes */
  readonly ratio: number;
}

export interface LayerFactor {
  readonly of: string;
  /** median factor on the planned minutes of the first piece of a run, with its 90 % interval */
  readonly median: number;
  readonly low: number;
  readonly high: number;
  /** share of the minutes that is left at every doubling of the pieces in a run: 1 none is learned */
  readonly curve: number;
  readonly logged: number;
}

/** Prior of the log factor: people and layers differ by about a third (from memory). */
const FACTOR_SIGMA = 0.35;
/** Prior of the slope: 95 % at a doubling, give or take (Wright's curves run from 80 % to 100 %; from memory). */
const SLOPE_MEAN = Math.log2(0.95);
const SLOPE_SIGMA = 0.1;
/** One piece against the next (from memory). */
const NOISE_SIGMA = 0.25;
const Z90 = 1.645;

/** One estimate for each thing that was measured, by name. Looks of no or absurd length are left out. */
export function layerFactors(looks: readonly HandsLook[]): LayerFactor[] {
  const groups = new Map<string, HandsLook[]>();
  for (const look of looks)
    if (look.ratio > 0.02 && look.ratio < 50) groups.set(look.of, [...(groups.get(look.of) ?? []), look]);
  return [...groups].map(([of, list]) => factorOf(of, list)).sort((a, b) => a.of.localeCompare(b.of));
}

function factorOf(of: string, looks: readonly HandsLook[]): LayerFactor {
  // Precision matrix and right-hand side of (log factor, slope); the prior is one observation of each.
  const noise = 1 / NOISE_SIGMA ** 2;
  let a = 1 / FACTOR_SIGMA ** 2;
  let b = 0;
  let c = 1 / SLOPE_SIGMA ** 2;
  let u = 0;
  let v = SLOPE_MEAN / SLOPE_SIGMA ** 2;
  for (const { nth, ratio } of looks) {
    const y = Math.log(ratio);
    const s = Math.log(Math.max(1, nth));
    a += noise;
    b += noise * s;
    c += noise * s * s;
    u += noise * y;
    v += noise * s * y;
  }
  const det = a * c - b * b;
  const mean = (c * u - b * v) / det;
  const slope = (a * v - b * u) / det;
  const sd = Math.sqrt(c / det);
  return {
    of,
    median: Math.exp(mean),
    low: Math.exp(mean - Z90 * sd),
    high: Math.exp(mean + Z90 * sd),
    curve: 2 ** slope,
    logged: looks.length,
  };
}

/** Mean factor over a run of so many pieces: what a plan should use. */
export function factorForRun(factor: Pick<LayerFactor, 'median' | 'curve'>, pieces: number): number {
  let sum = 0;
  for (let n = 1; n <= pieces; n++) sum += factor.median * n ** Math.log2(factor.curve);
  return sum / Math.max(1, pieces);
}
