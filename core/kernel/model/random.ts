/** A seeded source of numbers in [0, 1): the same in Node and in every browser. */
export type Random = () => number;

/** Mulberry32 (public domain, 32 bits of state): small, fast and good enough to stir a search. */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** A whole number in [0, n). */
export function pick(random: Random, n: number): number {
  return Math.floor(random() * n);
}
