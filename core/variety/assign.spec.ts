/**
 * Dealing as a colouring. Outside checks: the Petersen graph needs three colours, Grötzsch’s four (both from the literature of graph
 * colouring, from memory: J. Petersen 1898; H. Grötzsch 1959); small deals against trying every one.
 */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assign, type AssignTask, type Assigned } from './assign';

type Pair = readonly [number, number];

/** Outer ring, inner star, spokes. */
const PETERSEN: readonly Pair[] = [0, 1, 2, 3, 4].flatMap((k): Pair[] => [
  [k, (k + 1) % 5],
  [k, k + 5],
  [5 + k, 5 + ((k + 2) % 5)],
]);
/** Mycielski’s construction over the ring of five: copies see their original’s neighbours, and the hub sees the copies. */
const GROETZSCH: readonly Pair[] = [0, 1, 2, 3, 4].flatMap((k): Pair[] => [
  [k, (k + 1) % 5],
  [5 + k, (k + 1) % 5],
  [5 + k, (k + 4) % 5],
  [10, 5 + k],
]);

function task(pieces: number, part: Partial<AssignTask> & Pick<AssignTask, 'values'>): AssignTask {
  return {
    pieces,
    neighbours: [],
    apart: 1,
    fixed: Array.from({ length: pieces }, () => null),
    minutes: part.values.map((n) => Array.from({ length: n }, () => 0)),
    mostMinutes: 0,
    ...part,
  };
}

/** The best of all deals, by trying each: pairs too alike, then minutes, then evenness. */
function bestByTrying(of: AssignTask): readonly [number, number, number] {
  const ways = of.values.reduce((n, v) => n * v, 1);
  let best: readonly [number, number, number] = [Infinity, Infinity, Infinity];
  for (let code = 0; code < ways ** of.pieces; code++) {
    let rest = code;
    const deal = Array.from({ length: of.pieces }, () =>
      of.values.map((n) => {
        const v = rest % n;
        rest = Math.floor(rest / n);
        return v;
      }),
    );
    if (of.fixed.some((f, k) => f?.some((v, t) => v !== deal[k]![t]))) continue;
    const found = valueOf(of, deal);
    if (isBefore(found, best)) best = found;
  }
  return best;
}

function valueOf(of: AssignTask, deal: readonly (readonly number[])[]): readonly [number, number, number] {
  const lacking = of.neighbours.reduce(
    (sum, [a, b]) => sum + Math.max(0, of.apart - deal[a]!.filter((v, t) => v !== deal[b]![t]).length),
    0,
  );
  const minutes = deal.reduce((s, vs) => s + vs.reduce((o, v, t) => o + of.minutes[t]![v]!, 0), 0);
  const uneven = of.values.reduce(
    (sum, n, t) =>
      sum +
      Array.from({ length: n }, (_, v) => deal.filter((d) => d[t] === v).length).reduce(
        (s, u) => s + (u - of.pieces / n) ** 2,
        0,
      ),
    0,
  );
  return [lacking, Math.max(0, minutes - of.mostMinutes), uneven];
}

const isBefore = (a: readonly number[], b: readonly number[]): boolean => {
  const k = a.findIndex((x, i) => Math.abs(x - b[i]!) > 1e-9);
  return k >= 0 && a[k]! < b[k]!;
};

describe('published graphs', () => {
  it.each([
    ['Petersen', 10, PETERSEN, 3],
    ['Grötzsch', 11, GROETZSCH, 4],
  ] as const)('%s: so many colours are enough, and one fewer proved too few', (_, n, neighbours, colours) => {
    const enough = assign(task(n, { values: [colours], neighbours }), 1);
    expect(enough.alike).toEqual([]);
    const few = assign(task(n, { values: [colours - 1], neighbours }), 1);
    expect(few.alike.length).toBeGreaterThan(0);
    expect(few.isBest).toBe(true);
  });
});

describe('a deal', () => {
  const small = fc
    .record({
      pieces: fc.integer({ min: 1, max: 5 }),
      values: fc.array(fc.integer({ min: 2, max: 3 }), { minLength: 1, maxLength: 2 }),
      apart: fc.integer({ min: 1, max: 2 }),
      links: fc.array(fc.tuple(fc.nat(4), fc.nat(4)), { maxLength: 6 }),
      isFixed: fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
      minutes: fc.array(fc.integer({ min: -6, max: 6 }), { minLength: 6, maxLength: 6 }),
      seed: fc.nat(1000),
    })
    .map(({ pieces, values, apart, links, isFixed, minutes, seed }) => ({
      seed,
      of: task(pieces, {
        values,
        apart: Math.min(apart, values.length),
        neighbours: links.filter(([a, b]) => a < b && b < pieces),
        fixed: Array.from({ length: pieces }, (_, k) =>
          isFixed[k] && k % 2 ? values.map((n) => k % n) : null,
        ),
        minutes: values.map((n, t) => Array.from({ length: n }, (_, v) => minutes[3 * t + v]!)),
      }),
    }));

  it('that calls itself the best is: against every deal tried', () => {
    let proved = 0;
    fc.assert(
      fc.property(small, ({ of, seed }) => {
        const found = assign(of, seed);
        const best = bestByTrying(of);
        const value = valueOf(of, found.of);
        expect(isBefore(value, best)).toBe(false);
        if (found.isBest) {
          proved++;
          expect(isBefore(best, value)).toBe(false);
        }
      }),
      { numRuns: 150 },
    );
    expect(proved).toBeGreaterThan(140);
  });

  it('leaves what is fixed, repeats by its seed, and is another by another', () => {
    const row = Array.from({ length: 11 }, (_, k): Pair => [k, k + 1]);
    const of = task(12, { values: [3, 4], apart: 2, neighbours: row });
    const fixed = of.fixed.map((_, k) => (k === 4 ? [2, 3] : null));
    const found = assign({ ...of, fixed }, 7);
    expect(found.of[4]).toEqual([2, 3]);
    expect(found.alike).toEqual([]);
    expect(assign({ ...of, fixed }, 7)).toEqual(found);
    expect(assign({ ...of, fixed }, 8).of).not.toEqual(found.of);
  });

  it('uses every value about equally, and takes no more minutes than there are', () => {
    const found: Assigned = assign(task(30, { values: [3], minutes: [[-4, 0, 8]], mostMinutes: 0 }), 2);
    const uses = [0, 1, 2].map((v) => found.of.filter((d) => d[0] === v).length);
    // Ten of each would take forty minutes too many.
    expect(found.over).toBe(0);
    expect(8 * uses[2]! - 4 * uses[0]!).toBeLessThanOrEqual(0);
    expect(Math.max(...uses) - Math.min(...uses)).toBeLessThanOrEqual(8);
  });

  it('of two hundred in rows leaves nobody like a neighbour', () => {
    const rows = Array.from({ length: 200 }, (_, k): Pair[] => [
      ...(k % 10 < 9 ? [[k, k + 1] as const] : []),
      ...(k + 10 < 200 ? [[k, k + 10] as const] : []),
    ]).flat();
    const found = assign(task(200, { values: [3, 3, 3], apart: 2, neighbours: rows }), 5);
    expect(found.alike).toEqual([]);
  });
});
