/** Changes to a muster, each a pure function from muster to muster. What they leave pointing nowhere is mended at the door. */
import { NAME_LETTERS } from './document';
import { mixtureWords } from './mixture';
import type { Bench, Layer, MadeOf, Muster, Piece, Pin, Recipe, Session, Stores, Unit } from './document';
import type { LocalDate } from './localTime';
import { sessionsOn } from './sessions';

/** Gives a new id each time; passed in, so that tests can repeat it. */
export type NewId = () => string;

export function withBench(muster: Muster, bench: Bench): Muster {
  return { ...muster, bench };
}

/** One session more on a date, besides those that the week or an exception has there. */
export function withExtraSession(muster: Muster, date: LocalDate, session: Session, newId: NewId): Muster {
  const { bench } = muster;
  const known = bench.exceptions.find((e) => e.date === date);
  const exception = {
    id: known?.id ?? newId(),
    date,
    sessions: [...sessionsOn(bench, date), session],
  };
  const exceptions = [...bench.exceptions.filter((e) => e !== known), exception];
  return { ...muster, bench: { ...bench, exceptions } };
}

const EMPTY: Stores = { products: [], markings: [], consumables: [], jars: [] };

/** The stores of a muster; empty shelves where there are none yet. */
export function storesOf(muster: Muster): Stores {
  return muster.stores ?? EMPTY;
}

export function withStores(muster: Muster, stores: Stores): Muster {
  return { ...muster, stores };
}

/** Adds the unit, or puts it in the place of the one with its id. */
export function withUnit(muster: Muster, unit: Unit): Muster {
  return { ...muster, units: replaced(muster.units, unit) };
}

export function withoutUnit(muster: Muster, id: string): Muster {
  return { ...muster, units: muster.units.filter((u) => u.id !== id) };
}

/** Copies of a unit with its pieces under new ids, numbered on, directly after it. */
export function duplicatedUnit(muster: Muster, id: string, copies: number, newId: NewId): Muster {
  return {
    ...muster,
    units: muster.units.flatMap((unit) =>
      unit.id === id
        ? [
            unit,
            ...numberedNames(
              unit.name,
              copies,
              muster.units.map((u) => u.name),
            ).map((name) => copyOfUnit(unit, name, newId)),
          ]
        : [unit],
    ),
  };
}

function copyOfUnit(unit: Unit, name: string, newId: NewId): Unit {
  const ids = new Map(unit.pieces.map((p) => [p.id, newId()]));
  return {
    ...unit,
    id: newId(),
    name,
    pieces: unit.pieces.map((p) => ({
      ...p,
      id: ids.get(p.id)!,
      joins: p.joins && { ...p.joins, piece: ids.get(p.joins.piece) ?? p.joins.piece },
    })),
  };
}

/** A name with something after it, the name itself cut where both are too long. */
export function withSuffix(name: string, suffix: string): string {
  return `${name.slice(0, NAME_LETTERS - suffix.length).trimEnd()}${suffix}`;
}

/**
 * Names for more of the same, numbered on: after "Barge" or "Barge 2" of a fleet that has up to "Barge 4" comes "Barge 5", never "Barge 2 2".
 * @param taken names that are there already
 */
export function numberedNames(name: string, count: number, taken: readonly string[]): string[] {
  const stem = stemOf(name);
  const last = taken.reduce((most, other) => {
    if (stemOf(other).toLowerCase() !== stem.toLowerCase()) return most;
    return Math.max(most, Number(/(\d+)$/.exec(other)?.[1] ?? 1));
  }, 0);
  return Array.from({ length: count }, (_, k) => withSuffix(stem, ` ${last + k + 1}`));
}

/** A name without its number. */
function stemOf(name: string): string {
  return /^(.*\S)\s+\d{1,6}$/.exec(name)?.[1] ?? name;
}

/** Copies of a piece within its unit, numbered on, directly after it. */
export function duplicatedPiece(unit: Unit, id: string, copies: number, newId: NewId): Unit {
  const names = unit.pieces.map((p) => p.name);
  return {
    ...unit,
    pieces: unit.pieces.flatMap((piece) =>
      piece.id === id
        ? [
            piece,
            ...numberedNames(piece.name, copies, names).map((name): Piece => ({
              ...piece,
              id: newId(),
              name,
            })),
          ]
        : [piece],
    ),
  };
}

/** The same change of several pieces of a unit. */
export function withPieces(unit: Unit, ids: ReadonlySet<string>, part: Partial<Piece>): Unit {
  return { ...unit, pieces: unit.pieces.map((p) => (ids.has(p.id) ? { ...p, ...part } : p)) };
}

/** The unit without several of its pieces. */
export function withoutPieces(unit: Unit, ids: ReadonlySet<string>): Unit {
  return { ...unit, pieces: unit.pieces.filter((p) => !ids.has(p.id)) };
}

/** Pieces of one unit put at the end of another; what they join there, or what joins them here, is cut at the door. */
export function movedPieces(muster: Muster, from: string, ids: ReadonlySet<string>, to: string): Muster {
  const moved = muster.units.find((u) => u.id === from)?.pieces.filter((p) => ids.has(p.id)) ?? [];
  return {
    ...muster,
    units: muster.units.map((u) =>
      u.id === from
        ? withoutPieces(u, ids)
        : u.id === to
          ? {
              ...u,
              pieces: [
                ...u.pieces,
                ...moved.map((p) => (p.joins && !ids.has(p.joins.piece) ? { ...p, joins: null } : p)),
              ],
            }
          : u,
    ),
  };
}

/** Adds the recipe, or puts it in the place of the one with its id. */
export function withRecipe(muster: Muster, recipe: Recipe): Muster {
  return { ...muster, recipes: replaced(muster.recipes, recipe) };
}

export function withoutRecipe(muster: Muster, id: string): Muster {
  return { ...muster, recipes: muster.recipes.filter((r) => r.id !== id) };
}

/** Units with pieces that follow a recipe, and those pieces. */
export function usersOf(
  muster: Muster,
  recipe: string,
): readonly { readonly unit: Unit; readonly pieces: readonly Piece[] }[] {
  return muster.units
    .map((unit) => ({ unit, pieces: unit.pieces.filter((p) => p.recipe === recipe) }))
    .filter((u) => u.pieces.length > 0);
}

/**
 * A version of a recipe for some of its pieces: a copy, numbered on, with the same layers, so that what was logged of them still counts.
 * @returns the muster and the version's id
 */
export function withVersion(
  muster: Muster,
  recipe: Recipe,
  pieces: ReadonlySet<string>,
  newId: NewId,
): { readonly muster: Muster; readonly id: string } {
  const id = newId();
  const [name] = numberedNames(
    recipe.name,
    1,
    muster.recipes.map((r) => r.name),
  );
  const units = muster.units.map((u) =>
    withPieces(
      u,
      new Set(u.pieces.filter((p) => p.recipe === recipe.id && pieces.has(p.id)).map((p) => p.id)),
      {
        recipe: id,
      },
    ),
  );
  return { muster: { ...muster, recipes: [...muster.recipes, { ...recipe, id, name: name! }], units }, id };
}

/** The recipe with a layer put in at a place of the stack, 0 being the bottom. */
export function withLayerAt(recipe: Recipe, layer: Layer, place: number): Recipe {
  const layers = [...recipe.layers];
  layers.splice(Math.max(0, Math.min(place, layers.length)), 0, layer);
  return { ...recipe, layers };
}

/** The layer under another name; a mixture that was called as the layer goes with it, one set apart stays. */
export function renamedLayer(layer: Layer, name: string): Layer {
  if (layer.madeOf) return { ...layer, name };
  const isSame = layer.mixture.trim().toLowerCase() === layer.name.trim().toLowerCase();
  return { ...layer, name, mixture: isSame ? name : layer.mixture };
}

/** The layer mixed otherwise: in words of the user's own, or of products, whose words then follow from it. */
export function remixed(layer: Layer, mix: string | MadeOf): Layer {
  return typeof mix === 'string'
    ? { ...layer, madeOf: undefined, mixture: mix }
    : { ...layer, madeOf: mix, mixture: mixtureWords(mix) };
}

export function withLayer(recipe: Recipe, layer: Layer): Recipe {
  return { ...recipe, layers: replaced(recipe.layers, layer) };
}

/** Moves a layer to another place in the stack, 0 being the bottom. */
export function movedLayer(recipe: Recipe, from: number, to: number): Recipe {
  const layers = [...recipe.layers];
  const [layer] = layers.splice(from, 1);
  if (layer) layers.splice(Math.max(0, Math.min(to, layers.length)), 0, layer);
  return { ...recipe, layers };
}

/** A step, as pins name it. */
export type Pinned = Pick<Pin, 'piece' | 'layer' | 'round'>;

/** Steps that are to begin in a session, or not in it; what was said of that before is forgotten. */
export function withPins(
  muster: Muster,
  steps: readonly Pinned[],
  session: string,
  is: Pin['is'],
  newId: NewId,
): Muster {
  const others = (muster.pins ?? []).filter(
    (pin) =>
      !steps.some((s) => isSameStep(s, pin)) ||
      // Only one session can be the one; out of it may be several.
      (is === 'out' && pin.is === 'out' && pin.session !== session),
  );
  const pins = steps.map(({ piece, layer, round }) => ({ id: newId(), piece, layer, round, session, is }));
  return { ...muster, pins: [...others, ...pins] };
}

/** Nothing is said any more of these steps; without any, of none at all. */
export function withoutPins(muster: Muster, steps?: readonly Pinned[]): Muster {
  const pins = steps ? (muster.pins ?? []).filter((pin) => !steps.some((s) => isSameStep(s, pin))) : [];
  return { ...muster, pins };
}

function isSameStep(a: Pinned, b: Pinned): boolean {
  return a.piece === b.piece && a.layer === b.layer && a.round === b.round;
}

function replaced<T extends { id: string }>(list: readonly T[], item: T): T[] {
  return list.some((x) => x.id === item.id)
    ? list.map((x) => (x.id === item.id ? item : x))
    : [...list, item];
}
