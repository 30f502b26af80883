/** Which layer waits for which: a layer rests on the nearest layer beneath it in each of its zones. */
import type { Layer, Recipe } from '#core/muster';
import { coveredAt, masksOf } from './masks';
import { dryingOf } from './rounds';

/** From the end of one layer to the start of another; layers by index, times in drying minutes of `from`'s family. */
export interface Link {
  readonly from: number;
  readonly to: number;
  readonly min: number;
  /** the window shuts: no later than; Infinity if it never does */
  readonly max: number;
  /** better by; Infinity if it does not matter */
  readonly prefer: number;
  /** false: an order in time only, nothing has to dry */
  readonly dries: boolean;
}

const IMPLICIT_ZONE = '';

/** Zones a layer is meant for; all of the recipe's when it names none. */
export function namedZones(recipe: Recipe, layer: Layer): readonly string[] {
  const all = recipe.zones.map((z) => z.id);
  const named = layer.zones.filter((z) => all.includes(z));
  if (named.length > 0) return named;
  return all.length > 0 ? all : [IMPLICIT_ZONE];
}

/** By recipe what each of its layers goes on: reckoned once, asked for by every rule. */
const GOES_ON = new WeakMap<Recipe, ReadonlyMap<Layer, readonly string[]>>();

/** Zones a layer really goes on: those it is meant for, without what is masked. Where all of it is masked it counts as meant: a finding tells it. */
export function zonesOf(recipe: Recipe, layer: Layer): readonly string[] {
  let known = GOES_ON.get(recipe);
  if (!known) GOES_ON.set(recipe, (known = goesOn(recipe)));
  return known.get(layer) ?? namedZones(recipe, layer);
}

function goesOn(recipe: Recipe): ReadonlyMap<Layer, readonly string[]> {
  const masks = masksOf(recipe);
  return new Map(
    recipe.layers.map((layer, k) => {
      const named = namedZones(recipe, layer);
      const covered = coveredAt(masks, k);
      const open = named.filter((z) => !covered.has(z));
      return [layer, open.length > 0 ? open : named];
    }),
  );
}

/** The layers of one zone, bottom to top. */
export function layersOn(recipe: Recipe, zone: string): Layer[] {
  return recipe.layers.filter((l) => zonesOf(recipe, l).includes(zone));
}

/** Zones that are looked at one by one: those of the recipe; of one without, the whole piece. */
export function zonesToSee(recipe: Recipe): readonly { readonly id: string; readonly name: string }[] {
  return recipe.zones.length > 0 ? recipe.zones : [{ id: IMPLICIT_ZONE, name: 'Whole piece' }];
}

/** Whether what names these zones goes on one of them: none named is all. */
export function isOnZone(named: readonly string[], zone: string): boolean {
  return named.length === 0 || named.includes(zone);
}

/** Zones as named after one is put on or taken off. All are stored as none named; the last one can't be taken off. */
export function withZoneTurned(
  recipe: Pick<Recipe, 'zones'>,
  named: readonly string[],
  zone: string,
): string[] {
  const all = recipe.zones.map((z) => z.id);
  const on = all.filter((z) => (z === zone) !== isOnZone(named, z));
  return on.length === all.length ? [] : on;
}

/** Indexes of the layers that rest directly on layer `index`, bottom to top. */
export function restingOn(recipe: Recipe, index: number): number[] {
  const free = new Set(zonesOf(recipe, recipe.layers[index]!));
  const found: number[] = [];
  for (let k = index + 1; k < recipe.layers.length && free.size > 0; k++) {
    const shared = zonesOf(recipe, recipe.layers[k]!).filter((z) => free.delete(z));
    if (shared.length > 0) found.push(k);
  }
  return found;
}

/** Drying minutes after which the next layer may go on: dry, and its window open. */
export function opensAfter(layer: Layer): number {
  return Math.max(dryingOf(layer), layer.window?.opensMinutes ?? 0);
}

/** All waits between the layers of a recipe, one for each pair. */
export function linksOf(recipe: Recipe): Link[] {
  const links = new Map<string, Link>();
  const add = (link: Link): void => {
    const key = `${link.from}>${link.to}`;
    const known = links.get(key);
    links.set(
      key,
      known
        ? {
            ...known,
            min: Math.max(known.min, link.min),
            max: Math.min(known.max, link.max),
            prefer: Math.min(known.prefer, link.prefer),
            dries: known.dries || link.dries,
          }
        : link,
    );
  };
  const indexOf = new Map(recipe.layers.map((l, i) => [l.id, i]));

  recipe.layers.forEach((layer, from) => {
    const window = layer.window;
    const min = opensAfter(layer);
    const closes = window?.closesMinutes ?? Infinity;
    const prefer = window?.preferMinutes ?? Infinity;
    const through = window?.through == null ? -1 : (indexOf.get(window.through) ?? -1);
    const next = restingOn(recipe, from);
    for (const to of next)
      add({ from, to, min, max: closes, prefer: through < 0 ? prefer : Infinity, dries: true });
    if (through > from && closes !== Infinity) {
      const zones = zonesOf(recipe, layer);
      for (let to = from + 1; to <= through; to++)
        if (!next.includes(to) && zonesOf(recipe, recipe.layers[to]!).some((z) => zones.includes(z)))
          add({ from, to, min: 0, max: closes, prefer: Infinity, dries: true });
    }
    if (through > from && prefer !== Infinity)
      add({ from, to: through, min: 0, max: closes, prefer, dries: true });
  });
  recipe.layers.forEach((layer, to) => {
    for (const id of layer.waitsFor) {
      const from = indexOf.get(id);
      if (from !== undefined && from !== to)
        add({ from, to, min: dryingOf(recipe.layers[from]!), max: Infinity, prefer: Infinity, dries: true });
    }
  });
  // What stands between a mask and its taking off is put on while it is masked, whatever it goes on.
  for (const { from, to } of masksOf(recipe)) {
    for (let k = from + 1; to !== null && k < to; k++) {
      add({ from, to: k, min: dryingOf(recipe.layers[from]!), max: Infinity, prefer: Infinity, dries: true });
      add({ from: k, to, min: dryingOf(recipe.layers[k]!), max: Infinity, prefer: Infinity, dries: true });
    }
  }
  const rests = new Set([...links.values()].map((l) => l.to));
  for (let to = 1; to < recipe.layers.length; to++)
    if (!rests.has(to)) add({ from: 0, to, min: 0, max: Infinity, prefer: Infinity, dries: false });
  return [...links.values()];
}

/** Layers on which nothing rests and for which nothing waits: when they are dry, the piece is done. */
export function topLayers(recipe: Recipe): number[] {
  const below = new Set(linksOf(recipe).map((l) => l.from));
  return recipe.layers.map((_, i) => i).filter((i) => !below.has(i));
}

/** Layer indexes that wait for each other in a circle, in order; empty if there is none. */
export function circleOf(recipe: Recipe): number[] {
  const next = new Map<number, number[]>();
  for (const l of linksOf(recipe)) next.set(l.from, [...(next.get(l.from) ?? []), l.to]);
  const path: number[] = [];
  const done = new Set<number>();
  const visit = (i: number): number[] => {
    const at = path.indexOf(i);
    if (at >= 0) return path.slice(at);
    if (done.has(i)) return [];
    path.push(i);
    for (const k of next.get(i) ?? []) {
      const circle = visit(k);
      if (circle.length > 0) return circle;
    }
    path.pop();
    done.add(i);
    return [];
  };
  for (let i = 0; i < recipe.layers.length; i++) {
    const circle = visit(i);
    if (circle.length > 0) return circle;
  }
  return [];
}
