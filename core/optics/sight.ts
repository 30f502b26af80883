/**
 * Whether a mark can be seen: the contrast sensitivity function of Mannos and Sakrison (1974), scaled to a peak of 1 in 150 (from memory
 * of daylight vision), for light against dark; for hue alone the eye's limit of 11 cycles a degree (Mullen 1985).
 */
import { differenceOf, labOf, luminanceOf } from './colour';

const PEAK = 150;
const HUE_LIMIT = 11;
const PLAIN_HUE = 5;
export const ARM_MM = 600;

/** Cycles a degree of a bar so wide, seen from a distance; both in millimetres. */
export function frequencyOf(widthMm: number, distanceMm = ARM_MM): number {
  const degrees = (2 * Math.atan(widthMm / (2 * distanceMm)) * 180) / Math.PI;
  return 1 / (2 * degrees);
}

const shape = (f: number): number => 2.6 * (0.0192 + 0.114 * f) * Math.exp(-((0.114 * f) ** 1.1));
/** Where the curve is highest, cycles a degree: a mark wider than that is seen by its edges. */
const BEST = 7.9;

/** Smallest contrast (Michelson) that is seen at so many cycles a degree, turned upside down. */
export function sensitivityAt(frequency: number): number {
  return PEAK * shape(Math.max(BEST, frequency));
}

/** Width in millimetres from which a mark is seen on its ground at arm's length; null: never. */
export function smallestSeenMm(mark: string, ground: string, distanceMm = ARM_MM): number | null {
  const a = luminanceOf(mark);
  const b = luminanceOf(ground);
  const contrast = a + b > 0 ? Math.abs(a - b) / (a + b) : 0;
  const byHue = hueDifference(mark, ground) >= PLAIN_HUE ? widthAt(HUE_LIMIT, distanceMm) : null;
  if (contrast * sensitivityAt(BEST) < 1) return byHue;
  let low = BEST;
  let high = 60;
  for (let k = 0; k < 40; k++) {
    const middle = (low + high) / 2;
    if (contrast * sensitivityAt(middle) >= 1) low = middle;
    else high = middle;
  }
  const byLight = widthAt(low, distanceMm);
  return byHue === null ? byLight : Math.min(byLight, byHue);
}

function widthAt(frequency: number, distanceMm: number): number {
  return 2 * distanceMm * Math.tan(((1 / (2 * frequency)) * Math.PI) / 360);
}

function hueDifference(a: string, b: string): number {
  const p = labOf(a);
  const q = labOf(b);
  return differenceOf(a, b) === 0 ? 0 : Math.hypot(p.a - q.a, p.b - q.b);
}
