/** What rests on what, against the plain definition: two layers touch where they share a zone and nothing between covers it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Recipe } from '#core/muster';
import { layer } from '../plan/testing';
import {
  circleOf,
  dryingOf,
  isOnZone,
  linksOf,
  restingOn,
  topLayers,
  withZoneTurned,
  zonesOf,
} from './index';

const ZONES = ['hull', 'deck', 'glass'];

const recipe: fc.Arbitrary<Recipe> = fc
  .array(
    fc.record({
      zones: fc.subarray(ZONES),
      dryMinutes: fc.integer({ min: 0, max: 90 }),
      window: fc.option(
        fc.record({
          opens: fc.integer({ min: 0, max: 60 }),
          room: fc.integer({ min: 1, max: 60 }),
          through: fc.option(fc.nat(), { nil: null }),
        }),
        { nil: null },
      ),
      waitsFor: fc.array(fc.nat(), { maxLength: 2 }),
    }),
    { minLength: 1, maxLength: 7 },
  )
  .map((list) => ({
    id: 'r',
    name: 'R',
    zones: ZONES.map((id) => ({ id, name: id })),
    layers: list.map((l, k) =>
      layer(`l${k}`, {
        zones: l.zones,
        dryMinutes: l.dryMinutes,
        waitsFor: [...new Set(l.waitsFor.map((w) => `l${w % list.length}`))],
        window: l.window && {
          opensMinutes: l.window.opens,
          closesMinutes: l.window.opens + l.window.room,
          preferMinutes: null,
          through: l.window.through === null ? null : `l${l.window.through % list.length}`,
        },
      }),
    ),
  }));

describe('a layer rests', () => {
  it('on the nearest below it in each of its zones, and on no other', () => {
    fc.assert(
      fc.property(recipe, (r) => {
        const zones = r.layers.map((l) => (l.zones.length > 0 ? l.zones : ZONES));
        r.layers.forEach((_, from) => {
          const touching = r.layers
            .map((_, to) => to)
            .filter(
              (to) =>
                to > from &&
                zones[from]!.some(
                  (z) =>
                    zones[to]!.includes(z) &&
                    !zones.slice(from + 1, to).some((between) => between.includes(z)),
                ),
            );
          expect([...restingOn(r, from)].sort((a, b) => a - b)).toEqual(touching);
        });
        r.layers.forEach((l, k) => expect([...zonesOf(r, l)].sort()).toEqual([...zones[k]!].sort()));
      }),
    );
  });

  it('on all below it where the recipe has no zones', () => {
    const plain = { id: 'r', name: 'R', zones: [], layers: ['a', 'b', 'c'].map((id) => layer(id)) };
    expect([0, 1, 2].map((k) => restingOn(plain, k))).toEqual([[1], [2], []]);
  });
});

describe('the waits of a recipe', () => {
  it('are one for each pair, let every layer dry, and shut no window before it opens', () => {
    fc.assert(
      fc.property(recipe, (r) => {
        const links = linksOf(r);
        expect(new Set(links.map((l) => `${l.from}>${l.to}`)).size).toBe(links.length);
        for (const link of links) {
          expect(link.from).not.toBe(link.to);
          if (link.max !== Infinity) expect(r.layers[link.from]!.window).not.toBeNull();
        }
        r.layers.forEach((below, from) => {
          for (const to of restingOn(r, from)) {
            const link = links.find((l) => l.from === from && l.to === to)!;
            expect(link.min).toBeGreaterThanOrEqual(dryingOf(below));
            expect(link.min).toBeGreaterThanOrEqual(below.window?.opensMinutes ?? 0);
            expect(link.max).toBe(below.window?.closesMinutes ?? Infinity);
          }
          for (const id of below.waitsFor) {
            const waited = r.layers.findIndex((l) => l.id === id);
            if (waited === from) continue;
            const link = links.find((l) => l.from === waited && l.to === from)!;
            expect(link.min).toBeGreaterThanOrEqual(dryingOf(r.layers[waited]!));
          }
        });
      }),
    );
  });

  it('leave nothing hanging: every layer but the first has one before it', () => {
    fc.assert(
      fc.property(recipe, (r) => {
        const reached = new Set(linksOf(r).map((l) => l.to));
        for (let k = 1; k < r.layers.length; k++) expect(reached.has(k)).toBe(true);
      }),
    );
  });

  it('end at the layers for which nothing waits', () => {
    fc.assert(
      fc.property(recipe, (r) => {
        const links = linksOf(r);
        const tops = topLayers(r);
        r.layers.forEach((_, k) => expect(tops.includes(k)).toBe(!links.some((l) => l.from === k)));
      }),
    );
  });
});

describe('a circle of waits', () => {
  it('is found where, and only where, the layers cannot be brought into an order (Kahn 1962)', () => {
    fc.assert(
      fc.property(recipe, (r) => {
        const links = linksOf(r);
        const left = new Set(r.layers.map((_, k) => k));
        for (let isMoving = true; isMoving;) {
          isMoving = false;
          for (const k of left)
            if (!links.some((l) => l.to === k && left.has(l.from))) {
              left.delete(k);
              isMoving = true;
            }
        }
        const circle = circleOf(r);
        expect(circle.length > 0).toBe(left.size > 0);
        circle.forEach((from, n) => {
          const to = circle[(n + 1) % circle.length]!;
          expect(links.some((l) => l.from === from && l.to === to)).toBe(true);
        });
      }),
    );
  });
});

describe('a zone that is ticked', () => {
  const r = { zones: ZONES.map((id) => ({ id, name: id })) };

  it.each([
    [[], 'deck', ['hull', 'glass']],
    [['hull', 'glass'], 'deck', []],
    [['hull'], 'glass', ['hull', 'glass']],
    [['hull'], 'hull', []],
  ])('of %j turns %s: %j', (named, zone, next) => {
    expect(withZoneTurned(r, named, zone)).toEqual(next);
  });

  it('is on where it is named, or none is', () => {
    expect([isOnZone([], 'hull'), isOnZone(['deck'], 'hull'), isOnZone(['hull'], 'hull')]).toEqual([
      true,
      false,
      true,
    ]);
  });
});

describe('a mask', () => {
  const masked: Recipe = {
    id: 'r',
    name: 'R',
    zones: ZONES.map((id) => ({ id, name: id })),
    layers: [
      layer('base', { zones: ['hull'], dryMinutes: 30 }),
      layer('mask', { zones: ['hull'], family: 'work', task: 'mask', dryMinutes: 0 }),
      layer('stripe', { zones: ['deck'], dryMinutes: 25 }),
      layer('off', { zones: ['hull'], family: 'work', task: 'unmask', dryMinutes: 0 }),
      layer('glass', { zones: ['glass'], dryMinutes: 10 }),
    ],
  };
  const between = (from: number, to: number) => linksOf(masked).find((l) => l.from === from && l.to === to);

  it('holds what is put on while it is on, wherever that goes: after it, and dry before it comes off', () => {
    expect(between(1, 2)).toMatchObject({ min: 0, max: Infinity, dries: true });
    expect(between(2, 3)).toMatchObject({ min: 25, max: Infinity, dries: true });
  });

  it('has nothing to say to what comes after; that only waits for the first layer', () => {
    expect(between(3, 4)).toBeUndefined();
    expect(between(0, 4)).toMatchObject({ min: 0, max: Infinity, dries: false });
    expect(between(0, 2)).toBeUndefined();
  });
});
