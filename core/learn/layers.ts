/**
 * Minutes a piece by layer and size, with a learning curve over a wave: the n-th piece of a run takes `factor * n^slope` of the
 * planned minutes (Wright 1936: a constant share less at every doubling), more when the layer is done for the first time at all, and more
 * or less by who does it. Bayesian linear regression on logarithms.
 */

export interface HandsLook {
  /** layer and size class together: what is alike */
  readonly of: string;
  /** the how many-th piece of its run */
  readonly nth: number;
  /** measured over planned minutes */
  readonly ratio: number;
  /** the first time that this bench does the layer */
  readonly isFirst?: boolean;
  /** who did it, where one person did */
  readonly who?: string;
}

export interface LayerFactor {
  readonly of: string;
  /** median factor on the planned minutes of the first piece of a run, with its 90 % interval */
  readonly median: number;
  readonly low: number;
  readonly high: number;
  /** share of the minutes that is left at every doubling of the pieces in a run: 1 none is learned */
  readonly curve: number;
  /** how many times longer the first time takes; null where none was measured */
  readonly first: number | null;
  /** each person's factor against the bench's, where several were measured */
  readonly people: readonly { readonly who: string; readonly factor: number; readonly logged: number }[];
  readonly logged: number;
}

/** What is thought of hands before any were measured: spreads are of the logarithm (all from memory). */
export const HANDS_BEFOREHAND = {
  /** people and layers together differ by about a third */
  factorSigma: 0.35,
  /** one person against another */
  personSigma: 0.25,
  /** share left at a doubling (Wright's curves run from 80 % to 100 %) */
  curve: 0.95,
  /** the first time takes about a quarter longer, give or take */
  firstTime: 1.25,
  firstSigma: 0.2,
} as const;
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
  const names = [...new Set(looks.flatMap((l) => l.who ?? []))].sort();
  const people = names.length > 1 ? names : [];
  const hasFirst = looks.some((l) => l.isFirst);
  // Unknowns: log factor, slope, log of the first time, and what each person adds; the prior of each is one observation of it.
  const { factorSigma, personSigma, curve, firstTime, firstSigma } = HANDS_BEFOREHAND;
  const means = [0, Math.log2(curve), Math.log(firstTime), ...people.map(() => 0)];
  const sigmas = [factorSigma, SLOPE_SIGMA, firstSigma, ...people.map(() => personSigma)];
  const n = means.length;
  const precision = Array.from({ length: n }, (_, i) =>
    Array.from({ length: n }, (_, j) => (i === j ? 1 / sigmas[i]! ** 2 : 0)),
  );
  const right = means.map((m, i) => m / sigmas[i]! ** 2);
  for (const { nth, ratio, isFirst, who } of looks) {
    const row = [1, Math.log(Math.max(1, nth)), isFirst ? 1 : 0, ...people.map((p) => (p === who ? 1 : 0))];
    const y = Math.log(ratio);
    row.forEach((a, i) => {
      right[i]! += (a * y) / NOISE_SIGMA ** 2;
      row.forEach((b, j) => (precision[i]![j]! += (a * b) / NOISE_SIGMA ** 2));
    });
  }
  const [mean, slope, first, ...offsets] = solved(precision, right);
  // The variance of the log factor is the first entry of the inverse.
  const [variance] = solved(precision, [1, ...Array<number>(n - 1).fill(0)]);
  const sd = Math.sqrt(variance!);
  return {
    of,
    median: Math.exp(mean!),
    low: Math.exp(mean! - Z90 * sd),
    high: Math.exp(mean! + Z90 * sd),
    curve: 2 ** slope!,
    first: hasFirst ? Math.exp(first!) : null,
    people: people.map((who, k) => ({
      who,
      factor: Math.exp(offsets[k]!),
      logged: looks.filter((l) => l.who === who).length,
    })),
    logged: looks.length,
  };
}

/** Gaussian elimination of a positive definite system: no pivoting is needed. */
function solved(matrix: readonly (readonly number[])[], right: readonly number[]): number[] {
  const a = matrix.map((row, i) => [...row, right[i]!]);
  for (let i = 0; i < a.length; i++)
    for (let k = i + 1; k < a.length; k++) {
      const by = a[k]![i]! / a[i]![i]!;
      for (let j = i; j <= a.length; j++) a[k]![j]! -= by * a[i]![j]!;
    }
  const x = Array<number>(a.length).fill(0);
  for (let i = a.length - 1; i >= 0; i--) {
    let rest = a[i]![a.length]!;
    for (let j = i + 1; j < a.length; j++) rest -= a[i]![j]! * x[j]!;
    x[i] = rest / a[i]![i]!;
  }
  return x;
}

/** Mean factor over a run of so many pieces: what a plan should use. */
export function factorForRun(factor: Pick<LayerFactor, 'median' | 'curve'>, pieces: number): number {
  let sum = 0;
  for (let n = 1; n <= pieces; n++) sum += factor.median * n ** Math.log2(factor.curve);
  return sum / Math.max(1, pieces);
}
