/**
 * How this bench really dries: a factor on the nominal drying, log-normal. Looking at a piece tells only that it was dry by then, or
 * not yet: a censored observation. The posterior is taken on a grid of the log factor; no approximation hides the censoring.
 */
export interface DryingLook {
  /** nominal drying minutes (ticks) that had gone by, divided by the nominal need: 1 is just as the book says */
  readonly share: number;
  readonly wasDry: boolean;
}

export interface DryingFactor {
  /** median of the factor on nominal drying */
  readonly median: number;
  /** 90 % interval */
  readonly low: number;
  readonly high: number;
  /** looks it was learned from; 0: nominal */
  readonly looks: number;
}

/** Prior: products of one family differ by about a factor 1.5 either way (from memory). */
const PRIOR_SIGMA = 0.4;
/** Spread from one coat to the next on one bench (from memory). */
const LOOK_SIGMA = 0.15;
const GRID = 401;
const RANGE = 2;

/** What is thought of the logarithm of the factor before any look. */
export interface DryingPrior {
  readonly mean: number;
  readonly sigma: number;
}

/** Posterior of the factor after looks; order does not matter. */
export function dryingFactor(
  looks: readonly DryingLook[],
  prior: DryingPrior = { mean: 0, sigma: PRIOR_SIGMA },
): DryingFactor {
  const logs = Float64Array.from({ length: GRID }, (_, k) => -RANGE + (2 * RANGE * k) / (GRID - 1));
  const density = logs.map((x) => {
    let logp = -0.5 * ((x - prior.mean) / prior.sigma) ** 2;
    for (const look of looks) {
      // Dry at share s means: its own drying was at most s.
      const z = (Math.log(Math.max(1e-6, look.share)) - x) / LOOK_SIGMA;
      logp += Math.log(Math.max(1e-12, look.wasDry ? phi(z) : 1 - phi(z)));
    }
    return logp;
  });
  const most = density.reduce((a, b) => Math.max(a, b), -Infinity);
  const weights = density.map((d) => Math.exp(d - most));
  const total = weights.reduce((a, b) => a + b, 0);
  const quantile = (q: number): number => {
    let sum = 0;
    for (let k = 0; k < GRID; k++) {
      sum += weights[k]! / total;
      if (sum >= q) return Math.exp(logs[k]!);
    }
    return Math.exp(RANGE);
  };
  return { median: quantile(0.5), low: quantile(0.05), high: quantile(0.95), looks: looks.length };
}

/** Normal distribution function; Abramowitz & Stegun 26.2.17, error below 7.5e-8. */
function phi(z: number): number {
  const t = 1 / (1 + 0.2316419 * Math.abs(z));
  const tail =
    0.3989422804014327 *
    Math.exp((-z * z) / 2) *
    t *
    (0.31938153 + t * (-0.356563782 + t * (1.781477937 + t * (-1.821255978 + t * 1.330274429))));
  return z >= 0 ? 1 - tail : tail;
}
