/**
 * What becomes of an effect under the coats above it: its difference (CIEDE2000) from the same surface without it, when it is put on and
 * when all is done; which layers eat it; and how strong it must go on so that it ends as it was meant.
 */
import { familyOf, REACH } from '#core/materials';
import type { Layer, Product } from '#core/muster';
import {
  appearanceOf,
  prepared,
  seenOn,
  START,
  statesOf,
  surfaceOf,
  type Prepared,
  type State,
} from './appearance';
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

/** Every effect of one zone's layers, bottom to top; those that change nothing when they are put on are left out. */
export function effectsOf(layers: readonly Layer[], products: Products): Effect[] {
  const list = prepared(layers, products);
  const states = statesOf(list);
  return layers.flatMap((layer, k) => (isEffect(layer) ? (effectAt(list, states, k) ?? []) : []));
}

type Pair = readonly [effect: Bands, around: Bands];

function effectAt(list: readonly Prepared[], states: readonly State[], k: number): Effect | null {
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
  const differences = list.slice(k).map((_, i) => differenceAt(k + i, surface));
  const fresh = differences[0]!;
  if (fresh < NOTICED) return null;
  const steps = list
    .slice(k + 1)
    .map(({ layer }, i) => ({ layer: layer.id, by: differences[i]! - differences[i + 1]! }));
  const [colour, around] = pairAt(list.length - 1, surface).map(colourOf) as [string, string];
  return {
    layer: id,
    surface,
    fresh,
    atEnd: differences.at(-1)!,
    colour,
    around,
    eaten: steps.filter((s) => s.by >= NOTICED).sort((a, b) => b.by - a.by),
    seenFromMm: smallestSeenMm(colour, around),
  };
}

/** How far beyond its own colour an effect may be taken, as a multiple of its distance from what is round it. */
const FARTHEST = 3;

/**
 * The colour in which an effect must go on so that it ends as different from its surroundings as it is now when fresh.
 * @returns null where it is not eaten, or no colour comes through
 */
export function overshotColour(layers: readonly Layer[], id: string, products: Products): string | null {
  const k = layers.findIndex((l) => l.id === id);
  const layer = layers[k];
  if (!layer || !isSeen(layer)) return null;
  const now = effectsOf(layers, products).find((e) => e.layer === id);
  if (!now || now.atEnd >= now.fresh - NOTICED) return null;
  const own = labOf(layer.colour);
  const ground = labOf(appearanceOf(layers.slice(0, k), products).at(-1)?.[now.surface] ?? '#888888');
  const at = (t: number): string =>
    ofLab(
      ground.l + (own.l - ground.l) * t,
      ground.a + (own.a - ground.a) * Math.min(t, 1.5),
      ground.b + (own.b - ground.b) * Math.min(t, 1.5),
    );
  const endAt = (t: number): number => {
    const changed = layers.map((l, i) => (i === k ? { ...l, colour: at(t) } : l));
    return effectsOf(changed, products).find((e) => e.layer === id)?.atEnd ?? 0;
  };
  if (endAt(FARTHEST) < now.atEnd + NOTICED) return null;
  let low = 1;
  let high = FARTHEST;
  for (let n = 0; n < 12; n++) {
    const middle = (low + high) / 2;
    if (endAt(middle) < now.fresh) low = middle;
    else high = middle;
  }
  return at(high);
}
