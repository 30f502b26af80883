/** A simulated thermo-hygrometer and its forecast: stand-ins for instruments. Same seed and minute, same air. */
import type { Air } from './rates';

const DAY = 1440;
const HOUR = 60;
/** The evening of sea fog: the Wednesday of every week (1 January 1970 was a Thursday), from … to, minutes of the day. */
const FOG_EVERY = 7;
const FOG_DAY = 6;
const FOG_FROM = 17 * HOUR;
const FOG_TO = 24 * HOUR;
const FOG: Air = { celsius: 14.5, humidityPercent: 97 };

/** @param minute minutes since any midnight that all callers agree on */
export function simulatedAir(seed: number, minute: number): Air {
  const day = Math.floor(minute / DAY);
  const hour = (((minute % DAY) + DAY) % DAY) / HOUR;
  const swing = Math.sin(((hour - 9) / 24) * 2 * Math.PI);
  const celsius = 17.5 + 2.5 * swing + 1.2 * noise(seed, minute / (6 * HOUR));
  const humidity = 58 - 9 * swing + 8 * noise(seed + 1, minute / (9 * HOUR));
  const fog = fogShare(day, hour * HOUR);
  return {
    celsius: round(celsius + (FOG.celsius - celsius) * fog),
    humidityPercent: round(Math.min(99, Math.max(25, humidity + (FOG.humidityPercent - humidity) * fog))),
  };
}

function fogShare(day: number, minuteOfDay: number): number {
  if (((day % FOG_EVERY) + FOG_EVERY) % FOG_EVERY !== FOG_DAY) return 0;
  if (minuteOfDay < FOG_FROM || minuteOfDay > FOG_TO) return 0;
  return Math.min(1, (minuteOfDay - FOG_FROM) / HOUR, (FOG_TO - minuteOfDay) / HOUR + 0.2);
}

/** Smooth value noise in [-1, 1]. */
function noise(seed: number, x: number): number {
  const k = Math.floor(x);
  const f = x - k;
  const s = f * f * (3 - 2 * f);
  return hash(seed, k) * (1 - s) + hash(seed, k + 1) * s;
}

function hash(seed: number, k: number): number {
  let t = Math.imul(k ^ Math.imul(seed + 1, 0x9e3779b1), 0x85ebca6b);
  t ^= t >>> 13;
  t = Math.imul(t, 0xc2b2ae35);
  return ((t ^ (t >>> 16)) >>> 0) / 0x7fffffff - 1;
}

function round(x: number): number {
  return Math.round(x * 10) / 10;
}
