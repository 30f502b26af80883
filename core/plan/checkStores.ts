/** Faults of the shelves and of mixtures: two products of one name, ratios that cannot be read. */
import { AmountError } from '#core/materials';
import { mixOf, storesOf, type Muster } from '#core/muster';
import type { Finding } from '#core/recipe';

export function checkStores(muster: Muster): Finding[] {
  const findings: Finding[] = [];
  const seen = new Map<string, string>();
  for (const product of storesOf(muster).products) {
    const key = product.name.trim().toLowerCase();
    if (seen.has(key))
      findings.push({
        rule: 'product-twice',
        severity: 'warning',
        place: {},
        where: `Stores, “${product.name}”`,
        text: 'Two products have this name; mixtures find only the last of them.',
        cure: 'Give one of them another name.',
      });
    seen.set(key, product.id);
    if (product.leftMl > product.bottleMl * 50)
      findings.push({
        rule: 'product-absurd',
        severity: 'warning',
        place: {},
        where: `Stores, “${product.name}”`,
        text: `${product.leftMl} ml are more than fifty bottles of ${product.bottleMl} ml.`,
        cure: 'Is the unit right?',
      });
  }
  for (const recipe of muster.recipes)
    for (const layer of recipe.layers)
      try {
        mixOf(layer);
      } catch (error) {
        if (!(error instanceof AmountError)) throw error;
        findings.push({
          rule: 'mixture-unreadable',
          severity: 'warning',
          place: { recipe: recipe.id, layer: layer.id },
          where: `${recipe.name}, layer “${layer.name}”`,
          text: `Its mixture cannot be worked out: ${error.message}`,
          cure: 'Write the ratio like “cream 3:1”, or leave it out and mix by eye.',
        });
      }
  return findings;
}
