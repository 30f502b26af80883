/**
 * From what it shall look like to the stack that gives it: the looks as stages, put in order, sealed where the rules ask for it, with
 * drying aids, levels and brushes as the user works. Pure: the same wishes give the same layers.
 */
import { familyOf } from '#core/materials';
import type { Layer, Looks, Recipe } from '#core/muster';
import { layerByBrush } from '../byBrush';
import { isOnZone } from '../links';
import { paintBelow, restUnder } from '../rules/rule';
import { isMedium, isSeal, isSolvent } from '../kinds';
import { schooled, type Schooled } from './schooled';
import { sealed } from './seals';
import { brushedOnFigure, forTheEye, onFigure, sized } from './sized';
import { LAST_COAT, stagesOf } from './stages';
import type { CoatSheen } from './strokes';

const IMPLICIT_ZONE = '';

/**
 * The layers of a recipe as its looks and schools ask for them, bottom to top.
 * @param recipe its zones and schools count, its layers do not
 */
export function composed(recipe: Pick<Recipe, 'zones' | 'schools'>, wished: Looks): Layer[] {
  const looks = offClear(forTheEye(wished, recipe.zones));
  const schools = schooled(recipe.schools);
  const zones = recipe.zones.length > 0 ? recipe.zones.map((z) => z.id) : [IMPLICIT_ZONE];
  const stages = stagesOf({ looks, schools, zones });
  const last = stages.filter((s) => s.rank < LAST_COAT).reduce((n, s) => n + s.layers.length, 0);
  const clear = clearZones(looks);
  const asHeld = (l: Layer): Layer => (looks.isForFigures ? brushedOnFigure(l) : l);
  const asWorked = (l: Layer): Layer => (looks.noAirbrush ? layerByBrush(l) : l);
  const layers = sealed(
    stages.flatMap((s) =>
      s.layers.map((l) => asWorked(asHeld({ ...l, zones: l.zones.filter((z) => zones.includes(z)) }))),
    ),
    last,
    {
      looks,
      schools,
      zones,
      // What is clear is covered when the last coat goes on: it has no sheen of paint.
      sheenOf: (zone) =>
        clear.has(zone) ? null : plainSheen(recipe.zones.find((z) => z.id === zone)?.sheen),
    },
  );
  const ofZones = sized(recipe.zones);
  const ofSize = (l: Layer): Layer => (looks.isForFigures ? onFigure(ofZones(l)) : ofZones(l));
  return levelled(rested(zones, layers).map((l) => asWorked(aided(ofSize(l), schools))));
}

/** Zones that shall stay clear, as wished for by name. */
export function clearZones(looks: Looks): ReadonlySet<string> {
  return new Set(looks.list.flatMap((l) => (l.kind === 'clear' ? l.zones : [])));
}

/** Clear parts are covered from first to last: a wish for one of them alone comes to nothing (and is told by a rule). */
function offClear(looks: Looks): Looks {
  const clear = clearZones(looks);
  if (clear.size === 0) return looks;
  const list = looks.list.flatMap((l) => {
    if (l.kind === 'clear' || l.zones.length === 0) return [l];
    const zones = l.zones.filter((z) => !clear.has(z));
    return zones.length === 0 ? [] : [{ ...l, zones }];
  });
  return { ...looks, list };
}

/** What lies under tape or solvent dries until it bears them. */
function rested(zones: readonly string[], layers: readonly Layer[]): Layer[] {
  const dries = new Map<string, number>();
  for (const zone of zones) {
    const stack = layers.filter((l) => isOnZone(l.zones, zone));
    stack.forEach((layer, at) => {
      const below = paintBelow(stack, at);
      const needs = below ? restUnder(layer, below) : null;
      if (below && needs !== null) dries.set(below.id, Math.max(dries.get(below.id) ?? 0, needs));
    });
  }
  return layers.map((l) => ({ ...l, dryMinutes: Math.max(l.dryMinutes, dries.get(l.id) ?? 0) }));
}

function plainSheen(sheen: Recipe['zones'][number]['sheen']): CoatSheen | null {
  return sheen === 'matt' || sheen === 'satin' || sheen === 'gloss' ? sheen : null;
}

/** Only what dries for a while and bears it; never heat near a chipping layer. */
function aided(layer: Layer, schools: Schooled): Layer {
  const way = schools['aids'];
  if (way === 'patience' || familyOf(layer.family).drying === 'none' || layer.dryMinutes < 20) return layer;
  if (isMedium(layer) || layer.window)
    return way === 'cool' && isMedium(layer) ? { ...layer, aid: 'moving-air' } : layer;
  if (way === 'cabinet') return isSeal(layer) || isSolvent(layer) ? { ...layer, inCabinet: true } : layer;
  return isSeal(layer) ? { ...layer, aid: 'moving-air' } : layer;
}

/** Where one could stop: at the coat under the first dirt, at the last coat, with everything. */
function levelled(layers: readonly Layer[]): Layer[] {
  const lastCoats = layers.filter((l) => l.id.startsWith('last-'));
  const end = lastCoats.at(-1) ?? layers.filter(isSeal).at(-1);
  const isWhole = (l: Layer): boolean => l.zones.length === 0;
  const first = layers.find((l) => isSeal(l) && isWhole(l) && l !== end);
  return layers.map((l, k) => {
    const level = l === first ? 1 : l === end ? 2 : k === layers.length - 1 && end && l !== end ? 3 : null;
    return level === null ? l : { ...l, level };
  });
}
