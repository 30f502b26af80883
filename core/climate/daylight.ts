/** Sunrise and sunset. */
import { getTimes } from 'suncalc';

/** Milliseconds since 1970, UTC. */
export interface Daylight {
  readonly from: number;
  readonly to: number;
}

const DAY_MS = 86_400_000;

/**
 * From sunrise to sunset (upper limb, refraction included) on a date.
 * @param noonUtc a moment near noon of that date at the place, milliseconds since 1970
 * @param latitude degrees, north positive; @param longitude degrees, east positive
 * @returns null in the polar night; the whole day around noon in the polar day
 */
export function daylight(noonUtc: number, latitude: number, longitude: number): Daylight | null {
  const times = getTimes(new Date(noonUtc), latitude, longitude);
  if (times.alwaysUp) return { from: noonUtc - DAY_MS / 2, to: noonUtc + DAY_MS / 2 };
  if (!times.sunrise || !times.sunset) return null;
  return { from: times.sunrise.getTime(), to: times.sunset.getTime() };
}
