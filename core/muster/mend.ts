/** Every reference of a muster mended after a change: what pointed at something that is gone points at what comes nearest, or nowhere. */
import { storesOf } from './edit';
import type { Layer, MadeOf, Muster, Piece, Recipe, Unit } from './document';
import { mixtureWords } from './mixture';
import { isInSession } from './sessions';
import { hasTone, OWN_OF_PIECE } from './sound';

export interface Mended {
  readonly muster: Muster;
  /** what was mended that a user would want to know, each in words */
  readonly notes: readonly string[];
}

/**
 * @param before the muster before the change: it knows what stood where; without it what dangles is cut
 * @param after may point at what is not there
 */
export function mended(before: Muster | null, after: Muster): Mended {
  const notes: string[] = [];
  const was = new Map(before?.recipes.map((r) => [r.id, r]));
  const recipes = after.recipes.map((r) => mendedRecipe(was.get(r.id) ?? null, r, notes));
  const units = after.units.map((u) => mendedUnit(was, recipes, u, notes));
  const muster =
    same(recipes, after.recipes) && same(units, after.units) ? after : { ...after, recipes, units };
  return { muster: withPins(withMarkings(withMixtures(muster), notes), notes), notes };
}

/** The recipe without a layer, and without what pointed at it. */
export function withoutLayer(recipe: Recipe, id: string): Recipe {
  return mendedRecipe(recipe, { ...recipe, layers: recipe.layers.filter((l) => l.id !== id) }, []);
}

/** The same items in the same order, not copies of them. */
function same<T>(a: readonly T[], b: readonly T[]): boolean {
  return a.length === b.length && a.every((x, k) => x === b[k]);
}

/** Of the layers that stood above (or below) one that is gone, the nearest that is still there. */
function nearest(
  was: Recipe | null,
  gone: string,
  left: ReadonlySet<string>,
  step: 1 | -1,
): string | undefined {
  const layers = was?.layers ?? [];
  const at = layers.findIndex((l) => l.id === gone);
  if (at < 0) return undefined;
  for (let k = at + step; layers[k]; k += step) if (left.has(layers[k]!.id)) return layers[k]!.id;
  return undefined;
}

function mendedRecipe(was: Recipe | null, recipe: Recipe, notes: string[]): Recipe {
  const zones = new Set(recipe.zones.map((z) => z.id));
  const lost = recipe.layers.filter((l) => l.zones.length > 0 && !l.zones.some((z) => zones.has(z)));
  for (const l of lost) notes.push(`“${l.name}” went with its zone.`);
  const layers = lost.length > 0 ? recipe.layers.filter((l) => !lost.includes(l)) : recipe.layers;
  const left = new Set(layers.map((l) => l.id));
  const next = layers.map((l, k) => mendedLayer(was, { layers, left, zones, notes }, l, k));
  const silenced = recipe.silenced?.filter((s) => s.layer === null || left.has(s.layer));
  const joined = recipe.zones.map((z) =>
    z.touches?.some((t) => !zones.has(t) || t === z.id)
      ? { ...z, touches: z.touches.filter((t) => zones.has(t) && t !== z.id) }
      : z,
  );
  if (same(next, recipe.layers) && same(joined, recipe.zones) && silenced?.length === recipe.silenced?.length)
    return recipe;
  return { ...recipe, zones: joined, layers: next, ...(silenced ? { silenced } : {}) };
}

interface Stack {
  readonly layers: readonly Layer[];
  readonly left: ReadonlySet<string>;
  readonly zones: ReadonlySet<string>;
  readonly notes: string[];
}

function mendedLayer(was: Recipe | null, stack: Stack, layer: Layer, index: number): Layer {
  const { left, zones, layers, notes } = stack;
  let next = layer;
  if (layer.zones.some((z) => !zones.has(z)))
    next = { ...next, zones: layer.zones.filter((z) => zones.has(z)) };
  if (layer.waitsFor.some((w) => !left.has(w) || w === layer.id))
    next = { ...next, waitsFor: waitsLeft(was, layer, left) };
  const through = layer.window?.through;
  if (layer.window && through != null && !left.has(through)) {
    const below = nearest(was, through, left, -1);
    const isAbove = below !== undefined && layers.findIndex((l) => l.id === below) > index;
    next = { ...next, window: { ...layer.window, through: isAbove ? below : null } };
    notes.push(
      isAbove
        ? `The window after “${layer.name}” now covers the layers up to “${layers.find((l) => l.id === below)!.name}”.`
        : `The window after “${layer.name}” now covers just the next layer.`,
    );
  }
  if (layer.judgeFrom !== undefined && (!left.has(layer.judgeFrom) || layer.judgeFrom === layer.id)) {
    const above = nearest(was, layer.judgeFrom, left, 1);
    const { judgeFrom, ...rest } = next;
    next =
      above === undefined || above === layer.id || judgeFrom === layer.id
        ? rest
        : { ...rest, judgeFrom: above };
  }
  const until = layer.takenBack?.until;
  if (layer.takenBack && until != null && (!left.has(until) || until === layer.id))
    next = {
      ...next,
      takenBack: {
        ...layer.takenBack,
        until: until === layer.id ? null : (nearest(was, until, left, 1) ?? null),
      },
    };
  return next;
}

/** Mixtures go by the names of their products, and are worded by their parts. */
function withMixtures(muster: Muster): Muster {
  const stores = storesOf(muster);
  const names = new Map(stores.products.map((p) => [p.id, p.name]));
  const recipes = muster.recipes.map((recipe) => {
    const layers = recipe.layers.map((layer) => {
      if (!layer.madeOf) return layer;
      const madeOf = namedAfter(names, layer.madeOf);
      const mixture = mixtureWords(madeOf);
      return madeOf === layer.madeOf && mixture === layer.mixture ? layer : { ...layer, madeOf, mixture };
    });
    return same(layers, recipe.layers) ? recipe : { ...recipe, layers };
  });
  const products = stores.products.map((product) => {
    const equivalents = product.equivalents?.map((e) => {
      const madeOf = namedAfter(names, e.madeOf);
      return madeOf === e.madeOf ? e : { ...e, madeOf };
    });
    return !equivalents || same(equivalents, product.equivalents ?? [])
      ? product
      : { ...product, equivalents };
  });
  const isSame = same(products, stores.products);
  if (isSame && same(recipes, muster.recipes)) return muster;
  return { ...muster, recipes, ...(isSame ? {} : { stores: { ...stores, products } }) };
}

/** A product that has left the shelf is still called so: it has to be bought. */
function namedAfter(names: ReadonlyMap<string, string>, madeOf: MadeOf): MadeOf {
  const parts = madeOf.parts.map((part) => {
    if (part.product === undefined) return part;
    const name = names.get(part.product);
    if (name === part.name) return part;
    if (name !== undefined) return { ...part, name };
    const { product, ...rest } = part;
    return product === undefined ? part : rest;
  });
  return same(parts, madeOf.parts) ? madeOf : { ...madeOf, parts };
}

/** What a layer waited for: where that is gone, what that waited for. */
function waitsLeft(was: Recipe | null, layer: Layer, left: ReadonlySet<string>): string[] {
  const found = new Set<string>();
  const seen = new Set<string>([layer.id]);
  const look = (id: string): void => {
    if (seen.has(id)) return;
    seen.add(id);
    if (left.has(id)) found.add(id);
    else for (const w of was?.layers.find((l) => l.id === id)?.waitsFor ?? []) look(w);
  };
  layer.waitsFor.forEach(look);
  return [...found];
}

function mendedUnit(
  was: ReadonlyMap<string, Recipe>,
  recipes: readonly Recipe[],
  unit: Unit,
  notes: string[],
): Unit {
  const recipeOf = (piece: Piece | undefined): Recipe | undefined =>
    recipes.find((r) => r.id === piece?.recipe);
  const pieces = unit.pieces.map((p) => {
    let piece = p;
    const recipe = recipeOf(p);
    const where = `${p.name} (${unit.name})`;
    if (p.recipe !== null && !recipe) {
      piece = { ...piece, recipe: null };
      notes.push(`${where} is left without a recipe.`);
    }
    const left = new Set(recipe?.layers.map((l) => l.id));
    if (p.startsAt !== undefined && !left.has(p.startsAt)) {
      const { startsAt, ...rest } = piece;
      const above = recipe ? nearest(was.get(recipe.id) ?? null, startsAt ?? '', left, 1) : undefined;
      piece = above === undefined ? rest : { ...rest, startsAt: above };
      notes.push(
        above === undefined
          ? `${where} now starts from the bare model.`
          : `${where} now starts at “${recipe!.layers.find((l) => l.id === above)!.name}”.`,
      );
    }
    if (p.substitutes?.some((s) => !left.has(s)))
      piece = { ...piece, substitutes: p.substitutes.filter((s) => left.has(s)) };
    const isTried = (t: string): boolean => recipe?.layers.find((l) => l.id === t)?.isFirstTime === true;
    if (p.trials?.some((t) => !isTried(t))) piece = { ...piece, trials: p.trials.filter(isTried) };
    if (p.effects?.some((e) => !left.has(e.layer)))
      piece = { ...piece, effects: p.effects.filter((e) => left.has(e.layer)) };
    if (p.tones?.some((t) => !hasTone(recipe, t)))
      piece = { ...piece, tones: p.tones.filter((t) => hasTone(recipe, t)) };
    return mendedJoin(was, recipeOf, unit, piece, notes);
  });
  return same(pieces, unit.pieces) ? unit : { ...unit, pieces };
}

function mendedJoin(
  was: ReadonlyMap<string, Recipe>,
  recipeOf: (piece: Piece | undefined) => Recipe | undefined,
  unit: Unit,
  piece: Piece,
  notes: string[],
): Piece {
  const { joins } = piece;
  if (!joins) return piece;
  const host = unit.pieces.find((p) => p.id === joins.piece);
  const recipe = recipeOf(host);
  if (!host || !recipe) {
    notes.push(`${piece.name} (${unit.name}) no longer joins anything.`);
    return { ...piece, joins: null };
  }
  const left = new Set(recipe.layers.map((l) => l.id));
  if (left.has(joins.layer)) return piece;
  const layer =
    nearest(was.get(recipe.id) ?? null, joins.layer, left, 1) ?? recipe.layers[recipe.layers.length - 1]?.id;
  notes.push(
    layer === undefined
      ? `${piece.name} (${unit.name}) no longer joins ${host.name}.`
      : `${piece.name} (${unit.name}) now joins ${host.name} before “${recipe.layers.find((l) => l.id === layer)!.name}”.`,
  );
  return { ...piece, joins: layer === undefined ? null : { ...joins, layer } };
}

function withMarkings(muster: Muster, notes: string[]): Muster {
  const stores = storesOf(muster);
  const units = new Set(muster.units.map((u) => u.id));
  if (!stores.markings.some((m) => m.unit !== null && !units.has(m.unit))) return muster;
  const markings = stores.markings.map((m) => {
    if (m.unit === null || units.has(m.unit)) return m;
    notes.push(`The markings “${m.name}” now serve all units.`);
    return { ...m, unit: null };
  });
  return { ...muster, stores: { ...stores, markings } };
}

/** A pin holds while there is such a step and such a session. */
function withPins(muster: Muster, notes: string[]): Muster {
  const { pins } = muster;
  if (!pins || pins.length === 0) return muster;
  const layersOf = new Map(muster.recipes.map((r) => [r.id, new Set(r.layers.map((l) => l.id))]));
  const pieces = new Map(muster.units.flatMap((u) => u.pieces.map((p) => [p.id, p] as const)));
  const left = pins.filter((pin) => {
    const piece = pieces.get(pin.piece);
    return (
      piece?.recipe != null &&
      (pin.layer.startsWith(OWN_OF_PIECE) || layersOf.get(piece.recipe)?.has(pin.layer) === true) &&
      isInSession(muster.bench, pin.session)
    );
  });
  const gone = pins.length - left.length;
  if (gone === 0) return muster;
  notes.push(
    gone === 1
      ? 'One step is no longer pinned: it, or its session, is gone.'
      : `${gone} steps are no longer pinned: they, or their sessions, are gone.`,
  );
  return { ...muster, pins: left };
}
