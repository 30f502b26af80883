/** The order of sprayed colours that needs the fewest masks, against trying every order. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Layer, Recipe } from '#core/muster';
import { layer, smallMuster } from '../plan/testing';
import { checkRecipe, maskOrders, masksOf, withTouch, zonesOf, zonesTouch } from './index';

const recipe = (zones: readonly string[], layers: Layer[]): Recipe => ({
  ...smallMuster(layers).recipes[0]!,
  zones: zones.map((id) => ({ id, name: id })),
});
const sprayed = (id: string, zones: string[], more: Partial<Layer> = {}): Layer =>
  layer(id, { zones, method: 'airbrush', ...more });
const tape = (id: string, zones: string[]): Layer =>
  layer(id, { task: 'mask', family: 'work', method: 'hand', zones });
const untape = (id: string, zones: string[]): Layer =>
  layer(id, { task: 'unmask', family: 'work', method: 'hand', zones });
const ids = (list: readonly { readonly id: string }[]): string[] => list.map((l) => l.id);

/** A hull between a deck and a stripe: deck and stripe touch only the hull. */
const CHAIN = ['deck', 'hull', 'stripe'];
const chain = (layers: Layer[]): Recipe => withTouch(recipe(CHAIN, layers), 'deck', 'stripe', false);

describe('zones', () => {
  it('count as touching until something is said of them', () => {
    const bare = recipe(CHAIN, []);
    expect(zonesTouch(bare, 'deck', 'stripe')).toBe(true);
    const told = withTouch(bare, 'deck', 'stripe', false);
    expect(zonesTouch(told, 'deck', 'stripe')).toBe(false);
    expect(zonesTouch(told, 'stripe', 'hull')).toBe(true);
    expect(zonesTouch(withTouch(told, 'stripe', 'deck', true), 'deck', 'stripe')).toBe(true);
  });
});

describe('the fewest masks', () => {
  it('cover the middle once, if it comes first, instead of both ends', () => {
    const [found] = maskOrders(
      chain([
        layer('prime', { family: 'primer', method: 'airbrush' }),
        sprayed('green', ['deck']),
        sprayed('white', ['stripe']),
        tape('tape', ['deck', 'stripe']),
        sprayed('grey', ['hull']),
        untape('off', ['deck', 'stripe']),
        layer('dust', { family: 'powder' }),
      ]),
    );
    expect(found!.now).toBe(2);
    expect(found!.fewest).toBe(1);
    expect(found!.isProved).toBe(true);
    expect(ids(found!.order)).toEqual(['grey', 'green', 'white']);
    expect(ids(found!.recipe.layers)).toEqual([
      'prime',
      'grey',
      'mask-1',
      'green',
      'white',
      'unmask-1',
      'dust',
    ]);
    expect(found!.recipe.layers[2]!.name).toBe('Mask: hull');
    expect(masksOf(found!.recipe).map((m) => m.zones)).toEqual([['hull']]);
    expect(checkRecipe(found!.recipe).filter((f) => f.severity === 'error')).toEqual([]);
  });

  it('leave what has to come first where it is: a colour all over comes before what is sprayed on it', () => {
    const [found] = maskOrders(
      chain([sprayed('grey', []), sprayed('green', ['deck']), sprayed('white', ['stripe'])]),
    );
    expect(ids(found!.order)).toEqual(['grey', 'green', 'white']);
    expect(found!.now).toBe(0);
    expect(found!.fewest).toBe(1);
    expect(found!.bare.map((b) => [b.zone, b.layer.id])).toEqual([['hull', 'green']]);
  });

  it('need none on a zone that is painted over by brush afterwards, nor for what is brushed', () => {
    const over = chain([
      sprayed('grey', ['hull']),
      sprayed('green', ['deck']),
      layer('hull2', { zones: ['hull'] }),
    ]);
    expect(maskOrders(over)).toEqual([]);
    const brushed = chain([sprayed('grey', ['hull']), layer('green', { zones: ['deck'] })]);
    expect(maskOrders(brushed)).toEqual([]);
  });

  it('let alone what is masked in parts, or stays masked for what comes after', () => {
    const parts = chain([
      sprayed('grey', ['hull']),
      tape('t', []),
      sprayed('green', ['deck']),
      untape('u', []),
    ]);
    expect(maskOrders(parts)).toEqual([]);
    const long = chain([
      sprayed('grey', ['hull']),
      tape('t', ['hull']),
      sprayed('green', ['deck']),
      layer('wash', { family: 'enamel', method: 'brush', zones: ['deck'] }),
      untape('u', ['hull']),
    ]);
    expect(maskOrders(long)).toEqual([]);
  });

  it('are all zones but the largest set of which none touch: 6 on the Petersen graph, 4 on the cube', () => {
    // Independence numbers: 4 of the Petersen graph's 10 vertices, 4 of the cube's 8 (Harary, Graph Theory, 1969, from memory).
    const petersen = Array.from({ length: 5 }, (_, k) => [
      [k, (k + 1) % 5],
      [k, k + 5],
      [k + 5, ((k + 2) % 5) + 5],
    ]).flat();
    const cube = Array.from({ length: 8 }, (_, k) => [1, 2, 4].map((bit) => [k, k ^ bit])).flat();
    const fewest = (n: number, edges: readonly number[][]): number => {
      const zones = Array.from({ length: n }, (_, k) => ({
        id: `z${k}`,
        name: `z${k}`,
        touches: edges.flatMap(([a, b]) => (a === k ? [`z${b}`] : b === k ? [`z${a}`] : [])),
      }));
      const base = recipe(
        [],
        zones.map((z) => sprayed(`on-${z.id}`, [z.id])),
      );
      return maskOrders({ ...base, zones })[0]!.fewest;
    };
    expect(fewest(10, petersen)).toBe(6);
    expect(fewest(8, cube)).toBe(4);
  });

  it('are about half of a long ring, each beside two others, without a proof', () => {
    const n = 20;
    const zones = Array.from({ length: n }, (_, k) => ({
      id: `z${k}`,
      name: `z${k}`,
      touches: [`z${(k + 1) % n}`, `z${(k + n - 1) % n}`],
    }));
    const base = recipe(
      [],
      zones.map((z) => sprayed(`on-${z.id}`, [z.id])),
    );
    const [found] = maskOrders({ ...base, zones });
    expect(found!.isProved).toBe(false);
    expect(found!.fewest).toBeGreaterThanOrEqual(10);
    expect(found!.fewest).toBeLessThanOrEqual(12);
  });

  it('are as few as trying every order finds (300 random schemes)', () => {
    const scheme = fc.integer({ min: 2, max: 5 }).chain((n) =>
      fc.record({
        n: fc.constant(n),
        apart: fc.array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1)), { maxLength: n * n }),
        colours: fc.array(fc.uniqueArray(fc.nat(n - 1), { minLength: 1, maxLength: n }), {
          minLength: 2,
          maxLength: 5,
        }),
      }),
    );
    let several = 0;
    fc.assert(
      fc.property(scheme, ({ n, apart, colours }) => {
        const zones = Array.from({ length: n }, (_, k) => `z${k}`);
        const base = recipe(
          zones,
          colours.map((on, k) =>
            sprayed(
              `c${k}`,
              on.map((z) => `z${z}`),
            ),
          ),
        );
        const told = apart
          .filter(([a, b]) => a !== b)
          .reduce((r, [a, b]) => withTouch(r, `z${a}`, `z${b}`, false), base);
        const [found] = maskOrders(told);
        if (!found) return;
        several++;
        expect(found.fewest).toBe(fewestByTrying(told));
        const again = maskOrders(found.recipe)[0]!;
        expect([again.now, again.fewest, again.bare]).toEqual([found.fewest, found.fewest, []]);
      }),
      { numRuns: 300, seed: 22 },
    );
    expect(several).toBeGreaterThan(100);
  });
});

/** By every order that leaves colours on a shared zone as they are: zones that have their last colour while one beside them is sprayed. */
function fewestByTrying(r: Recipe): number {
  const on = r.layers.map((l) => zonesOf(r, l));
  const places = r.layers.map((_, k) => k);
  return Math.min(
    ...ordersOf(places)
      .filter((o) =>
        o.every((k, p) => o.slice(p).every((j) => j >= k || !on[j]!.some((z) => on[k]!.includes(z)))),
      )
      .map((o) => {
        const covered = new Set<string>();
        o.forEach((k, p) => {
          for (const { id } of r.zones) {
            const last = o.findLastIndex((j) => on[j]!.includes(id));
            if (last >= 0 && last < p && on[k]!.some((z) => zonesTouch(r, id, z))) covered.add(id);
          }
        });
        return covered.size;
      }),
  );
}

function ordersOf(list: readonly number[]): number[][] {
  if (list.length === 0) return [[]];
  return list.flatMap((x) => ordersOf(list.filter((y) => y !== x)).map((rest) => [x, ...rest]));
}
