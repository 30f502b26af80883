/** Sunrise and sunset against published equations and almanac figures. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daylight } from './daylight';

const MINUTE = 60_000;
const rad = (degrees: number): number => (degrees * Math.PI) / 180;
const deg = (radians: number): number => (radians * 180) / Math.PI;

/**
 * Sunrise and sunset in minutes after midnight UTC, by the low-accuracy equations of the NOAA Global Monitoring Laboratory ("General Solar
 * Position Calculations", after Meeus, Astronomical Algorithms): fractional year, equation of time, declination, hour angle at 90.833°.
 */
function noaa(day: number, latitude: number, longitude: number): { rise: number; set: number } | null {
  const gamma = ((2 * Math.PI) / 365) * (day - 1);
  const equation =
    229.18 *
    (0.000075 +
      0.001868 * Math.cos(gamma) -
      0.032077 * Math.sin(gamma) -
      0.014615 * Math.cos(2 * gamma) -
      0.040849 * Math.sin(2 * gamma));
  const declination =
    0.006918 -
    0.399912 * Math.cos(gamma) +
    0.070257 * Math.sin(gamma) -
    0.006758 * Math.cos(2 * gamma) +
    0.000907 * Math.sin(2 * gamma) -
    0.002697 * Math.cos(3 * gamma) +
    0.00148 * Math.sin(3 * gamma);
  const cos =
    Math.cos(rad(90.833)) / (Math.cos(rad(latitude)) * Math.cos(declination)) -
    Math.tan(rad(latitude)) * Math.tan(declination);
  if (Math.abs(cos) > 1) return null;
  const hour = deg(Math.acos(cos));
  return { rise: 720 - 4 * (longitude + hour) - equation, set: 720 - 4 * (longitude - hour) - equation };
}

/** A moment at noon by the sun at a longitude, on a day of 2027 (a year of 365 days). */
const noonOf = (day: number, longitude: number): number =>
  Date.UTC(2027, 0, day, 12) - Math.round(longitude * 4) * MINUTE;

describe('daylight', () => {
  it('is what the published equations give, to six minutes (they are good to about four), wherever the sun rises and sets', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 365 }),
        fc.double({ min: -60, max: 60, noNaN: true }),
        fc.double({ min: -170, max: 170, noNaN: true }),
        (day, latitude, longitude) => {
          const expected = noaa(day, latitude, longitude)!;
          const got = daylight(noonOf(day, longitude), latitude, longitude)!;
          const midnight = Date.UTC(2027, 0, day);
          expect(Math.abs((got.from - midnight) / MINUTE - expected.rise)).toBeLessThan(6);
          expect(Math.abs((got.to - midnight) / MINUTE - expected.set)).toBeLessThan(6);
        },
      ),
      { numRuns: 300 },
    );
  });

  it.each([
    // Figures as almanacs print them, from memory.
    ['London, midsummer', '2024-06-21T12:00Z', 51.5074, -0.1278, '2024-06-21T03:43Z', '2024-06-21T20:21Z'],
    ['New York, midwinter', '2024-12-21T17:00Z', 40.7128, -74.006, '2024-12-21T12:17Z', '2024-12-21T21:32Z'],
    ['Sydney, midwinter', '2024-06-21T02:00Z', -33.8688, 151.2093, '2024-06-20T21:00Z', '2024-06-21T06:54Z'],
  ])('in %s is what the almanac says', (_, noon, latitude, longitude, rise, set) => {
    const sun = daylight(Date.parse(noon), latitude, longitude)!;
    expect(Math.abs(sun.from - Date.parse(rise))).toBeLessThanOrEqual(2 * MINUTE);
    expect(Math.abs(sun.to - Date.parse(set))).toBeLessThanOrEqual(2 * MINUTE);
  });

  it('is none in the polar night and all day in the polar day', () => {
    expect(daylight(Date.UTC(2027, 11, 21, 11), 78.2, 15.6)).toBeNull();
    const sun = daylight(Date.UTC(2027, 5, 21, 11), 78.2, 15.6)!;
    expect(sun.to - sun.from).toBe(24 * 60 * MINUTE);
  });
});
