/** Spans of minutes: what is left of a horizon between closed ones. */
export type Minutes = readonly [from: number, to: number];

/** @param shut sorted and disjoint @returns what is left of [0, horizon) */
export function between(shut: readonly Minutes[], horizon: number): [number, number][] {
  const open: [number, number][] = [];
  let from = 0;
  for (const [a, b] of shut) {
    if (a > from) open.push([from, a]);
    from = b;
  }
  if (from < horizon) open.push([from, horizon]);
  return open;
}
