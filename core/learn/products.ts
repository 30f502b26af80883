/**
 * Drying by product, within its family: what other products of the family have shown is the prior of each, so that a new bottle
 * begins where its relatives stand, and its own looks count once.
 */
import { dryingFactor, type DryingFactor, type DryingLook, type DryingPrior } from './drying';

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
  return [...products.values()]
    .map((own): ProductFactor => {
      const { product, family } = own[0]!;
      const others = looks.filter((l) => l.family === family && l.product !== product);
      return {
        product,
        family,
        relatives: others.length,
        ...dryingFactor(own, priorFrom(others)),
      };
    })
    .sort((a, b) => a.family.localeCompare(b.family) || a.product.localeCompare(b.product));
}

/** What the relatives teach, widened by how much products differ. Without relatives the general prior holds. */
export function priorFrom(others: readonly DryingLook[]): DryingPrior | undefined {
  if (others.length === 0) return undefined;
  const known = dryingFactor(others);
  // 1.645 standard deviations on either side hold 90 % of a normal distribution.
  const sigma = (Math.log(known.high) - Math.log(known.low)) / 2 / 1.645;
  return { mean: Math.log(known.median), sigma: Math.hypot(sigma, PRODUCT_SIGMA) };
}
