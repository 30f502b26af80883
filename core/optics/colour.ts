/** Colours between the page and light: `#rrggbb` to bands of linear light and to CIELAB. Spaces and differences are culori's. */
import {
  differenceCiede2000,
  formatHex,
  modeLab65,
  modeLrgb,
  modeRgb,
  modeXyz65,
  useMode,
  type Lab65,
} from 'culori/fn';

const toRgb = useMode(modeRgb);
const toLinear = useMode(modeLrgb);
useMode(modeXyz65);
const toLab = useMode(modeLab65);
const ciede2000 = differenceCiede2000();

/** Red, green and blue bands: share of the light, 0 to 1. A coarse spectrum, enough for paint on a screen. */
export type Bands = readonly [number, number, number];

export function bandsOf(colour: string): Bands {
  const { r, g, b } = toLinear(colour)!;
  return [r, g, b];
}

/** `#rrggbb`; what a screen cannot show is cut. */
export function colourOf([r, g, b]: Bands): string {
  return formatHex(toRgb({ mode: 'lrgb', r, g, b }));
}

/** CIELAB under D65. */
export function labOf(colour: string): Lab65 {
  return toLab(colour)!;
}

export function ofLab(l: number, a: number, b: number): string {
  return formatHex(toRgb({ mode: 'lab65', l: Math.min(100, Math.max(0, l)), a, b }));
}

/** CIEDE2000 between two colours: about 1 is just seen side by side, 5 is plain. */
export function differenceOf(a: string, b: string): number {
  return ciede2000(a, b);
}

/** The same between bands of linear light. */
export function bandsDifference([r, g, b]: Bands, [r2, g2, b2]: Bands): number {
  return ciede2000({ mode: 'lrgb', r, g, b }, { mode: 'lrgb', r: r2, g: g2, b: b2 });
}

/** The same between colours given in CIELAB. */
export function labDifference(
  a: readonly [number, number, number],
  b: readonly [number, number, number],
): number {
  const lab = ([l, p, q]: readonly [number, number, number]): Lab65 => ({ mode: 'lab65', l, a: p, b: q });
  return ciede2000(lab(a), lab(b));
}

/** Relative luminance, 0 to 1 (IEC 61966-2-1). */
export function luminanceOf(colour: string): number {
  const [r, g, b] = bandsOf(colour);
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
