/** Where the stack needs a seal, and no more of them than the rules ask for. */
import {
  isFor,
  isPaint,
  isAcrylic,
  isSolvent,
  isOil,
  isMedium,
  isAcrylicWash,
  isWashable,
  isLoose,
  isSeal,
  isTask,
  isShiny,
} from '../kinds';
import type { Layer, Looks } from '#core/muster';

import { coat, type CoatSheen } from './strokes';
import type { Schooled } from './schooled';

/** Before a solvent goes over it a seal dries so long, minutes; common practice, no source. */
const UNDER_SOLVENT = 240;
const UNDER_WATER = 60;

interface Need {
  readonly sheen: CoatSheen;
  readonly name: string;
  readonly dryMinutes: number;
}

/** Bottom to top, what lies on one zone so far. */
type Below = readonly Layer[];

const lastPaint = (below: Below): Layer | null => below.findLast(isPaint) ?? null;
/** Is a chipping layer still open there, with no seal over it? */
const isLive = (below: Below): boolean => below.findLastIndex(isMedium) > below.findLastIndex(isSeal);

/** What must be closed on a zone before a layer goes on it; null where it may go on as it is. */
function needOf(layer: Layer, below: Below, schools: Schooled): Need | null {
  const last = lastPaint(below);
  if (!last) return null;
  const openCrackle = below.findLastIndex((l) => isFor('crackle')(l)) > below.findLastIndex(isSeal);
  if (isSolvent(layer) && layer.task !== 'wipe') {
    const isTrusted =
      schools['solvent'] === 'trusting' && isAcrylic(last) && last.method === 'airbrush' && !isLive(below);
    const eats = isAcrylic(last) || isMedium(last) || isWashable(last);
    if ((eats && !isTrusted) || openCrackle)
      return {
        sheen: isOil(layer) ? 'satin' : (schools['wash-surface'] as CoatSheen),
        name: 'keeps the thinner off',
        dryMinutes: UNDER_SOLVENT,
      };
  }
  if (isAcrylicWash(layer) && openCrackle)
    return { sheen: 'satin', name: 'closes the crackle', dryMinutes: UNDER_WATER };
  if (isFor('crackle')(layer) && (openCrackle || isLive(below)))
    return { sheen: 'satin', name: 'lifting stops here', dryMinutes: 120 };
  if (isMedium(layer)) {
    const isBare = schools['under-medium'] === 'bare';
    if (isLive(below) || (isAcrylic(last) && !isBare))
      return { sheen: 'satin', name: 'lifting stops here', dryMinutes: 120 };
  }
  if (isTask('mask', 'putty')(layer) && (isLive(below) || openCrackle))
    return { sheen: 'satin', name: 'closes the chips before tape goes on', dryMinutes: UNDER_WATER };
  if (
    layer.task === 'decal' &&
    schools['decals'] === 'gloss' &&
    last.sheen !== 'gloss' &&
    last.sheen !== 'satin'
  )
    return { sheen: 'gloss', name: 'for the decals', dryMinutes: UNDER_WATER };
  if (isWashable(layer) && !isSeal(last))
    return { sheen: 'satin', name: 'so that the whitewash comes off', dryMinutes: UNDER_WATER };
  const isMoved = isLoose(last) || (isWashable(last) && !isTask('lift', 'rinse')(layer));
  if (isMoved && (isTask('lift', 'decal', 'rinse')(layer) || isAcrylicWash(layer)))
    return { sheen: 'matt', name: 'holds what water would move', dryMinutes: UNDER_WATER };
  return null;
}

/**
 * The layers with seals put in, and a last coat on every zone.
 * @param layers bottom to top, without seals
 * @param last index of the first layer that comes after the last coat
 */
export function sealed(
  layers: readonly Layer[],
  last: number,
  {
    looks,
    schools,
    zones,
    sheenOf,
  }: {
    readonly looks: Looks;
    readonly schools: Schooled;
    readonly zones: readonly string[];
    /** what a zone shall end as, where it asks for something of its own */
    readonly sheenOf: (zone: string) => CoatSheen | null;
  },
): Layer[] {
  const out: Layer[] = [];
  const below = new Map<string, Layer[]>(zones.map((z) => [z, []]));
  const put = (layer: Layer): void => {
    out.push(layer);
    for (const z of on(layer)) below.get(z)!.push(layer);
  };
  const on = (layer: Layer): readonly string[] => {
    const own = layer.zones.filter((z) => below.has(z));
    return own.length > 0 ? own : zones;
  };
  const named = (list: readonly string[]): readonly string[] => (list.length === zones.length ? [] : list);

  const close = (): void => {
    const bySheen = new Map<CoatSheen, string[]>();
    for (const z of zones) {
      const sheen = sheenOf(z) ?? looks.sheen;
      const top = lastPaint(below.get(z)!);
      // A seal that already ends the zone as it shall end is its last coat.
      if (top && isSeal(top) && top.sheen === sheen) continue;
      bySheen.set(sheen, [...(bySheen.get(sheen) ?? []), z]);
    }
    for (const [sheen, list] of bySheen)
      put({ ...coat(`last-${sheen}`, `Last ${sheen} coat`, sheen, named(list), 60) });
  };

  layers.forEach((layer, k) => {
    if (k === last) close();
    const needs = on(layer).flatMap((z) => {
      const need = needOf(layer, below.get(z)!, schools);
      return need ? [{ zone: z, need }] : [];
    });
    const [first] = needs;
    if (first) {
      const list = needs.map((n) => n.zone);
      const dry = Math.max(...needs.map((n) => n.need.dryMinutes));
      const name = `${first.need.sheen[0]!.toUpperCase()}${first.need.sheen.slice(1)} coat, ${first.need.name}`;
      put(coat(`seal-${layer.id}`, name, first.need.sheen, named(list), dry));
    }
    put(layer);
  });
  if (last >= layers.length) close();
  return aged(out, on);
}

/** A seal under a solvent has to be old enough, whatever it was put in for; one that closes chips goes on in two light coats. */
function aged(layers: readonly Layer[], on: (l: Layer) => readonly string[]): Layer[] {
  return layers.map((layer, k) => {
    if (!isSeal(layer) || isShiny(layer)) return layer;
    const zones = on(layer);
    const above = layers.slice(k + 1);
    const beneath = layers.slice(0, k);
    const isUnderSolvent = zones.some((z) => {
      const next = above.find((l) => on(l).includes(z));
      return next && isSolvent(next) && next.task !== 'wipe';
    });
    const closesChips = zones.some((z) => {
      const own = beneath.filter((l) => on(l).includes(z));
      return own.findLastIndex((l) => l.task === 'lift') > own.findLastIndex(isSeal);
    });
    return {
      ...layer,
      dryMinutes: isUnderSolvent ? Math.max(layer.dryMinutes, UNDER_SOLVENT) : layer.dryMinutes,
      ...(closesChips
        ? {
            coats: 2,
            minutes: 2,
            note: 'Two light coats; no finger on it in between: damp skin wakes the chips.',
          }
        : {}),
    };
  });
}
