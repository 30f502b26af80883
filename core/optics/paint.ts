/** A layer as light meets it: how much of it lies on each kind of surface, and what its film does there. */
import { familyOf, REACH, THICKNESS, type ReachFacts } from '#core/materials';
import {
  componentsOf,
  isThinner,
  paintShareOf,
  type Layer,
  type Product,
  type Sheen,
  type TestCard,
} from '#core/muster';
import { bandsOf, type Bands } from './colour';
import { absorptionOf, filmFrom, infiniteOf } from './film';
import { withinOf } from './surface';

/** The three kinds of surface that a model shows: recess, face, edge. */
export const SURFACES = ['recess', 'face', 'edge'] as const;
export type Surface = (typeof SURFACES)[number];

export interface Film {
  /** of each band, infinitely thick */
  readonly infinite: Bands;
  /** scattering power of one normal coat, of each band */
  readonly scatter: Bands;
}

/**
 * How much of a surface is stained by one coat of what runs: it leaves edges and faces and dries in the recesses, in spots rather than in an
 * even film; wiped back, hardly any is left on the faces. From memory.
 */
const RUNS: Readonly<Record<Surface, number>> = { recess: 0.9, face: 0.2, edge: 0.06 };
const WIPED: Readonly<Record<Surface, number>> = { recess: 0.85, face: 0.04, edge: 0.01 };

/** Pigment held by a binder scatters less than in air: dry powder darkens under varnish. From memory. */
const BOUND = 0.45;

export function sheenOf(layer: Layer): Sheen {
  return layer.sheen ?? familyOf(layer.family).body.sheen;
}

/** A marking lies on a face. */
const DECAL: ReachFacts = { name: 'a marking', share: 0.1, recess: 0, face: 0.1, edge: 0 };

/** Marks here and there: by sponge and spatter unless it is said, and decals. */
export function isMark(layer: Layer): boolean {
  const reach = reachOf(layer);
  return reach === REACH.traces || reach === DECAL;
}

export function reachOf(layer: Layer): ReachFacts {
  if (layer.reach) return REACH[layer.reach];
  if (layer.task === 'decal') return DECAL;
  const isSpots = layer.method === 'sponge' || layer.task === 'spatter' || layer.task === 'polish';
  return REACH[isSpots ? 'traces' : 'all'];
}

/** Leaves something that is seen: paint, a decal, graphite. */
export function isSeen(layer: Layer): boolean {
  return layer.task === 'decal' || familyOf(layer.family).body.scatter > 0;
}

/** By the user's own test card where its product has one, else by its colour and its family's nominal body. */
export function filmOf(layer: Layer, products: ReadonlyMap<string, Product>): Film {
  const card = paintsOf(layer).length > 1 ? undefined : productOf(layer, products)?.card;
  const measured = card ? filmOfCard(card) : null;
  if (measured) return measured;
  const { body } = familyOf(layer.family);
  const infinite = bandsOf(layer.colour).map((v) => withinOf(v, 'matt')) as unknown as Bands;
  const scatter = layer.task === 'decal' ? 4 : body.scatter;
  return { infinite, scatter: [scatter, scatter, scatter] };
}

/** The product of a layer: its mixture's first part that is paint (of a medium alone, the medium), where it stands on the shelf. */
export function productOf(layer: Layer, products: ReadonlyMap<string, Product>): Product | undefined {
  if (layer.mixture.trim() === '') return undefined;
  const name = paintsOf(layer)[0] ?? componentsOf(layer)[0]?.name;
  return products.get(name?.toLowerCase() ?? '');
}

/** Names of what is paint in a mixture, in its order. */
const paintsOf = (layer: Layer): string[] =>
  componentsOf(layer).flatMap((c) => (isThinner(c.name) ? [] : [c.name]));

export const productsByName = (products: readonly Product[]): ReadonlyMap<string, Product> =>
  new Map(products.map((p) => [p.name.toLowerCase(), p]));

/** null where the four colours do not belong to one film */
export function filmOfCard(card: TestCard): Film | null {
  const within = (colour: string): Bands =>
    bandsOf(colour).map((v) => withinOf(v, 'matt')) as unknown as Bands;
  const [white, black] = [within(card.white), within(card.black)];
  const [overWhite, overBlack] = [within(card.overWhite), within(card.overBlack)];
  const bands = [0, 1, 2].map((k) => filmFrom(overWhite[k]!, overBlack[k]!, white[k]!, black[k]!));
  if (bands.some((b) => b === null)) return null;
  return {
    infinite: bands.map((b) => b!.infinite) as unknown as Bands,
    scatter: bands.map((b) => b!.scatter) as unknown as Bands,
  };
}

/** How thick a layer lies, 1 being one normal coat, and on how much of each kind of surface. */
export function laid(
  layer: Layer,
  isWiped: boolean,
): { readonly coats: number; readonly shares: Readonly<Record<Surface, number>> } {
  const { body, paintShare } = familyOf(layer.family);
  const reach = reachOf(layer);
  const coats =
    layer.coats *
    (layer.passes?.expected ?? 1) *
    THICKNESS[layer.film ?? 'normal'] *
    Math.min(2, (paintShareOf(layer) ?? paintShare) / paintShare);
  if (!body.flows || reach !== REACH.all) return { coats, shares: reach };
  const one = isWiped ? WIPED : RUNS;
  const share = (s: Surface): number => 1 - (1 - one[s]) ** coats;
  return { coats: 1, shares: { recess: share('recess'), face: share('face'), edge: share('edge') } };
}

/** The same pigment once varnish or water has closed round it. */
export function bound(film: Film): Film {
  return {
    infinite: film.infinite.map((r) => infiniteOf(absorptionOf(r) / BOUND)) as unknown as Bands,
    scatter: film.scatter.map((s) => s * BOUND) as unknown as Bands,
  };
}
