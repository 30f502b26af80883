/** Where rules and schools begin and end to apply: each just within, and just without. Common practice, no source. */
import { describe, expect, it } from 'vitest';
import type { Layer, Look, Looks, Recipe } from '#core/muster';
import { layer } from '../plan/testing';
import { checkCraft, composed, FIRST_LOOKS, layerByBrush, linksOf, revised } from './index';

const recipe = (layers: Layer[], extra: Partial<Recipe> = {}): Recipe => ({
  id: 'r',
  name: 'Hull',
  zones: [],
  layers,
  ...extra,
});
const rulesOf = (of: Recipe): string[] => checkCraft(of).map((f) => f.rule);
const wished = (list: Omit<Look, 'id'>[], extra: Partial<Looks> = {}): Looks => ({
  ...FIRST_LOOKS,
  ...extra,
  list: [...FIRST_LOOKS.list, ...list.map((l, k) => ({ ...l, id: `w${k}` }))],
});
const look = (kind: Look['kind']): Omit<Look, 'id'> => ({
  kind,
  zones: [],
  strength: 'normal',
  colour: '#d0b080',
});

describe('a light, saturated colour over a dark primer', () => {
  const over = (primer: string, colour: string, extra: Partial<Layer> = {}): boolean =>
    rulesOf(
      recipe([layer('prime', { family: 'primer', colour: primer }), layer('base', { colour, ...extra })]),
    ).includes('light-over-dark-primer');

  it.each([
    ['black', '#101010', '#f0c020', true],
    ['grey', '#8d9294', '#f0c020', false],
    ['black', '#101010', '#c8c4c0', false],
    ['black', '#101010', '#601008', false],
  ])('on %s %s: %s is told, or not', (_, primer, colour, isTold) => {
    expect(over(primer, colour)).toBe(isTold);
  });

  it('is well in three coats', () => {
    expect(over('#101010', '#f0c020', { coats: 2 })).toBe(true);
    expect(over('#101010', '#f0c020', { coats: 3 })).toBe(false);
  });
});

describe('a decal', () => {
  const on = (sheen: Layer['sheen'], ...more: Layer[]): boolean =>
    rulesOf(
      recipe([
        layer('base'),
        layer('coat', { family: 'varnish', sheen, dryMinutes: 240 }),
        layer('decal', { family: 'work', task: 'decal' }),
        ...more,
      ]),
    ).includes('decal-on-matt');

  it('silvers on matt, and not on satin, on gloss or where it is softened', () => {
    expect(['matt', 'satin', 'gloss'].map((sheen) => on(sheen as Layer['sheen']))).toEqual([
      true,
      false,
      false,
    ]);
    expect(on('matt', layer('soft', { family: 'work', task: 'softener' }))).toBe(false);
  });
});

describe('drying aids', () => {
  const aids = (school: string): (readonly [string, string])[] =>
    composed({ zones: [], schools: { aids: school } }, wished([look('chipping')])).flatMap((l) =>
      l.aid || l.inCabinet ? [[l.family, l.aid ?? 'cabinet'] as const] : [],
    );

  it('are none for the patient', () => {
    expect(aids('patience')).toEqual([]);
  });

  it('are moving air on seals and chipping media, or the cabinet on seals and solvents, and never on a medium', () => {
    const air = aids('cool');
    expect(air.length).toBeGreaterThan(0);
    expect(new Set(air.map(([, aid]) => aid))).toEqual(new Set(['moving-air']));
    expect(new Set(air.map(([family]) => family))).toEqual(new Set(['medium', 'varnish']));
    const warm = aids('cabinet');
    expect(warm.length).toBeGreaterThan(0);
    expect(warm.every(([family, aid]) => aid === 'cabinet' && family !== 'medium')).toBe(true);
  });
});

describe('the last coat', () => {
  const sheens = (zone: Recipe['zones'][number]['sheen'], sheen: Looks['sheen']): Layer['sheen'][] =>
    composed({ zones: [{ id: 'z', name: 'Sides', ...(zone ? { sheen: zone } : {}) }] }, wished([], { sheen }))
      .filter((l) => l.id.startsWith('last'))
      .map((l) => l.sheen);

  it('has the sheen of its zone where that is one of a varnish, else that of the whole', () => {
    expect(sheens('gloss', 'matt')).toContain('gloss');
    expect(sheens('satin', 'matt')).toContain('satin');
    expect(sheens('matt', 'gloss')).toContain('matt');
    expect(sheens(undefined, 'gloss')).toEqual(['gloss']);
  });
});

describe('markings', () => {
  const by = (schools: Record<string, string>): Layer[] =>
    composed({ zones: [], schools }, wished([look('markings'), look('chipping')]));
  const at = (layers: Layer[], name: RegExp): number => layers.findIndex((l) => name.test(l.name));

  it('are decals, or painted freehand in traces at any time', () => {
    expect(at(by({}), /^Decals/)).toBeGreaterThan(0);
    const free = by({ decals: 'freehand' }).find((l) => l.name.startsWith('Markings freehand'))!;
    expect(free).toMatchObject({ family: 'ink', method: 'brush', pausable: true, reach: 'traces' });
    expect(at(by({ decals: 'freehand' }), /^Decals/)).toBe(-1);
  });
});

describe('dust without solvents', () => {
  it('is dry-brushed on the edges; with them it is powder', () => {
    const dust = (noSolvents: boolean): Layer =>
      composed({ zones: [] }, wished([look('dust')], { noSolvents })).find((l) => l.name.startsWith('Dust'))!;
    expect(dust(true)).toMatchObject({ family: 'acrylic', dryMinutes: 10, reach: 'edges' });
    expect(dust(false).family).toBe('powder');
  });
});

describe('a layer by brush', () => {
  it('takes longer, and has neither nozzle nor pressure; what is not sprayed stays as it is', () => {
    const sprayed = layer('base', { method: 'airbrush', minutes: 3, nozzleMm: 0.3, pressureBar: 1.2 });
    const { nozzleMm, pressureBar, ...rest } = sprayed;
    expect([nozzleMm, pressureBar]).toEqual([0.3, 1.2]);
    expect(layerByBrush(sprayed)).toEqual({ ...rest, method: 'brush', minutes: 8 });
    const sponge = layer('chips', { method: 'sponge' });
    expect(layerByBrush(sponge)).toBe(sponge);
  });
});

describe('what the hand has placed', () => {
  it('stays over what it lay on when the rest is composed anew, once', () => {
    const before = revised(recipe([]), { looks: wished([look('dust')]) }).recipe;
    const own = layer('own', { name: 'Spare part' });
    const at = before.layers.length - 1;
    const by = { ...before, layers: [...before.layers.slice(0, at), own, ...before.layers.slice(at)] };
    const after = revised(by, { looks: wished([look('dust'), look('details')]) }).recipe.layers;
    expect(after.filter((l) => l.id === 'own')).toHaveLength(1);
    const under = before.layers[at - 1]!.id;
    expect(after[after.findIndex((l) => l.id === 'own') - 1]!.id).toBe(under);
  });
});

describe('two ties between the same layers', () => {
  it('are one: the longer wait and the nearer end', () => {
    const window = { opensMinutes: 10, closesMinutes: 90, preferMinutes: 40, through: 'top' };
    const of = recipe([
      layer('medium', { family: 'medium', dryMinutes: 25, window }),
      layer('top', { waitsFor: ['medium'] }),
    ]);
    const ties = linksOf(of).filter((l) => l.from === 0 && l.to === 1);
    expect(ties).toHaveLength(1);
    expect(ties[0]).toMatchObject({ max: 90, prefer: 40 });
    expect(ties[0]!.min).toBeGreaterThanOrEqual(10);
  });
});
