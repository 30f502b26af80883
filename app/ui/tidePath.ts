/** The drying tide as SVG paths: a level that falls from full at `from` to nothing at `dry`. */
export interface TidePaths {
  readonly wet: string;
  readonly workable: string;
  readonly nearly: string;
  readonly line: string;
}

/** How sharply the level falls; the shape is a picture, the moments are computed. */
const FALL = 3;
const POINTS = 10;

/** Level 1 → 0 for a share 0 → 1 of the drying. */
export function tideLevel(share: number): number {
  const rest = Math.exp(-FALL);
  return Math.max(0, (Math.exp(-FALL * Math.min(1, Math.max(0, share))) - rest) / (1 - rest));
}

/**
 * @param x pixels of: end of the work, no longer wet, no longer workable, dry
 * @param base y of the ground line; `height` of a full level, both in pixels
 */
export function tidePaths(
  x: { from: number; wet: number; workable: number; dry: number },
  base: number,
  height: number,
): TidePaths {
  const span = Math.max(1, x.dry - x.from);
  const y = (at: number): number => base - height * tideLevel((at - x.from) / span);
  const curve = (a: number, b: number): string => {
    const parts: string[] = [];
    for (let k = 0; k <= POINTS; k++) {
      const at = a + ((b - a) * k) / POINTS;
      parts.push(`${at.toFixed(1)} ${y(at).toFixed(1)}`);
    }
    return parts.join('L');
  };
  const area = (a: number, b: number): string =>
    b - a < 0.5 ? '' : `M${a.toFixed(1)} ${base}L${curve(a, b)}L${b.toFixed(1)} ${base}Z`;
  return {
    wet: area(x.from, x.wet),
    workable: area(x.wet, x.workable),
    nearly: area(x.workable, x.dry),
    line: x.dry - x.from < 0.5 ? '' : `M${curve(x.from, x.dry)}`,
  };
}
