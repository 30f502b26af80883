import { describe, expect, it } from 'vitest';
import { airAt, spellsOf } from '#core/muster';
import { checkMuster, compile } from '#core/plan';
import { smallMuster } from '../plan/testing';
import { readReadings, ReadingsError } from './index';

const file = (...lines: string[]): string => ['time,celsius,humidity_percent', ...lines].join('\n');
const withReadings = (readings: ReturnType<typeof readReadings>) => {
  const m = smallMuster();
  return { ...m, bench: { ...m.bench, readings } };
};

describe('readings from CSV', () => {
  it('reads our columns in any order', () => {
    expect(readReadings('humidity_percent,time,celsius\n60,2027-03-02 20:00,18.5\n', 'UTC')).toEqual([
      { at: '2027-03-02T20:00:00Z', celsius: 18.5, humidityPercent: 60 },
    ]);
  });

  it.each([
    ['2027-03-02 20:00,18,0', /line 2: 0 % humidity/],
    ['2027-03-02 20:00,18,130', /line 2: 130 % humidity/],
    ['2027-03-02 20:00,-40,50', /line 2: -40 °C/],
    ['2027-02-30 20:00,18,50', /line 2: “2027-02-30 20:00” is no time/],
    ['2027-03-02T20:00+99:99,18,50', /is no time/],
    ['2027-03-02T20:00+02:75,18,50', /is no time/],
    ['2027-03-02 20:00,warm,50', /line 2: warm °C/],
  ])('refuses %s with the line and the reason', (line, message) => {
    expect(() => readReadings(file(line), 'UTC')).toThrow(ReadingsError);
    expect(() => readReadings(file(line), 'UTC')).toThrow(message);
  });

  it('refuses decimal commas between commas, blank figures and other numerals, by the line of the file', () => {
    const refused = (text: string): string => {
      try {
        readReadings(text, 'UTC');
      } catch (error) {
        return (error as Error).message;
      }
      throw new Error('It was taken.');
    };
    expect(refused(file('2027-03-02 20:00,18,5,60'))).toMatch(/line 2: has more cells/);
    expect(refused(file('2027-03-02 20:00, ,60'))).toMatch(/line 2: nothing °C/);
    expect(refused(file('2027-03-02 20:00,0x10,60'))).toMatch(/line 2: 0x10 °C/);
    expect(refused(file('2027-03-02 20:00,18,60', '', '', '2027-03-02 21:00,99,60'))).toMatch(
      /line 5: 99 °C/,
    );
    expect(refused(`\n\n${file('2027-03-02 21:00,99,60')}`)).toMatch(/line 4: 99 °C/);
  });

  it('takes decimal commas where semicolons stand between the columns', () => {
    expect(readReadings('time;celsius;humidity_percent\n2027-03-02 20:00;18,5;60,5', 'UTC')).toEqual([
      { at: '2027-03-02T20:00:00Z', celsius: 18.5, humidityPercent: 60.5 },
    ]);
  });

  it.each([
    ['2027-03-02 10:00 PM', '2027-03-02T22:00:00Z'],
    ['2027-03-02 9:30 am', '2027-03-02T09:30:00Z'],
    ['2027-03-02 12:05 AM', '2027-03-02T00:05:00Z'],
    ['2027-03-02 12:05 p.m.', '2027-03-02T12:05:00Z'],
  ])('takes %s as %s', (time, at) => {
    expect(readReadings(file(`${time},18,50`), 'UTC')[0]!.at).toBe(at);
  });

  it.each(['2027-03-02 13:00 PM', '2027-03-02 0:10 AM', '2027-03-02 10:00 soon'])('refuses %s', (time) => {
    expect(() => readReadings(file(`${time},18,50`), 'UTC')).toThrow(/is no time/);
  });

  it('takes times of the bench’s wall, and those that say their own zone', () => {
    const read = (time: string): string => readReadings(file(`${time},18,50`), 'Europe/Vienna')[0]!.at;
    expect(read('2027-07-02 20:00')).toBe('2027-07-02T18:00:00Z');
    expect(read('2027-01-02 20:00:31')).toBe('2027-01-02T19:00:00Z');
    expect(read('2027-07-02T20:00Z')).toBe('2027-07-02T20:00:00Z');
    expect(read('2027-07-02T20:00:59-03:30')).toBe('2027-07-02T23:30:00Z');
  });

  it('refuses a file without its columns or without readings', () => {
    expect(() => readReadings('a,b\n1,2', 'UTC')).toThrow(/no column “time”/);
    expect(() => readReadings(file(), 'UTC')).toThrow(/no readings/);
  });
});

describe('the air of the bench', () => {
  it('is what was read, a line between readings, the climate elsewhere', () => {
    const m = withReadings(readReadings(file('2027-03-02 10:00,10,80', '2027-03-02 14:00,18,40'), 'UTC'));
    const spells = spellsOf(m, 3);
    const at = (hour: number): number => airAt(spells, 1440 + hour * 60).celsius;
    expect([at(9), at(10), at(12), at(14), at(16)]).toEqual([21, 10, 14, 18, 21]);
  });

  it('follows the profile of the months, across the turn of one', () => {
    const m = smallMuster();
    const months = Array.from({ length: 12 }, (_, k) => ({
      celsius: k === 3 ? 4 : k === 2 ? -6 : 0,
      humidityPercent: k === 2 ? 60 : 0,
    }));
    const spring = { ...m, bench: { ...m.bench, climate: { ...m.bench.climate, months } } };
    const spells = spellsOf(spring, 40);
    expect(airAt(spells, 12 * 60)).toEqual({ celsius: 15, humidityPercent: 99 });
    expect(airAt(spells, 31 * 1440 + 12 * 60)).toEqual({ celsius: 25, humidityPercent: 50 });
  });

  it('reports gaps and doubles, and fills them', () => {
    const m = withReadings(
      readReadings(
        file(
          '2027-03-02 01:00,18,50',
          '2027-03-02 02:00,18,50',
          '2027-03-02 02:00,17,55',
          '2027-03-02 12:00,18,50',
        ),
        'UTC',
      ),
    );
    const rules = checkMuster(m).map((f) => f.rule);
    expect(rules).toContain('readings-twice');
    expect(rules).toContain('readings-gap');
  });

  it('keeps paint out of a foggy session, and says so', () => {
    const fog = Array.from({ length: 8 }, (_, h) => `2027-03-02 ${16 + h}:00,14,97`);
    const m = withReadings(readReadings(file(...fog), 'UTC'));
    expect(checkMuster(m).find((f) => f.rule === 'air-unfit')?.text).toMatch(/dew point/);
    const { problem } = compile(m);
    const fit = problem.calendars!.find((c) => c.id === 'fit-paint')!;
    const evening = 1440 + 19 * 60;
    expect(fit.open.some(([a, b]) => a < evening + 120 && b > evening)).toBe(false);
    expect(problem.operations.find((o) => o.id === 'p1.prime')!.uses).toContainEqual({
      resource: 'fit-paint',
      amount: 1,
    });
    expect(problem.operations.find((o) => o.id === 'p1.chip')!.uses).not.toContainEqual({
      resource: 'fit-paint',
      amount: 1,
    });
  });
});
