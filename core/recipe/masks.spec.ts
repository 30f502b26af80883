/** Masks: what they cover from when to when, and that nothing over a covered zone counts as on it. */
import { describe, expect, it } from 'vitest';
import type { Layer, Recipe } from '#core/muster';
import { layer, smallMuster } from '../plan/testing';
import { shareOf } from '../amounts/area';
import { checkCraft, layersOn, linksOf, maskingOf, masksOf, zonesOf } from './index';

const ZONES = [
  { id: 'hull', name: 'Hull' },
  { id: 'deck', name: 'Deck' },
  { id: 'glass', name: 'Glass' },
];
const recipe = (layers: Layer[]): Recipe => ({ ...smallMuster(layers).recipes[0]!, zones: ZONES });
const ids = (list: readonly Layer[]): string[] => list.map((l) => l.id);

const TWO_TONE = recipe([
  layer('prime', { family: 'primer' }),
  layer('deck', { zones: ['deck'], dryMinutes: 120 }),
  layer('tape', { task: 'mask', family: 'work', zones: ['deck'] }),
  layer('hull', { zones: [] }),
  layer('off', { task: 'unmask', family: 'work', zones: ['deck'] }),
  layer('dust', { family: 'powder' }),
]);

describe('a mask', () => {
  it('covers its zones from where it is put on to where it is taken off', () => {
    expect(masksOf(TWO_TONE).map((m) => [m.layer.id, m.from, m.to, m.zones])).toEqual([
      ['tape', 2, 4, ['deck']],
    ]);
  });

  it('keeps what goes over it off: another zone gets it, the layers above go on both', () => {
    expect(zonesOf(TWO_TONE, TWO_TONE.layers[3]!)).toEqual(['hull', 'glass']);
    expect(ids(layersOn(TWO_TONE, 'deck'))).toEqual(['prime', 'deck', 'tape', 'off', 'dust']);
    expect(ids(layersOn(TWO_TONE, 'hull'))).toEqual(['prime', 'hull', 'dust']);
    expect(shareOf(TWO_TONE, TWO_TONE.layers[3]!)).toBeCloseTo(2 / 3, 9);
  });

  it('is on before what goes over it, and off after it; the colour over it does not rest on what it covers', () => {
    const id = (k: number): string => TWO_TONE.layers[k]!.id;
    const waits = linksOf(TWO_TONE).map((l) => `${id(l.from)} > ${id(l.to)}`);
    expect(waits.filter((w) => w.endsWith('> hull'))).toEqual(['prime > hull', 'tape > hull']);
    expect(waits).toContain('hull > off');
  });

  it('stands round a layer beside it too, which names none of its zones', () => {
    const beside = recipe(TWO_TONE.layers.map((l) => (l.id === 'hull' ? { ...l, zones: ['hull'] } : l)));
    const id = (k: number): string => beside.layers[k]!.id;
    const waits = linksOf(beside).map((l) => `${id(l.from)} > ${id(l.to)}`);
    expect(waits).toEqual(expect.arrayContaining(['tape > hull', 'hull > off']));
  });

  it('of salt lies in spots: paint over it goes on the zones that it names', () => {
    const salted = recipe(
      TWO_TONE.layers.map((l) => (l.id === 'tape' ? { ...l, masking: 'salt' as const } : l)),
    );
    expect(masksOf(salted)[0]!.zones).toEqual([]);
    expect(zonesOf(salted, salted.layers[3]!)).toEqual(['hull', 'deck', 'glass']);
  });

  it('that names no zone, or all, covers parts: a stripe of putty', () => {
    const stripe = recipe([
      layer('prime', { family: 'primer' }),
      layer('putty', { task: 'putty', family: 'work' }),
      layer('green'),
      layer('off', { task: 'unmask', family: 'work' }),
    ]);
    expect(masksOf(stripe)[0]!.zones).toEqual([]);
    expect(zonesOf(stripe, stripe.layers[2]!)).toEqual(['hull', 'deck', 'glass']);
  });

  it('never taken off covers nothing, and is told with its cure', () => {
    const left = recipe(TWO_TONE.layers.filter((l) => l.id !== 'off'));
    expect(zonesOf(left, left.layers[3]!)).toEqual(['hull', 'deck', 'glass']);
    const told = checkCraft(left).find((f) => f.rule === 'mask-left-on');
    expect(told?.text).toContain('never taken off');
    expect(told?.fix?.label).toBe('Add the unmasking');
  });

  it('may stay on glass until all is done, not on a colour until what lies on it is hard', () => {
    const over = (zone: string): Recipe =>
      recipe([
        layer('prime', { family: 'primer', zones: ['hull', 'deck'] }),
        layer('deck', { zones: ['deck'] }),
        layer('tape', { task: 'mask', family: 'work', zones: [zone] }),
        layer('hull', { zones: ['hull', 'glass'] }),
        layer('oil', { family: 'oil', dryMinutes: 2880, zones: ['hull'] }),
        layer('off', { task: 'unmask', family: 'work', zones: [zone] }),
      ]);
    const rules = (r: Recipe): string[] => checkCraft(r).map((f) => f.rule);
    expect(rules(over('deck'))).toContain('mask-left-on');
    expect(rules(over('glass'))).not.toContain('mask-left-on');
    expect(rules(over('glass'))).not.toContain('zone-without-colour');
  });
});

describe('what one masks with', () => {
  const masked = (masking: Layer['masking'], over: Partial<Layer> = {}): string[] =>
    checkCraft(
      recipe([
        layer('prime', { family: 'primer' }),
        layer('deck', { zones: ['deck'], dryMinutes: 60 }),
        layer('mask', { task: 'mask', family: 'work', zones: ['deck'], dryMinutes: 20, masking }),
        layer('hull', over),
        layer('off', { task: 'unmask', family: 'work', zones: ['deck'] }),
      ]),
    ).map((f) => f.rule);

  it('pulls young paint off where it sticks: tape and liquid mask, not a stencil, paper or salt', () => {
    expect(masked('tape')).toContain('tape-on-young');
    expect(masked(undefined)).toContain('tape-on-young');
    expect(masked('liquid')).toContain('tape-on-young');
    for (const loose of ['stencil', 'paper', 'salt'] as const)
      expect(masked(loose)).not.toContain('tape-on-young');
  });

  it('may stay as long as it bears: tape until the paint hardens, a stencil an hour, salt as one likes', () => {
    const left = (masking: Layer['masking'], dryMinutes: number): boolean =>
      masked(masking, { dryMinutes }).includes('mask-left-on');
    expect([left('tape', 720), left('tape', 721)]).toEqual([false, true]);
    expect([left('stencil', 60), left('stencil', 61)]).toEqual([false, true]);
    expect(left('salt', 5000)).toBe(false);
  });

  it('is putty where the step is one of putty, and nothing where it does not mask', () => {
    expect(maskingOf(layer('p', { task: 'putty' }))?.name).toBe('putty');
    expect(maskingOf(layer('x', { masking: 'tape' }))).toBeNull();
  });
});
