/**
 * Product families and how they dry. Times are nominal minutes at 21 °C, 50 % relative humidity, still air, one thin coat
 * (common practice, no source); products of one family differ, so every layer carries its own figure.
 */
export const FAMILY_IDS = [
  'acrylic',
  'metal',
  'ink',
  'acrylic-wash',
  'primer',
  'lacquer',
  'varnish',
  'medium',
  'enamel',
  'oil',
  'setting',
  'powder',
  'pen',
  'paste',
  'water',
  'crackle',
  'washable',
  'work',
] as const;
export type FamilyId = (typeof FAMILY_IDS)[number];

/**
 * Stages of drying, named as in ASTM D1640 and ISO 9117: minutes at 21 °C and 50 % of one thin coat. `solvent` is when a
 * solvent-based layer may follow; null where it never may without a seal.
 */
export interface Stages {
  readonly touch: number;
  readonly recoat: number;
  readonly solvent: number | null;
  readonly handle: number;
  readonly cured: number;
}

/** What carries the drying: water leaving, thinner leaving, oil hardening; or nothing dries. */
export type Drying = 'water' | 'solvent' | 'oxidation' | 'none';

/** How a layer of the family is drawn in the cut-away. */
export type Texture = 'plain' | 'grit' | 'sheen' | 'clear' | 'speckle' | 'drips' | 'dots' | 'hands';

export interface Family {
  readonly id: FamilyId;
  readonly name: string;
  readonly drying: Drying;
  /** minutes until the next layer may go on */
  readonly dryMinutes: number;
  /** leaves an airbrush so dirty that the next colour needs a full clean */
  readonly isDirty: boolean;
  readonly texture: Texture;
  readonly stages: Stages;
}

const DAY = 1440;

// The figures of the stages: handbook section 3 (common practice, no source); "cured" from memory.
const LIST: readonly Family[] = [
  family('acrylic', 'Acrylic, waterborne', 'water', 15, false, 'plain', [10, null, 180, DAY]),
  family('metal', 'Metallic acrylic', 'water', 15, true, 'sheen', [10, null, 180, DAY]),
  family('ink', 'Acrylic ink', 'water', 15, false, 'plain', [8, null, 60, DAY]),
  family('acrylic-wash', 'Acrylic wash or shade', 'water', 30, false, 'drips', [20, null, 60, DAY]),
  family('primer', 'Primer, waterborne', 'water', 60, true, 'grit', [30, DAY, DAY, 2 * DAY]),
  family('lacquer', 'Lacquer primer or paint', 'solvent', 20, true, 'grit', [10, 90, 180, DAY]),
  family('varnish', 'Varnish, waterborne', 'water', 60, true, 'clear', [20, 240, DAY, 2 * DAY]),
  family('medium', 'Chipping medium', 'water', 20, true, 'dots', [15, null, 60, DAY]),
  family('enamel', 'Enamel wash or streaks', 'solvent', 720, true, 'drips', [60, 720, DAY, 3 * DAY]),
  family('oil', 'Artist oil, thinned', 'oxidation', DAY, true, 'drips', [240, DAY, 3 * DAY, 7 * DAY]),
  family('setting', 'Setting or softening solution', 'water', 60, false, 'clear', [15, null, 60, DAY]),
  family('powder', 'Powder with fixer', 'solvent', 30, false, 'speckle', [15, null, 60, DAY]),
  family('pen', 'Marker, pen, graphite', 'none', 0, false, 'plain', [0, null, 0, 0]),
  family('paste', 'Texture paste, mud', 'water', 720, true, 'speckle', [120, DAY, DAY, 2 * DAY]),
  family('water', 'Clear water, poured', 'water', DAY, false, 'clear', [480, null, DAY, 3 * DAY]),
  family('crackle', 'Crackle paint', 'water', 60, true, 'dots', [20, null, 240, DAY]),
  family('washable', 'Washable paint', 'water', 15, false, 'speckle', [10, null, 60, 60]),
  family('work', 'Work without paint', 'none', 0, false, 'hands', [0, null, 0, 0]),
];

function family(
  id: FamilyId,
  name: string,
  drying: Drying,
  recoat: number,
  isDirty: boolean,
  texture: Texture,
  [touch, solvent, handle, cured]: [number, number | null, number, number],
): Family {
  const stages = { touch, recoat, solvent, handle, cured };
  return { id, name, drying, dryMinutes: recoat, isDirty, texture, stages };
}

export const FAMILIES: ReadonlyMap<FamilyId, Family> = new Map(LIST.map((f) => [f.id, f]));

/** The family of an id that a schema has already checked. */
export function familyOf(id: FamilyId): Family {
  return FAMILIES.get(id)!;
}
