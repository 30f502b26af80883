/** What must hold between the parts of a muster, beyond the shape of each: ids are one of a kind, references lead somewhere, dates lie together. */
import { storesOf } from './edit';
import type { MadeOf, Muster, Piece, Recipe, Unit } from './document';
import { daysBetween } from './localTime';

/** What is wrong, and where: the path in the document, the reason in words. */
export interface Fault {
  readonly path: string;
  readonly text: string;
  /** what it is of, as the user calls it */
  readonly of?: string;
}

/** From its beginning to the last table date a plan spans at most two years. */
export const MOST_DAYS = 731;
/** A unit dated before the beginning is told as a finding; this far before it the year is mistyped. */
const LEAST_DAYS = -MOST_DAYS;

/** All that is unsound; a muster that has any is never kept. @param muster one that has passed the schema */
export function unsound(muster: Muster): Fault[] {
  const faults: Fault[] = [];
  const say = (path: string, text: string): void => void faults.push({ path, text });
  once(say, 'recipes', muster.recipes);
  const stores = storesOf(muster);
  const products = new Set(stores.products.map((p) => p.id));
  muster.recipes.forEach((r, k) => checkRecipe(say, `recipes[${k}]`, r, products));
  once(say, 'units', muster.units);
  const pieces = new Set<string>();
  muster.units.forEach((unit, k) => {
    const path = `units[${k}]`;
    checkSpan(say, muster, `${path}.table`, 'The table date', unit.table);
    if (unit.readyFrom)
      checkSpan(say, muster, `${path}.readyFrom`, 'The date from which it is ready', unit.readyFrom);
    unit.pieces.forEach((piece, p) => {
      const own = `${path}.pieces[${p}]`;
      if (pieces.has(piece.id))
        say(`${own}.id`, `“${piece.id}” occurs twice: every piece has an id of its own`);
      pieces.add(piece.id);
      checkPiece(say, muster, own, unit, piece);
    });
  });
  once(say, 'bench.people', muster.bench.people);
  once(say, 'bench.weekly', muster.bench.weekly);
  once(say, 'bench.exceptions', muster.bench.exceptions);
  once(say, 'pins', muster.pins ?? []);
  once(say, 'kits', muster.kits ?? []);
  checkPins(say, muster);
  stores.products.forEach((p, k) => {
    once(say, `stores.products[${k}].equivalents`, p.equivalents ?? []);
    p.equivalents?.forEach((e, i) => {
      const path = `stores.products[${k}].equivalents[${i}].madeOf`;
      checkMadeOf(say, path, e.madeOf, products);
      if (e.madeOf.parts.some((part) => part.product === p.id)) say(path, 'a product can’t stand for itself');
    });
  });
  for (const key of ['products', 'markings', 'consumables', 'jars'] as const)
    once(say, `stores.${key}`, stores[key]);
  stores.markings.forEach((m, k) => {
    if (m.unit !== null && !muster.units.some((u) => u.id === m.unit))
      say(`stores.markings[${k}].unit`, `there is no unit “${m.unit}”`);
  });
  return faults;
}

function checkPins(say: Say, muster: Muster): void {
  const pieces = new Map(muster.units.flatMap((u) => u.pieces.map((p) => [p.id, p] as const)));
  const recipes = new Map(muster.recipes.map((r) => [r.id, r]));
  muster.pins?.forEach((pin, k) => {
    const piece = pieces.get(pin.piece);
    if (!piece) say(`pins[${k}].piece`, `there is no piece “${pin.piece}”`);
    else if (!hasLayer(recipes.get(piece.recipe ?? ''), pin.layer))
      say(`pins[${k}].layer`, `the recipe of “${piece.name}” has no layer “${pin.layer}”`);
  });
}

/** Layers whose id begins so are no recipe's own: what a piece gets before it joins part-way, or its gluing. */
export const OWN_OF_PIECE = '~';

function hasLayer(recipe: Recipe | undefined, id: string): boolean {
  return recipe !== undefined && (id.startsWith(OWN_OF_PIECE) || recipe.layers.some((l) => l.id === id));
}

/** Is it one of the tones that the layer may have? */
export function hasTone(
  recipe: Recipe | undefined,
  { layer, tone }: NonNullable<Piece['tones']>[number],
): boolean {
  return recipe?.layers.some((l) => l.id === layer && l.tones?.some((t) => t.id === tone)) ?? false;
}

type Say = (path: string, text: string) => void;

function once(say: Say, path: string, list: readonly { readonly id: string }[]): void {
  const seen = new Set<string>();
  list.forEach(({ id }, k) => {
    if (seen.has(id)) say(`${path}[${k}].id`, `“${id}” occurs twice`);
    seen.add(id);
  });
}

function checkSpan(say: Say, muster: Muster, path: string, what: string, at: string): void {
  const days = daysBetween(muster.startsOn, at);
  if (days > MOST_DAYS || days < LEAST_DAYS)
    say(
      path,
      `${what}, ${at.slice(0, 10)}, lies ${yearsAway(days)} the beginning of the plan, ${muster.startsOn.slice(0, 10)}; a plan spans at most two years`,
    );
}

function yearsAway(days: number): string {
  const years = Math.round(Math.abs(days) / 365.25);
  return `${years} years ${days > 0 ? 'after' : 'before'}`;
}

function checkMadeOf(say: Say, path: string, { parts }: MadeOf, products: ReadonlySet<string>): void {
  once(say, `${path}.parts`, parts);
  parts.forEach(({ product, name }, k) => {
    if (product !== undefined && !products.has(product))
      say(`${path}.parts[${k}].product`, `there is no such product on the shelf: “${name}”`);
  });
}

function checkRecipe(say: Say, path: string, recipe: Recipe, products: ReadonlySet<string>): void {
  once(say, `${path}.zones`, recipe.zones);
  once(say, `${path}.layers`, recipe.layers);
  once(say, `${path}.references`, recipe.references ?? []);
  recipe.layers.forEach((l, k) => once(say, `${path}.layers[${k}].tones`, l.tones ?? []));
  const layers = new Set(recipe.layers.map((l) => l.id));
  const zones = new Set(recipe.zones.map((z) => z.id));
  recipe.zones.forEach((z, k) =>
    z.touches?.forEach((t, i) => {
      if (!zones.has(t)) say(`${path}.zones[${k}].touches[${i}]`, `the recipe has no zone “${t}”`);
    }),
  );
  const layer = (at: string, id: string): void => {
    if (!layers.has(id)) say(at, `the recipe has no layer “${id}”`);
  };
  recipe.layers.forEach((l, k) => {
    const own = `${path}.layers[${k}]`;
    l.zones.forEach((z, i) => {
      if (!zones.has(z)) say(`${own}.zones[${i}]`, `the recipe has no zone “${z}”`);
    });
    l.waitsFor.forEach((w, i) => {
      if (w === l.id) say(`${own}.waitsFor[${i}]`, 'a layer can’t wait for itself');
      else layer(`${own}.waitsFor[${i}]`, w);
    });
    if (l.window?.through != null) layer(`${own}.window.through`, l.window.through);
    if (l.judgeFrom !== undefined) layer(`${own}.judgeFrom`, l.judgeFrom);
    if (l.takenBack?.until != null) layer(`${own}.takenBack.until`, l.takenBack.until);
    if (l.madeOf) checkMadeOf(say, `${own}.madeOf`, l.madeOf, products);
  });
  recipe.silenced?.forEach((s, k) => {
    if (s.layer !== null) layer(`${path}.silenced[${k}].layer`, s.layer);
  });
}

function checkPiece(say: Say, muster: Muster, path: string, unit: Unit, piece: Piece): void {
  const recipe = muster.recipes.find((r) => r.id === piece.recipe);
  const has = (r: Recipe | undefined, id: string): boolean => r?.layers.some((l) => l.id === id) ?? false;
  if (piece.recipe !== null && !recipe) say(`${path}.recipe`, `there is no recipe “${piece.recipe}”`);
  if (piece.startsAt !== undefined && !has(recipe, piece.startsAt))
    say(`${path}.startsAt`, `its recipe has no layer “${piece.startsAt}”`);
  piece.substitutes?.forEach((s, k) => {
    if (!has(recipe, s)) say(`${path}.substitutes[${k}]`, `its recipe has no layer “${s}”`);
  });
  piece.trials?.forEach((t, k) => {
    if (!has(recipe, t)) say(`${path}.trials[${k}]`, `its recipe has no layer “${t}”`);
  });
  piece.effects?.forEach((e, k) => {
    if (!has(recipe, e.layer)) say(`${path}.effects[${k}].layer`, `its recipe has no layer “${e.layer}”`);
  });
  piece.tones?.forEach((t, k) => {
    if (!hasTone(recipe, t))
      say(`${path}.tones[${k}].tone`, 'its recipe has no such layer, or no such tone of it');
  });
  if (!piece.joins) return;
  const host = unit.pieces.find((p) => p.id === piece.joins!.piece);
  if (!host) say(`${path}.joins.piece`, `the unit has no piece “${piece.joins.piece}”`);
  else if (
    !has(
      muster.recipes.find((r) => r.id === host.recipe),
      piece.joins.layer,
    )
  )
    say(`${path}.joins.layer`, `the recipe of “${host.name}” has no layer “${piece.joins.layer}”`);
}
