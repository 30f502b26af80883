/** Benches whose truth is known, for the specs and for `npm run bench -- learning`. */
import { dryingFactor, productFactors, type DryingLook } from './index';

/** Standard normal by Box and Muller (1958). */
export function normal(random: () => number): number {
  return Math.sqrt(-2 * Math.log(Math.max(1e-12, random()))) * Math.cos(2 * Math.PI * random());
}

/** A product whose truth is known, and what was seen of it. */
interface Seen {
  readonly truth: number;
  readonly looks: readonly DryingLook[];
}

export const LOOKS = 10;
/** So many products dry on a bench, each of another family. */
const PRODUCTS = 6;

/** People look at about the time at which they expect it dry, some too soon, some too late. */
export function lookedAt(random: () => number, makes: number, evenings: number, many: number): Seen {
  const truth = Math.exp(makes * normal(random));
  const looks: DryingLook[] = [];
  for (let k = 0; k < many; k++) {
    const share = dryingFactor(looks).median * Math.exp(0.3 * normal(random));
    looks.push({ share, wasDry: truth * Math.exp(evenings * normal(random)) <= share });
  }
  return { truth, looks };
}

/** How far makes of a product are apart, as logarithms: as far as in the trade, or much alike. */
const SEVERALFOLD = 0.65;
const ALIKE = 0.4;

/** Eight pieces of a run are looked at in one press, three times. */
function inOnePress(random: () => number, makes: number): Seen {
  const truth = Math.exp(makes * normal(random));
  const looks: DryingLook[] = [];
  for (let evening = 0; evening < 3; evening++) {
    const own = truth * Math.exp(0.15 * normal(random));
    const share = dryingFactor(looks).median * Math.exp(0.3 * normal(random));
    for (let k = 0; k < 8; k++)
      looks.push({ share, wasDry: own * Math.exp(0.05 * normal(random)) <= share, coat: `${evening}` });
  }
  return { truth, looks };
}

/** Nobody looks before it should long be dry. */
function whenLongDry(random: () => number, makes: number): Seen {
  const truth = Math.exp(makes * normal(random));
  const looks = Array.from({ length: LOOKS }, () => {
    const share = 2.5 * Math.exp(0.3 * normal(random));
    return { share, wasDry: truth * Math.exp(0.15 * normal(random)) <= share };
  });
  return { truth, looks };
}

function twoLooksACoat(random: () => number): Seen {
  const truth = Math.exp(0.5 * normal(random));
  const looks: DryingLook[] = [];
  for (let evening = 0; evening < 5; evening++) {
    const own = truth * Math.exp(0.15 * normal(random));
    for (const about of [0.8, 1.2]) {
      const share = about * Math.exp(0.2 * normal(random));
      looks.push({ share, wasDry: own <= share, coat: `${evening}` });
    }
  }
  return { truth, looks };
}

/**
 * What differs from bench to bench: how far makes and evenings are apart, how and when people look. Where the looks tell little, what is
 * thought beforehand is left, and that is as wide as the trade’s: where makes are alike the intervals hold more than they must.
 */
export const WORLDS: Readonly<Record<string, (random: () => number) => Seen>> = {
  'one look at each of ten coats': (r) => lookedAt(r, ALIKE, 0.15, LOOKS),
  'a bench twice as variable': (r) => lookedAt(r, ALIKE, 0.3, LOOKS),
  'makes that differ severalfold': (r) => lookedAt(r, SEVERALFOLD, 0.15, LOOKS),
  'eight pieces of a run in one press, three times': (r) => inOnePress(r, SEVERALFOLD),
  'eight pieces in one press, makes alike': (r) => inOnePress(r, ALIKE),
  'looked at when long dry': (r) => whenLongDry(r, SEVERALFOLD),
  'looked at when long dry, makes alike': (r) => whenLongDry(r, ALIKE),
  'two looks at each of five coats': twoLooksACoat,
};

/** How often the 90 % interval holds the truth, and how far off the median is beside the nominal figure. */
export function trialOf(
  make: (random: () => number) => Seen,
  benches: number,
  random: () => number,
): { readonly covered: number; readonly error: number } {
  let covered = 0;
  let learned = 0;
  let nominal = 0;
  for (let b = 0; b < benches; b++) {
    const bench = Array.from({ length: PRODUCTS }, () => make(random));
    const factors = productFactors(
      bench.flatMap(({ looks }, p) =>
        looks.map((l, k) => ({
          ...l,
          product: `p${p}`,
          family: `f${p}`,
          coat: `${p} ${l.coat ?? `look ${k}`}`,
        })),
      ),
    );
    bench.forEach(({ truth }, p) => {
      const { low, high, median } = factors.find((f) => f.product === `p${p}`)!;
      if (low <= truth && truth <= high) covered++;
      learned += Math.abs(Math.log(median / truth));
      nominal += Math.abs(Math.log(truth));
    });
  }
  return { covered: covered / (benches * PRODUCTS), error: learned / nominal };
}
