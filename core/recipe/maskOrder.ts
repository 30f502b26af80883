/**
 * Colours sprayed beside one another: the order that needs the fewest masks. A zone that has its last colour is covered while a colour is
 * sprayed on what it touches; it is covered once, and stays so until the last of these is on (common practice, no source).
 */
import type { Layer, Recipe } from '#core/muster';
import { isFor, isTask } from './kinds';
import { zonesOf } from './links';
import { masksOf, type Mask } from './masks';

/** More colours than this are put where they cost least one by one, without a proof. */
const MOST_PROVED = 14;
/** … and more than this, which bits can't hold, stay as they are. */
const MOST_COLOURS = 30;
/** Minutes of hands for a mask, and for taking it off, where the recipe has none to go by. */
const MASK_MINUTES = 6;
const UNMASK_MINUTES = 2;

export interface MaskOrder {
  /** as they stand, bottom to top, and in the order that needs the fewest masks */
  readonly colours: readonly Layer[];
  readonly order: readonly Layer[];
  /** masks a piece, as the recipe stands and in that order */
  readonly now: number;
  readonly fewest: number;
  /** no order needs fewer */
  readonly isProved: boolean;
  /** zones, by name, that a colour beside them is sprayed on with nothing over them, as the recipe stands */
  readonly bare: readonly { readonly zone: string; readonly layer: Layer }[];
  /** the recipe in that order, with its masks */
  readonly recipe: Recipe;
}

/** Do two zones adjoin? Where neither says what it touches, they count as touching. */
export function zonesTouch(recipe: Recipe, a: string, b: string): boolean {
  const of = (id: string): readonly string[] | undefined => recipe.zones.find((z) => z.id === id)?.touches;
  const [ofA, ofB] = [of(a), of(b)];
  if (ofA === undefined && ofB === undefined) return true;
  return (ofA?.includes(b) ?? false) || (ofB?.includes(a) ?? false);
}

/** The recipe with two zones told to adjoin, or not to. What was taken to touch until now is written down. */
export function withTouch(recipe: Recipe, a: string, b: string, touches: boolean): Recipe {
  const others = (id: string): string[] =>
    recipe.zones
      .map((z) => z.id)
      .filter((z) => z !== id && (isPair(id, z) ? touches : zonesTouch(recipe, id, z)));
  const isPair = (x: string, y: string): boolean => (x === a && y === b) || (x === b && y === a);
  return { ...recipe, zones: recipe.zones.map((z) => ({ ...z, touches: others(z.id) })) };
}

/** Every stretch of a recipe in which at least two colours are sprayed beside one another, bottom to top. */
export function maskOrders(recipe: Recipe): MaskOrder[] {
  return stretchesOf(recipe).flatMap((s) => ordered(recipe, s) ?? []);
}

/** Layers from one place in the stack to another, the last left out, with the masks that belong to them. */
interface Stretch {
  readonly from: number;
  readonly to: number;
  readonly colours: readonly Layer[];
  readonly masks: readonly Mask[];
}

const isColoured = isFor('colour', 'metal');

/** Sprayed colour that can change places: nothing has to follow it within a time. */
function isSprayed(l: Layer): boolean {
  const throws = l.method === 'airbrush' || l.method === 'can';
  return throws && (l.task === undefined || l.task === 'coat') && l.window === null && isColoured(l);
}

function stretchesOf(recipe: Recipe): Stretch[] {
  const { layers } = recipe;
  const masks = masksOf(recipe);
  const found: Stretch[] = [];
  let from = 0;
  for (let k = 0; k <= layers.length; k++) {
    const l = layers[k];
    if (l && (isSprayed(l) || isTask('mask', 'putty', 'unmask')(l))) continue;
    const stretch = trimmed(layers, from, k);
    const own = masks.filter((m) => m.from >= stretch.from && m.from < stretch.to);
    const others = masks.filter((m) => !own.includes(m));
    // A mask over parts, one that stays on for what comes after, or one from before ties the order.
    const isFree =
      own.every((m) => m.zones.length > 0 && m.to !== null && m.to < stretch.to) &&
      others.every((m) => m.to === null || m.to < stretch.from || m.to >= stretch.to);
    if (isFree) found.push({ ...stretch, masks: own });
    from = k + 1;
  }
  return found;
}

/** Without what masks nothing of it: unmasking before the first colour, masks after the last. */
function trimmed(layers: readonly Layer[], from: number, to: number): Omit<Stretch, 'masks'> {
  let [first, end] = [from, to];
  while (first < end && isTask('unmask')(layers[first]!)) first++;
  while (end > first && isTask('mask', 'putty')(layers[end - 1]!)) end--;
  return { from: first, to: end, colours: layers.slice(first, end).filter(isSprayed) };
}

function ordered(recipe: Recipe, stretch: Stretch): MaskOrder | null {
  const { colours } = stretch;
  if (colours.length < 2 || colours.length > MOST_COLOURS || recipe.zones.length < 2) return null;
  const on = colours.map((c) => new Set(zonesOf(recipe, c)));
  const last = lastOf(recipe, stretch, on);
  if (new Set(last.values()).size < 2) return null;
  const threats = new Map(
    [...last.keys()].map((z) => [
      z,
      colours.flatMap((_, k) =>
        !on[k]!.has(z) && [...on[k]!].some((other) => zonesTouch(recipe, z, other)) ? [k] : [],
      ),
    ]),
  );
  const before = colours.map((c, k) =>
    colours.flatMap((other, j) =>
      (j < k && [...on[j]!].some((z) => on[k]!.has(z))) || c.waitsFor.includes(other.id) ? [j] : [],
    ),
  );
  const scheme: Scheme = {
    before: before.map(bitsOf),
    zones: [...last].map(([z, k]) => ({ last: k, threats: bitsOf(threats.get(z)!) & ~(1 << k) })),
  };
  const isProved = colours.length <= MOST_PROVED;
  const order = isProved ? best(scheme) : improved(scheme);
  const spans = spansOf(order, last, threats);
  return {
    colours,
    order: order.map((k) => colours[k]!),
    now: stretch.masks.reduce((sum, m) => sum + m.zones.length, 0),
    fewest: spans.length,
    isProved,
    bare: bareOf(recipe, stretch, last, threats),
    recipe: rebuilt(recipe, stretch, order, on, spans),
  };
}

/** The last colour of each zone, by its place among them; zones that are painted over afterwards have none to keep. */
function lastOf(
  recipe: Recipe,
  { to, colours }: Stretch,
  on: readonly ReadonlySet<string>[],
): ReadonlyMap<string, number> {
  const last = new Map<string, number>();
  colours.forEach((_, k) => on[k]!.forEach((z) => last.set(z, k)));
  for (const later of recipe.layers.slice(to))
    if (isColoured(later) && later.task === undefined && (later.reach ?? 'all') === 'all')
      for (const z of zonesOf(recipe, later)) last.delete(z);
  return last;
}

/** A zone that is covered: from before the first colour that would spoil it to after the last, by their places in the order. */
interface Span {
  readonly zone: string;
  readonly from: number;
  readonly until: number;
}

function spansOf(
  order: readonly number[],
  last: ReadonlyMap<string, number>,
  threats: ReadonlyMap<string, readonly number[]>,
): Span[] {
  const at = new Map(order.map((k, place) => [k, place]));
  return [...last].flatMap(([zone, k]): Span[] => {
    const spoiling = threats
      .get(zone)!
      .map((t) => at.get(t)!)
      .filter((place) => place > at.get(k)!);
    return spoiling.length > 0 ? [{ zone, from: Math.min(...spoiling), until: Math.max(...spoiling) }] : [];
  });
}

function bareOf(
  recipe: Recipe,
  { colours, masks }: Stretch,
  last: ReadonlyMap<string, number>,
  threats: ReadonlyMap<string, readonly number[]>,
): MaskOrder['bare'] {
  const place = (l: Layer): number => recipe.layers.indexOf(l);
  return [...last].flatMap(([zone, k]) => {
    const open = threats
      .get(zone)!
      .map((t) => colours[t]!)
      .find(
        (l) =>
          place(l) > place(colours[k]!) &&
          !masks.some((m) => m.zones.includes(zone) && m.from < place(l) && place(l) < (m.to ?? Infinity)),
      );
    return open ? [{ zone: recipe.zones.find((z) => z.id === zone)!.name, layer: open }] : [];
  });
}

/** Colours by their places, sets of them as bits. */
interface Scheme {
  /** of each colour, those that have to be on before it */
  readonly before: readonly number[];
  /** of each zone, the colour that it keeps and those that would spoil it */
  readonly zones: readonly { readonly last: number; readonly threats: number }[];
}

function bitsOf(places: readonly number[]): number {
  return places.reduce((bits, k) => bits | (1 << k), 0);
}

/** Zones that need a mask where colour `k` goes on after those that are done: what would spoil them is still to come. */
function costOf({ zones }: Scheme, k: number, done: number): number {
  let sum = 0;
  for (const z of zones) if (z.last === k && (z.threats & ~done) !== 0) sum++;
  return sum;
}

/**
 * The cheapest order, by trying every set of colours that may be on (Held and Karp's recursion over subsets, 1962, from memory); of equals
 * the one in which least changes places.
 */
function best(scheme: Scheme): readonly number[] {
  const n = scheme.before.length;
  const LATER = 1 / (n * n + 1);
  const cost = new Float64Array(1 << n).fill(Infinity);
  const came = new Int8Array(1 << n).fill(-1);
  cost[0] = 0;
  for (let set = 0; set < 1 << n; set++) {
    if (cost[set] === Infinity) continue;
    for (let k = 0; k < n; k++) {
      if (set & (1 << k) || scheme.before[k]! & ~set) continue;
      let swaps = 0;
      for (let j = 0; j < k; j++) if (!(set & (1 << j))) swaps++;
      const next = cost[set]! + costOf(scheme, k, set) + LATER * swaps;
      const grown = set | (1 << k);
      if (next >= cost[grown]!) continue;
      cost[grown] = next;
      came[grown] = k;
    }
  }
  const order: number[] = [];
  for (let set = (1 << n) - 1; set > 0; set ^= 1 << came[set]!) order.unshift(came[set]!);
  return order;
}

/** The present order, one colour after another put where it costs least, until nothing gains: no proof. */
function improved(scheme: Scheme): readonly number[] {
  let order: readonly number[] = scheme.before.map((_, k) => k);
  let least = costOfOrder(scheme, order);
  for (let gains = true; gains;) {
    gains = false;
    for (const k of [...order]) {
      const rest = order.filter((x) => x !== k);
      for (let at = 0; at <= rest.length; at++) {
        const tried = [...rest.slice(0, at), k, ...rest.slice(at)];
        const cost = costOfOrder(scheme, tried);
        if (cost >= least) continue;
        [order, least, gains] = [tried, cost, true];
      }
    }
  }
  return order;
}

/** Masks of an order; none where something stands before what it has to follow. */
function costOfOrder(scheme: Scheme, order: readonly number[]): number {
  let [sum, done] = [0, 0];
  for (const k of order) {
    if (scheme.before[k]! & ~done) return Infinity;
    sum += costOf(scheme, k, done);
    done |= 1 << k;
  }
  return sum;
}

/** The colours in their new order, with what is covered before and freed after each. */
function rebuilt(
  recipe: Recipe,
  stretch: Stretch,
  order: readonly number[],
  on: readonly ReadonlySet<string>[],
  spans: readonly Span[],
): Recipe {
  const { layers } = recipe;
  const pattern = layers[stretch.masks[0]?.from ?? -1];
  const off = layers[stretch.masks[0]?.to ?? -1];
  const each = pattern ? pattern.minutes / stretch.masks[0]!.zones.length : MASK_MINUTES;
  const ids = idsFor(layers);
  const names = (zones: readonly string[]): string =>
    recipe.zones
      .filter((z) => zones.includes(z.id))
      .map((z) => z.name.toLowerCase())
      .join(', ');
  const work = (
    task: 'mask' | 'unmask',
    zones: readonly string[],
    minutes: number,
    like: Layer | undefined,
  ): Layer => ({
    ...(like ?? PLAIN),
    id: ids(task),
    task,
    name: `${task === 'mask' ? 'Mask' : 'Unmask'}: ${names(zones)}`.slice(0, 120),
    minutes,
    zones: [...zones],
    waitsFor: [],
  });
  const all = recipe.zones.length;
  const block = order.flatMap((k, place): Layer[] => {
    const covered = groupedBy(
      spans.filter((s) => s.from === place),
      (s) => s.until,
    );
    const freed = groupedBy(
      spans.filter((s) => s.until === place),
      (s) => s.until,
    );
    const zones = on[k]!.size === all ? [] : [...on[k]!];
    return [
      ...covered.map((group) =>
        work(
          'mask',
          group.map((s) => s.zone),
          each * group.length,
          pattern,
        ),
      ),
      { ...stretch.colours[k]!, zones },
      ...freed.map((group) =>
        work(
          'unmask',
          group.map((s) => s.zone),
          off?.minutes ?? UNMASK_MINUTES * group.length,
          off,
        ),
      ),
    ];
  });
  return {
    ...recipe,
    layers: [...layers.slice(0, stretch.from), ...block, ...layers.slice(stretch.to)],
  };
}

function groupedBy<T>(list: readonly T[], keyOf: (item: T) => number): T[][] {
  const groups = new Map<number, T[]>();
  for (const item of list) groups.set(keyOf(item), [...(groups.get(keyOf(item)) ?? []), item]);
  return [...groups.values()];
}

function idsFor(layers: readonly Layer[]): (task: string) => string {
  const taken = new Set(layers.map((l) => l.id));
  return (task) => {
    let n = 1;
    while (taken.has(`${task}-${n}`)) n++;
    taken.add(`${task}-${n}`);
    return `${task}-${n}`;
  };
}

const PLAIN: Layer = {
  id: '',
  name: '',
  colour: '#9a958c',
  family: 'work',
  method: 'hand',
  zones: [],
  mixture: '',
  coats: 1,
  minutes: MASK_MINUTES,
  dryMinutes: 0,
  window: null,
  waitsFor: [],
  pausable: false,
  note: '',
};
