/**
 * What one zone looks like after each of its layers. A zone is three kinds of surface; each layer lies on a share of each, as thick as it
 * runs there; marks (chips, streaks, spots) are followed on their own through whatever comes over them. Nominal, in three bands: a screen
 * is no paint.
 */
import { familyOf, maskingFacts } from '#core/materials';
import type { Layer, Product, Sheen } from '#core/muster';
import { colourOf, type Bands } from './colour';
import { overGround, termsOf, type Terms } from './film';
import { bound, filmOf, isMark, isSeen, laid, sheenOf, type Film, type Surface } from './paint';
import { seenThrough } from './surface';

export interface Mark {
  /** id of the layer that made it */
  readonly layer: string;
  readonly surface: Surface;
  /** of that surface, 0 to 1 */
  readonly share: number;
  readonly colour: string;
}

export interface Sight {
  readonly layer: string;
  readonly recess: string;
  readonly face: string;
  readonly edge: string;
  readonly sheen: Sheen;
  readonly marks: readonly Mark[];
}

export type Surfaces = Readonly<Record<Surface, Bands>>;

interface MarkState {
  readonly layer: string;
  readonly on: Surfaces;
  readonly shares: Readonly<Record<Surface, number>>;
}

/** Light within the films, before the surface. */
export interface State {
  readonly on: Surfaces;
  readonly marks: readonly MarkState[];
  readonly sheen: Sheen;
  /** what lay beneath each layer that water or a blade may open again: by its id, the last one last */
  readonly beneath: ReadonlyMap<string, Surfaces>;
  /** powder that nothing holds yet, and what lay beneath it */
  readonly loose: { readonly on: Surfaces; readonly by: Prepared } | null;
}

/** A layer with all that does not depend on what lies beneath it. */
export interface Prepared {
  readonly layer: Layer;
  readonly film: Film;
  /** of each band, as thick as it lies */
  readonly terms: readonly [Terms | null, Terms | null, Terms | null];
  readonly coats: number;
  readonly shares: Readonly<Record<Surface, number>>;
  /** what lies over the zone when it goes on */
  readonly mask: Layer | null;
  /** opens what lies beneath in spots: chips are lifted, salt brushed off */
  readonly isLift: boolean;
}

/** Bare plastic: a middle grey. */
const BARE: Bands = [0.55, 0.55, 0.55];

export const START: State = {
  on: { recess: BARE, face: BARE, edge: BARE },
  marks: [],
  sheen: 'satin',
  beneath: new Map(),
  loose: null,
};

type Products = ReadonlyMap<string, Product>;

/** @param layers of one zone, bottom to top */
export function appearanceOf(layers: readonly Layer[], products: Products): Sight[] {
  return statesOf(prepared(layers, products)).map((state, k) => sightOf(state, layers[k]!.id));
}

export function prepared(layers: readonly Layer[], products: Products): Prepared[] {
  const covers = coveredBy(layers);
  const isLift = (k: number): boolean =>
    layers[k]!.task === 'lift' ||
    (layers[k]!.task === 'unmask' &&
      isInSpots(layers.slice(0, k).findLast((l) => isTask(l, 'mask', 'putty', 'unmask'))));
  return layers.map((layer, k) => {
    const film = filmOf(layer, products);
    const lies = laid(layer, isWipedBack(layers, k));
    return { layer, film, ...lies, terms: thick(film, lies.coats), mask: covers[k]!, isLift: isLift(k) };
  });
}

/** The zone after each layer, from a state on. */
export function statesOf(list: readonly Prepared[], from: State = START): State[] {
  let state = from;
  return list.map((next) => (state = after(state, next)));
}

const isTask = (layer: Layer, ...tasks: Layer['task'][]): boolean => tasks.includes(layer.task);

/** Salt: a mask that hides spots and leaves the rest. */
const isInSpots = (layer: Layer | undefined): boolean =>
  layer?.task === 'mask' && maskingFacts(layer.masking ?? 'tape').isInSpots === true;

/** Of each layer, what mask lies on the zone when it goes on; null: none, or spots. */
function coveredBy(layers: readonly Layer[]): (Layer | null)[] {
  let mask: Layer | null = null;
  return layers.map((layer, k) => {
    if (layer.task === 'mask' || layer.task === 'putty') {
      const isTakenOff = layers.slice(k + 1).some((l) => l.task === 'unmask');
      if (isTakenOff && !isInSpots(layer)) mask = layer;
      return null;
    }
    if (layer.task === 'unmask') mask = null;
    return mask;
  });
}

function after(state: State, next: Prepared): State {
  const { layer, terms, shares, mask, isLift } = next;
  const { binder, body } = familyOf(layer.family);
  // A mask that names its zones covers them; one over everything leaves part of it free.
  if (mask && mask.zones.length > 0) return state;
  if (isLift) return lifted(state, layer);
  const isOpened = binder === 'washable' || isInSpots(layer);
  if (!isSeen(layer)) {
    const isCoat = binder !== 'none';
    const held = isCoat ? fixed(state) : state;
    return {
      ...held,
      sheen: isCoat ? sheenOf(layer) : held.sheen,
      beneath: isOpened ? new Map(held.beneath).set(layer.id, held.on) : held.beneath,
    };
  }
  const held = fixed(state);
  if (isMark(layer) || mask) {
    const on = each((s) => covered(held.on[s], terms));
    return {
      ...held,
      marks: [...held.marks, { layer: layer.id, on, shares: mask ? HALF_MASKED : shares }],
    };
  }
  const put = (on: Surfaces): Surfaces => each((s) => blend(on[s], covered(on[s], terms), shares[s]));
  return {
    on: put(held.on),
    marks: held.marks.map((m) => ({ ...m, on: put(m.on) })),
    sheen: shares.face > 0.5 && !body.flows ? sheenOf(layer) : held.sheen,
    beneath: isOpened ? new Map(held.beneath).set(layer.id, held.on) : held.beneath,
    loose: binder === 'loose' ? { on: held.on, by: next } : null,
  };
}

/** A colour over part of what is masked: marks of another colour on about a third of the zone; from memory. */
const HALF_MASKED = { recess: 0.35, face: 0.35, edge: 0.35 } as const;
/** What water lifts: edges most. From memory. */
const LIFTED = { recess: 0.04, face: 0.1, edge: 0.22 } as const;
/** Where salt lay: it rolls off edges and gathers in corners. From memory. */
const SALTED = { recess: 0.22, face: 0.18, edge: 0.08 } as const;

/** Where it is lifted, what lay beneath the medium, the washable paint or the crackle shows again. */
function lifted(state: State, layer: Layer): State {
  const beneath = [...state.beneath.values()].at(-1);
  if (!beneath) return state;
  const shares = layer.task === 'unmask' ? SALTED : LIFTED;
  return { ...state, marks: [...state.marks, { layer: layer.id, on: beneath, shares }] };
}

/** A later wipe of the same wash, before anything is put over it. */
function isWipedBack(layers: readonly Layer[], k: number): boolean {
  const next = layers.slice(k + 1).find((l) => l.task === 'wipe' || isSeen(l));
  return next?.task === 'wipe';
}

/** Powder under the first coat that closes round it. */
function fixed(state: State): State {
  if (!state.loose) return state;
  const { on, by } = state.loose;
  const terms = thick(bound(by.film), by.coats);
  return {
    ...state,
    on: each((s) => blend(on[s], covered(on[s], terms), by.shares[s])),
    loose: null,
  };
}

function thick({ infinite, scatter }: Film, coats: number): Prepared['terms'] {
  return [
    termsOf(infinite[0], scatter[0] * coats),
    termsOf(infinite[1], scatter[1] * coats),
    termsOf(infinite[2], scatter[2] * coats),
  ];
}

function covered(ground: Bands, terms: Prepared['terms']): Bands {
  return [overGround(terms[0], ground[0]), overGround(terms[1], ground[1]), overGround(terms[2], ground[2])];
}

function blend(a: Bands, b: Bands, share: number): Bands {
  return [a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share];
}

function each(make: (surface: Surface) => Bands): Surfaces {
  return { recess: make('recess'), face: make('face'), edge: make('edge') };
}

/** As the eye gets it, through the surface of the uppermost film. */
export function seenOn({ sheen }: State, within: Bands): Bands {
  return [seenThrough(within[0], sheen), seenThrough(within[1], sheen), seenThrough(within[2], sheen)];
}

/** The kind of surface on which a mark shows most. */
export const surfaceOf = (m: { readonly shares: Readonly<Record<Surface, number>> }): Surface =>
  m.shares.edge > m.shares.face ? 'edge' : 'face';

function sightOf(state: State, layer: string): Sight {
  const seen = (within: Bands): string => colourOf(seenOn(state, within));
  return {
    layer,
    recess: seen(state.on.recess),
    face: seen(state.on.face),
    edge: seen(state.on.edge),
    sheen: state.sheen,
    marks: state.marks.map((m) => {
      const surface = surfaceOf(m);
      return { layer: m.layer, surface, share: m.shares[surface], colour: seen(m.on[surface]) };
    }),
  };
}
