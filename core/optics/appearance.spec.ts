/** How layers look over one another: facts of the trade (common practice, no source), and what must hold for any stack. */
import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { FAMILY_IDS, REACHES } from '#core/materials';
import type { Layer, Product } from '#core/muster';
import { appearanceOf, type Sight } from './appearance';
import { differenceOf, labOf } from './colour';
import { canOvershoot, effectsOf, overshotColour } from './contrast';
import { productsByName } from './paint';

const layer = (id: string, colour: string, extra: Partial<Layer> = {}): Layer => ({
  id,
  name: id,
  colour,
  family: 'acrylic',
  method: 'airbrush',
  zones: [],
  mixture: '',
  coats: 2,
  minutes: 5,
  dryMinutes: 20,
  window: null,
  waitsFor: [],
  pausable: false,
  note: '',
  ...extra,
});
const varnish = (sheen: 'matt' | 'satin' | 'gloss'): Layer =>
  layer(sheen, '#cccccc', { family: 'varnish', sheen, coats: 1 });
const NONE = productsByName([]);
const end = (...layers: Layer[]): Sight => appearanceOf(layers, NONE).at(-1)!;
const lightness = (colour: string): number => labOf(colour).l;
const white = layer('white', '#f4f4f2');
const black = layer('black', '#141414');
const cream = layer('cream', '#e6dcc0');
const rust = layer('rust', '#5b2f1c');

describe('a stack of layers looks as the trade says', () => {
  it('two coats of a paint are its own colour, and one thin one is not', () => {
    expect(differenceOf(end(black, { ...cream, coats: 4 }).face, cream.colour)).toBeLessThan(3);
    expect(differenceOf(end(black, { ...cream, coats: 1, film: 'thin' }).face, cream.colour)).toBeGreaterThan(
      8,
    );
  });

  it('a thin blue over yellow turns green', () => {
    const yellow = layer('yellow', '#f2cf2c');
    const glaze = layer('blue', '#2f5aa0', { family: 'ink', coats: 1 });
    const { a, b } = labOf(end(white, yellow, glaze).face);
    const hue = ((Math.atan2(b, a) * 180) / Math.PI + 360) % 360;
    expect(hue).toBeGreaterThan(100);
    expect(hue).toBeLessThan(200);
    expect(hue).toBeGreaterThan(
      ((Math.atan2(labOf('#f2cf2c').b, labOf('#f2cf2c').a) * 180) / Math.PI + 360) % 360,
    );
  });

  it('the same paint is lighter over silver than over black', () => {
    const silver = layer('silver', '#b4b8bc', { family: 'metal' });
    const coat = layer('coat', '#8f3a34', { coats: 1, film: 'thin', mixture: 'red, medium 1:3' });
    expect(lightness(end(silver, coat).face)).toBeGreaterThan(lightness(end(black, coat).face) + 1);
  });

  it('matt greys a black that gloss deepens, and hardly moves a white', () => {
    const gain = (under: Layer): number =>
      lightness(end(under, varnish('matt')).face) - lightness(end(under, varnish('gloss')).face);
    expect(gain(black)).toBeGreaterThan(4);
    expect(gain(white)).toBeLessThan(1);
  });

  it('varnish darkens dry powder', () => {
    const powder = layer('dust', '#c8b48c', { family: 'powder', coats: 1, method: 'brush' });
    const loose = end(black, powder).face;
    expect(lightness(end(black, powder, varnish('matt')).face)).toBeLessThan(lightness(loose) - 2);
  });

  it('a wash darkens recesses most and edges least; wiped back, hardly the faces', () => {
    const wash = layer('wash', '#2e1a10', { family: 'enamel', method: 'brush', coats: 1 });
    const wipe = layer('wipe', '#9a958c', { family: 'work', method: 'hand', task: 'wipe' });
    const left = end(white, cream, wash);
    const wiped = end(white, cream, wash, wipe);
    expect(lightness(left.recess)).toBeLessThan(lightness(left.face) - 20);
    expect(lightness(left.face)).toBeLessThan(lightness(left.edge));
    expect(lightness(wiped.face)).toBeGreaterThan(lightness(left.face) + 4);
    expect(lightness(wiped.recess)).toBeLessThan(lightness(wiped.face) - 20);
  });

  it('a white dry brush under a dark wash reads mid', () => {
    const brush = layer('lights', '#f4f4f2', { reach: 'edges', method: 'brush', coats: 1 });
    const wash = layer('wash', '#3d2c20', {
      family: 'acrylic-wash',
      method: 'brush',
      coats: 3,
      film: 'heavy',
    });
    const before = end(black, brush).edge;
    const after = end(black, brush, wash).edge;
    expect(lightness(after)).toBeLessThan(lightness(before) - 5);
    expect(lightness(after)).toBeGreaterThan(lightness(end(black, wash).edge) + 5);
  });

  it('what is lifted shows what lies under the medium, and a late whitewash the paint under it', () => {
    const medium = layer('medium', '#7f86c9', { family: 'medium' });
    const lift = layer('lift', '#9a958c', { family: 'work', method: 'hand', task: 'lift' });
    const chips = end(black, rust, medium, cream, lift);
    expect(differenceOf(chips.marks[0]!.colour, end(black, rust).face)).toBeLessThan(4);
    expect(differenceOf(chips.face, cream.colour)).toBeLessThan(6);
    const washable = layer('wash', '#e7e5dc', { family: 'washable' });
    expect(
      differenceOf(end(white, rust, washable, lift).marks[0]!.colour, end(white, rust).face),
    ).toBeLessThan(4);
    // Nothing to lift: no mark.
    expect(end(black, cream, lift).marks).toEqual([]);
  });

  it('salt brushed off leaves spots of what lies beneath in the paint that went over it', () => {
    const bare: Partial<Layer> = { family: 'work', method: 'hand', zones: ['plate'] };
    const salt = layer('salt', '#9a958c', { ...bare, task: 'mask', masking: 'salt' });
    const off = layer('off', '#9a958c', { ...bare, task: 'unmask' });
    const seen = end(black, salt, white, off);
    expect(lightness(seen.face)).toBeGreaterThan(85);
    expect(seen.marks.map((m) => m.layer)).toEqual(['off']);
    expect(lightness(seen.marks[0]!.colour)).toBeLessThan(25);
    expect(end(black, salt, white).marks).toEqual([]);
  });

  it('a mask of its own zone keeps paint off; one over everything leaves a second colour on part of it', () => {
    const mask = layer('mask', '#9a958c', { family: 'work', method: 'hand', task: 'mask', zones: ['glass'] });
    const unmask = layer('unmask', '#9a958c', { family: 'work', method: 'hand', task: 'unmask' });
    expect(end(white, mask, black, unmask).face).toBe(end(white).face);
    const striped = end(white, { ...mask, zones: [] }, black, unmask);
    expect(striped.face).toBe(end(white).face);
    expect(lightness(striped.marks[0]!.colour)).toBeLessThan(25);
    expect(lightness(end(white, mask, black).face)).toBeLessThan(25);
  });

  it('takes the user’s own test card where the product has one', () => {
    const card = { white: '#ffffff', black: '#000000', overWhite: '#f0e6c8', overBlack: '#3a372f' };
    const thin = { name: 'cream', card } as Product;
    const paint = { ...cream, mixture: 'cream 3:1', coats: 1 };
    const measured = appearanceOf([black, paint], productsByName([thin])).at(-1)!.face;
    expect(lightness(measured)).toBeLessThan(lightness(end(black, paint).face) - 20);
    expect(differenceOf(measured, card.overBlack)).toBeLessThan(6);
  });
});

describe('contrast', () => {
  const chips = layer('chips', '#3a2018', { reach: 'traces', method: 'brush', coats: 1 });
  const wash = layer('wash', '#3d2c20', { family: 'acrylic-wash', method: 'brush', coats: 3, film: 'heavy' });

  it('is lessened by washes and by a matt coat, and says by which', () => {
    const [first] = effectsOf([white, cream, chips, wash, varnish('matt')], NONE);
    expect(first!.layer).toBe('chips');
    expect(first!.atEnd).toBeLessThan(first!.fresh - 3);
    expect(first!.eaten[0]!.layer).toBe('wash');
    expect(first!.seenFromMm).toBeLessThan(0.3);
  });

  it('of a dark rust on black under a matt coat is nearly nothing', () => {
    const dark = layer('rust', '#191412', { reach: 'traces', method: 'sponge', coats: 1 });
    const found = effectsOf([black, dark, varnish('matt')], NONE).find((e) => e.layer === 'rust');
    expect(found === undefined || found.atEnd < 6).toBe(true);
  });

  it('is brought back by a colour that overshoots, and by none where nothing is lost', () => {
    const light = layer('chips', '#d9c7a2', { reach: 'traces', method: 'sponge', coats: 2 });
    const base = layer('base', '#6d5a48');
    const stack = [white, base, light, wash, varnish('matt')];
    const [before] = effectsOf(stack, NONE);
    const colour = overshotColour(stack, 'chips', NONE)!;
    expect(lightness(colour)).toBeGreaterThan(lightness(light.colour));
    const [after] = effectsOf(
      stack.map((l) => (l.id === 'chips' ? { ...l, colour } : l)),
      NONE,
    );
    expect(after!.atEnd).toBeGreaterThan(before!.atEnd + 1);
    expect(canOvershoot(stack, 'chips', NONE)).toBe(true);
    expect(canOvershoot([white, cream, chips], 'chips', NONE)).toBe(false);
    expect(overshotColour([white, cream, chips], 'chips', NONE)).toBeNull();
  });
});

describe('any stack', () => {
  const anyLayer = fc.record({
    family: fc.constantFrom(...FAMILY_IDS),
    colour: fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`),
    coats: fc.integer({ min: 1, max: 6 }),
    film: fc.constantFrom('thin', 'normal', 'heavy' as const),
    reach: fc.option(fc.constantFrom(...REACHES), { nil: undefined }),
    task: fc.constantFrom(
      undefined,
      undefined,
      undefined,
      'lift',
      'wipe',
      'mask',
      'unmask',
      'decal' as const,
    ),
    mixture: fc.constantFrom('', 'red 3:1', 'brown, water 1:4', '0:1', 'x, y, z 1:1:1'),
  });

  it('has a colour on every surface after every layer, and effects that are numbers', () => {
    fc.assert(
      fc.property(fc.array(anyLayer, { maxLength: 14 }), (list) => {
        const layers = list.map((l, k) => layer(`l${k}`, l.colour, l as Partial<Layer>));
        for (const s of appearanceOf(layers, NONE))
          for (const c of [s.recess, s.face, s.edge, ...s.marks.map((m) => m.colour)])
            expect(c).toMatch(/^#[0-9a-f]{6}$/);
        for (const e of effectsOf(layers, NONE)) {
          expect(Number.isFinite(e.fresh) && Number.isFinite(e.atEnd)).toBe(true);
          expect(e.atEnd).toBeGreaterThanOrEqual(0);
        }
      }),
      { numRuns: 300 },
    );
  });
});
