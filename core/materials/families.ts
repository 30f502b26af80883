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
  'work',
] as const;
export type FamilyId = (typeof FAMILY_IDS)[number];

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
}

const LIST: readonly Family[] = [
  family('acrylic', 'Acrylic, waterborne', 'water', 15, false, 'plain'),
  family('metal', 'Metallic acrylic', 'water', 15, true, 'sheen'),
  family('ink', 'Acrylic ink', 'water', 15, false, 'plain'),
  family('acrylic-wash', 'Acrylic wash or shade', 'water', 30, false, 'drips'),
  family('primer', 'Primer, waterborne', 'water', 60, true, 'grit'),
  family('lacquer', 'Lacquer primer or paint', 'solvent', 20, true, 'grit'),
  family('varnish', 'Varnish, waterborne', 'water', 60, true, 'clear'),
  family('medium', 'Chipping medium', 'water', 20, true, 'dots'),
  family('enamel', 'Enamel wash or streaks', 'solvent', 720, true, 'drips'),
  family('oil', 'Artist oil, thinned', 'oxidation', 1440, true, 'drips'),
  family('setting', 'Setting or softening solution', 'water', 60, false, 'clear'),
  family('powder', 'Powder with fixer', 'solvent', 30, false, 'speckle'),
  family('pen', 'Marker, pen, graphite', 'none', 0, false, 'plain'),
  family('paste', 'Texture paste, mud', 'water', 720, true, 'speckle'),
  family('water', 'Clear water, poured', 'water', 1440, false, 'clear'),
  family('work', 'Work without paint', 'none', 0, false, 'hands'),
];

function family(
  id: FamilyId,
  name: string,
  drying: Drying,
  dryMinutes: number,
  isDirty: boolean,
  texture: Texture,
): Family {
  return { id, name, drying, dryMinutes, isDirty, texture };
}

export const FAMILIES: ReadonlyMap<FamilyId, Family> = new Map(LIST.map((f) => [f.id, f]));

/** The family of an id that a schema has already checked. */
export function familyOf(id: FamilyId): Family {
  return FAMILIES.get(id)!;
}
