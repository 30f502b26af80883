/** What paints give when they are mixed: absorption and scattering of each add up by its share (Duncan 1940; from memory). */
import { familyOf } from '#core/materials';
import type { Component, Product } from '#core/muster';
import { bandsOf, colourOf, type Bands } from './colour';
import { absorptionOf, infiniteOf } from './film';
import { filmOfCard, type Film } from './paint';
import { seenThrough, withinOf } from './surface';

/** @param paints what is paint in the mixture, with its share of it; at least one */
export function mixedFilm(paints: readonly { readonly film: Film; readonly share: number }[]): Film {
  const all = paints.reduce((sum, p) => sum + p.share, 0);
  const band = (k: 0 | 1 | 2): { infinite: number; scatter: number } => {
    const mean = (of: (film: Film) => number): number =>
      paints.reduce((sum, p) => sum + (of(p.film) * p.share) / all, 0);
    const scatter = mean((f) => f.scatter[k]);
    const absorbed = mean((f) => absorptionOf(f.infinite[k]) * f.scatter[k]);
    return { infinite: infiniteOf(absorbed / Math.max(1e-9, scatter)), scatter };
  };
  const bands = [band(0), band(1), band(2)] as const;
  return {
    infinite: bands.map((b) => b.infinite) as unknown as Bands,
    scatter: bands.map((b) => b.scatter) as unknown as Bands,
  };
}

/** A product's film: of its test card where it has one, else of its nominal colour and its family. */
export function filmOfProduct({ card, colour, family }: Product): Film {
  const measured = card ? filmOfCard(card) : null;
  if (measured) return measured;
  const { scatter } = familyOf(family).body;
  return {
    infinite: bandsOf(colour).map((v) => withinOf(v, 'matt')) as unknown as Bands,
    scatter: [scatter, scatter, scatter],
  };
}

/**
 * The colour of a mixture, dry and thick, as a matt coat shows it.
 * @param paints what is paint in it
 * @returns null where one of them is not on the shelf, or none scatters any light
 */
export function mixtureColour(
  paints: readonly Component[],
  products: ReadonlyMap<string, Product>,
): string | null {
  const films = paints.flatMap(({ name, share }) => {
    const product = products.get(name.toLowerCase());
    return product ? [{ film: filmOfProduct(product), share }] : [];
  });
  if (films.length === 0 || films.length < paints.length) return null;
  const { infinite, scatter } = mixedFilm(films);
  if (Math.max(...scatter) <= 0) return null;
  return colourOf(infinite.map((r) => seenThrough(r, 'matt')) as unknown as Bands);
}
