/**
 * How this bench really dries: a factor on the nominal drying. A look at a coat tells only that it was dry by then, or not yet: a censored
 * observation. Pieces of one run dry side by side, and several looks at one coat are looks at the same drying: they are taken together.
 * How much one evening differs from the next is learned as well. The posterior is taken on a grid; no approximation hides the censoring.
 */
export interface DryingLook {
  /** nominal drying minutes (ticks) that had gone by, divided by the nominal need: 1 is just as the book says */
  readonly share: number;
  readonly wasDry: boolean;
  /** looks at coats that went on in one run have the same one; a look without one stands by itself */
  readonly coat?: string;
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

/** What is thought of the logarithm of the factor before any look. */
export interface DryingPrior {
  readonly mean: number;
  readonly sigma: number;
}

/** Makes of one family differ severalfold: 90 % of them by less than a factor of three either way (common practice, no source). */
const MAKES: DryingPrior = { mean: 0, sigma: Math.log(3) / 1.645 };
/** Spreads from one evening to the next on one bench that are thought of, as logarithms, and how likely each is beforehand (from memory). */
const SPREADS = [0.06, 0.09, 0.13, 0.19, 0.27, 0.39, 0.56];
const USUAL_SPREAD = { median: 0.12, sigma: 1 };
/** By so much the pieces of one run differ, and the eye errs (from memory). */
const EYE = 0.06;
const STEP = 0.025;
const RANGE = 2.6;
const GRID = Float64Array.from({ length: Math.round((2 * RANGE) / STEP) + 1 }, (_, k) => -RANGE + k * STEP);

/** For each spread how far one evening lies from the bench’s own factor: a kernel over the grid. */
const EVENINGS = SPREADS.map((spread) => {
  const reach = Math.ceil((4 * spread) / STEP);
  const kernel = Float64Array.from({ length: 2 * reach + 1 }, (_, k) =>
    Math.exp(-0.5 * (((k - reach) * STEP) / spread) ** 2),
  );
  const sum = kernel.reduce((a, b) => a + b, 0);
  return { reach, kernel: kernel.map((k) => k / sum) };
});

/** How likely each spread from evening to evening is on a bench: logarithms, but for a constant. */
export type Spreads = readonly number[];

/** What is thought of the spreads before any look. */
export const USUAL_SPREADS: Spreads = SPREADS.map(
  (spread) => -0.5 * (Math.log(spread / USUAL_SPREAD.median) / USUAL_SPREAD.sigma) ** 2,
);

/** Posterior of the factor after looks; order does not matter. */
export function dryingFactor(
  looks: readonly DryingLook[],
  prior: DryingPrior = MAKES,
  spreads: Spreads = USUAL_SPREADS,
): DryingFactor {
  const bySpread = jointly(looks, prior);
  const most = Math.max(...bySpread.map((logp, s) => spreads[s]! + greatest(logp)));
  const weights = new Float64Array(GRID.length);
  bySpread.forEach((logp, s) =>
    logp.forEach((p, k) => (weights[k] = weights[k]! + Math.exp(spreads[s]! + p - most))),
  );
  const total = weights.reduce((a, b) => a + b, 0);
  const quantile = (q: number): number => {
    let sum = 0;
    for (let k = 0; k < GRID.length; k++) {
      const next = sum + weights[k]! / total;
      // Between two points of the grid as far as the share goes.
      if (next >= q) return Math.exp(GRID[k]! + STEP * ((q - sum) / (next - sum) - 0.5));
      sum = next;
    }
    return Math.exp(RANGE);
  };
  return { median: quantile(0.5), low: quantile(0.05), high: quantile(0.95), looks: looks.length };
}

/** What the looks at one product say of the evenings of the bench: how likely each spread makes them, as logarithms. */
export function spreadsSeen(looks: readonly DryingLook[], prior: DryingPrior = MAKES): Spreads {
  return jointly(looks, prior).map((logp) => {
    const most = greatest(logp);
    return most + Math.log(logp.reduce((sum, p) => sum + Math.exp(p - most), 0));
  });
}

const greatest = (of: Float64Array): number => of.reduce((a, b) => Math.max(a, b), -Infinity);

/** By spread: how likely each factor on the grid is together with all looks, as logarithms. */
function jointly(looks: readonly DryingLook[], prior: DryingPrior): readonly Float64Array[] {
  const coats = new Map<string, DryingLook[]>();
  looks.forEach((look, k) => {
    const key = look.coat ?? `\n${k}`;
    coats.set(key, [...(coats.get(key) ?? []), look]);
  });
  const seen = [...coats.values()].map(likelihoodOf);
  return EVENINGS.map(({ reach, kernel }) => {
    const logp = GRID.map((x) => -0.5 * ((x - prior.mean) / prior.sigma) ** 2);
    for (const coat of seen)
      for (let k = 0; k < GRID.length; k++) {
        let p = 0;
        for (let j = -reach; j <= reach; j++)
          p += kernel[j + reach]! * coat[Math.min(GRID.length - 1, Math.max(0, k + j))]!;
        logp[k] = logp[k]! + Math.log(Math.max(1e-300, p));
      }
    return logp;
  });
}

/** How likely the looks at one coat are, for each drying of its own on the grid. */
function likelihoodOf(looks: readonly DryingLook[]): Float64Array {
  return GRID.map((y) =>
    looks.reduce((p, { share, wasDry }) => {
      // Dry at share s means: its own drying was at most s.
      const z = (Math.log(Math.max(1e-6, share)) - y) / EYE;
      return p * Math.max(1e-12, wasDry ? phi(z) : 1 - phi(z));
    }, 1),
  );
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
