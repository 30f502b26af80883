/**
 * What becomes of an effect under the coats above it: its difference (CIEDE2000) from the same surface without it, when it is put on and
 * when all is done; which layers eat it; and how strong it must go on so that it ends as it was meant.
 */
import { familyOf, REACH } from '#core/materials';
import type { Layer, Product } from '#core/muster';
import { prepared, seenOn, START, statesOf, surfaceOf, type Prepared, type State } from './appearance';
import { bandsDifference, colourOf, labOf, ofLab, type Bands } from './colour';
import { isMark, isSeen, reachOf, SURFACES, type Surface } from './paint';
import { smallestSeenMm } from './sight';

export interface Effect {
  readonly layer: string;
  readonly surface: Surface;
  /** CIEDE2000 from its surroundings, when it is put on and at the end */
  readonly fresh: number;
  readonly atEnd: number;
  readonly colour: string;
  readonly around: string;
  /** layers that take at least so much of it as is seen, most first */
  readonly eaten: readonly { readonly layer: string; readonly by: number }[];
  /** width in millimetres from which it is seen at arm's length; null: at none */
  readonly seenFromMm: number | null;
}

/** CIEDE2000, from memory of "clearly visible": an effect nearer to its surroundings is weak; as near as the second, as good as not there. */
export const PLAIN = 5;
export const LOST = 2.5;
/** Less than this is not counted as eaten. */
const NOTICED = 1.5;

type Products = ReadonlyMap<string, Product>;

/** An effect is what goes on top of the colours: marks, edges, recesses, washes, powders, what is lifted. */
export function isEffect(layer: Layer): boolean {
  if (layer.task === 'lift') return true;
  if (!isSeen(layer)) return false;
  const { role, body } = familyOf(layer.family);
  return isMark(layer) || reachOf(layer) !== REACH.all || role === 'wash' || role === 'powder' || body.flows;
}

/** Which effects are worth following layer by layer, by their difference when put on and at the end. */
type Wanted = (fresh: number, atEnd: number) => boolean;

/** Every effect of one zone's layers, bottom to top; those that change nothing when they are put on are left out. */
export function effectsOf(
  layers: readonly Layer[],
  products: Products,
  isWanted: Wanted = (fresh) => fresh >= NOTICED,
): Effect[] {
  const list = prepared(layers, products);
  const states = statesOf(list);
  return layers.flatMap((layer, k) => (isEffect(layer) ? (effectAt(list, states, k, isWanted) ?? []) : []));
}

type Pair = readonly [effect: Bands, around: Bands];

function effectAt(
  list: readonly Prepared[],
  states: readonly State[],
  k: number,
  isWanted: Wanted,
): Effect | null {
  const { id } = list[k]!.layer;
  const before = states[k - 1] ?? START;
  // The same zone without it, from there on.
  const without = [before, ...statesOf(list.slice(k + 1), before)];
  const pairAt = (at: number, surface: Surface): Pair => {
    const state = states[at]!;
    const mark = state.marks.find((m) => m.layer === id);
    const other = without[at - k]!;
    return mark
      ? [seenOn(state, mark.on[surface]), seenOn(state, state.on[surface])]
      : [seenOn(state, state.on[surface]), seenOn(other, other.on[surface])];
  };
  const differenceAt = (at: number, surface: Surface): number => bandsDifference(...pairAt(at, surface));
  const mark = states[k]!.marks.find((m) => m.layer === id);
  // Where it shows most when it is put on.
  const surface = mark
    ? surfaceOf(mark)
    : SURFACES.reduce((best, s) => (differenceAt(k, s) > differenceAt(k, best) + 0.01 ? s : best));
  const fresh = differenceAt(k, surface);
  const atEnd = differenceAt(list.length - 1, surface);
  if (!isWanted(fresh, atEnd)) return null;
  const differences = list.slice(k).map((_, i) => differenceAt(k + i, surface));
  const steps = list
    .slice(k + 1)
    .map(({ layer }, i) => ({ layer: layer.id, by: differences[i]! - differences[i + 1]! }));
  const [colour, around] = pairAt(list.length - 1, surface).map(colourOf) as [string, string];
  return {
    layer: id,
    surface,
    fresh,
    atEnd,
    colour,
    around,
    eaten: steps.filter((s) => s.by >= NOTICED).sort((a, b) => b.by - a.by),
    seenFromMm: smallestSeenMm(colour, around),
  };
}

/** How far beyond its own colour an effect may be taken, as a multiple of its distance from what is round it. */
const FARTHEST = 3;

/** An effect put on in other colours: how it then ends. */
interface Overshooting {
  readonly fresh: number;
  readonly atEnd: number;
  readonly colourAt: (times: number) => string;
  readonly endAt: (times: number) => number;
}

function overshooting(layers: readonly Layer[], id: string, products: Products): Overshooting | null {
  const k = layers.findIndex((l) => l.id === id);
  const layer = layers[k];
  if (!layer || !isSeen(layer)) return null;
  const list = prepared(layers, products);
  const below = statesOf(list.slice(0, k));
  const ground = below.at(-1) ?? START;
  const effect = (of: Layer): Effect | null => {
    const own = prepared([of, ...layers.slice(k + 1)], products)[0]!;
    const changed = [...list.slice(0, k), { ...own, mask: list[k]!.mask }, ...list.slice(k + 1)];
    const states = [...below, ...statesOf(changed.slice(k), ground)];
    return effectAt(changed, states, k, () => true);
  };
  const now = effect(layer);
  if (!now || now.fresh < NOTICED) return null;
  const own = labOf(layer.colour);
  const around = labOf(colourOf(seenOn(ground, ground.on[now.surface])));
  const colourAt = (times: number): string =>
    ofLab(
      around.l + (own.l - around.l) * times,
      around.a + (own.a - around.a) * Math.min(times, 1.5),
      around.b + (own.b - around.b) * Math.min(times, 1.5),
    );
  return {
    fresh: now.fresh,
    atEnd: now.atEnd,
    colourAt,
    endAt: (times) => effect({ ...layer, colour: colourAt(times) })?.atEnd ?? 0,
  };
}

const helps = (o: Overshooting): boolean =>
  o.atEnd < o.fresh - NOTICED && o.endAt(FARTHEST) >= o.atEnd + NOTICED;

/** Whether an effect that is eaten can be brought back by a stronger colour. */
export function canOvershoot(layers: readonly Layer[], id: string, products: Products): boolean {
  const found = overshooting(layers, id, products);
  return found !== null && helps(found);
}

/**
 * The colour in which an effect must go on so that it ends as different from its surroundings as it is now when fresh.
 * @returns null where it is not eaten, or no colour comes through
 */
export function overshotColour(layers: readonly Layer[], id: string, products: Products): string | null {
  const found = overshooting(layers, id, products);
  if (!found || !helps(found)) return null;
  let low = 1;
  let high = FARTHEST;
  for (let n = 0; n < 12; n++) {
    const middle = (low + high) / 2;
    if (found.endAt(middle) < found.fresh) low = middle;
    else high = middle;
  }
  return found.colourAt(high);
}
