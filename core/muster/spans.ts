/** Spans of minutes, sorted and disjoint. */
export type Minutes = readonly [from: number, to: number];

/** What is left of [0, horizon) between closed spans. */
export function between(shut: readonly Minutes[], horizon: number): [number, number][] {
  const open: [number, number][] = [];
  let from = 0;
  for (const [a, b] of shut) {
    if (a > from) open.push([from, a]);
    from = Math.max(from, b);
  }
  if (from < horizon) open.push([from, horizon]);
  return open;
}

/** In any order and overlapping: made one where they touch, cut to [0, horizon). */
export function merged(spans: readonly Minutes[], horizon: number): [number, number][] {
  const result: [number, number][] = [];
  for (const [a, b] of [...spans].sort((x, y) => x[0] - y[0])) {
    const from = Math.max(0, a);
    const to = Math.min(horizon, b);
    const last = result[result.length - 1];
    if (to <= from) continue;
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else result.push([from, to]);
  }
  return result;
}

/** What lies in both. */
export function common(a: readonly Minutes[], b: readonly Minutes[]): [number, number][] {
  const result: [number, number][] = [];
  let i = 0;
  let k = 0;
  while (i < a.length && k < b.length) {
    const from = Math.max(a[i]![0], b[k]![0]);
    const to = Math.min(a[i]![1], b[k]![1]);
    if (from < to) result.push([from, to]);
    if (a[i]![1] < b[k]![1]) i++;
    else k++;
  }
  return result;
}

/** What lies in the first and not in the second. */
export function without(a: readonly Minutes[], b: readonly Minutes[]): [number, number][] {
  const last = a[a.length - 1];
  return last ? common(a, between(b, last[1])) : [];
}
