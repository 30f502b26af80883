/** Left-over mixes, the cup, and what runs out before the run. How long a mix keeps: common practice, no source. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import { solveProblem } from '#core/kernel';
import { withStores, storesOf, type Product } from '#core/muster';
import { compile, factsOfRun, present, type PlanStep } from '#core/plan';
import { fenMuster } from '../../demo/fen';
import { layer } from '../plan/testing';
import {
  cupLeft,
  cupWords,
  goodUntil,
  isPast,
  jarFor,
  jarsOf,
  plannedCup,
  productUses,
  sharedOut,
  shortOf,
} from './index';

const muster = fenMuster('2027-03-01');
const compiled = compile(muster);
const plan = present(muster, compiled, solveProblem(compiled.problem, { iterations: 5 }));
const evening = '2027-03-04T20:00:00Z';
let count = 0;
const entry = (part: Record<string, unknown>, at = evening): LogEntry =>
  ({ id: `e${++count}`, at, ...part }) as LogEntry;
const jar = (ml: number, part: Record<string, unknown> = {}, at = evening): LogEntry =>
  entry({ kind: 'jar', jar: 'j1', mixture: 'Cream 3:1', ml, until: '2027-03-18T20:00:00Z', ...part }, at);
const cream = layer('cream', { mixture: 'cream 3:1' });

describe('a jar of left-over mix', () => {
  it('keeps as its kind does, and what hardens in its cup does not', () => {
    expect(goodUntil('acrylic', evening)).toBe('2027-03-18T20:00:00Z');
    expect(goodUntil('enamel', evening)! > goodUntil('acrylic', evening)!).toBe(true);
    expect(goodUntil('water', evening)).toBeNull();
    expect(goodUntil('work', evening)).toBeNull();
  });

  it('is offered for the same mixture until its day is over, the one that goes off first before the others', () => {
    const jars = jarsOf(muster, [jar(3), jar(2, { jar: 'j2', until: '2027-03-10T20:00:00Z' })]);
    expect(jarFor(jars, cream, evening)!.id).toBe('j2');
    expect(jarFor(jars, cream, '2027-03-12T00:00:00Z')!.id).toBe('j1');
    expect(jarFor(jars, cream, '2027-03-18T20:00:00Z')).toBeNull();
    expect(jarFor(jars, layer('x', { mixture: 'cream 2:1' }), evening)).toBeNull();
    expect(
      isPast(
        jars.find((j) => j.id === 'j2')!,
        '2027-03-10T20:00:00Z',
      ),
    ).toBe(true);
  });

  it('falls by what is taken out of it, is full again when that is taken back, and goes when it is empty', () => {
    const took = entry(
      { kind: 'done', step: 's', minutes: 5, fromJar: { jar: 'j1', ml: 1.25 } },
      '2027-03-05T20:00:00Z',
    );
    const log = [jar(3), took];
    expect(jarsOf(muster, log).find((j) => j.id === 'j1')!.leftMl).toBeCloseTo(1.75, 9);
    const back = entry({ kind: 'taken-back', entry: took.id }, '2027-03-05T20:01:00Z');
    expect(jarsOf(muster, [...log, back]).find((j) => j.id === 'j1')!.leftMl).toBe(3);
    const out = jar(0, {}, '2027-03-06T20:00:00Z');
    expect(jarsOf(muster, [...log, out]).some((j) => j.id === 'j1')).toBe(false);
    // Counted anew, it falls from there.
    expect(
      jarsOf(muster, [...log, jar(2, {}, '2027-03-06T20:00:00Z')]).find((j) => j.id === 'j1')!.leftMl,
    ).toBe(2);
  });
});

describe('the cup of a run', () => {
  const byLayer = new Map<string, PlanStep[]>();
  for (const s of plan.steps.values())
    byLayer.set(`${s.recipe.id} ${s.layer.id}`, [...(byLayer.get(`${s.recipe.id} ${s.layer.id}`) ?? []), s]);
  const runs = [...byLayer.values()].filter((r) => r.length > 2 && factsOfRun(r).mix);
  const aRun = fc.constantFrom(...runs);

  it('adds up: what goes on the pieces is what is in it, in bottles and out of the jar', () => {
    fc.assert(
      fc.property(aRun, fc.double({ min: 0, max: 20, noNaN: true }), (run, leftMl) => {
        const mix = factsOfRun(run).mix!;
        const cup = plannedCup(mix, {
          id: 'j',
          mixture: '',
          family: null,
          leftMl,
          until: null,
          note: '',
          isLogged: true,
        });
        const all = [...sharedOut(cup, run).values()];
        cup.parts.forEach((p, k) =>
          expect(all.reduce((sum, c) => sum + c.parts[k]!.ml, 0)).toBeCloseTo(p.ml, 2),
        );
        const inAll = cup.parts.reduce((sum, p) => sum + p.ml, 0) + (cup.fromJar?.ml ?? 0);
        expect(Math.abs(inAll - mix.ml)).toBeLessThan(0.02 * (cup.parts.length + 1));
        const [first] = run;
        const rest = cupLeft(cup, run, [first!]);
        rest.parts.forEach((p, k) => {
          const own = sharedOut(cup, run).get(first!.id)!.parts[k]!.ml;
          expect(p.ml).toBeCloseTo(Math.max(0, cup.parts[k]!.ml - own), 1);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('is said with drops, and says when it comes out of a jar', () => {
    const words = cupWords({
      parts: [
        { name: 'cream', ml: 0.05 },
        { name: 'water', ml: 1 },
      ],
      fromJar: { jar: 'j', ml: 2 },
    });
    expect(words).toBe('cream 0.05 ml (1 drop) + water 1.00 ml (20 drops) + 2.00 ml out of the jar');
  });

  it('takes from the bottles what the log says, not what was planned', () => {
    const [run] = runs;
    const step = run![0]!;
    const own = muster.stores!.products[0]!;
    const log = [entry({ kind: 'done', step: step.id, minutes: 5, used: [{ name: own.name, ml: 4.5 }] })];
    const before = productUses(muster, plan).find((u) => u.name === own.name)!;
    const after = productUses(muster, plan, log).find((u) => u.name === own.name)!;
    expect(after.usedMl).toBeCloseTo(4.5, 9);
    expect(after.leftMl).toBeCloseTo(before.leftMl - 4.5, 9);
  });
});

describe('what runs out is told before the run', () => {
  const bottle = (
    id: string,
    name: string,
    colour: string,
    leftMl: number,
    part: Partial<Product> = {},
  ): Product => ({
    id,
    name,
    family: 'acrylic',
    colour,
    bottleMl: 17,
    leftMl,
    ...part,
  });
  const shelf = [
    bottle('a', 'Cream', '#efe6c8', 1),
    bottle('b', 'Bone', '#ece3c6', 12),
    bottle('c', 'Ivory', '#f4ecd2', 12),
    bottle('d', 'Navy', '#1c2742', 12),
    bottle('e', 'Pale, nearly empty', '#efe6c8', 0.5),
    bottle('f', 'Cream enamel', '#efe6c8', 12, { family: 'enamel' }),
  ];
  const stocked = withStores(muster, { ...storesOf(muster), products: shelf });

  it('with what is like it and enough, the nearest colour first; never another kind of paint', () => {
    const [short] = shortOf(stocked, plan, [], [{ name: 'cream', ml: 3 }]);
    expect(short).toMatchObject({ name: 'cream', neededMl: 3, leftMl: 1 });
    expect(short!.equivalents.map((e) => e.name)).toEqual(['Bone', 'Ivory']);
    expect(short!.equivalents[0]!.parts).toEqual([{ name: 'Bone', share: 1 }]);
  });

  it('with what the user has said may stand for it before all else, home-made ones by their parts', () => {
    const mixed = [
      {
        id: 'e',
        madeOf: {
          parts: [
            { id: '1', product: 'b', name: 'Bone', parts: 3 },
            { id: '2', product: 'd', name: 'Navy', parts: 1 },
          ],
        },
      },
      { id: 'f', madeOf: { parts: [{ id: '1', product: 'e', name: 'Pale, nearly empty', parts: 1 }] } },
    ];
    const products = shelf.map((p) =>
      p.id === 'a' ? { ...p, equivalents: mixed } : p.id === 'c' ? { ...p, verdict: 'never' as const } : p,
    );
    const own = withStores(muster, { ...storesOf(muster), products });
    const [short] = shortOf(own, plan, [], [{ name: 'cream', ml: 3 }]);
    expect(short!.equivalents.map((e) => e.name)).toEqual(['Bone, Navy 3:1', 'Bone']);
    expect(short!.equivalents[0]).toMatchObject({
      leftMl: 16,
      parts: [
        { name: 'Bone', share: 0.75 },
        { name: 'Navy', share: 0.25 },
      ],
    });
  });

  it('and is silent where there is enough, or it comes from the tap', () => {
    expect(
      shortOf(
        stocked,
        plan,
        [],
        [
          { name: 'Bone', ml: 12 },
          { name: 'Water', ml: 99 },
        ],
      ),
    ).toEqual([]);
    expect(shortOf(stocked, plan, [], [{ name: 'Not on the shelf', ml: 1 }])[0]!.equivalents).toEqual([]);
  });
});
