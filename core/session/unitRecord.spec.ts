/** The record of a unit: read from the log alone, and of nobody else’s log. */
import { describe, expect, it } from 'vitest';
import { handsOnMinutes } from '#core/plan';
import { unitRecord, type UnitRecord } from './index';
import { demo, entry, order, plan } from './testing';

const unit = demo.units.find((u) => u.pieces.length > 1)!;
const own = order.filter((s) => s.unit.id === unit.id);
const [first, second] = own as [(typeof own)[number], (typeof own)[number]];
const about = (s: (typeof own)[number], mixture = 'red') => ({
  unit: unit.name,
  piece: s.piece.name,
  recipe: s.recipe.name,
  layer: s.layer.name,
  family: s.layer.family,
  method: s.layer.method,
  mixture,
  coats: 1,
});
const record = (...log: Parameters<typeof unitRecord>[2][number][]): UnitRecord =>
  unitRecord(unit, plan, log);
const planned = own.reduce((sum, s) => sum + handsOnMinutes(plan, s), 0);

describe('the record of a unit', () => {
  it('of which nothing has happened is empty, and all of its hours are planned', () => {
    expect(record()).toEqual({
      layers: [],
      spentMinutes: 0,
      plannedMinutes: planned,
      people: [],
      reworks: [],
      pictures: [],
      nextTime: [],
      looked: 0,
      tableAt: null,
    });
    expect(unitRecord(unit, null, []).plannedMinutes).toBe(0);
  });

  it('sums up what was put on: pieces, minutes, days, each mixture once, who was at it', () => {
    const done = (s: (typeof own)[number], minute: number, more: object = {}) =>
      entry({ kind: 'done', step: s.id, minutes: 7, about: about(first), ...more }, minute);
    const told = record(
      done(first, 100, { people: ['Ida', 'Bo'] }),
      done(second, 200, { people: ['Ida'], mixture: 'red and a drop of white' }),
      done(own[2]!, 300),
    );
    expect(told.layers).toEqual([
      {
        name: first.layer.name,
        from: done(first, 100).at,
        to: done(first, 300).at,
        pieces: 3,
        minutes: 21,
        mixtures: ['red', 'red and a drop of white'],
      },
    ]);
    expect([told.spentMinutes, told.people]).toEqual([21, ['Ida', 'Bo']]);
    const left = planned - [first, second, own[2]!].reduce((sum, s) => sum + handsOnMinutes(plan, s), 0);
    expect(told.plannedMinutes).toBeCloseTo(left, 9);
  });

  it('plans nothing more for what was left off, and counts it as no layer; nothing mixed is no mixture', () => {
    const told = record(entry({ kind: 'skipped', step: first.id }, 50));
    expect([told.layers, told.spentMinutes]).toEqual([[], 0]);
    expect(told.plannedMinutes).toBeCloseTo(planned - handsOnMinutes(plan, first), 9);
    const bare = record(entry({ kind: 'done', step: first.id, minutes: 3, about: about(first, '') }, 50));
    expect(bare.layers[0]!.mixtures).toEqual([]);
  });

  it('has its reworks, pictures and wishes for the next time, in words', () => {
    const told = record(
      entry(
        { kind: 'rework', step: first.id, trouble: 'Dust', cure: 'Sand it', minutes: 5, about: about(first) },
        60,
      ),
      entry({ kind: 'picture', step: first.id, data: 'data:x', about: about(first) }, 61),
      entry({ kind: 'noted', step: first.id, note: 'thinner', isForNextTime: true, about: about(first) }, 62),
      entry({ kind: 'noted', step: first.id, note: 'only said', about: about(first) }, 63),
    );
    expect(told.reworks.map((r) => r.text)).toEqual([`${first.piece.name}: Dust. Sand it`]);
    expect(told.pictures).toMatchObject([
      { data: 'data:x', about: `${first.piece.name}, ${first.layer.name}` },
    ]);
    expect(told.nextTime.map((n) => n.text)).toEqual([`${first.layer.name}: thinner`]);
  });

  it('counts what was looked over, and says since when it stands on the table', () => {
    const looked = (item: string, of = unit.id) =>
      entry({ kind: 'looked', unit: of, item, text: item, verdict: 'good' }, 70);
    const told = record(looked('zone a'), looked('zone b'), looked('zone c', 'another'));
    expect([told.looked, told.tableAt]).toEqual([2, null]);
    const stands = looked('table');
    expect(record(looked('zone a'), stands)).toMatchObject({ looked: 1, tableAt: stands.at });
    expect(record(looked('table', 'another')).tableAt).toBeNull();
  });

  it('is of this unit alone', () => {
    const other = order.find((s) => s.unit.id !== unit.id)!;
    const told = record(
      entry({ kind: 'done', step: other.id, minutes: 9, about: about(other), people: ['Stranger'] }, 10),
    );
    expect(told).toEqual(record());
  });
});
