/**
 * Variety, dealt: which optional effects each piece of a unit gets, how strong, in which tone and of which age, so that those that stand
 * side by side differ, the whole unit keeps one palette, and neither a set-up nor an hour of work is added.
 */
import type { Age, Layer, Muster, Piece, Recipe, Strength, Unit, Variety } from '#core/muster';
import { AGES, STRENGTHS } from '#core/muster';
import { isEffect } from '#core/optics';
import { checkCraft, effectiveRecipe, isFor, strengthOn, STRENGTH_MINUTES } from '#core/recipe';
import { assign } from './assign';

/** What can differ from piece to piece. */
export interface Trait {
  /** layer whose strength or tone it is; null: the age of the damage */
  readonly layer: string | null;
  readonly kind: 'strength' | 'tone' | 'age';
  readonly name: string;
  readonly values: readonly TraitValue[];
}

export interface TraitValue {
  readonly id: string;
  readonly text: string;
  /** minutes of hands beside those of the recipe */
  readonly minutes: number;
}

/** One deal over the pieces of a unit that share a recipe. */
export interface Dealt {
  readonly recipe: Recipe;
  readonly traits: readonly Trait[];
  /** in the order in which they stand */
  readonly pieces: readonly Piece[];
  /** by piece the value that it has of each trait */
  readonly of: readonly (readonly number[])[];
  /** pairs side by side that differ in too few traits */
  readonly alike: readonly (readonly [number, number])[];
  /** in so many traits neighbours are meant to differ */
  readonly apart: number;
  /** minutes of hands that all take beside those of the recipe; negative: fewer */
  readonly minutes: number;
  /** no deal is better */
  readonly isBest: boolean;
}

export interface DealOptions {
  readonly seed: number;
  readonly perRow: number;
  readonly variety: Variety;
  /** pieces that have been dealt before keep what they have */
  readonly isMore?: boolean;
}

const NORMAL = 'normal';
const STRENGTHS_OF: Readonly<Record<Variety, readonly (Strength | typeof NORMAL)[]>> = {
  alike: ['trace', NORMAL],
  usual: ['off', 'trace', NORMAL],
  various: [...STRENGTHS, NORMAL],
};
/** Traits in which neighbours differ. */
export const APART: Readonly<Record<Variety, number>> = { alike: 1, usual: 2, various: 3 };
const STRENGTH_WORDS: Readonly<Record<string, string>> = {
  off: 'none',
  trace: 'a trace',
  normal: 'as usual',
  heavy: 'heavy',
};
const AGE_WORDS: Readonly<Record<Age, string>> = { fresh: 'fresh', worn: 'worn', old: 'old' };
/** Most pieces standing in a row, where nothing is said. */
const IN_A_ROW = 4;

export const DEFAULT_DEAL: Omit<DealOptions, 'isMore'> = { seed: 1, perRow: IN_A_ROW, variety: 'usual' };

/** Recipes that several pieces of the unit follow: each is dealt on its own. */
export function dealtRecipes(muster: Muster, unit: Unit): Recipe[] {
  return muster.recipes.filter((r) => unit.pieces.filter((p) => p.recipe === r.id).length > 1);
}

/** What may differ from piece to piece though nobody has said so yet: chips, washes, dust, lit edges, spots; not the colours of details. */
export function couldVary(recipe: Recipe): Layer[] {
  return recipe.layers.filter(
    (l) =>
      !l.isOptional &&
      isEffect(l) &&
      (l.task === undefined || l.task === 'lift' || l.task === 'spatter') &&
      (l.task !== undefined || isFor('wash', 'powder')(l) || l.reach === 'edges' || l.method === 'sponge'),
  );
}

/** The muster with layers of a recipe that may be left off, or put on in another strength, piece by piece. */
export function withOptional(muster: Muster, recipe: string, layers: readonly string[]): Muster {
  return {
    ...muster,
    recipes: muster.recipes.map((r) =>
      r.id === recipe
        ? { ...r, layers: r.layers.map((l) => (layers.includes(l.id) ? { ...l, isOptional: true } : l)) }
        : r,
    ),
  };
}

/**
 * What can be dealt in a recipe: the strengths of its optional layers that break no rule of the craft, tones whose mixture is taken up
 * anyway, and age.
 */
export function traitsOf(muster: Muster, unit: Unit, recipe: Recipe, variety: Variety): Trait[] {
  const loads = mixturesOf(muster);
  const traits = recipe.layers.flatMap((layer): Trait[] => {
    const minutes = layer.minutes * layer.coats;
    const found: Trait[] = [];
    const strengths = layer.isOptional
      ? STRENGTHS_OF[variety].filter((is) => is === NORMAL || isSafe(unit, recipe, layer, is))
      : [];
    if (strengths.length > 1)
      found.push({
        layer: layer.id,
        kind: 'strength',
        name: layer.name,
        values: strengths.map((id) => ({
          id,
          text: STRENGTH_WORDS[id]!,
          minutes: id === NORMAL ? 0 : id === 'off' ? -minutes : minutes * (STRENGTH_MINUTES[id] - 1),
        })),
      });
    const tones = (layer.tones ?? []).filter((t) => loads.has(t.mixture.trim().toLowerCase()));
    if (tones.length > 0)
      found.push({
        layer: layer.id,
        kind: 'tone',
        name: `${layer.name}: tone`,
        values: [
          { id: '', text: layer.mixture || layer.name, minutes: 0 },
          ...tones.map((t) => ({ id: t.id, text: t.mixture, minutes: 0 })),
        ],
      });
    return found;
  });
  const age: Trait = {
    layer: null,
    kind: 'age',
    name: 'Age of the damage',
    values: AGES.map((id) => ({ id, text: AGE_WORDS[id], minutes: 0 })),
  };
  return [...traits, age];
}

/** Mixtures that some piece of the muster gets anyway. */
function mixturesOf(muster: Muster): ReadonlySet<string> {
  const followed = new Set(muster.units.flatMap((u) => u.pieces.map((p) => p.recipe)));
  return new Set(
    muster.recipes
      .filter((r) => followed.has(r.id))
      .flatMap((r) => r.layers.map((l) => (l.mixture || l.name).trim().toLowerCase())),
  );
}

/** Does the recipe keep the craft with the layer in this strength, and nothing else hang on it? */
function isSafe(unit: Unit, recipe: Recipe, layer: Layer, is: Strength): boolean {
  if (is === 'off') {
    const isTied = recipe.layers.some(
      (l) => l.waitsFor.includes(layer.id) || l.window?.through === layer.id || l.judgeFrom === layer.id,
    );
    const isSeam = unit.pieces.some((p) => p.joins?.layer === layer.id || p.startsAt === layer.id);
    if (isTied || isSeam) return false;
  }
  const uses = [...new Set(unit.pieces.flatMap((p) => (p.recipe === recipe.id ? (p.use ?? []) : [])))];
  const known = new Set(checkCraft(recipe, uses).map((f) => f.rule));
  const own = effectiveRecipe(recipe, { effects: [{ layer: layer.id, is }] }, unit.level);
  return checkCraft(own, uses).every((f) => known.has(f.rule));
}

/** Deals to the pieces of the unit that follow the recipe. Those that the user has set stay, and are reckoned with. */
export function deal(muster: Muster, unit: Unit, recipe: Recipe, options: DealOptions): Dealt {
  const traits = traitsOf(muster, unit, recipe, options.variety);
  const known = standing(unit, recipe, traits, (p) => p.isSet || (options.isMore && p.age !== undefined));
  const { of, alike, isBest } = assign(
    {
      pieces: known.pieces.length,
      values: known.traits.map((t) => t.values.length),
      neighbours: sideBySide(unit, known.pieces, options.perRow),
      apart: Math.min(APART[options.variety], known.traits.length),
      fixed: known.of,
      minutes: known.traits.map((t) => t.values.map((v) => v.minutes)),
      mostMinutes: 0,
    },
    options.seed,
  );
  return dealtOf(known.traits, recipe, known.pieces, of, alike, options.variety, isBest);
}

/** The pieces as they are, told as a deal: what is alike, what each has. */
export function dealOf(muster: Muster, unit: Unit, recipe: Recipe, options: DealOptions): Dealt {
  const known = standing(unit, recipe, traitsOf(muster, unit, recipe, options.variety), () => true);
  const of = known.of.map((v) => v!);
  const apart = Math.min(APART[options.variety], known.traits.length);
  const alike = sideBySide(unit, known.pieces, options.perRow).filter(
    ([a, b]) => of[a]!.filter((v, t) => v !== of[b]![t]).length < apart,
  );
  return dealtOf(known.traits, recipe, known.pieces, of, alike, options.variety, false);
}

function dealtOf(
  traits: readonly Trait[],
  recipe: Recipe,
  pieces: readonly Piece[],
  of: readonly (readonly number[])[],
  alike: Dealt['alike'],
  variety: Variety,
  isBest: boolean,
): Dealt {
  const minutes = of.reduce(
    (sum, values, k) =>
      sum + pieces[k]!.count * values.reduce((own, v, t) => own + traits[t]!.values[v]!.minutes, 0),
    0,
  );
  return {
    recipe,
    traits,
    pieces,
    of,
    alike,
    apart: Math.min(APART[variety], traits.length),
    minutes,
    isBest,
  };
}

interface Standing {
  readonly traits: readonly Trait[];
  readonly pieces: readonly Piece[];
  readonly of: readonly (readonly number[] | null)[];
}

/** Pieces in their order, with what those that stay have. A strength that is not dealt now but is had by one that stays is a value too. */
function standing(
  unit: Unit,
  recipe: Recipe,
  traits: readonly Trait[],
  stays: (piece: Piece) => boolean | undefined,
): Standing {
  const pieces = unit.pieces.filter((p) => p.recipe === recipe.id);
  const wide = traits.map((trait): Trait => {
    const own = pieces.filter(stays).map((p) => valueOf(p, trait));
    const more = [...new Set(own)].filter((id) => !trait.values.some((v) => v.id === id));
    return more.length === 0
      ? trait
      : {
          ...trait,
          values: [
            ...trait.values,
            ...more.map((id) => ({ id, text: STRENGTH_WORDS[id] ?? id, minutes: 0 })),
          ],
        };
  });
  const of = pieces.map((p) =>
    stays(p) ? wide.map((t) => t.values.findIndex((v) => v.id === valueOf(p, t))) : null,
  );
  return { traits: wide, pieces, of };
}

function valueOf(piece: Piece, trait: Trait): string {
  if (trait.kind === 'age') return piece.age ?? 'worn';
  if (trait.kind === 'tone') return piece.tones?.find((t) => t.layer === trait.layer)?.tone ?? '';
  return strengthOn(piece, trait.layer!) ?? NORMAL;
}

/** Where each piece stands, counted through the rows; a part stands where the piece does that it is joined to. */
export function placesOf(unit: Unit): ReadonlyMap<string, number> {
  const byId = new Map(unit.pieces.map((p) => [p.id, p]));
  const hostOf = (piece: Piece): Piece => {
    const seen = new Set<string>();
    let host = piece;
    for (let next = byId.get(host.joins?.piece ?? ''); next && !seen.has(next.id);) {
      seen.add(next.id);
      host = next;
      next = byId.get(host.joins?.piece ?? '');
    }
    return host;
  };
  const hosts = unit.pieces.filter((p) => hostOf(p) === p);
  const at = new Map(hosts.map((p, k) => [p.id, k]));
  return new Map(unit.pieces.map((p) => [p.id, at.get(hostOf(p).id) ?? hosts.length]));
}

/** Pairs that stand together, side by side or one behind the other, in rows; by their place among the pieces given. */
export function sideBySide(
  unit: Unit,
  pieces: readonly Piece[],
  perRow: number,
): (readonly [number, number])[] {
  const places = placesOf(unit);
  const at = new Map<number, number[]>();
  pieces.forEach((p, k) => {
    const place = places.get(p.id)!;
    at.set(place, [...(at.get(place) ?? []), k]);
  });
  const pairs: (readonly [number, number])[] = [];
  for (const [place, here] of at) {
    const right = place % perRow < perRow - 1 ? (at.get(place + 1) ?? []) : [];
    const behind = at.get(place + perRow) ?? [];
    here.forEach((a, k) => {
      for (const b of [...here.slice(k + 1), ...right, ...behind])
        pairs.push([Math.min(a, b), Math.max(a, b)]);
    });
  }
  return pairs;
}

/** The muster with a unit dealt, every recipe of it that several pieces follow. */
export function withDeal(muster: Muster, unitId: string, options: DealOptions): Muster {
  const unit = muster.units.find((u) => u.id === unitId);
  if (!unit) return muster;
  const pieces = new Map(
    dealtRecipes(muster, unit).flatMap((recipe) => {
      const dealt = deal(muster, unit, recipe, options);
      return dealt.pieces.map(
        (p, k) => [p.id, p.isSet ? p : asDealt(p, dealt.traits, dealt.of[k]!)] as const,
      );
    }),
  );
  const { seed, perRow, variety } = options;
  const after: Unit = {
    ...unit,
    pieces: unit.pieces.map((p) => pieces.get(p.id) ?? p),
    deal: { seed, perRow, variety },
  };
  return { ...muster, units: muster.units.map((u) => (u.id === unitId ? after : u)) };
}

function asDealt(piece: Piece, traits: readonly Trait[], values: readonly number[]): Piece {
  let { effects = [], tones = [], age } = piece;
  traits.forEach((trait, t) => {
    const value = trait.values[values[t]!]!.id;
    if (trait.kind === 'age') age = AGES.find((a) => a === value);
    else if (trait.kind === 'tone') {
      tones = tones.filter((x) => x.layer !== trait.layer);
      if (value !== '') tones = [...tones, { layer: trait.layer!, tone: value }];
    } else {
      const is = STRENGTHS.find((s) => s === value);
      effects = effects.filter((e) => e.layer !== trait.layer);
      if (is) effects = [...effects, { layer: trait.layer!, is }];
    }
  });
  return {
    ...piece,
    effects: effects.length > 0 ? effects : undefined,
    tones: tones.length > 0 ? tones : undefined,
    age,
  };
}

/** Two pieces of one recipe with each other's look; what the user set is set with it. */
export function swapped(unit: Unit, a: string, b: string): Unit {
  const [one, other] = [unit.pieces.find((p) => p.id === a), unit.pieces.find((p) => p.id === b)];
  if (!one || !other || one.recipe !== other.recipe) return unit;
  const look = ({ effects, tones, age, isSet }: Piece): Partial<Piece> => ({ effects, tones, age, isSet });
  const given = (p: Piece): Piece =>
    p.id === a ? { ...p, ...look(other) } : p.id === b ? { ...p, ...look(one) } : p;
  return { ...unit, pieces: unit.pieces.map(given) };
}

/** One value of one trait set by hand: the piece stays so when it is dealt again. */
export function withTrait(unit: Unit, piece: string, trait: Trait, value: string): Unit {
  const at = trait.values.findIndex((v) => v.id === value);
  if (at < 0) return unit;
  return {
    ...unit,
    pieces: unit.pieces.map((p) => (p.id === piece ? { ...asDealt(p, [trait], [at]), isSet: true } : p)),
  };
}

export const VARIETY_WORDS: Readonly<Record<Variety, string>> = {
  alike: 'more alike',
  usual: 'as a unit is',
  various: 'more various',
};
