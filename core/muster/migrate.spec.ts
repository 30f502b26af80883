/** Musters of the first format. */
import { describe, expect, it } from 'vitest';
import { smallMuster } from '../plan/testing';
import { fromFirstFormat, musterSchema } from './index';

const first = (bench: Record<string, unknown> = {}): Record<string, unknown> => {
  const { bench: today, ...rest } = smallMuster();
  const { timeZone, ...without } = today;
  void timeZone;
  return { ...rest, format: 'patient-muster/1', bench: { ...without, ...bench } };
};
const benchOf = (value: unknown) => musterSchema.parse(value).bench;

describe('a muster of the first format', () => {
  it('has the time of the bench’s wall: it is given the zone, and keeps everything else', () => {
    expect(musterSchema.parse(fromFirstFormat(first(), 'Europe/Berlin'))).toEqual({
      ...smallMuster(),
      bench: { ...smallMuster().bench, timeZone: 'Europe/Berlin' },
    });
    expect(benchOf(fromFirstFormat(first({ timeZone: 'UTC' }), 'Europe/Berlin')).timeZone).toBe('UTC');
  });

  it('has its readings as instants; what is none any more stays for the schema to judge', () => {
    const air = { celsius: 20, humidityPercent: 50 };
    const readings = [
      { ...air, at: '2027-07-01T12:00' },
      { ...air, at: '2027-07-01T12:00:00Z' },
    ];
    const read = benchOf(fromFirstFormat(first({ readings }), 'Europe/Berlin')).readings;
    expect(read!.map((r) => r.at)).toEqual(['2027-07-01T10:00:00Z', '2027-07-01T12:00:00Z']);
    const odd = fromFirstFormat(first({ readings: ['damp'] }), 'UTC') as { bench: { readings: unknown } };
    expect(odd.bench.readings).toEqual(['damp']);
    expect(musterSchema.safeParse(odd).success).toBe(false);
  });

  it('is left as it is where it is no muster at all', () => {
    for (const value of [null, 7, 'muster', [], {}, { bench: [] }])
      expect(fromFirstFormat(value, 'UTC')).toBe(value);
  });
});
