/** What a craft rule is, and what rules ask of a layer. Craft facts: common practice, no source. */
import { familyOf } from '#core/materials';
import { isFor, isPaint, isSolvent } from '../kinds';
import { withoutLayer, type Layer, type Recipe } from '#core/muster';
import { zonesOf } from '../links';
import { maskingOf } from '../masks';
import { hands } from '../rounds';
import type { Finding, RecipeFix } from '../finding';
import type { RuleId } from '../registry';

export interface Hit {
  readonly layer: Layer | null;
  readonly zone?: string;
  readonly text: string;
  readonly cure: string;
  readonly fix?: RecipeFix;
  /** where a school takes it more lightly than the rule does */
  readonly severity?: Finding['severity'];
}

export interface Rule {
  readonly id: RuleId;
  readonly severity: Finding['severity'];
  readonly check: (stack: Stack) => readonly Hit[];
}

/** A recipe read zone by zone. */
export interface Stack {
  readonly recipe: Recipe;
  /** layer indexes on each zone, bottom to top */
  readonly zones: ReadonlyMap<string, readonly number[]>;
  /** the same as layers; zones with the same layers once */
  readonly stacks: readonly (readonly [zone: string, layers: readonly Layer[]])[];
}

export function stackOf(recipe: Recipe): Stack {
  const zones = new Map<string, number[]>();
  const all = recipe.zones.length > 0 ? recipe.zones.map((z) => z.id) : [''];
  for (const z of all) zones.set(z, []);
  recipe.layers.forEach((layer, i) => {
    for (const z of zonesOf(recipe, layer)) zones.get(z)?.push(i);
  });
  const seen = new Set<string>();
  const stacks = [...zones].flatMap(([zone, indexes]) => {
    const key = indexes.join();
    if (seen.has(key)) return [];
    seen.add(key);
    return [[zone, indexes.map((i) => recipe.layers[i]!)] as const];
  });
  return { recipe, zones, stacks };
}

/** A layer put in at an index; what it adds is told. */
export function insertLayer(label: string, at: (recipe: Recipe) => number, layer: Layer): RecipeFix {
  return {
    label,
    addsMinutes: hands(layer),
    addsDryMinutes: layer.dryMinutes,
    apply: (recipe) => {
      const layers = [...recipe.layers];
      let id = layer.id;
      for (let n = 2; layers.some((l) => l.id === id); n++) id = `${layer.id}-${n}`;
      layers.splice(Math.max(0, Math.min(at(recipe), layers.length)), 0, { ...layer, id });
      return { ...recipe, layers };
    },
  };
}

export { layerFix as changeLayer } from '../finding';

export function removeLayer(label: string, layer: Layer): RecipeFix {
  return {
    label,
    addsMinutes: -hands(layer),
    addsDryMinutes: -layer.dryMinutes,
    apply: (recipe) => withoutLayer(recipe, layer.id),
  };
}

/** Puts a layer directly under another. */
export function moveUnder(label: string, layer: Layer, under: Layer): RecipeFix {
  return {
    label,
    addsMinutes: 0,
    addsDryMinutes: 0,
    apply: (recipe) => {
      const layers = recipe.layers.filter((l) => l.id !== layer.id);
      layers.splice(
        layers.findIndex((l) => l.id === under.id),
        0,
        layer,
      );
      return { ...recipe, layers };
    },
  };
}

export function moveOver(label: string, layer: Layer, over: Layer): RecipeFix {
  return {
    label,
    addsMinutes: 0,
    addsDryMinutes: 0,
    apply: (recipe) => {
      const layers = recipe.layers.filter((l) => l.id !== layer.id);
      layers.splice(layers.findIndex((l) => l.id === over.id) + 1, 0, layer);
      return { ...recipe, layers };
    },
  };
}

export const indexOf =
  (layer: Layer, offset = 0) =>
  (recipe: Recipe): number =>
    recipe.layers.findIndex((l) => l.id === layer.id) + offset;

const NEW: Omit<Layer, 'id' | 'name' | 'colour' | 'family' | 'method' | 'minutes' | 'dryMinutes'> = {
  zones: [],
  mixture: '',
  coats: 1,
  window: null,
  waitsFor: [],
  pausable: false,
  note: '',
};

export function sealLayer(
  id: string,
  name: string,
  sheen: 'matt' | 'satin' | 'gloss',
  dryMinutes: number,
  coats = 1,
): Layer {
  return {
    ...NEW,
    id,
    name,
    colour: sheen === 'matt' ? '#b9bdb9' : sheen === 'satin' ? '#c8d2d2' : '#cfe0e2',
    family: 'varnish',
    method: 'airbrush',
    mixture: `${sheen} varnish 4:1`,
    minutes: 6 / coats,
    coats,
    dryMinutes,
    sheen,
  };
}

export function workLayer(
  id: string,
  name: string,
  minutes: number,
  task: NonNullable<Layer['task']>,
  zones: readonly string[] = [],
): Layer {
  return {
    ...NEW,
    id,
    name,
    colour: '#9a958c',
    family: 'work',
    method: 'hand',
    minutes,
    dryMinutes: 0,
    zones: [...zones],
    task,
  };
}

export function colourLayer(zone: string, name: string): Layer {
  return {
    ...NEW,
    id: `colour-${zone || 'all'}`,
    name,
    colour: '#9aa3a8',
    family: 'acrylic',
    method: 'brush',
    minutes: 8,
    dryMinutes: 20,
    coats: 2,
    zones: zone ? [zone] : [],
  };
}

export function zoneName(recipe: Recipe, zone: string): string {
  return recipe.zones.find((z) => z.id === zone)?.name ?? 'the whole piece';
}

/** Walks every zone's stack once; a layer is hit once, even where several zones say the same. */
export function eachOnce(
  stack: Stack,
  find: (layers: readonly Layer[], at: number, zone: string) => Omit<Hit, 'layer'> | null,
): Hit[] {
  const hits = new Map<string, Hit>();
  for (const [zone, layers] of stack.stacks) {
    layers.forEach((layer, at) => {
      if (hits.has(layer.id)) return;
      const hit = find(layers, at, zone);
      if (hit) hits.set(layer.id, { layer, ...(zone ? { zone } : {}), ...hit });
    });
  }
  return [...hits.values()];
}

/** Minutes that a layer must have dried before this one goes on it, by its family's stages; null: nothing beyond its own. */
export function restUnder(layer: Layer, below: Layer): number | null {
  const { tape, solvent } = familyOf(below.family).stages;
  if (maskingOf(layer)?.sticks) return isFor('release')(below) ? null : tape;
  if (isSolvent(layer) && layer.task !== 'wipe' && !isSolvent(below) && !isFor('seal')(below)) return solvent;
  return null;
}

/** Nearest layer beneath that leaves a film. */
export function paintBelow(layers: readonly Layer[], at: number): Layer | null {
  for (let k = at - 1; k >= 0; k--) if (isPaint(layers[k]!)) return layers[k]!;
  return null;
}
