/** Minutes and moments in words: what they say can be read back, and agrees with date-fns. */
import { addMinutes, format, parseISO } from 'date-fns';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { clockTime, datesProved, dayName, deedWords, duration, listed, mayBeLessLate, moment } from './index';
import { isSameDay } from './words';

/** What a duration says, in minutes. */
function minutesOf(text: string): number {
  const units: Record<string, number> = { min: 1, h: 60, day: 1440, days: 1440 };
  let sum = 0;
  for (const [, n, unit] of text.matchAll(/(\d+) (min|h|days?)/g)) sum += Number(n) * units[unit!]!;
  return sum;
}

describe('a duration', () => {
  it.each([
    [0, '0 min'],
    [25, '25 min'],
    [59.6, '1 h'],
    [60, '1 h'],
    [150, '2 h 30 min'],
    [1440, '24 h'],
    [2879, '47 h 59 min'],
    [2880, '2 days'],
    [4560, '3 days 4 h'],
    [4319, '3 days'],
  ])('of %s minutes is “%s”', (minutes, words) => expect(duration(minutes)).toBe(words));

  it('says what it is: to the minute below two days, to the half hour above', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 100_000 }), (minutes) => {
        const said = minutesOf(duration(minutes));
        if (minutes < 2880) expect(said).toBe(minutes);
        else expect(Math.abs(said - minutes)).toBeLessThanOrEqual(30);
        expect(duration(minutes).match(/\d+/g)!.length).toBeLessThanOrEqual(2);
      }),
    );
  });

  it('never says less for longer', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 50_000 }),
        fc.integer({ min: 0, max: 50_000 }),
        (a, b) => minutesOf(duration(Math.min(a, b))) <= minutesOf(duration(Math.max(a, b))),
      ),
    );
  });
});

describe('a moment', () => {
  it('has the weekday, day and time that date-fns gives it', () => {
    fc.assert(
      fc.property(
        fc.date({
          min: new Date('2020-01-01T00:00:00Z'),
          max: new Date('2040-01-01T00:00:00Z'),
          noInvalidDate: true,
        }),
        fc.integer({ min: 0, max: 60 * 1440 }),
        (day, minutes) => {
          const origin = { date: day.toISOString().slice(0, 10), zone: 'UTC' };
          // Noon leaves room on both sides for zones; whole days and the rest are added apart, so that no change of clocks counts.
          const date = addMinutes(parseISO(`${origin.date}T12:00:00`), Math.floor(minutes / 1440) * 1440);
          const time = minutes % 1440;
          const clock = `${String(Math.floor(time / 60)).padStart(2, '0')}:${String(time % 60).padStart(2, '0')}`;
          expect(clockTime(origin, minutes)).toBe(clock);
          expect(dayName(origin, minutes)).toBe(format(date, 'EEE d'));
          expect(moment(origin, minutes)).toBe(`${format(date, 'EEE d')}, ${clock}`);
        },
      ),
    );
  });
});

describe('a list of names', () => {
  it.each([
    [[], ''],
    [['a'], 'a'],
    [['a', 'a'], 'a'],
    [['a', 'b'], 'a and b'],
    [['a', 'b', 'c'], 'a, b and c'],
    [['a', 'b', 'c', 'd'], 'a, b and 2 more'],
  ])('%j is “%s”', (names, words) => expect(listed(names)).toBe(words));

  it('counts everyone once', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.stringMatching(/^[b-m]{3}$/), { maxLength: 12 }), (names) => {
        const said = listed(names);
        const more = Number(/(\d+) more$/.exec(said)?.[1] ?? 0);
        const named = names.filter((n) => new RegExp(`\\b${n}\\b`).test(said.replace(/ and| more/g, ' ')));
        expect(named.length + more).toBe(names.length);
      }),
    );
  });
});

describe('the deed in hand', () => {
  it('has its verb once, and none where the name says it all', () => {
    const by = (method: 'airbrush' | 'sponge' | 'hand' | 'brush', name: string, task?: 'decal' | 'mask') =>
      deedWords({ method, task }, name);
    expect(by('airbrush', 'Grey primer')).toBe('Spray Grey primer');
    expect(by('sponge', 'Sponge chips')).toBe('Sponge chips');
    expect(by('hand', 'Mask: sides', 'mask')).toBe('Mask: sides');
    expect(by('brush', 'Fleet number', 'decal')).toBe('Put on Fleet number');
  });
});

describe('what is proved of late dates', () => {
  it('is nothing of a plan that keeps them, or where they might all be kept', () => {
    expect(datesProved(0, 0)).toBeNull();
    expect(datesProved(0, 40)).toBeNull();
    expect(datesProved(900, 0)).toBeNull();
  });

  it('is that no plan keeps all, and of one that is as late as it must be that none is better', () => {
    expect(datesProved(900, 40)).toBe('no plan keeps every date');
    expect(datesProved(42, 40)).toBe('no plan keeps every date');
    expect(datesProved(41, 40)).toBe('no plan is better on dates');
    // A longer search is worth something for the dates only where they might still come out better.
    expect([mayBeLessLate(0, 0), mayBeLessLate(41, 40)]).toEqual([false, false]);
    expect([mayBeLessLate(900, 0), mayBeLessLate(42, 40)]).toEqual([true, true]);
  });
});

describe('two minutes', () => {
  it('are of one day by the date on the wall, not by how far apart they are', () => {
    const origin = { date: '2027-03-01', zone: 'UTC' };
    expect(isSameDay(origin, 0, 1439)).toBe(true);
    expect(isSameDay(origin, 1439, 1440)).toBe(false);
    expect(isSameDay(origin, 1440, 2879)).toBe(true);
    expect(isSameDay(origin, 0, 1440)).toBe(false);
  });
});
