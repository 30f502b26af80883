/** A piece as six plain faces, and the spots on them where life leaves its marks. Shapes and spots are common practice, no source. */
import type { Feature, Piece, SizeClass } from '#core/muster';

export const FACES = ['front', 'back', 'left', 'right', 'top', 'under'] as const;
export type Face = (typeof FACES)[number];

/** Length, width and height of the box that a piece fills, its length being 1. */
export interface Box {
  readonly length: number;
  readonly width: number;
  readonly height: number;
}

const BOXES: Readonly<Record<SizeClass, Box>> = {
  figure: { length: 0.55, width: 0.75, height: 1.6 },
  mounted: { length: 1, width: 0.6, height: 1.1 },
  small: { length: 1, width: 0.7, height: 0.6 },
  craft: { length: 1.3, width: 0.6, height: 0.5 },
  large: { length: 1.5, width: 0.6, height: 0.55 },
  base: { length: 1.2, width: 1.2, height: 0.2 },
};

const USUAL: Readonly<Record<SizeClass, readonly Feature[]>> = {
  figure: ['running'],
  mounted: ['running'],
  small: ['deck', 'bow'],
  craft: ['deck', 'bow', 'steps', 'hatch'],
  large: ['deck', 'bow', 'steps', 'hatch', 'exhaust'],
  base: ['deck'],
};

export const FEATURE_WORDS: Readonly<Record<Feature, string>> = {
  hatch: 'hatch or lid',
  steps: 'steps, footholds, grips',
  exhaust: 'exhaust or chimney',
  running: 'feet, wheels or tracks',
  deck: 'deck or flat top',
  bow: 'bow or leading edge',
};

/** The class that a piece counts as. */
export function classOf(piece: Piece): SizeClass {
  return piece.size?.class ?? (piece.count > 1 ? 'figure' : 'small');
}

export function boxOf(piece: Piece): Box {
  return BOXES[classOf(piece)];
}

export function featuresOf(piece: Piece): readonly Feature[] {
  return piece.features ?? USUAL[classOf(piece)];
}

/** A place on one face, from 0 to 1: x from the left as one looks at it, y from its top. */
export interface Spot {
  readonly name: string;
  readonly face: Face;
  readonly x: number;
  readonly y: number;
  /** half its width and half its height */
  readonly rx: number;
  readonly ry: number;
  readonly is: 'edge' | 'touched' | 'leading' | 'low' | 'flat' | 'side' | 'vent' | 'under';
  /** life does the same on the other side too */
  readonly isMirrored: boolean;
}

const SIDES = ['left', 'right'] as const;
const ENDS = ['front', 'back'] as const;

/** Where the bow is on a side: looked at from the left it points left, from the right it points right. */
const forward = (side: (typeof SIDES)[number], x: number): number => (side === 'left' ? x : 1 - x);

/** Every spot of a piece with these features. */
export function spotsOf(features: readonly Feature[]): Spot[] {
  const spots: Spot[] = [];
  const add = (
    name: string,
    is: Spot['is'],
    face: Face,
    [x, y, rx, ry]: readonly [number, number, number, number],
    isMirrored = false,
  ): void => {
    spots.push({ name, is, face, x, y, rx, ry, isMirrored });
  };
  for (const side of SIDES) {
    const at = (x: number, y: number, rx: number, ry: number) => [forward(side, x), y, rx, ry] as const;
    add('along the upper edge, ahead', 'edge', side, at(0.28, 0.06, 0.2, 0.05));
    add('along the upper edge, behind', 'edge', side, at(0.74, 0.06, 0.2, 0.05));
    add('at the front corner', 'edge', side, at(0.05, 0.4, 0.05, 0.28));
    add('at the rear corner', 'edge', side, at(0.95, 0.45, 0.05, 0.28));
    add('on the middle of the side', 'side', side, at(0.5, 0.45, 0.24, 0.18));
    add('on the side, ahead', 'side', side, at(0.26, 0.5, 0.16, 0.18));
    add('on the side, behind', 'side', side, at(0.76, 0.5, 0.16, 0.18));
    add('along the lower edge, ahead', 'low', side, at(0.28, 0.88, 0.22, 0.1));
    add('along the lower edge, behind', 'low', side, at(0.74, 0.88, 0.22, 0.1));
    if (features.includes('steps')) add('at the steps', 'touched', side, at(0.42, 0.72, 0.07, 0.14), true);
    if (features.includes('running'))
      add('on feet, wheels or tracks', 'low', side, at(0.5, 0.93, 0.36, 0.06), true);
  }
  for (const end of ENDS) {
    add('along the upper edge', 'edge', end, [0.5, 0.07, 0.32, 0.05]);
    add('in the middle', 'side', end, [0.5, 0.45, 0.22, 0.16]);
    add('along the lower edge', 'low', end, [0.5, 0.88, 0.32, 0.1]);
  }
  add('on the top, ahead', 'flat', 'top', [0.26, 0.5, 0.16, 0.26]);
  add('on the top, behind', 'flat', 'top', [0.74, 0.5, 0.16, 0.26]);
  add('along the edge of the top, left', 'edge', 'top', [0.5, 0.93, 0.3, 0.05]);
  add('along the edge of the top, right', 'edge', 'top', [0.5, 0.07, 0.3, 0.05]);
  add('on the underside', 'under', 'under', [0.5, 0.5, 0.36, 0.3]);
  if (features.includes('bow')) {
    add('on the leading edge', 'leading', 'front', [0.5, 0.55, 0.14, 0.34]);
    for (const side of SIDES)
      add('behind the leading edge', 'leading', side, [forward(side, 0.1), 0.6, 0.08, 0.26]);
  }
  if (features.includes('deck')) add('where one walks on the deck', 'touched', 'top', [0.5, 0.5, 0.22, 0.18]);
  if (features.includes('hatch')) add('round the hatch', 'touched', 'top', [0.62, 0.46, 0.1, 0.16]);
  if (features.includes('exhaust')) {
    add('at the exhaust', 'vent', 'back', [0.68, 0.3, 0.1, 0.12]);
    add('behind the exhaust', 'vent', 'top', [0.92, 0.32, 0.07, 0.14]);
  }
  return spots;
}
