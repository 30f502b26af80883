/**
 * Placement, briefed: where on a piece each of its effects goes and how much of it, from what its unit has been through, what the piece has
 * that is touched, splashed or rained on, and the rules of the trade (common practice, no source).
 */
import { seededRandom } from '#core/kernel';
import { familyOf } from '#core/materials';
import type { Age, Layer, Muster, Piece, Recipe, Story, Strength, Unit } from '#core/muster';
import { effectiveRecipe, plainName, strengthOn } from '#core/recipe';
import { DEFAULT_DEAL, sideBySide } from './deal';
import { FACES, featuresOf, spotsOf, type Face, type Spot } from './places';

export const MARK_KINDS = [
  'chips',
  'scratches',
  'rust',
  'streaks',
  'dust',
  'mud',
  'soot',
  'fading',
  'decal',
] as const;
export type MarkKind = (typeof MARK_KINDS)[number];

/** A soft area of one face with so much of an effect on it. */
export interface Area {
  readonly face: Face;
  /** centre and half axes, 0 to 1 of the face; y from its top */
  readonly x: number;
  readonly y: number;
  readonly rx: number;
  readonly ry: number;
  /** 0 to 1 */
  readonly amount: number;
  /** single marks; null: a veil without a number */
  readonly marks: number | null;
  readonly where: string;
  readonly isMirrored: boolean;
  /** how it runs */
  readonly runs: 'down' | 'back' | null;
}

/** One effect of a piece and where it goes. */
export interface Placed {
  readonly layer: Layer;
  readonly kind: MarkKind;
  /** as the recipe calls it */
  readonly name: string;
  readonly strength: Strength | 'normal';
  readonly areas: readonly Area[];
  /** what to mind, in words */
  readonly how: string;
}

export interface Brief {
  readonly piece: Piece;
  readonly placed: readonly Placed[];
  /** 0: left and right alike, 1: nothing in common; what life mirrors is left out */
  readonly asymmetry: number;
  /** share of all that is on upright faces which lies in their lower half */
  readonly low: number;
}

/** No brief is more alike left and right. */
export const LEAST_ASYMMETRY = 0.3;
/** … and neither side has less of what is on both, where there is enough to share. */
export const LEAST_ON_A_SIDE = 0.12;
const ENOUGH = 4;
/** No two neighbours' briefs have more in common (cosine of what lies where). */
export const MOST_ALIKE = 0.9;

type Where = Partial<Readonly<Record<Spot['is'], number>>>;

interface KindFacts {
  /** how readily it lies in each sort of place; left out: never */
  readonly on: Where;
  /** areas at usual strength */
  readonly areas: number;
  /** marks an area at usual strength; 0: a veil */
  readonly marks: number;
  readonly runs?: 'down';
  /** at least so much of it on upright faces lies low */
  readonly low: number;
  readonly how: string;
}

const KINDS: Readonly<Record<MarkKind, KindFacts>> = {
  chips: {
    on: { edge: 3, touched: 4, leading: 4, low: 3, side: 0.5, flat: 0.4 },
    areas: 5,
    marks: 5,
    low: 0.4,
    how: 'Small ones first, few large; light behind, dark within it; edges and what is touched before anything else.',
  },
  scratches: {
    on: { leading: 4, side: 2, low: 3, edge: 2, touched: 2 },
    areas: 4,
    marks: 3,
    low: 0.4,
    how: 'Along the way it moves, thin and broken; a few cross.',
  },
  rust: {
    on: { touched: 2, edge: 2, low: 3, flat: 2, vent: 2, leading: 1 },
    areas: 4,
    marks: 4,
    low: 0.4,
    how: 'In chips and where water stands; small spots before large.',
  },
  streaks: {
    on: { edge: 2, side: 4 },
    areas: 4,
    marks: 3,
    runs: 'down',
    low: 0,
    how: 'From an edge or a rivet straight down, thinner towards the end, of different lengths.',
  },
  dust: {
    on: { low: 4, flat: 3, touched: 1, under: 0.5 },
    areas: 4,
    marks: 0,
    low: 0.6,
    how: 'Heaviest low and on what lies flat, fading upward; none where it is wiped off by use.',
  },
  mud: {
    on: { low: 6, under: 2 },
    areas: 4,
    marks: 6,
    low: 0.8,
    how: 'Low, behind what runs; old and dry first, fresh and wet last; splashes of all sizes.',
  },
  soot: {
    on: { vent: 6, flat: 0.4 },
    areas: 2,
    marks: 0,
    low: 0,
    how: 'Darkest at the opening, drawn out with the air’s flow.',
  },
  fading: {
    on: { flat: 4, side: 2, edge: 1 },
    areas: 3,
    marks: 0,
    low: 0,
    how: 'Where sun and rain come first: flats, then the upper half of the sides.',
  },
  decal: {
    on: { side: 4, leading: 1 },
    areas: 2,
    marks: 2,
    low: 0,
    how: 'Worn with what lies round it: chips go through the marking as through the paint.',
  },
};

/** How much more or less of each a story leaves; without an entry as usual. */
const STORIES: Readonly<Record<Story, Partial<Readonly<Record<MarkKind, number>>>>> = {
  parade: {
    chips: 0.35,
    scratches: 0.35,
    rust: 0.3,
    streaks: 0.4,
    dust: 0.35,
    mud: 0.2,
    soot: 0.6,
    decal: 0.3,
  },
  usual: {},
  stolen: { chips: 1.5, scratches: 1.6, rust: 1.3, dust: 1.2, decal: 1.6 },
  winter: { mud: 1.6, streaks: 1.5, dust: 0.6, fading: 0.6, rust: 1.2 },
  wreck: { chips: 1.8, scratches: 1.7, rust: 1.9, streaks: 1.6, mud: 1.2, fading: 1.6, decal: 1.8 },
};
export const STORY_WORDS: Readonly<Record<Story, string>> = {
  parade: 'parade: kept clean',
  usual: 'in use, looked after',
  stolen: 'stolen, ill kept',
  winter: 'end of winter',
  wreck: 'left to rot',
};
const AGED: Readonly<Record<Age, Partial<Readonly<Record<MarkKind, number>>>>> = {
  fresh: { rust: 0.4, fading: 0.5, streaks: 0.7, chips: 1.1 },
  worn: {},
  old: { rust: 1.5, fading: 1.5, streaks: 1.3, chips: 0.9 },
};
const AMOUNT: Readonly<Record<Strength | 'normal', number>> = { off: 0, trace: 0.5, normal: 1, heavy: 1.6 };

/** Words by which a layer is known for what it leaves, where its task and family do not tell. */
const NAMED: readonly (readonly [MarkKind, RegExp])[] = [
  ['scratches', /\b(scratch|scrape|scuff)/i],
  ['chips', /\b(chip|flak)/i],
  ['soot', /\b(soot|smok|burn)/i],
  ['mud', /\b(mud|splash|splatter|earth)/i],
  ['streaks', /\b(streak|rain|grime|runs down|running down)/i],
  ['rust', /\b(rust|corro|verdigris)/i],
  ['dust', /\b(dust|sand|ash\b|ashes|pigment)/i],
  ['fading', /\b(fade|fading|bleach|filter|chalk)/i],
];

/** What a layer leaves behind that wants a place; null: it goes all over, or nowhere in particular. */
export function markOf(layer: Layer): MarkKind | null {
  if (layer.task === 'lift') return 'chips';
  if (layer.task === 'decal') return 'decal';
  if (layer.task !== undefined && layer.task !== 'coat' && layer.task !== 'spatter') return null;
  const { role, body } = familyOf(layer.family);
  if (role === 'seal' || role === 'primer' || role === 'release' || role === 'work') return null;
  const named = NAMED.find(([, words]) => words.test(layer.name));
  if (named) return named[0];
  if (role === 'powder') return body.flows ? 'streaks' : 'dust';
  if (layer.method === 'sponge') return 'chips';
  return layer.task === 'spatter' ? 'mud' : null;
}

/** Briefs of all pieces of a unit that have something to place, in their order; none is like that of the piece beside or behind it. */
export function briefsOf(muster: Muster, unit: Unit): Brief[] {
  const recipes = new Map(muster.recipes.map((r) => [r.id, r]));
  const { seed, perRow } = unit.deal ?? DEFAULT_DEAL;
  const before = unit.pieces.map((): number[] => []);
  for (const [a, b] of sideBySide(unit, unit.pieces, perRow)) before[b]!.push(a);
  const done: { readonly brief: Brief; readonly lies: Float64Array }[] = [];
  unit.pieces.forEach((piece, k) => {
    const recipe = recipes.get(piece.recipe ?? '');
    const beside = before[k]!.map((other) => done[other]!.lies);
    const brief = recipe
      ? briefOf(recipe, unit, piece, seededRandom(seedOf(seed, piece)), beside)
      : { piece, placed: [], asymmetry: 1, low: 1 };
    done.push({ brief, lies: liesOf(brief.placed) });
  });
  return done.map((d) => d.brief).filter((b) => b.placed.length > 0);
}

/** Its own for each piece, and another one where the user asked for another brief. */
function seedOf(seed: number, piece: Piece): number {
  let hash = 2166136261 ^ seed ^ Math.imul((piece.brief ?? 0) + 1, 0x9e3779b1);
  for (const letter of piece.id) hash = Math.imul(hash ^ letter.codePointAt(0)!, 16777619);
  return hash >>> 0;
}

/** So often a brief is drawn anew before the best of them is taken. */
const DRAWS = 40;

function briefOf(
  recipe: Recipe,
  unit: Unit,
  piece: Piece,
  random: () => number,
  beside: readonly Float64Array[],
): Brief {
  const { layers } = effectiveRecipe(recipe, piece, unit.level);
  const spots = spotsOf(featuresOf(piece));
  let best: { brief: Brief; faults: number } | null = null;
  for (let k = 0; k < DRAWS; k++) {
    const heavySide: Face = random() < 0.5 ? 'left' : 'right';
    const placed = layers.flatMap((layer) => {
      const kind = markOf(layer);
      return kind ? (placedOf(layer, kind, unit, piece, spots, heavySide, random) ?? []) : [];
    });
    const brief: Brief = { piece, placed, asymmetry: asymmetryOf(placed), low: lowOf(placed) };
    const lies = liesOf(placed);
    const faults =
      Math.max(0, LEAST_ASYMMETRY - brief.asymmetry) +
      Math.max(0, LEAST_ON_A_SIDE - lesserSide(placed)) +
      beside.reduce((sum, other) => sum + Math.max(0, alikeness(lies, other) - MOST_ALIKE), 0);
    if (!best || faults < best.faults) best = { brief, faults };
    if (best.faults === 0) break;
  }
  return best!.brief;
}

function placedOf(
  layer: Layer,
  kind: MarkKind,
  unit: Unit,
  piece: Piece,
  spots: readonly Spot[],
  heavySide: Face,
  random: () => number,
): Placed | null {
  const facts = KINDS[kind];
  const strength = layer.isOptional ? (strengthOn(piece, layer.id) ?? 'normal') : 'normal';
  const much =
    AMOUNT[strength] * (STORIES[unit.story ?? 'usual'][kind] ?? 1) * (AGED[piece.age ?? 'worn'][kind] ?? 1);
  const open = spots.filter(
    (s) => facts.on[s.is] !== undefined && (facts.runs === undefined || UPRIGHT.has(s.face)),
  );
  if (open.length === 0 || much === 0) return null;
  const count = Math.max(1, Math.min(open.length, Math.round(facts.areas * Math.sqrt(much))));
  let best: { areas: Area[]; low: number } | null = null;
  for (let k = 0; k < DRAWS; k++) {
    const areas = drawn(open, count, facts, much, heavySide, random);
    const low = lowShare(areas);
    if (!best || low > best.low) best = { areas, low };
    if (low >= facts.low) {
      best = { areas, low };
      break;
    }
  }
  return {
    layer,
    kind,
    name: kind === 'decal' ? `${layer.name}, where it wears` : plainName(piece, layer),
    strength,
    areas: best!.areas,
    how: facts.how,
  };
}

/** So much readier a mark is on the side that has seen more. */
const HEAVY_SIDE = 3;

/** Spots by chance, each once, readier ones sooner; what life mirrors comes on both sides. */
function drawn(
  open: readonly Spot[],
  count: number,
  facts: KindFacts,
  much: number,
  heavySide: Face,
  random: () => number,
): Area[] {
  const left = open.map((spot) => ({
    spot,
    ready: facts.on[spot.is]! * (spot.face === heavySide && !spot.isMirrored ? HEAVY_SIDE : 1),
  }));
  const areas: Area[] = [];
  while (areas.length < count && left.length > 0) {
    let at = random() * left.reduce((sum, l) => sum + l.ready, 0);
    const k = Math.max(
      0,
      left.findIndex((l) => (at -= l.ready) < 0),
    );
    const [{ spot }] = left.splice(k, 1) as [(typeof left)[number]];
    areas.push(areaOn(spot, facts, much, random));
    if (!spot.isMirrored) continue;
    const twin = left.findIndex((l) => l.spot.name === spot.name && l.spot.face !== spot.face);
    if (twin >= 0) areas.push(areaOn(left.splice(twin, 1)[0]!.spot, facts, much, random));
  }
  return areas;
}

const within = (v: number, half: number): number => Math.min(1 - half, Math.max(half, v));

function areaOn(spot: Spot, facts: KindFacts, much: number, random: () => number): Area {
  const wide = 0.7 + 0.6 * random();
  const rx = Math.min(0.5, spot.rx * wide);
  const isUpright = UPRIGHT.has(spot.face);
  // What runs down hangs from its place.
  const ry = facts.runs && isUpright ? 0.12 + 0.2 * random() : Math.min(0.5, spot.ry * (1.4 - 0.4 * wide));
  const y = facts.runs && isUpright ? spot.y + ry : spot.y + (random() - 0.5) * spot.ry;
  const share = Math.min(1, 0.55 * much * (0.6 + 0.8 * random()));
  return {
    face: spot.face,
    x: within(spot.x + (random() - 0.5) * spot.rx, rx),
    y: within(y, ry),
    rx,
    ry,
    amount: Math.max(0.08, share),
    marks: facts.marks === 0 ? null : Math.max(1, Math.round(facts.marks * much * (0.5 + random()))),
    where: spot.name,
    isMirrored: spot.isMirrored,
    runs: facts.runs && isUpright ? 'down' : spot.is === 'vent' ? 'back' : null,
  };
}

const UPRIGHT: ReadonlySet<Face> = new Set(['front', 'back', 'left', 'right']);
const weightOf = (a: Area): number => a.amount * a.rx * a.ry;

/** Share of what is on upright faces that lies in their lower half; where nothing is on them, all of it. */
function lowShare(areas: readonly Area[]): number {
  const upright = areas.filter((a) => UPRIGHT.has(a.face));
  const all = upright.reduce((sum, a) => sum + weightOf(a), 0);
  if (all === 0) return 1;
  const low = upright.reduce((sum, a) => {
    const share = Math.min(1, Math.max(0, (a.y + a.ry - 0.5) / (2 * a.ry)));
    return sum + share * weightOf(a);
  }, 0);
  return low / all;
}

function lowOf(placed: readonly Placed[]): number {
  return lowShare(placed.flatMap((p) => p.areas));
}

const CELLS = 4;

/** What lies where: every kind, face and quarter of a face by its amount. */
function liesOf(placed: readonly Placed[], counts: (a: Area) => boolean = () => true): Float64Array {
  const lies = new Float64Array(MARK_KINDS.length * FACES.length * CELLS * CELLS);
  for (const { kind, areas } of placed)
    for (const a of areas) if (counts(a)) lies[cellOf(kind, a.face, a.x, a.y)]! += a.amount;
  return lies;
}

function cellOf(kind: MarkKind, face: Face, x: number, y: number): number {
  const part = (v: number): number => Math.min(CELLS - 1, Math.floor(v * CELLS));
  return (
    ((MARK_KINDS.indexOf(kind) * FACES.length + FACES.indexOf(face)) * CELLS + part(y)) * CELLS + part(x)
  );
}

/** Cosine of what lies where: 1 the same, 0 nothing in common. */
function alikeness(a: Float64Array, b: Float64Array): number {
  let [dot, aa, bb] = [0, 0, 0];
  for (let k = 0; k < a.length; k++) {
    dot += a[k]! * b[k]!;
    aa += a[k]! ** 2;
    bb += b[k]! ** 2;
  }
  return aa === 0 || bb === 0 ? 0 : dot / Math.sqrt(aa * bb);
}

/** What left and right do not share, of all that is on them; the right is turned so that ahead lies ahead. */
function asymmetryOf(placed: readonly Placed[]): number {
  let [differs, all] = [0, 0];
  for (const { kind, areas } of placed) {
    const on = { left: new Map<number, number>(), right: new Map<number, number>() };
    for (const a of areas) {
      if (a.isMirrored || (a.face !== 'left' && a.face !== 'right')) continue;
      const cell = cellOf(kind, 'left', a.face === 'left' ? a.x : 1 - a.x, a.y);
      const side = on[a.face];
      side.set(cell, (side.get(cell) ?? 0) + a.amount);
    }
    for (const cell of new Set([...on.left.keys(), ...on.right.keys()])) {
      const [l, r] = [on.left.get(cell) ?? 0, on.right.get(cell) ?? 0];
      differs += Math.abs(l - r);
      all += l + r;
    }
  }
  return all === 0 ? 1 : differs / all;
}

/** Share of what is on left and right that is on the side with less; where there is too little to share, half. */
function lesserSide(placed: readonly Placed[]): number {
  const sides = placed.flatMap((p) => p.areas).filter((a) => a.face === 'left' || a.face === 'right');
  if (sides.length < ENOUGH) return 0.5;
  const all = sides.reduce((sum, a) => sum + a.amount, 0);
  const left = sides.reduce((sum, a) => sum + (a.face === 'left' ? a.amount : 0), 0);
  return Math.min(left, all - left) / all;
}

/** How alike two pieces' briefs are: 1 the same, 0 nothing in common. */
export function briefsAlike(a: Brief, b: Brief): number {
  return alikeness(liesOf(a.placed), liesOf(b.placed));
}

/** Where one effect goes, in a line: what comes most, first. */
export function placedWords({ areas }: Placed): string {
  return [...areas]
    .sort((a, b) => b.amount - a.amount)
    .map(areaWords)
    .join('; ');
}

/** One place in words: where, and how many marks or how strong a veil. */
export function areaWords(a: Area): string {
  const face = a.face === 'under' || a.where.includes('top') ? '' : `${a.face} `;
  const often =
    a.marks === null ? (a.amount > 0.6 ? 'strong' : a.amount > 0.3 ? 'light' : 'a breath') : a.marks;
  return `${face}${a.where} (${often})`;
}
