/** `npm run bench -- variety`: how long a deal, all briefs and the masks of a unit take, and what the deal comes to, by the number of pieces. */
import type { Layer, Muster, Piece } from '#core/muster';
import { maskOrders, masksOf, zonesOf } from '#core/recipe';
import { allot, briefsOf, deal, type Dealt } from '#core/variety';
import { figure, table } from './table';

/** Colours sprayed beside one another. */
const COLOURS = [3, 6, 10, 14, 20];
const SIZES = [12, 50, 200, 500, 1000];
const EFFECTS = ['Rust streaks', 'Quay dust', 'Mud', 'Dark chips'] as const;

function layer(id: string, part: Partial<Layer> = {}): Layer {
  return {
    id,
    name: id,
    colour: '#808080',
    family: 'acrylic',
    method: 'brush',
    zones: [],
    mixture: '',
    coats: 1,
    minutes: 5,
    dryMinutes: 20,
    window: null,
    waitsFor: [],
    pausable: false,
    note: '',
    ...part,
  };
}

function fleet(base: Muster, count: number): Muster {
  const recipe = {
    id: 'r',
    name: 'Hull',
    zones: ['Sides', 'Deck', 'Glass'].map((name) => ({ id: name, name })),
    layers: [
      layer('prime', { family: 'primer' }),
      layer('tape', { task: 'mask', family: 'work', zones: ['Deck'] }),
      layer('base'),
      layer('off', { task: 'unmask', family: 'work', zones: ['Deck'] }),
      ...EFFECTS.map((name) =>
        layer(name, { name, family: 'acrylic-wash', reach: 'traces', isOptional: true }),
      ),
      layer('matt', { family: 'varnish', sheen: 'matt' }),
    ],
  };
  const pieces = Array.from({ length: count }, (_, k): Piece => ({
    id: `p${k}`,
    name: `Barge ${k + 1}`,
    recipe: 'r',
    count: 1,
    places: 1,
    joins: null,
  }));
  const [unit] = base.units;
  return {
    ...base,
    recipes: [recipe],
    units: [{ ...unit!, pieces, deal: { seed: 1, perRow: 10, variety: 'usual' } }],
  };
}

function timed<T>(act: () => T): readonly [T, number] {
  const begun = performance.now();
  const result = act();
  return [result, performance.now() - begun];
}

/** @param base any muster: its bench is used */
export function benchVariety(base: Muster, print: (text: string) => void): void {
  const rows = SIZES.map((count) => {
    const muster = fleet(base, count);
    const [unit] = muster.units;
    const [recipe] = muster.recipes;
    const dealt = (variety: 'usual' | 'various'): readonly [Dealt, number] =>
      timed(() => deal(muster, unit!, recipe!, { seed: 1, perRow: 10, variety }));
    const [usual, usualMs] = dealt('usual');
    const [various, variousMs] = dealt('various');
    const [, briefsMs] = timed(() => briefsOf(muster, unit!));
    const [, masksMs] = timed(() =>
      unit!.pieces.map(() => {
        const own = { ...recipe! };
        return [masksOf(own), own.layers.map((l) => zonesOf(own, l))];
      }),
    );
    const sheet = {
      id: 'm',
      name: 'numbers',
      unit: null,
      perPiece: 2,
      left: count,
      policy: 'every-side' as const,
      numbers: { from: 1, to: count },
    };
    const [, markedMs] = timed(() => allot(sheet, unit!.pieces, count));
    const told = (d: Dealt): string => `${d.alike.length} alike${d.isBest ? ', none better' : ''}`;
    return [
      String(count),
      `${figure(usualMs)} ms`,
      told(usual),
      `${figure(variousMs)} ms`,
      told(various),
      `${figure(briefsMs)} ms`,
      `${figure(masksMs)} ms`,
      `${figure(markedMs)} ms`,
    ];
  });
  print('\nVariety: four effects and an age, in rows of ten');
  const orders = COLOURS.map((count) => {
    const zones = Array.from({ length: count }, (_, k) => ({ id: `z${k}`, name: `z${k}` }));
    const layers = zones.map((z) => layer(`on ${z.id}`, { zones: [z.id], method: 'airbrush' }));
    const ring = zones.map((z, k) => ({
      ...z,
      touches: [zones[(k + 1) % count]!.id, zones[(k + count - 1) % count]!.id],
    }));
    const [[found], ms] = timed(() => maskOrders({ id: 'r', name: 'Hull', zones: ring, layers }));
    return [String(count), `${figure(ms)} ms`, `${found!.fewest}${found!.isProved ? ', proved' : ''}`];
  });
  print(table(['pieces', 'dealt', 'pairs', 'more various', 'pairs', 'briefs', 'masks', 'markings'], rows));
  print('\nFewest masks of colours in a ring, each beside two others: half of them, rounded up');
  print(table(['colours', 'found in', 'masks'], orders));
}
