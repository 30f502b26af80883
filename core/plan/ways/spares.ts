/** A spare of what may run out. */
import { storesOf, USUAL_BOTTLE_ML } from '#core/muster';
import type { Offer } from './way';

const MOST = 2;

export const spareBottle: Offer = ({ muster, spares }) =>
  spares.slice(0, MOST).flatMap((name) => {
    const product = storesOf(muster).products.find((p) => p.name === name);
    if (!product) return [];
    const ml = product.bottleMl ?? USUAL_BOTTLE_ML;
    return [
      {
        id: `spare-${product.id}`,
        costs: 'the price of a bottle',
        label: `A spare bottle of ${name} in the house`,
        apply: (m) => {
          const stores = storesOf(m);
          const products = stores.products.map((p) =>
            p.id === product.id ? { ...p, leftMl: p.leftMl + ml } : p,
          );
          return { ...m, stores: { ...stores, products } };
        },
      },
    ];
  });
