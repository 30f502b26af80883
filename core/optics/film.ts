/**
 * A film of paint on a ground, by Kubelka and Munk (1931, hyperbolic form of Kubelka 1948): light scattered and swallowed between two
 * streams. One band at a time; reflectances inside the film, without the surface.
 */

/** White that no paint reaches, black that no paint is. */
const LIGHTEST = 0.985;
const DARKEST = 0.004;

export const possible = (reflectance: number): number => Math.min(LIGHTEST, Math.max(DARKEST, reflectance));

/** K/S of a film so thick that nothing beneath shows. */
export function absorptionOf(infinite: number): number {
  const r = possible(infinite);
  return (1 - r) ** 2 / (2 * r);
}

/** Reflectance of an infinitely thick film, of its K/S. */
export function infiniteOf(absorption: number): number {
  const a = 1 + absorption;
  return possible(a - Math.sqrt(a * a - 1));
}

/** Of a film of one band, all that does not depend on the ground: a, and b·coth(b·S·X); null: no film. */
export interface Terms {
  readonly a: number;
  readonly c: number;
}

/**
 * @param infinite reflectance of the paint infinitely thick, 0 to 1
 * @param scatter scattering power S·X; 0: no film
 */
export function termsOf(infinite: number, scatter: number): Terms | null {
  if (scatter <= 0) return null;
  const r = possible(infinite);
  const b = (1 / r - r) / 2;
  return { a: (1 / r + r) / 2, c: b / Math.tanh(b * scatter) };
}

/** Reflectance over a ground that reflects so much, 0 to 1. */
export function overGround(film: Terms | null, ground: number): number {
  return film ? (1 - ground * (film.a - film.c)) / (film.a - ground + film.c) : ground;
}

/**
 * What a film is, from a test card: its reflectances over a white and over a black ground (Kubelka 1948, for any two grounds).
 * @returns null where the two do not belong to one film
 */
export function filmFrom(
  overWhite: number,
  overBlack: number,
  white: number,
  black: number,
): { readonly infinite: number; readonly scatter: number } | null {
  if (white <= black || overBlack > overWhite + HIDES) return null;
  if (overWhite - overBlack <= HIDES)
    return { infinite: possible((overWhite + overBlack) / 2), scatter: HIDDEN };
  const a =
    ((1 + white * overWhite) * (overBlack - black) - (1 + black * overBlack) * (overWhite - white)) /
    ((white + overWhite) * (overBlack - black) - (black + overBlack) * (overWhite - white));
  if (!(a >= 1)) return null;
  const infinite = possible(a - Math.sqrt(a * a - 1));
  const scatter = scatterFor(infinite, overBlack, black);
  return Number.isFinite(scatter) && scatter >= 0 ? { infinite, scatter } : null;
}

/** Two readings so close are the same: nothing shows through, and the film is taken to be so strong. */
const HIDES = 0.004;
const HIDDEN = 8;

/** Scattering power of the film of a paint that reads so over a ground; Infinity where even the thickest does not. */
export function scatterFor(infinite: number, seen: number, ground: number): number {
  const r = possible(infinite);
  const a = (1 / r + r) / 2;
  const b = (1 / r - r) / 2;
  const coth = (1 - a * (ground + seen) + ground * seen) / (b * (seen - ground));
  return coth > 1 ? Math.log((coth + 1) / (coth - 1)) / (2 * b) : Infinity;
}
