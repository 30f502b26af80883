/** Who is at the bench, and when. */
import { describe, expect, it } from 'vitest';
import { smallMuster } from '../plan/testing';
import {
  isAway,
  isInSession,
  presenceOf,
  sessionsOf,
  sessionsOn,
  type Bench,
  type Muster,
  type Person,
} from './index';

const HOUR = 60;
const DAY = 24 * HOUR;
/** Every evening from seven to nine, from a Monday on. */
const base = smallMuster();
const benchWith = (change: Partial<Bench>): Bench => ({ ...base.bench, ...change });
const musterWith = (change: Partial<Bench>): Muster => ({ ...base, bench: benchWith(change) });

describe('the sessions of a bench', () => {
  it('are in order of time, those of an exception instead of the week’s', () => {
    const bench = benchWith({
      weekly: [
        { id: 'late', weekday: 1, from: '21:00', to: '22:00' },
        { id: 'early', weekday: 1, from: '07:00', to: '08:00' },
        { id: 'other', weekday: 2, from: '09:00', to: '10:00' },
      ],
      exceptions: [{ id: 'x', date: '2027-03-08', sessions: [{ from: '14:00', to: '18:00' }] }],
    });
    expect(sessionsOn(bench, '2027-03-01').map((s) => s.from)).toEqual(['07:00', '21:00']);
    expect(sessionsOn(bench, '2027-03-08').map((s) => s.from)).toEqual(['14:00']);
  });

  it('are none while everybody is away, both days of a span included', () => {
    const away = [{ id: 'a', from: '2027-03-02', to: '2027-03-03' }];
    expect(['01', '02', '03', '04'].map((d) => isAway(away, `2027-03-${d}`))).toEqual([
      false,
      true,
      true,
      false,
    ]);
    expect(isAway(undefined, '2027-03-02')).toBe(false);
    expect(sessionsOf(musterWith({ away }), 4).map((s) => s.start / DAY)).toEqual([19 / 24, 3 + 19 / 24]);
  });

  it('are joined where one begins before or as another ends, and stay apart otherwise', () => {
    const weekly = [
      { id: '1', weekday: 1, from: '18:00', to: '20:00' },
      { id: '2', weekday: 1, from: '19:00', to: '19:30' },
      { id: '3', weekday: 1, from: '20:00', to: '21:00' },
      { id: '4', weekday: 1, from: '21:01', to: '22:00' },
    ];
    const [first, second, ...rest] = sessionsOf(musterWith({ weekly }), 2);
    expect(first).toEqual({ start: 18 * HOUR, end: 21 * HOUR });
    expect(second).toEqual({ start: 21 * HOUR + 1, end: 22 * HOUR });
    expect(rest).toEqual([]);
  });

  it('know whether the bench is lit, from the first minute to before the last', () => {
    const at = (time: string): boolean => isInSession(base.bench, `2027-03-01T${time}`);
    expect(['18:59', '19:00', '20:59', '21:00'].map(at)).toEqual([false, true, true, false]);
  });
});

describe('one of the people', () => {
  const person = (more: Partial<Person>): Person => ({ id: 'h', name: 'Helper', ...more });

  it('is there in every session when nothing else is said', () => {
    expect(presenceOf(base, person({}), 3)).toEqual(sessionsOf(base, 3));
    expect(presenceOf(base, person({ away: [] }), 3)).toEqual(sessionsOf(base, 3));
  });

  it('is there in their own hours, as far as the bench is lit', () => {
    const hours = [
      { id: '1', weekday: 1, from: '20:00', to: '23:00' },
      { id: '3', weekday: 3, from: '06:00', to: '19:30' },
    ];
    expect(presenceOf(base, person({ hours }), 7)).toEqual([
      { start: 20 * HOUR, end: 21 * HOUR },
      { start: 2 * DAY + 19 * HOUR, end: 2 * DAY + 19.5 * HOUR },
    ]);
  });

  it('is not there while away, and else whenever the bench is lit', () => {
    const away = [{ id: 'a', from: '2027-03-02', to: '2027-03-02' }];
    expect(presenceOf(base, person({ away }), 3).map((s) => Math.floor(s.start / DAY))).toEqual([0, 2]);
    const hours = [1, 2].map((weekday) => ({ id: `${weekday}`, weekday, from: '19:00', to: '20:00' }));
    expect(presenceOf(base, person({ away, hours }), 7)).toEqual([{ start: 19 * HOUR, end: 20 * HOUR }]);
  });
});
