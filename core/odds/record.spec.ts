/** What was forecast and what came, read from the log alone. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import { correction, judged, recordWords, type Judged } from './record';

const DUE = '2027-03-12T12:00:00Z';
const forecast = (at: string, share: number, unit = 'u', due = DUE): LogEntry => ({
  id: `f-${unit}-${at}`,
  at,
  kind: 'forecast',
  units: [{ unit, name: `Unit ${unit}`, share, due, last: [{ step: `${unit}.seal`, dry: 120 }] }],
});
const done = (at: string, unit = 'u'): LogEntry => ({
  id: `d-${unit}-${at}`,
  at,
  kind: 'done',
  step: `${unit}.seal`,
  minutes: 5,
});

describe('what came', () => {
  it('is judged when the last coat was dry by the date, or when the date has passed', () => {
    const given = forecast('2027-03-01T19:00:00Z', 0.9);
    expect(judged([given], '2027-03-11T00:00:00Z')).toEqual({ judged: [], open: 1 });
    expect(judged([given], '2027-03-13T00:00:00Z').judged).toEqual([
      { name: 'Unit u', share: 0.9, wasReady: false },
    ]);
    expect(judged([given, done('2027-03-12T10:00:00Z')], '2027-03-12T10:01:00Z').judged[0]!.wasReady).toBe(
      true,
    );
    // Put on in time, but not dry in time.
    expect(judged([given, done('2027-03-12T10:01:00Z')], '2027-03-20T00:00:00Z').judged[0]!.wasReady).toBe(
      false,
    );
  });

  it('counts the first odds of a unit, and another date as another promise', () => {
    const log = [
      forecast('2027-03-01T19:00:00Z', 0.9),
      forecast('2027-03-05T19:00:00Z', 0.2),
      forecast('2027-03-06T19:00:00Z', 0.7, 'u', '2027-03-14T12:00:00Z'),
      done('2027-03-13T08:00:00Z'),
    ];
    expect(judged(log, '2027-03-20T00:00:00Z').judged).toEqual([
      { name: 'Unit u', share: 0.9, wasReady: false },
      { name: 'Unit u', share: 0.7, wasReady: true },
    ]);
  });

  it('is told in words, what was given most first', () => {
    const unit = (share: number, wasReady: boolean): Judged => ({ name: 'x', share, wasReady });
    const words = recordWords({
      open: 0,
      judged: [unit(0.5, true), unit(0.9, true), unit(0.9, false), unit(0.9, true)],
    });
    expect(words).toEqual([
      'Of 3 units given 9 in 10, 2 were ready.',
      'Of 1 unit given a coin’s toss, 1 was ready.',
    ]);
  });
});

describe('the correction', () => {
  const came = (n: number, share: number, ready: number): Judged[] =>
    Array.from({ length: n }, (_, k) => ({ name: `${k}`, share, wasReady: k < ready }));

  it('is none without anything that came, and little where it came as said', () => {
    expect(correction([])(0.7)).toBe(0.7);
    expect(correction(came(20, 0.7, 14))(0.7)).toBeCloseTo(0.7, 2);
  });

  it('draws all odds to what came, the more the more came', () => {
    const few = correction(came(4, 0.9, 2))(0.9);
    const many = correction(came(200, 0.9, 100))(0.9);
    expect(few).toBeLessThan(0.9);
    expect(many).toBeLessThan(few);
    // With so many units the prior hardly holds: half of them came.
    expect(Math.abs(many - 0.5)).toBeLessThan(0.06);
    expect(correction(came(10, 0.3, 9))(0.3)).toBeGreaterThan(0.45);
  });

  it('leaves a date that is past where it is, and what no future doubts', () => {
    const corrected = correction(came(20, 0.3, 18));
    expect(corrected(0)).toBe(0);
    expect(corrected(1)).toBe(1);
  });

  it('keeps the order of odds, and stays between nothing and all', () => {
    const unit = fc.record({ share: fc.double({ min: 0, max: 1, noNaN: true }), wasReady: fc.boolean() });
    fc.assert(
      fc.property(fc.array(unit, { maxLength: 30 }), (units) => {
        const corrected = correction(units);
        let before = -1;
        for (let p = 0; p <= 1; p += 0.05) {
          const now = corrected(p);
          expect(now).toBeGreaterThanOrEqual(0);
          expect(now).toBeLessThanOrEqual(1);
          expect(now).toBeGreaterThanOrEqual(before - 1e-9);
          before = now;
        }
      }),
    );
  });
});
