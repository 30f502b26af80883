/** Sessions and air of the bench against a look at every single minute. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { smallMuster } from '../plan/testing';
import {
  addDays,
  airAt,
  dateTimeAfter,
  instantAfter,
  minutesOfDay,
  minutesSince,
  originOf,
  sessionsOf,
  spellsOf,
  weekdayOf,
  type Muster,
} from './index';

const DAYS = 9;
const time = fc
  .integer({ min: 0, max: 96 })
  .map((q) => `${String(Math.floor(q / 4)).padStart(2, '0')}:${String((q % 4) * 15).padStart(2, '0')}`);
const session = fc.tuple(time, time).map(([a, b]) => (a < b ? { from: a, to: b } : { from: b, to: a }));

const bench = fc.record({
  weekly: fc.array(fc.record({ weekday: fc.integer({ min: 1, max: 7 }), at: session }), { maxLength: 6 }),
  exceptions: fc.array(
    fc.record({ day: fc.integer({ min: 0, max: DAYS }), sessions: fc.array(session, { maxLength: 3 }) }),
    { maxLength: 3 },
  ),
  begins: fc.integer({ min: 0, max: 95 }),
});

function musterOf(b: {
  weekly: { weekday: number; at: { from: string; to: string } }[];
  exceptions: { day: number; sessions: { from: string; to: string }[] }[];
  begins: number;
}): Muster {
  const muster = smallMuster();
  const origin = originOf(muster);
  return {
    ...muster,
    startsOn: dateTimeAfter(origin, b.begins * 15),
    bench: {
      ...muster.bench,
      weekly: b.weekly.map((w, k) => ({ id: `w${k}`, weekday: w.weekday, ...w.at })),
      exceptions: b.exceptions.map((e, k) => ({
        id: `x${k}`,
        date: addDays(origin.date, e.day),
        sessions: e.sessions,
      })),
    },
  };
}

describe('the sessions of a bench', () => {
  it('are open in exactly the minutes that the week or an exception says', () => {
    fc.assert(
      fc.property(bench, (b) => {
        const muster = musterOf(b);
        const origin = originOf(muster);
        const begin = minutesSince(origin, muster.startsOn);
        const sessions = sessionsOf(muster, DAYS);
        for (let k = 0; k < sessions.length; k++) {
          expect(sessions[k]!.end).toBeGreaterThan(sessions[k]!.start);
          if (k > 0) expect(sessions[k]!.start).toBeGreaterThan(sessions[k - 1]!.end);
        }
        // Every quarter of an hour is wholly open or wholly shut here.
        for (let t = 0; t < DAYS * 1440; t += 15) {
          const date = addDays(origin.date, Math.floor(t / 1440));
          const special = muster.bench.exceptions.filter((e) => e.date === date);
          const list =
            special.length > 0
              ? special.flatMap((e) => e.sessions)
              : muster.bench.weekly.filter((w) => w.weekday === weekdayOf(date));
          const isOpen =
            t >= begin && list.some((s) => t % 1440 >= minutesOfDay(s.from) && t % 1440 < minutesOfDay(s.to));
          expect(sessions.some((s) => t >= s.start && t < s.end)).toBe(isOpen);
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('the air of a bench', () => {
  const reading = fc.record({
    hour: fc.integer({ min: -30, max: 24 * DAYS }),
    celsius: fc.integer({ min: -5, max: 35 }),
    humidityPercent: fc.integer({ min: 20, max: 99 }),
  });

  it('is known at every minute: what was read at its hour, the climate far from any reading', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(reading, { selector: (r) => r.hour, maxLength: 12 }),
        fc.integer({ min: 0, max: 96 }),
        fc.integer({ min: 0, max: 96 }),
        (readings, dawn, dusk) => {
          const base = smallMuster();
          const origin = originOf(base);
          const clock = (q: number): string => dateTimeAfter(origin, Math.min(q, 95) * 15).slice(11);
          const climate = {
            day: { celsius: 24, humidityPercent: 40 },
            night: { celsius: 16, humidityPercent: 70 },
            dayFrom: clock(dawn),
            nightFrom: clock(dusk),
          };
          const muster: Muster = {
            ...base,
            bench: {
              ...base.bench,
              climate,
              readings: readings.map(({ hour, ...air }) => ({
                at: instantAfter(origin, hour * 60),
                ...air,
              })),
            },
          };
          const spells = spellsOf(muster, DAYS);
          expect(spells[0]!.from).toBe(0);
          for (let k = 1; k < spells.length; k++)
            expect(spells[k]!.from).toBeGreaterThan(spells[k - 1]!.from);

          const a = minutesOfDay(climate.dayFrom);
          const b = minutesOfDay(climate.nightFrom);
          for (let t = 0; t < DAYS * 1440; t += 15) {
            const air = airAt(spells, t);
            const read = readings.find((r) => r.hour * 60 === t);
            if (read)
              expect([air.celsius, air.humidityPercent]).toEqual([read.celsius, read.humidityPercent]);
            if (readings.every((r) => Math.abs(r.hour * 60 - t) > 6 * 60)) {
              const m = t % 1440;
              const isDay = a === b || (a < b ? m >= a && m < b : m >= a || m < b);
              expect(air).toEqual(isDay ? climate.day : climate.night);
            }
            // Never beyond what was read or what the climate knows.
            const known = [...readings, climate.day, climate.night].map((x) => x.celsius);
            expect(air.celsius).toBeGreaterThanOrEqual(Math.min(...known));
            expect(air.celsius).toBeLessThanOrEqual(Math.max(...known));
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('runs in a straight line between readings that are near, and does not bridge a night without any', () => {
    const base = smallMuster();
    const origin = originOf(base);
    const at = (hour: number, celsius: number) => ({
      at: instantAfter(origin, hour * 60),
      celsius,
      humidityPercent: 60,
    });
    const airs = (readings: ReturnType<typeof at>[]) => {
      const spells = spellsOf({ ...base, bench: { ...base.bench, readings } }, DAYS);
      return (hour: number) => airAt(spells, hour * 60).celsius;
    };
    const near = airs([at(10, 10), at(14, 18)]);
    expect([10, 11, 12, 13, 14].map(near)).toEqual([10, 12, 14, 16, 18]);
    const far = airs([at(10, 10), at(20, 18)]);
    expect([10, 12, 15, 19, 20].map(far)).toEqual([10, 21, 21, 21, 18]);
  });
});

describe('the climate of a bench', () => {
  const day = { celsius: 20, humidityPercent: 50 };
  const night = { celsius: 15, humidityPercent: 70 };
  const months = Array.from({ length: 12 }, (_, k) => ({ celsius: k, humidityPercent: 20 * k - 60 }));
  const climate = (more: Partial<Muster['bench']['climate']>): Muster => {
    const muster = smallMuster();
    return {
      ...muster,
      startsOn: '2027-03-30T18:00',
      bench: { ...muster.bench, climate: { day, night, dayFrom: '08:00', nightFrom: '20:00', ...more } },
    };
  };
  const at = (muster: Muster, when: string) =>
    airAt(spellsOf(muster, 5), minutesSince(originOf(muster), when));

  it('is of the month, within what may be', () => {
    const muster = climate({ months });
    expect(at(muster, '2027-03-31T12:00')).toEqual({ celsius: 22, humidityPercent: 30 });
    expect(at(muster, '2027-03-31T23:00')).toEqual({ celsius: 17, humidityPercent: 50 });
    expect(at(muster, '2027-04-01T12:00')).toEqual({ celsius: 23, humidityPercent: 50 });
    const damp = climate({ months: months.map((m) => ({ ...m, humidityPercent: 80 })) });
    expect(at(damp, '2027-03-31T12:00').humidityPercent).toBe(99);
    const dry = climate({ months: months.map((m) => ({ ...m, humidityPercent: -80 })) });
    expect(at(dry, '2027-03-31T12:00').humidityPercent).toBe(1);
  });

  it('is one and the same day and night where both begin together, but for the month', () => {
    const same = { dayFrom: '08:00', nightFrom: '08:00' };
    expect(spellsOf(climate(same), 5)).toEqual([{ from: 0, air: day }]);
    const muster = climate({ ...same, months });
    const spells = spellsOf(muster, 5);
    expect(spells.map((s) => s.from)).toEqual([0, 1, 2, 3, 4].map((d) => d * 1440));
    expect(spells.map((s) => s.air.celsius)).toEqual([22, 22, 23, 23, 23]);
  });

  it('has its night by day where people sleep then', () => {
    const muster = climate({ dayFrom: '20:00', nightFrom: '08:00' });
    expect(at(muster, '2027-03-31T12:00')).toEqual(night);
    expect(at(muster, '2027-03-31T23:00')).toEqual(day);
    expect(at(muster, '2027-03-31T03:00')).toEqual(day);
  });
});
