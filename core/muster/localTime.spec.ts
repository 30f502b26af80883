/** The bench's wall against the platform's own knowledge of time zones (Intl, IANA data), and the two nights of the clock against the law. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  dateTimeAfter,
  instantAfter,
  instantOfWall,
  isTimeZone,
  minutesSince,
  minutesUntil,
  wallTime,
  type Origin,
} from './index';

const ZONES = [
  'UTC',
  'Europe/Vienna',
  'America/St_Johns',
  'Australia/Lord_Howe',
  'Asia/Kathmandu',
  'Pacific/Apia',
];
const byIntl = (zone: string, at: Date): string =>
  new Intl.DateTimeFormat('sv-SE', {
    timeZone: zone,
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
    hour: '2-digit',
    minute: '2-digit',
  })
    .format(at)
    .replace(' ', 'T');

const moment = fc.record({
  zone: fc.constantFrom(...ZONES),
  day: fc.integer({ min: 0, max: 11_000 }),
  minutes: fc.integer({ min: 0, max: 200_000 }),
});
const dayOf = (n: number): string => new Date(Date.UTC(2015, 0, 1 + n)).toISOString().slice(0, 10);

describe('the wall of a bench', () => {
  it('shows at every minute what the platform says that it shows', () => {
    fc.assert(
      fc.property(moment, ({ zone, day, minutes }) => {
        const origin: Origin = { date: dayOf(day), zone };
        const instant = instantAfter(origin, minutes);
        expect(wallTime(zone, instant)).toBe(byIntl(zone, new Date(instant)));
        expect(dateTimeAfter(origin, minutes)).toBe(wallTime(zone, instant));
        expect(minutesUntil(origin, instant)).toBe(minutes);
      }),
      { numRuns: 400 },
    );
  });

  it('begins its origin at midnight, and counts there and back but for the hour that comes twice', () => {
    fc.assert(
      fc.property(moment, ({ zone, day, minutes }) => {
        const origin: Origin = { date: dayOf(day), zone };
        if (byIntl(zone, new Date(instantAfter(origin, 0))) !== `${origin.date}T00:00`) return;
        const shown = dateTimeAfter(origin, minutes);
        const back = minutesSince(origin, shown);
        if (back !== minutes) {
          expect(minutes - back).toBeGreaterThan(0);
          expect(minutes - back).toBeLessThanOrEqual(60);
          expect(dateTimeAfter(origin, back)).toBe(shown);
        }
      }),
      { numRuns: 400 },
    );
  });

  // Directive 2000/84/EC: summer time from the last Sunday of March to the last of October, 01:00 UTC both.
  it.each([
    ['2027-03-28T01:59', '2027-03-28T00:59:00Z'],
    ['2027-03-28T02:30', '2027-03-28T01:30:00Z'],
    ['2027-03-28T03:00', '2027-03-28T01:00:00Z'],
    ['2027-10-31T01:59', '2027-10-30T23:59:00Z'],
    ['2027-10-31T02:30', '2027-10-31T00:30:00Z'],
    ['2027-10-31T03:00', '2027-10-31T02:00:00Z'],
  ])('in Vienna, %s is %s', (wall, instant) => expect(instantOfWall('Europe/Vienna', wall)).toBe(instant));

  it('makes the day of spring 23 hours long and that of autumn 25', () => {
    const length = (date: string, next: string): number =>
      minutesSince({ date, zone: 'Europe/Vienna' }, next);
    expect(length('2027-03-28', '2027-03-29')).toBe(23 * 60);
    expect(length('2027-10-31', '2027-11-01')).toBe(25 * 60);
    expect(length('2027-06-01', '2027-06-02')).toBe(24 * 60);
  });

  it('knows what is a zone', () => {
    expect(ZONES.every(isTimeZone)).toBe(true);
    expect(['', 'Mars/Olympus', 'nonsense'].filter(isTimeZone)).toEqual([]);
  });
});
