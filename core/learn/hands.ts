/** How fast these hands really are: a factor on planned minutes, log-normal, learned from what was logged. */
export interface HandsFactor {
  readonly median: number;
  readonly low: number;
  readonly high: number;
  readonly logged: number;
}

const PRIOR_SIGMA = 0.35;
const ONE_SIGMA = 0.25;

/** @param ratios actual over planned minutes, each above 0 */
export function handsFactor(ratios: readonly number[]): HandsFactor {
  const precision = 1 / PRIOR_SIGMA ** 2 + ratios.length / ONE_SIGMA ** 2;
  const sum = ratios.reduce((a, r) => a + Math.log(Math.max(0.05, Math.min(20, r))), 0);
  const mean = sum / ONE_SIGMA ** 2 / precision;
  const sd = Math.sqrt(1 / precision);
  return {
    median: Math.exp(mean),
    low: Math.exp(mean - 1.645 * sd),
    high: Math.exp(mean + 1.645 * sd),
    logged: ratios.length,
  };
}
