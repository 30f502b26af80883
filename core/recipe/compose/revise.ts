/** Composing again over what a hand has changed since: the hand's work stays, and what would change is told before it does. */
import { dequal } from 'dequal/lite';
import type { Layer, Looks, Recipe } from '#core/muster';
import { hands } from '../rounds';
import { composed } from './compose';

export interface LayerChange {
  readonly is: 'added' | 'gone' | 'moved' | 'changed';
  readonly layer: Layer;
  /** hands-on minutes a piece, more or less than before */
  readonly minutes: number;
  readonly dryMinutes: number;
}

export interface Revision {
  readonly recipe: Recipe;
  readonly changes: readonly LayerChange[];
  /** layers of the user's own hand that stay as they are */
  readonly kept: readonly Layer[];
}

const byId = (layers: readonly Layer[]): ReadonlyMap<string, Layer> => new Map(layers.map((l) => [l.id, l]));

/**
 * The recipe with other looks or schools. A layer that was edited by hand stays as edited as long as its look is wished for, one that was
 * taken out stays out, one that was put in or moved stays over what it lay on.
 * @param to the looks; and the schools where they change too
 */
export function revised(
  recipe: Recipe,
  to: {
    readonly looks: Looks;
    readonly schools?: Recipe['schools'];
    /** other sheens of its zones */
    readonly zones?: Recipe['zones'];
  },
): Revision {
  const schools = 'schools' in to ? to.schools : recipe.schools;
  const before = recipe.looks ? byId(composed(recipe, recipe.looks)) : new Map<string, Layer>();
  const mine = byId(recipe.layers);
  const zones = to.zones ?? recipe.zones;
  const next = composed({ zones, ...(schools ? { schools } : {}) }, to.looks);
  const kept: Layer[] = [];
  const layers: Layer[] = [];
  const stands = longestCommon(
    recipe.layers.map((l) => l.id).filter((id) => before.has(id)),
    [...before.keys()],
  );
  // Put in by hand, or moved by it: its place is the hand's.
  const isPlaced = (id: string): boolean => !before.has(id) || !stands.has(id);
  for (const layer of next) {
    const own = mine.get(layer.id);
    const was = before.get(layer.id);
    if (was && !own) continue;
    if (own && was && isPlaced(own.id)) continue;
    if (own && was && !dequal(own, was)) {
      kept.push(own);
      layers.push({ ...own, zones: own.zones.filter((z) => zones.some((x) => x.id === z)) });
    } else layers.push(layer);
  }
  // What the hand placed goes over what it lay on, or to the bottom; what is not wished for any more goes.
  const wished = new Set(next.map((l) => l.id));
  recipe.layers.forEach((own, k) => {
    if (!isPlaced(own.id) || layers.some((l) => l.id === own.id)) return;
    if (before.has(own.id) && !wished.has(own.id)) return;
    kept.push(own);
    const under = recipe.layers.slice(0, k).findLast((l) => layers.some((x) => x.id === l.id));
    layers.splice(under ? layers.findIndex((l) => l.id === under.id) + 1 : 0, 0, own);
  });
  const ids = new Set(layers.map((l) => l.id));
  const result: Recipe = {
    ...recipe,
    zones,
    looks: to.looks,
    layers: layers.map((l) => ({
      ...l,
      waitsFor: l.waitsFor.filter((id) => ids.has(id)),
      ...(l.window?.through && !ids.has(l.window.through) ? { window: { ...l.window, through: null } } : {}),
    })),
    ...(schools ? { schools } : {}),
  };
  return { recipe: result, changes: changesOf(recipe.layers, result.layers), kept };
}

/** What became of the layers, top down as the stack is read. */
export function changesOf(from: readonly Layer[], to: readonly Layer[]): LayerChange[] {
  const old = byId(from);
  const now = byId(to);
  const stay = from.filter((l) => now.has(l.id)).map((l) => l.id);
  const order = to.filter((l) => old.has(l.id)).map((l) => l.id);
  const moved = new Set(order.filter((id) => !longestCommon(stay, order).has(id)));
  const changes: LayerChange[] = [];
  for (const l of to.toReversed()) {
    const was = old.get(l.id);
    if (!was) changes.push({ is: 'added', layer: l, minutes: hands(l), dryMinutes: l.dryMinutes });
    else if (moved.has(l.id))
      changes.push({
        is: 'moved',
        layer: l,
        minutes: hands(l) - hands(was),
        dryMinutes: l.dryMinutes - was.dryMinutes,
      });
    else if (!dequal(l, was))
      changes.push({
        is: 'changed',
        layer: l,
        minutes: hands(l) - hands(was),
        dryMinutes: l.dryMinutes - was.dryMinutes,
      });
  }
  for (const l of from.toReversed())
    if (!now.has(l.id)) changes.push({ is: 'gone', layer: l, minutes: -hands(l), dryMinutes: -l.dryMinutes });
  return changes;
}

/** The longest part of an order that both have: what is not of it has moved. */
function longestCommon(a: readonly string[], b: readonly string[]): ReadonlySet<string> {
  const place = new Map(b.map((id, k) => [id, k]));
  const tails: { at: number; chain: string[] }[] = [];
  for (const id of a) {
    const at = place.get(id);
    if (at === undefined) continue;
    const k = tails.findIndex((t) => t.at >= at);
    const chain = [...((k < 0 ? tails.at(-1) : tails[k - 1])?.chain ?? []), id];
    if (k < 0) tails.push({ at, chain });
    else tails[k] = { at, chain };
  }
  return new Set(tails.at(-1)?.chain ?? []);
}
