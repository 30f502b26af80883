/**
 * Product families: one record each with everything that depends on the family, so that the compiler tells what a new one lacks. Times
 * are nominal minutes at 21 °C, 50 % relative humidity, still air, one thin coat (common practice, no source); products of one family
 * differ, so every layer carries its own figure.
 */

/**
 * Stages of drying, named as in ASTM D1640 and ISO 9117: minutes at 21 °C and 50 % of one thin coat. `solvent` is when a
 * solvent-based layer may follow; null where it never may without a seal. `tape` is when it bears a mask; null: never.
 */
export interface Stages {
  readonly touch: number;
  readonly recoat: number;
  readonly solvent: number | null;
  readonly handle: number;
  readonly cured: number;
  readonly tape: number | null;
}

/** What carries the drying: water leaving, thinner leaving, oil hardening; or nothing dries. */
export type Drying = 'water' | 'solvent' | 'oxidation' | 'none';

/** How a layer of the family is drawn in the cut-away. */
export type Texture = 'plain' | 'grit' | 'sheen' | 'clear' | 'speckle' | 'drips' | 'dots' | 'hands';

/** What holds it together, and so what eats it: spirit eats acrylic, lacquer's thinner eats both, water moves what is washable or loose. */
export type Binder = 'acrylic' | 'waterborne' | 'spirit' | 'lacquer' | 'washable' | 'loose' | 'none';

/** What it is there for. */
export type Role =
  | 'colour'
  | 'metal'
  | 'wash'
  | 'primer'
  | 'seal'
  | 'release'
  | 'crackle'
  | 'texture'
  | 'pour'
  | 'powder'
  | 'mark'
  | 'helper'
  | 'work';

/** What it does to whoever uses it; the words stand in cautions.ts. */
export type Hazard = 'thinner' | 'rags' | 'dust' | 'blade' | 'warm-water';

/** What light meets in it: from memory, for one normal coat. */
export interface Body {
  /** scattering power (Kubelka–Munk S·X): above 2 it hides, below 0.3 it only tints */
  readonly scatter: number;
  /** runs from edges and faces into the recesses */
  readonly flows: boolean;
  /** how its surface dries, where the layer does not say it */
  readonly sheen: 'matt' | 'satin' | 'gloss' | 'metal' | 'wet';
}

interface Facts {
  readonly name: string;
  readonly role: Role;
  readonly binder: Binder;
  readonly drying: Drying;
  /** leaves an airbrush so dirty that the next colour needs a full clean */
  readonly isDirty: boolean;
  readonly texture: Texture;
  readonly stages: Stages;
  /** wet film of one coat in micrometres, from memory; null: the method decides, 0: nothing is put on */
  readonly wetUm: number | null;
  /** the second part of a two-part mix, where it is not named */
  readonly thinner: string;
  /** at an airbrush: the usual nozzle, the smallest that does not clog, the pressure */
  readonly nozzleMm: number;
  readonly smallestNozzleMm: number;
  readonly psi: number;
  readonly hazards: readonly Hazard[];
  /** share of paint in the mixture that its coat is counted for: 0.75 for 3:1 */
  readonly paintShare: number;
  readonly body: Body;
}

const DAY = 1440;

// The figures of the stages (common practice, no source); "cured" and "tape" from memory.
const stages = (
  touch: number,
  recoat: number,
  solvent: number | null,
  handle: number,
  cured: number,
  tape: number | null,
): Stages => ({ touch, recoat, solvent, handle, cured, tape });

const body = (scatter: number, sheen: Body['sheen'], flows = false): Body => ({ scatter, sheen, flows });

/** What most waterborne paint has in common. */
const PAINT = {
  drying: 'water',
  wetUm: null,
  thinner: 'acrylic thinner',
  nozzleMm: 0.4,
  smallestNozzleMm: 0.2,
  psi: 20,
  hazards: [],
  paintShare: 0.75,
} as const satisfies Partial<Facts>;

const SPIRIT = {
  ...PAINT,
  role: 'wash',
  binder: 'spirit',
  isDirty: true,
  texture: 'drips',
  thinner: 'white spirit',
  hazards: ['thinner', 'rags'],
} as const satisfies Partial<Facts>;

const FACTS = {
  acrylic: {
    ...PAINT,
    name: 'Acrylic, waterborne',
    role: 'colour',
    binder: 'acrylic',
    isDirty: false,
    texture: 'plain',
    stages: stages(10, 15, null, 180, DAY, 120),
    body: body(5, 'matt'),
  },
  metal: {
    ...PAINT,
    name: 'Metallic acrylic',
    role: 'metal',
    binder: 'acrylic',
    isDirty: true,
    texture: 'sheen',
    stages: stages(10, 15, null, 180, DAY, 240),
    smallestNozzleMm: 0.4,
    body: body(10, 'metal'),
  },
  ink: {
    ...PAINT,
    name: 'Acrylic ink',
    role: 'colour',
    binder: 'acrylic',
    isDirty: false,
    texture: 'plain',
    stages: stages(8, 15, null, 60, DAY, 240),
    nozzleMm: 0.3,
    psi: 15,
    body: body(0.12, 'satin'),
  },
  'acrylic-wash': {
    ...PAINT,
    name: 'Acrylic wash or shade',
    role: 'wash',
    binder: 'acrylic',
    isDirty: false,
    texture: 'drips',
    stages: stages(20, 30, null, 60, DAY, 240),
    wetUm: 60,
    paintShare: 0.2,
    body: body(0.8, 'satin', true),
  },
  primer: {
    ...PAINT,
    name: 'Primer, waterborne',
    role: 'primer',
    binder: 'waterborne',
    isDirty: true,
    texture: 'grit',
    stages: stages(30, 60, DAY, DAY, 2 * DAY, DAY),
    wetUm: 35,
    nozzleMm: 0.5,
    psi: 25,
    body: body(10, 'matt'),
  },
  lacquer: {
    ...PAINT,
    name: 'Lacquer primer or paint',
    role: 'primer',
    binder: 'lacquer',
    drying: 'solvent',
    isDirty: true,
    texture: 'grit',
    stages: stages(10, 20, 90, 180, DAY, 180),
    wetUm: 30,
    thinner: 'lacquer thinner',
    psi: 18,
    hazards: ['thinner'],
    body: body(10, 'satin'),
  },
  varnish: {
    ...PAINT,
    name: 'Varnish, waterborne',
    role: 'seal',
    binder: 'waterborne',
    isDirty: true,
    texture: 'clear',
    stages: stages(20, 60, 240, DAY, 2 * DAY, 120),
    wetUm: 30,
    nozzleMm: 0.5,
    smallestNozzleMm: 0.4,
    body: body(0, 'satin'),
  },
  medium: {
    ...PAINT,
    name: 'Chipping medium',
    role: 'release',
    binder: 'washable',
    isDirty: true,
    texture: 'dots',
    stages: stages(15, 20, null, 60, DAY, null),
    wetUm: 40,
    nozzleMm: 0.7,
    smallestNozzleMm: 0.7,
    body: body(0, 'satin'),
  },
  enamel: {
    ...SPIRIT,
    name: 'Enamel wash or streaks',
    drying: 'solvent',
    stages: stages(60, 720, 720, DAY, 3 * DAY, DAY),
    wetUm: 50,
    paintShare: 1,
    body: body(1, 'satin', true),
  },
  oil: {
    ...SPIRIT,
    name: 'Artist oil, thinned',
    drying: 'oxidation',
    stages: stages(240, DAY, DAY, 3 * DAY, 7 * DAY, 3 * DAY),
    wetUm: 15,
    paintShare: 1,
    body: body(0.8, 'satin', true),
  },
  setting: {
    ...PAINT,
    name: 'Setting or softening solution',
    role: 'helper',
    binder: 'none',
    isDirty: false,
    texture: 'clear',
    stages: stages(15, 60, null, 60, DAY, DAY),
    wetUm: 20,
    hazards: ['warm-water'],
    body: body(0, 'satin'),
  },
  powder: {
    ...PAINT,
    name: 'Powder with fixer',
    role: 'powder',
    binder: 'loose',
    drying: 'solvent',
    isDirty: false,
    texture: 'speckle',
    stages: stages(15, 30, null, 60, DAY, null),
    wetUm: 30,
    hazards: ['dust'],
    paintShare: 1,
    body: body(2, 'matt'),
  },
  pen: {
    ...PAINT,
    name: 'Marker, pen, graphite',
    role: 'mark',
    binder: 'none',
    drying: 'none',
    isDirty: false,
    texture: 'plain',
    stages: stages(0, 0, null, 0, 0, 0),
    wetUm: 0,
    paintShare: 1,
    body: body(2, 'satin'),
  },
  paste: {
    ...PAINT,
    name: 'Texture paste, mud',
    role: 'texture',
    binder: 'waterborne',
    isDirty: true,
    texture: 'speckle',
    stages: stages(120, 720, DAY, DAY, 2 * DAY, null),
    wetUm: 600,
    paintShare: 1,
    body: body(10, 'matt'),
  },
  'spirit-mud': {
    ...SPIRIT,
    name: 'Mud, solvent-based',
    role: 'texture',
    drying: 'solvent',
    texture: 'speckle',
    stages: stages(180, DAY, DAY, 2 * DAY, 4 * DAY, null),
    wetUm: 400,
    paintShare: 1,
    body: body(10, 'matt'),
  },
  water: {
    ...PAINT,
    name: 'Clear water, poured',
    role: 'pour',
    binder: 'waterborne',
    isDirty: false,
    texture: 'clear',
    stages: stages(480, DAY, null, DAY, 3 * DAY, null),
    paintShare: 1,
    body: body(0, 'wet'),
  },
  crackle: {
    ...PAINT,
    name: 'Crackle paint',
    role: 'crackle',
    binder: 'washable',
    isDirty: true,
    texture: 'dots',
    stages: stages(20, 60, null, 240, DAY, null),
    wetUm: 120,
    paintShare: 1,
    body: body(0.3, 'satin'),
  },
  washable: {
    ...PAINT,
    name: 'Washable paint',
    role: 'colour',
    binder: 'washable',
    isDirty: false,
    texture: 'speckle',
    stages: stages(10, 15, null, 60, 60, null),
    body: body(3, 'matt'),
  },
  work: {
    ...PAINT,
    name: 'Work without paint',
    role: 'work',
    binder: 'none',
    drying: 'none',
    isDirty: false,
    texture: 'hands',
    stages: stages(0, 0, null, 0, 0, 0),
    wetUm: 0,
    hazards: ['blade'],
    body: body(0, 'satin'),
  },
} as const satisfies Record<string, Facts>;

export type FamilyId = keyof typeof FACTS;

export interface Family extends Facts {
  readonly id: FamilyId;
  /** minutes until the next layer may go on: the stage of its recoat */
  readonly dryMinutes: number;
}

export const FAMILY_IDS = Object.keys(FACTS) as [FamilyId, ...FamilyId[]];

export const FAMILIES: ReadonlyMap<FamilyId, Family> = new Map(
  FAMILY_IDS.map((id): [FamilyId, Family] => [
    id,
    { id, dryMinutes: FACTS[id].stages.recoat, ...(FACTS[id] satisfies Facts) },
  ]),
);

/** The family of an id that a schema has already checked. */
export function familyOf(id: FamilyId): Family {
  return FAMILIES.get(id)!;
}
