/**
 * Drying by product, within its family: what other products of the family have shown is the prior of each, so that a new bottle
 * begins where its relatives stand, and its own looks count once. How much one evening differs from the next belongs to the bench:
 * all its products have a say in it.
 */
import {
  dryingFactor,
  spreadsSeen,
  USUAL_SPREADS,
  type DryingFactor,
  type DryingLook,
  type DryingPrior,
  type Spreads,
} from './drying';

export interface ProductLook extends DryingLook {
  /** as the mixture is called */
  readonly product: string;
  readonly family: string;
}

export interface ProductFactor extends DryingFactor {
  readonly product: string;
  readonly family: string;
  /** looks at other products of the family that the prior was learned from */
  readonly relatives: number;
}

/** Products of one family differ from each other by about so much (log scale; from memory). */
const PRODUCT_SIGMA = 0.2;

/** One factor for every product that was looked at, by family and name. */
export function productFactors(looks: readonly ProductLook[]): ProductFactor[] {
  const products = new Map<string, ProductLook[]>();
  for (const look of looks) {
    const key = JSON.stringify([look.family, look.product]);
    products.set(key, [...(products.get(key) ?? []), look]);
  }
  const all = [...products.values()];
  const seen = all.map((own) => spreadsSeen(own));
  const together = seen.reduce((sum, spreads) => added(sum, spreads, 1), USUAL_SPREADS);
  return all
    .map((own, nth): ProductFactor => {
      const { product, family } = own[0]!;
      const others = looks.filter((l) => l.family === family && l.product !== product);
      // Its own looks speak for themselves.
      const spreads = added(together, seen[nth]!, -1);
      return {
        product,
        family,
        relatives: others.length,
        ...dryingFactor(own, priorFrom(others, spreads), spreads),
      };
    })
    .sort((a, b) => a.family.localeCompare(b.family) || a.product.localeCompare(b.product));
}

function added(a: Spreads, b: Spreads, sign: 1 | -1): Spreads {
  return a.map((x, s) => x + sign * b[s]!);
}

/** What the relatives teach, widened by how much products differ. Without relatives the general prior holds. */
function priorFrom(others: readonly ProductLook[], spreads: Spreads): DryingPrior | undefined {
  if (others.length === 0) return undefined;
  const known = dryingFactor(others, undefined, spreads);
  // 1.645 standard deviations on either side hold 90 % of a normal distribution.
  const sigma = (Math.log(known.high) - Math.log(known.low)) / 2 / 1.645;
  // Of few relatives the middle is itself only about where the family is.
  const relatives = new Set(others.map((l) => l.product)).size;
  return {
    mean: Math.log(known.median),
    sigma: Math.hypot(sigma, PRODUCT_SIGMA * Math.sqrt(1 + 1 / relatives)),
  };
}
