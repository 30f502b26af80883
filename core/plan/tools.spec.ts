/** Which airbrush a layer goes to, what it asks for that no airbrush has, what changing over costs; handles and cabinet. */
import { describe, expect, it } from 'vitest';
import type { Bench, Layer } from '#core/muster';
import { layer, smallMuster } from './testing';
import { airbrushOf, clockOf, handleOf, handles, lacksNozzle, sprayTools, toolName } from './tools';

const plain = smallMuster().bench;
const spray = (id: string, part: Partial<Layer> = {}): Layer => layer(id, { method: 'airbrush', ...part });
const MINUTES = { loadMinutes: 2, changeMinutes: 4, cleanMinutes: 9, idleMinutes: 30 };
const several: Bench = {
  ...plain,
  airbrush: { ...plain.airbrush, nozzleMm: 0.4 },
  moreAirbrushes: [
    { id: 'fine', name: 'Fine', role: 'colour', nozzleMm: 0.2, ...MINUTES },
    { id: 'wide', name: 'Wide', role: 'primer', nozzleMm: 0.5, ...MINUTES },
  ],
};

describe('the airbrush of a layer', () => {
  it('is the one whose role names its family, the first where none does', () => {
    expect(airbrushOf(several, spray('a', { family: 'primer' }))).toBe('airbrush-wide');
    expect(airbrushOf(several, spray('a'))).toBe('airbrush-fine');
    expect(airbrushOf(several, spray('a', { family: 'varnish' }))).toBe('airbrush');
    expect(airbrushOf(plain, spray('a', { family: 'primer' }))).toBe('airbrush');
  });

  it('has the nozzle that is asked for, whatever its role, where any has it', () => {
    expect(airbrushOf(several, spray('a', { nozzleMm: 0.5 }))).toBe('airbrush-wide');
    expect(airbrushOf(several, spray('a', { family: 'primer', nozzleMm: 0.2 }))).toBe('airbrush-fine');
    expect(airbrushOf(several, spray('a', { family: 'primer', nozzleMm: 0.8 }))).toBe('airbrush-wide');
  });

  it('is named where there are several, and only for what is sprayed', () => {
    expect(toolName(several, spray('a'))).toBe('airbrush “Fine”');
    expect(toolName(several, spray('a', { family: 'varnish' }))).toBe('first airbrush');
    expect(toolName(several, layer('a'))).toBeNull();
    expect(toolName(plain, spray('a'))).toBeNull();
  });

  it('is missing where all nozzles are known and none is as asked', () => {
    expect(lacksNozzle(several, spray('a', { nozzleMm: 0.8 }))).toBe(true);
    expect(lacksNozzle(several, spray('a', { nozzleMm: 0.2 }))).toBe(false);
    expect(lacksNozzle(several, spray('a'))).toBe(false);
    expect(lacksNozzle(several, layer('a', { nozzleMm: 0.8 }))).toBe(false);
    // The first one’s nozzle is not known: it may be that.
    const unknown = { ...several, airbrush: plain.airbrush };
    expect(lacksNozzle(unknown, spray('a', { nozzleMm: 0.8 }))).toBe(false);
  });
});

describe('what stands on the bench', () => {
  const loads = [
    spray('grey', { mixture: 'Grey' }),
    spray('gold', { family: 'metal', mixture: 'Gold' }),
    spray('ground', { family: 'primer', mixture: 'Ground' }),
  ];

  it('is each airbrush with the changes of what goes to it: a full clean after what is dirty', () => {
    const tools = sprayTools(plain, loads);
    expect(tools.map((t) => [t.id, t.capacity, t.calendar])).toEqual([['airbrush', 1, 'sessions']]);
    const { between, minutes, idle } = tools[0]!.setup!;
    expect([minutes, idle]).toEqual([5, 40]);
    const changes = between!.map(([from, to, m]) => `${from || 'clean'} → ${to}: ${m}`);
    expect(changes).toEqual([
      'clean → acrylic: grey: 3',
      'metal: gold → acrylic: grey: 10',
      'primer: ground → acrylic: grey: 10',
      'clean → metal: gold: 3',
      'primer: ground → metal: gold: 10',
      'clean → primer: ground: 3',
      'metal: gold → primer: ground: 10',
    ]);
    const own = sprayTools(several, loads).map((t) => [t.id, t.setup!.between!.map(([, to]) => to)]);
    expect(own).toEqual([
      ['airbrush', ['metal: gold']],
      ['airbrush-fine', ['acrylic: grey']],
      ['airbrush-wide', ['primer: ground']],
    ]);
  });

  it('keeps the quiet hours of the compressor, and has a booth where one is said', () => {
    const quiet = [{ id: 'q', from: '21:00', to: '08:00' }] as NonNullable<Bench['quiet']>;
    expect(sprayTools({ ...plain, quiet }, loads)[0]!.calendar).toBe('compressor');
    expect(sprayTools({ ...plain, boothPlaces: 4 }, loads)[1]).toEqual({ id: 'booth', capacity: 4 });
  });

  it('are handles by the size of a piece, where they are counted', () => {
    const bench: Bench = { ...plain, handles: { figure: 5 } };
    const [piece] = smallMuster().units[0]!.pieces;
    expect(handleOf(bench, piece!)).toBe('handle-figure');
    expect(handleOf(plain, piece!)).toBeNull();
    expect(handles(bench)).toEqual([{ id: 'handle-figure', capacity: 5 }]);
    expect(handles({ ...plain, handles: { figure: 0 } })).toEqual([]);
    expect(handles(plain)).toEqual([]);
  });

  it('is a cabinet with a clock of its own for what may go there; work does not dry', () => {
    const cabinet = { places: 4, celsius: 30, humidityPercent: 40 };
    const inside = layer('a', { inCabinet: true });
    expect(clockOf({ ...plain, cabinet }, inside)).toBe('cabinet-water');
    expect(clockOf({ ...plain, cabinet }, layer('a'))).toBe('water');
    expect(clockOf(plain, inside)).toBe('water');
    expect(clockOf(plain, layer('a', { family: 'work' }))).toBeNull();
  });
});
