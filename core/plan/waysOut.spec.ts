/** Single changes that may save a date: each is offered where there is something to change, and changes that and nothing else. */
import { describe, expect, it } from 'vitest';
import { storesOf, type Layer, type Muster, type Piece, type Unit } from '#core/muster';
import { inPairs, optionalLayers, waysOut, type WayOut } from './index';
import { layer, smallMuster } from './testing';

const LAYERS = [
  layer('prime', { family: 'primer', dryMinutes: 60 }),
  layer('base', { mixture: 'green' }),
  layer('wash', {
    family: 'enamel',
    dryMinutes: 240,
    level: 3,
    substitute: {
      name: 'quick wash',
      family: 'acrylic-wash',
      method: 'brush',
      coats: 1,
      minutes: 5,
      dryMinutes: 30,
    },
  }),
  layer('matt', { family: 'varnish', dryMinutes: 120, level: 2 }),
];
const plain = smallMuster(LAYERS);
const [unit] = plain.units;
const piece = (k: number, part: Partial<Piece> = {}): Piece => ({
  ...unit!.pieces[0]!,
  id: `p${k}`,
  name: `Ferry ${k}`,
  ...part,
});

function muster(part: Partial<Unit> = {}, more: Partial<Muster> = {}): Muster {
  return {
    ...plain,
    units: [
      { ...unit!, ...part },
      { ...unit!, id: 'other', name: 'Barges' },
    ],
    ...more,
  };
}

function way(m: Muster, id: string, spares: readonly string[] = []): WayOut | undefined {
  return waysOut(m, ['u'], 0, spares).find((w) => w.id === id);
}
const done = (m: Muster, id: string, spares: readonly string[] = []): Muster => way(m, id, spares)!.apply(m);

describe('ways out', () => {
  it('are none without anybody late, and each has its own name, price and words', () => {
    expect(waysOut(muster(), [], 0)).toEqual([]);
    expect(waysOut(muster(), ['nobody'], 0)).toEqual([]);
    const ways = waysOut(muster(), ['u'], 0);
    expect(new Set(ways.map((w) => w.id)).size).toBe(ways.length);
    for (const w of ways) expect([w.label, w.costs].every((text) => text.length > 3)).toBe(true);
  });

  it('lengthen every session of the week by half an hour, not beyond midnight', () => {
    const late = { ...plain.bench.weekly[0]!, id: 'late', weekday: 6, from: '22:00', to: '23:45' };
    const m = muster({}, { bench: { ...plain.bench, weekly: [plain.bench.weekly[0]!, late] } });
    expect(done(m, 'longer').bench.weekly.map((w) => w.to)).toEqual(['21:30', '24:00']);
    expect(done(m, 'longer').units).toEqual(m.units);
  });

  it('light the first day that is shut, after help is needed, and none where every day is open', () => {
    expect(way(muster(), 'extra')).toBeUndefined();
    // Mondays and Tuesdays only: 2027-03-01 is a Monday.
    const weekly = plain.bench.weekly.filter((w) => w.weekday <= 2);
    const m = muster({}, { bench: { ...plain.bench, weekly } });
    expect(done(m, 'extra').bench.exceptions).toEqual([
      { id: 'extra-2027-03-03', date: '2027-03-03', sessions: [{ from: '19:00', to: '22:00' }] },
    ]);
    expect(waysOut(m, ['u'], 3 * 1440).find((w) => w.id.startsWith('extra'))!.label).toContain('Fri 5');
  });

  it('bring a second pair of hands', () => {
    expect(done(muster(), 'helper').bench.people.map((p) => p.id)).toEqual(['me', 'helper']);
  });

  it('finish that unit to a lower level, the highest two first, never to the one that it has', () => {
    const ids = (m: Muster): string[] =>
      waysOut(m, ['u'], 0).flatMap((w) => (w.id.startsWith('level') ? [w.id] : []));
    expect(ids(muster())).toEqual(['level-3', 'level-2']);
    expect(ids(muster({ level: 3 }))).toEqual(['level-2']);
    const many = LAYERS.map((l, k) => ({ ...l, level: [1, 3, 2, 1][k] }));
    const recipes = plain.recipes.map((r) => ({ ...r, layers: many }));
    expect(ids(muster({}, { recipes: [{ ...recipes[0]!, id: 'else' }, ...recipes] }))).toEqual([
      'level-3',
      'level-2',
    ]);
    expect(done(muster(), 'level-2').units.map((u) => u.level)).toEqual([2, undefined]);
  });

  it('leave an effect off that unit alone, in a recipe of its own', () => {
    const after = done(muster(), 'without-r-wash');
    const [shorter] = after.recipes.filter((r) => r.id !== 'r');
    expect(shorter!.layers.map((l) => l.id)).toEqual(['prime', 'base', 'matt']);
    expect(after.units[0]!.pieces.every((p) => p.recipe === shorter!.id)).toBe(true);
    expect(after.units[1]!.pieces.every((p) => p.recipe === 'r')).toBe(true);
    // Ground, colour and seal stay.
    expect(waysOut(muster(), ['u'], 0).filter((w) => w.id.startsWith('without'))).toHaveLength(1);
    const tied = muster({ pieces: [piece(1, { startsAt: 'wash' }), piece(2)] });
    expect(way(tied, 'without-r-wash')).toBeUndefined();
  });

  it('leave off what saves most first, and nothing that another layer goes by', () => {
    const streaks = layer('streaks', { family: 'ink', dryMinutes: 30 });
    const effects = (...more: Layer[]): string[] => {
      const recipes = plain.recipes.map((r) => ({ ...r, layers: [...LAYERS, ...more] }));
      const m = muster({}, { recipes });
      return optionalLayers(m, m.units[0]!).map((o) => o.layer.id);
    };
    expect(effects(streaks)).toEqual(['wash', 'streaks']);
    expect(effects({ ...streaks, dryMinutes: 600 })).toEqual(['streaks', 'wash']);
    expect(effects(streaks, layer('after', { waitsFor: ['streaks'] }))).not.toContain('streaks');
    expect(effects(streaks, layer('after', { judgeFrom: 'streaks' }))).not.toContain('streaks');
    const through = { opensMinutes: 5, closesMinutes: 60, preferMinutes: null, through: 'streaks' };
    expect(effects(layer('before', { window: through }), streaks)).not.toContain('streaks');
  });

  it('pack what is shipped before it has hardened through, where anything is', () => {
    expect(way(muster(), 'packed-soft')).toBeUndefined();
    const m = muster({ pieces: [piece(1, { use: 'shipped' }), piece(2, { use: 'played' })] });
    expect(done(m, 'packed-soft').units[0]!.pieces.map((p) => p.isPackedSoft)).toEqual([true, undefined]);
    const soft = muster({ pieces: [piece(1, { use: 'shipped', isPackedSoft: true })] });
    expect(way(soft, 'packed-soft')).toBeUndefined();
  });

  it('let the later half come a week later, but nothing that hangs together, and no pilot', () => {
    const pieces = [
      piece(1, { isPilot: true }),
      piece(2),
      piece(3, { joins: { piece: 'p4', layer: 'matt' } }),
      piece(4),
      piece(5),
      piece(6),
    ];
    const [first, second] = done(muster({ pieces }), 'second-wave').units;
    expect(first!.pieces.map((p) => p.id)).toEqual(['p1', 'p2', 'p3', 'p4', 'p5']);
    expect(second!.pieces.map((p) => p.id)).toEqual(['p6']);
    expect([first!.table, second!.table]).toEqual(['2027-03-05T12:00', '2027-03-12T12:00']);
    expect(second!.name).toContain('second wave');
    expect(way(muster({ pieces: [piece(1)] }), 'second-wave')).toBeUndefined();
  });

  it('take the substitute where one is set and not yet taken', () => {
    const after = done(muster(), 'acrylic');
    expect(after.recipes[0]!.layers.find((l) => l.id === 'wash')!.usesSubstitute).toBe(true);
    expect(way(after, 'acrylic')).toBeUndefined();
  });

  it('put what dries slowly on a dry shelf, where the air is not dry as it is', () => {
    const after = done(muster(), 'dry-shelf');
    expect(after.bench.cabinet).toEqual({ places: 6, celsius: 21, humidityPercent: 40 });
    expect(after.recipes[0]!.layers.flatMap((l) => (l.inCabinet ? [l.id] : []))).toEqual([
      'prime',
      'wash',
      'matt',
    ]);
    expect(way(after, 'dry-shelf')).toBeUndefined();
    const { climate } = plain.bench;
    const dry = { ...climate, day: { ...climate.day, humidityPercent: 45 } };
    expect(way(muster({}, { bench: { ...plain.bench, climate: dry } }), 'dry-shelf')).toBeUndefined();
  });

  it('buy a spare of what may run out, a bottle of its size', () => {
    const product = {
      id: 'g',
      name: 'Green',
      family: 'acrylic' as const,
      colour: '#335533',
      leftMl: 3,
      bottleMl: 17,
    };
    const m = muster({}, { stores: { ...storesOf(plain), products: [product] } });
    expect(done(m, 'spare-g', ['Green']).stores!.products[0]!.leftMl).toBe(20);
    expect(way(m, 'spare-g')).toBeUndefined();
    expect(waysOut(m, ['u'], 0, ['Unheard of']).some((w) => w.id.startsWith('spare'))).toBe(false);
  });

  it('let it go before everything else', () => {
    const m = muster({ importance: 2 });
    expect(done(m, 'first').units.map((u) => u.importance)).toEqual([5, 1]);
  });

  it('come in pairs of different kinds, one after the other', () => {
    const ways = waysOut(muster(), ['u'], 0);
    const pairs = inPairs(ways);
    expect(pairs.some((p) => p.id === 'level-3+level-2')).toBe(false);
    const both = pairs.find((p) => p.id === 'longer+helper')!;
    const after = both.apply(muster());
    expect([after.bench.people.length, after.bench.weekly[0]!.to]).toEqual([2, '21:30']);
    expect(both.costs).toContain(', and ');
    expect(new Set(pairs.map((p) => p.id)).size).toBe(pairs.length);
  });
});
