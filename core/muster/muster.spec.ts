import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { smallMuster } from '../plan/testing';
import {
  addDays,
  dateTimeAfter,
  duplicatedUnit,
  isRealDate,
  mended,
  minutesSince,
  movedLayer,
  sessionsOf,
  weekdayOf,
  withoutLayer,
  withoutPieces,
  withoutRecipe,
  withUnit,
} from './index';

const UTC = { date: '2027-03-01', zone: 'UTC' };

describe('wall-clock time', () => {
  it('counts there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 500_000 }), (minutes) => {
        expect(minutesSince(UTC, dateTimeAfter(UTC, minutes))).toBe(minutes);
      }),
    );
  });
  it('knows the calendar', () => {
    expect(isRealDate('2027-02-29')).toBe(false);
    expect(isRealDate('2028-02-29')).toBe(true);
    expect(weekdayOf('2027-03-01')).toBe(1);
    expect(addDays('2027-02-28', 1)).toBe('2027-03-01');
  });
});

describe('sessions', () => {
  it('follow the week and its exceptions, and begin no sooner than the plan', () => {
    const m = smallMuster();
    m.startsOn = '2027-03-01T19:30';
    m.bench.exceptions = [{ id: 'x', date: '2027-03-02', sessions: [] }];
    expect(sessionsOf(m, 3)).toEqual([
      { start: 1170, end: 1260 },
      { start: 2880 + 1140, end: 2880 + 1260 },
    ]);
  });
});

describe('edits', () => {
  let n = 0;
  const newId = (): string => `new${n++}`;
  it('copy a unit with joins inside the copy', () => {
    const m = smallMuster();
    m.units[0]!.pieces[1]!.joins = { piece: 'p1', layer: 'seal' };
    const copy = duplicatedUnit(m, 'u', 1, newId).units[1]!;
    expect(copy.pieces[1]!.joins!.piece).toBe(copy.pieces[0]!.id);
    expect(copy.name).toBe('Ferries 2');
  });
  it('leave nothing pointing at what is gone', () => {
    const m = smallMuster();
    m.units[0]!.pieces[1]!.joins = { piece: 'p1', layer: 'seal' };
    const alone = mended(m, withUnit(m, withoutPieces(m.units[0]!, new Set(['p1'])))).muster;
    expect(alone.units[0]!.pieces[0]!.joins).toBeNull();
    const bare = mended(m, withoutRecipe(m, 'r')).muster;
    expect(bare.units[0]!.pieces.every((p) => p.recipe === null)).toBe(true);
    const through = {
      ...m.recipes[0]!.layers[1]!,
      window: { ...m.recipes[0]!.layers[1]!.window!, through: 'top' },
    };
    const recipe = {
      ...m.recipes[0]!,
      layers: m.recipes[0]!.layers.map((l) => (l.id === 'medium' ? through : l)),
    };
    expect(withoutLayer(recipe, 'top').layers[1]!.window!.through).toBeNull();
  });
  it('move a layer and keep all of them', () => {
    const { layers } = smallMuster().recipes[0]!;
    fc.assert(
      fc.property(fc.nat(4), fc.nat(8), (from, to) => {
        const moved = movedLayer({ id: 'r', name: 'r', zones: [], layers }, from, to).layers;
        expect(moved.map((l) => l.id).sort()).toEqual(layers.map((l) => l.id).sort());
        expect(moved[Math.min(to, 4)]!.id).toBe(layers[from]!.id);
      }),
    );
  });
});
