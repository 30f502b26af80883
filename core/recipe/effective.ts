/** The recipe as one piece follows it: substitutes taken, cut at a finish level, begun part-way. */
import { remixed, type Layer, type Piece, type Recipe, type Strength } from '#core/muster';

/** What part-way pieces get before they join: common practice, no source. */
const REPAIR: Layer = {
  id: '~repair',
  name: 'Clean, repair, test a hidden patch',
  colour: '#9a958c',
  family: 'work',
  method: 'hand',
  zones: [],
  mixture: '',
  coats: 1,
  minutes: 10,
  dryMinutes: 30,
  window: null,
  waitsFor: [],
  pausable: true,
  note: 'The old surface is unknown: try the next product where it won’t be seen, and wait for it to dry.',
};
const SEAL: Layer = {
  ...REPAIR,
  id: '~seal',
  name: 'Seal the old surface',
  colour: '#c8d2d2',
  family: 'varnish',
  method: 'airbrush',
  mixture: 'satin varnish 4:1',
  minutes: 5,
  dryMinutes: 240,
  pausable: false,
  note: '',
};

const GLUE: Layer = {
  ...REPAIR,
  id: '~glue',
  name: 'Glue on, hold',
  task: 'glue',
  pausable: false,
  note: 'Bare paint from both faces of the joint; try the fit dry first.',
};

/** Minutes of hands beside those of the recipe; common practice, no source. */
export const STRENGTH_MINUTES = { trace: 0.6, heavy: 1.5 } as const;

/** A trial on scrap is no coat of the piece: work of its own, that has to dry like the layer to be judged. */
export function trialOf(layer: Layer): Layer {
  return {
    ...REPAIR,
    id: `${TRIAL}${layer.id}`.slice(0, 80),
    name: `Trial on scrap: ${layer.name}`.slice(0, 120),
    colour: layer.colour,
    mixture: layer.mixture,
    minutes: Math.max(LEAST_TRIAL_MINUTES, layer.minutes * layer.coats),
    dryMinutes: layer.dryMinutes,
    note: 'On scrap or on a spare that was painted alike; look at it dry, under the bench lamp, before the model gets it.',
  };
}

const TRIAL = '~trial-';
/** Common practice, no source. */
const LEAST_TRIAL_MINUTES = 5;

type Way = Pick<Piece, 'startsAt' | 'substitutes' | 'trials' | 'effects' | 'tones'> &
  Partial<Pick<Piece, 'joins'>>;

/** @param level the unit's finish level; undefined: the whole recipe */
export function effectiveRecipe(recipe: Recipe, piece: Way, level?: number): Recipe {
  const isPlain =
    level === undefined &&
    piece.startsAt === undefined &&
    !piece.effects?.length &&
    !piece.trials?.length &&
    !piece.tones?.length &&
    !piece.substitutes?.length &&
    !piece.joins?.glue &&
    !recipe.layers.some((l) => l.usesSubstitute && l.substitute);
  if (isPlain) return recipe;
  let layers = recipe.layers.map((l) =>
    l.substitute && (l.usesSubstitute || piece.substitutes?.includes(l.id)) ? substituted(l) : l,
  );
  if (piece.tones?.length) layers = layers.map((l) => inTone(l, piece));
  if (piece.effects?.length) layers = layers.flatMap((l) => inStrength(l, piece));
  const cut = level === undefined ? -1 : lastOfLevel(layers, level);
  if (cut >= 0) layers = layers.slice(0, cut + 1);
  const from = piece.startsAt === undefined ? -1 : layers.findIndex((l) => l.id === piece.startsAt);
  if (from > 0) {
    const isSprayed = layers.some((l) => l.method === 'airbrush');
    layers = [REPAIR, isSprayed ? SEAL : { ...SEAL, method: 'brush' }, ...layers.slice(from)];
  }
  if (piece.trials?.length)
    layers = layers.flatMap((l) => (piece.trials!.includes(l.id) ? [trialOf(l), l] : [l]));
  if (piece.joins?.glue) layers = [...layers, { ...GLUE, ...piece.joins.glue }];
  if (layers.every((l, i) => l === recipe.layers[i]) && layers.length === recipe.layers.length) return recipe;
  const left = new Set(layers.map((l) => l.id));
  return {
    ...recipe,
    layers: layers.map((l) => ({
      ...l,
      waitsFor: l.waitsFor.filter((id) => left.has(id)),
      window: l.window?.through && !left.has(l.window.through) ? { ...l.window, through: null } : l.window,
    })),
  };
}

/** A layer in the tone that this piece has it in. */
function inTone(layer: Layer, piece: Way): Layer {
  const chosen = piece.tones!.find((t) => t.layer === layer.id)?.tone;
  const tone = layer.tones?.find((t) => t.id === chosen);
  return tone ? { ...remixed(layer, tone.mixture), colour: tone.colour } : layer;
}

/** How much of an optional layer a piece gets, where it is not as the recipe has it. */
export function strengthOn(piece: Pick<Piece, 'effects'>, layer: string): Strength | null {
  return piece.effects?.find((e) => e.layer === layer)?.is ?? null;
}

/** A layer's name in the recipe, without the strength that a piece has it in. */
export function plainName(piece: Pick<Piece, 'effects'>, layer: Pick<Layer, 'id' | 'name'>): string {
  const is = strengthOn(piece, layer.id);
  return is !== null && layer.name.endsWith(`, ${is}`) ? layer.name.slice(0, -`, ${is}`.length) : layer.name;
}

/** An optional layer as this piece gets it; not at all, where it goes without. */
function inStrength(layer: Layer, piece: Way): Layer[] {
  const is = layer.isOptional ? strengthOn(piece, layer.id) : null;
  if (is === null) return [layer];
  if (is === 'off') return [];
  return [
    {
      ...layer,
      name: `${layer.name}, ${is}`,
      minutes: layer.minutes * STRENGTH_MINUTES[is],
      film: is === 'heavy' ? 'heavy' : 'thin',
    },
  ];
}

/** The layer done the other way, under its own id. */
export function substituted(layer: Layer): Layer {
  const s = layer.substitute;
  if (!s) return layer;
  return {
    ...layer,
    name: s.name,
    family: s.family,
    method: s.method,
    coats: s.coats,
    minutes: s.minutes,
    dryMinutes: s.dryMinutes,
    // A soft closing belongs to the solvent's slow drying; what dries at once has none.
    window: layer.window?.closesMinutes == null ? null : layer.window,
  };
}

/** Index of the last layer that completes a level up to this one, or -1. */
function lastOfLevel(layers: readonly Layer[], level: number): number {
  let last = -1;
  layers.forEach((l, i) => {
    if (l.level !== undefined && l.level <= level) last = i;
  });
  return last;
}
