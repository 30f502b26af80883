/** Changes to a muster, each a pure function from muster to muster. What they leave pointing nowhere is mended at the door. */
import { NAME_LETTERS } from './document';
import type { Bench, Layer, Muster, Piece, Pin, Recipe, Stores, Unit } from './document';

/** Gives a new id each time; passed in, so that tests can repeat it. */
export type NewId = () => string;

export function withBench(muster: Muster, bench: Bench): Muster {
  return { ...muster, bench };
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

/** Copies of a unit with its pieces under new ids, named "… 2", "… 3", directly after it. */
export function duplicatedUnit(muster: Muster, id: string, copies: number, newId: NewId): Muster {
  return {
    ...muster,
    units: muster.units.flatMap((unit) =>
      unit.id === id
        ? [unit, ...Array.from({ length: copies }, (_, k) => copyOfUnit(unit, k + 2, newId))]
        : [unit],
    ),
  };
}

function copyOfUnit(unit: Unit, number: number, newId: NewId): Unit {
  const ids = new Map(unit.pieces.map((p) => [p.id, newId()]));
  return {
    ...unit,
    id: newId(),
    name: withSuffix(unit.name, ` ${number}`),
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

/** Copies of a piece within its unit, named "… 2", "… 3", directly after it. */
export function duplicatedPiece(unit: Unit, id: string, copies: number, newId: NewId): Unit {
  return {
    ...unit,
    pieces: unit.pieces.flatMap((piece) =>
      piece.id === id
        ? [
            piece,
            ...Array.from({ length: copies }, (_, k): Piece => ({
              ...piece,
              id: newId(),
              name: withSuffix(piece.name, ` ${k + 2}`),
            })),
          ]
        : [piece],
    ),
  };
}

/** Takes a piece out. */
export function withoutPiece(unit: Unit, id: string): Unit {
  return { ...unit, pieces: unit.pieces.filter((p) => p.id !== id) };
}

/** Adds the recipe, or puts it in the place of the one with its id. */
export function withRecipe(muster: Muster, recipe: Recipe): Muster {
  return { ...muster, recipes: replaced(muster.recipes, recipe) };
}

export function withoutRecipe(muster: Muster, id: string): Muster {
  return { ...muster, recipes: muster.recipes.filter((r) => r.id !== id) };
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
