/**
 * What of a surface a layer has to do with: minutes go with the share of its zones, where shares are said, and with how well they are seen;
 * what nobody sees gets no effects. Common practice, no source.
 */
import type { Layer, LookKind, Looks, Recipe } from '#core/muster';
import { zoneShares } from '../zoneShares';

type Zones = Recipe['zones'];

/** Beginning takes its time, however small the place. */
const LEAST_SHARE = 0.3;
/** Work on what is hardly seen. */
const LITTLE_SEEN = 0.6;
/** Done for the eye alone: left off where none falls. */
const FOR_THE_EYE: readonly LookKind[] = [
  'light',
  'details',
  'markings',
  'lining',
  'shade',
  'lights',
  'filter',
  'chips',
  'rust',
  'streaks',
  'dust',
  'mud',
  'polish',
  'wet',
  'tufts',
];

/** The wishes without what would be done where it is never seen. */
export function forTheEye(looks: Looks, zones: Zones): Looks {
  const seen = zones.filter((z) => z.seen !== 'never').map((z) => z.id);
  if (seen.length === zones.length) return looks;
  const list = looks.list.flatMap((look) => {
    if (!FOR_THE_EYE.includes(look.kind)) return [look];
    const on = look.zones.length > 0 ? look.zones.filter((z) => seen.includes(z)) : seen;
    return on.length > 0 ? [{ ...look, zones: on }] : [];
  });
  return { ...looks, list };
}

/** A layer with the minutes that its zones ask for; as it was where nothing is said of them. */
export function sized(zones: Zones): (layer: Layer) => Layer {
  const isSaid = zones.some((z) => z.percent !== undefined || z.seen === 'little');
  if (!isSaid) return (layer) => layer;
  const shares = zoneShares(zones);
  const weight = (z: Zones[number]): number => shares.get(z.id)! * (z.seen === 'little' ? LITTLE_SEEN : 1);
  return (layer) => {
    const on = layer.zones.length > 0 ? zones.filter((z) => layer.zones.includes(z.id)) : zones;
    const share = on.reduce((sum, z) => sum + weight(z), 0);
    const minutes = Math.max(1, Math.round(layer.minutes * (LEAST_SHARE + (1 - LEAST_SHARE) * share)));
    return minutes === layer.minutes ? layer : { ...layer, minutes };
  };
}

/** A figure against a hand-sized piece, in minutes; common practice, no source. */
const FIGURE_SHARE = 0.2;
const LEAST_FIGURE_MINUTES = 0.3;
/** Cloth and skin are brushed, which takes longer than spraying them would. */
const BRUSHED = 1.5;

/** Cloth and skin: on a figure, what has a place of its own goes on by brush. */
export function brushedOnFigure(layer: Layer): Layer {
  if (layer.zones.length === 0 || layer.method !== 'airbrush' || layer.family !== 'acrylic') return layer;
  return { ...layer, method: 'brush', pausable: true, minutes: Math.round(layer.minutes * BRUSHED) };
}

/** A layer in the minutes that it takes on one figure, to a tenth. */
export function onFigure(layer: Layer): Layer {
  const minutes = Math.max(LEAST_FIGURE_MINUTES, Math.round(layer.minutes * FIGURE_SHARE * 10) / 10);
  return { ...layer, minutes };
}
