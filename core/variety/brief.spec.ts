/** Briefs of where marks go. The rules are the trade’s (common practice, no source); that every brief keeps them is tried on a thousand. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AGES, FEATURES, SIZE_CLASSES, STORIES, type Layer, type Muster, type Piece } from '#core/muster';
import { layer, smallMuster } from '../plan/testing';
import { briefsAlike, briefsOf, LEAST_ASYMMETRY, markOf, MOST_ALIKE, placedWords, type Brief } from './index';

const WORN: Layer[] = [
  layer('prime', { family: 'primer' }),
  layer('base'),
  layer('number', { task: 'decal', family: 'work' }),
  layer('lift', { task: 'lift', name: 'Chip it', family: 'work' }),
  layer('sponge', { name: 'Dark spots', method: 'sponge', isOptional: true }),
  layer('scratch', { name: 'Scratches' }),
  layer('rust', { name: 'Rust in the chips' }),
  layer('streaks', { name: 'Rain streaks', family: 'acrylic-wash' }),
  layer('mud', { name: 'Mud', family: 'acrylic' }),
  layer('dust', { name: 'Dust', family: 'powder' }),
  layer('soot', { name: 'Soot', family: 'powder' }),
  layer('matt', { family: 'varnish', sheen: 'matt' }),
];

function fleet(count: number, part: (k: number) => Partial<Piece>, unit = {}): Muster {
  const muster = smallMuster(WORN);
  const [piece] = muster.units[0]!.pieces;
  const pieces = Array.from({ length: count }, (_, k) => ({ ...piece!, id: `p${k}`, ...part(k) }));
  return { ...muster, units: [{ ...muster.units[0]!, pieces, ...unit }] };
}
const briefs = (m: Muster): Brief[] => briefsOf(m, m.units[0]!);

const fleets = fc
  .record({
    sizes: fc.array(fc.constantFrom(...SIZE_CLASSES), { minLength: 10, maxLength: 10 }),
    ages: fc.array(fc.constantFrom(...AGES), { minLength: 10, maxLength: 10 }),
    features: fc.option(fc.uniqueArray(fc.constantFrom(...FEATURES))),
    story: fc.constantFrom(...STORIES),
    seed: fc.nat(1_000_000),
    perRow: fc.integer({ min: 1, max: 6 }),
  })
  .map(({ sizes, ages, features, story, seed, perRow }) =>
    fleet(10, (k) => ({ size: { class: sizes[k]! }, age: ages[k]!, ...(features ? { features } : {}) }), {
      story,
      deal: { seed, perRow, variety: 'usual' },
    }),
  );

describe('a thousand briefs', () => {
  it('keep every rule of where marks go', () => {
    let seen = 0;
    fc.assert(
      fc.property(fleets, (muster) => {
        const all = briefs(muster);
        seen += all.length;
        const { perRow } = muster.units[0]!.deal!;
        all.forEach((brief, k) => {
          expect(brief.asymmetry).toBeGreaterThanOrEqual(LEAST_ASYMMETRY);
          const sides = brief.placed
            .flatMap((p) => p.areas)
            .filter((a) => a.face === 'left' || a.face === 'right');
          if (sides.length >= 4)
            for (const face of ['left', 'right'])
              expect(sides.filter((a) => a.face === face).length).toBeGreaterThan(0);
          for (const beside of [k % perRow > 0 ? k - 1 : -1, k - perRow])
            if (beside >= 0) expect(briefsAlike(brief, all[beside]!)).toBeLessThanOrEqual(MOST_ALIKE);
          for (const { kind, areas } of brief.placed) {
            const on = new Set(areas.map((a) => a.face));
            if (kind === 'streaks') {
              expect(on.has('top') || on.has('under')).toBe(false);
              expect(areas.every((a) => a.runs === 'down')).toBe(true);
            }
            // Nothing where nothing hits.
            if (kind !== 'dust' && kind !== 'mud') expect(on.has('under')).toBe(false);
            const upright = areas.filter((a) => a.face !== 'top' && a.face !== 'under');
            const weight = (list: typeof areas): number =>
              list.reduce((s, a) => s + a.amount * a.rx * a.ry, 0);
            if (kind === 'mud' && upright.length > 0)
              expect(weight(upright.filter((a) => a.y > 0.5))).toBeGreaterThan(0.7 * weight(upright));
            // What life mirrors lies on both sides.
            for (const a of areas)
              if (a.isMirrored)
                expect(areas.some((b) => b.where === a.where && b.face !== a.face)).toBe(true);
            for (const a of areas) {
              expect(a.x - a.rx).toBeGreaterThanOrEqual(-1e-9);
              expect(a.y + a.ry).toBeLessThanOrEqual(1 + 1e-9);
              expect(a.amount).toBeGreaterThan(0);
              expect(a.amount).toBeLessThanOrEqual(1);
            }
          }
        });
      }),
      { numRuns: 100 },
    );
    expect(seen).toBe(1000);
  });
});

describe('a brief', () => {
  it('repeats, and is another one when that is asked for', () => {
    const one = briefs(fleet(3, () => ({})));
    expect(briefs(fleet(3, () => ({})))).toEqual(one);
    const [other] = briefs(fleet(3, (k) => (k === 0 ? { brief: 1 } : {})));
    expect(briefsAlike(other!, one[0]!)).toBeLessThan(0.95);
  });

  it('is heavier by the story and by the strength that the piece has', () => {
    const marks = (muster: Muster, id: string): number =>
      briefs(muster)
        .flatMap((b) => b.placed.filter((p) => p.layer.id === id).flatMap((p) => p.areas))
        .reduce((sum, a) => sum + (a.marks ?? 0), 0);
    const of = (story: (typeof STORIES)[number]): Muster => fleet(20, () => ({}), { story });
    expect(marks(of('parade'), 'lift')).toBeLessThan(marks(of('usual'), 'lift'));
    expect(marks(of('usual'), 'lift')).toBeLessThan(marks(of('wreck'), 'lift'));
    const spots = (is: 'trace' | 'heavy'): number =>
      marks(
        fleet(20, () => ({ effects: [{ layer: 'sponge', is }] })),
        'sponge',
      );
    expect(spots('trace')).toBeLessThan(spots('heavy'));
    const off = briefs(fleet(1, () => ({ effects: [{ layer: 'sponge', is: 'off' }] })));
    expect(off[0]!.placed.map((p) => p.layer.id)).not.toContain('sponge');
  });

  it('puts soot where an exhaust is, and nowhere without one but on flats', () => {
    const soot = (features: Piece['features']): string[] =>
      briefs(fleet(6, () => ({ features })))
        .flatMap((b) => b.placed.filter((p) => p.kind === 'soot').flatMap((p) => p.areas))
        .map((a) => a.where);
    expect(soot(['exhaust'])).toContain('at the exhaust');
    expect(soot([]).some((w) => w.includes('exhaust'))).toBe(false);
  });

  it('says in words what comes most first, and calls the effect as the recipe does', () => {
    const [brief] = briefs(fleet(1, () => ({ effects: [{ layer: 'sponge', is: 'heavy' }] })));
    const spots = brief!.placed.find((p) => p.layer.id === 'sponge')!;
    expect(spots.name).toBe('Dark spots');
    expect(spots.strength).toBe('heavy');
    const [first] = [...spots.areas].sort((a, b) => b.amount - a.amount);
    expect(placedWords(spots)).toMatch(
      new RegExp(`^(${first!.face} )?${first!.where} \\(${first!.marks}\\)`),
    );
  });

  it('is none for a piece without effects', () => {
    const plain = smallMuster([layer('prime', { family: 'primer' }), layer('base')]);
    expect(briefsOf(plain, plain.units[0]!)).toEqual([]);
  });
});

describe('what a layer leaves', () => {
  it.each([
    [{ task: 'lift' as const }, 'chips'],
    [{ task: 'decal' as const }, 'decal'],
    [{ name: 'Rust streaks' }, 'streaks'],
    [{ name: 'Fine scratches' }, 'scratches'],
    [{ family: 'powder' as const }, 'dust'],
    [{ method: 'sponge' as const }, 'chips'],
    [{ name: 'Base green' }, null],
    [{ name: 'Dark oil wash', family: 'oil' as const }, null],
    [{ name: 'Rust guard', family: 'varnish' as const }, null],
    [{ name: 'Mask the dusty deck', task: 'mask' as const }, null],
  ])('%o: %s', (part, kind) => {
    expect(markOf(layer('x', part))).toBe(kind);
  });
});
