/** What every zone needs: colour, a last coat, contrast that survives, details that are not forgotten. */
import type { Layer } from '#core/muster';
import {
  changeLayer,
  colourLayer,
  eachOnce,
  indexOf,
  insertLayer,
  isColour,
  isMatt,
  isMedium,
  isPaint,
  isSeal,
  isShiny,
  isTask,
  moveOver,
  paintBelow,
  sealLayer,
  workLayer,
  zoneName,
  type Hit,
  type Rule,
  type Stack,
} from './rule';

/** CIE 1976 lightness and a plain opponent pair from sRGB, D65 (IEC 61966-2-1; CIE 15). */
export function labOf(colour: string): readonly [number, number, number] {
  const linear = [1, 3, 5].map((k) => {
    const v = parseInt(colour.slice(k, k + 2), 16) / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  });
  const [r, g, b] = linear as [number, number, number];
  const f = (t: number): number => (t > 216 / 24389 ? Math.cbrt(t) : (t * 24389) / 27 / 116 + 16 / 116);
  const x = f((0.4124564 * r + 0.3575761 * g + 0.1804375 * b) / 0.95047);
  const y = f(0.2126729 * r + 0.7151522 * g + 0.072175 * b);
  const z = f((0.0193339 * r + 0.119192 * g + 0.9503041 * b) / 1.08883);
  return [116 * y - 16, 500 * (x - y), 200 * (y - z)];
}

export function colourDistance(a: string, b: string): number {
  const p = labOf(a);
  const q = labOf(b);
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

/** Below it an effect is lost under the coats above; from memory of "clearly visible" in CIELAB. */
const TOO_CLOSE = 7;
const DARK = 35;
const LIGHT = 55;
const SATURATED = 35;

const IS_EFFECT = /wash|enamel|oil|powder|ink/;

export const COVER: readonly Rule[] = [
  {
    id: 'zone-without-colour',
    severity: 'error',
    check: (stack) => {
      const hits: Hit[] = [];
      for (const [zone, indexes] of stack.zones) {
        if (stack.recipe.layers.length === 0 || indexes.some((i) => isColour(stack.recipe.layers[i]!)))
          continue;
        hits.push({
          layer: null,
          zone,
          text: `${zoneName(stack.recipe, zone)} never gets a colour.`,
          cure: 'Add a layer for it: details are found missing at the last stage.',
          fix: insertLayer(
            'Add a colour for it',
            (r) => firstSeal(r.layers),
            colourLayer(zone, `Colour, ${zoneName(stack.recipe, zone)}`),
          ),
        });
      }
      return hits;
    },
  },
  {
    id: 'detail-not-covered',
    severity: 'advice',
    check: (stack) => {
      const hits: Hit[] = [];
      for (const [zone, indexes] of stack.zones) {
        if (stack.recipe.zones.length < 2) continue;
        const colours = indexes
          .map((i) => stack.recipe.layers[i]!)
          .filter((l) => isColour(l) && l.family !== 'primer');
        if (
          colours.length > 0 ||
          indexes.length === 0 ||
          !indexes.some((i) => isColour(stack.recipe.layers[i]!))
        )
          continue;
        hits.push({
          layer: null,
          zone,
          text: `${zoneName(stack.recipe, zone)} has nothing but primer on it.`,
          cure: 'Fine if the primer is its colour; otherwise add a layer.',
          fix: insertLayer(
            'Add a colour for it',
            (r) => firstSeal(r.layers),
            colourLayer(zone, `Colour, ${zoneName(stack.recipe, zone)}`),
          ),
        });
      }
      return hits;
    },
  },
  {
    id: 'sheen-missed',
    severity: 'warning',
    check: (stack) => {
      const hits: Hit[] = [];
      for (const zone of stack.recipe.zones) {
        const layers = (stack.zones.get(zone.id) ?? []).map((i) => stack.recipe.layers[i]!);
        const last = [...layers].reverse().find((l) => l.sheen !== undefined);
        if (zone.sheen === undefined || !last || last.sheen === zone.sheen) continue;
        const isPlain = zone.sheen === 'matt' || zone.sheen === 'satin' || zone.sheen === 'gloss';
        hits.push({
          layer: last,
          zone: zone.id,
          text: `${zone.name} is meant to end ${zone.sheen}, and ends ${last.sheen!}.`,
          cure: `Give the zone a last ${zone.sheen} coat.`,
          ...(isPlain
            ? {
                fix: insertLayer(`Add a ${zone.sheen} coat`, (r) => r.layers.length, {
                  ...sealLayer(
                    `sheen-${zone.id}`,
                    `${zone.sheen[0]!.toUpperCase()}${zone.sheen.slice(1)} coat, ${zone.name}`,
                    zone.sheen as 'matt' | 'satin' | 'gloss',
                    60,
                  ),
                  zones: [zone.id],
                }),
              }
            : {}),
        });
      }
      return hits;
    },
  },
  {
    id: 'matt-over-shine',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!isMatt(layer)) return null;
        const shine = layers.slice(0, at).find(isShiny);
        if (!shine || layers.slice(at + 1).some(isShiny)) return null;
        return {
          text: `Matt varnish dulls “${shine.name}” beneath it.`,
          cure: 'Put the shine on after the last matt coat, or restore it afterwards.',
          fix: moveOver(`Put “${shine.name}” after it`, shine, layer),
        };
      }),
  },
  {
    id: 'light-over-dark-primer',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const below = paintBelow(layers, at);
        if (!below || below.family !== 'primer' || layer.family !== 'acrylic' || layer.coats > 2) return null;
        if (labOf(below.colour)[0] > DARK) return null;
        const [lightness, a, b] = labOf(layer.colour);
        if (lightness < LIGHT || Math.hypot(a, b) < SATURATED) return null;
        return {
          text: 'A light, saturated colour over a dark primer takes many coats and stays dull.',
          cure: 'Prime white or grey beneath it, or give it three light coats.',
          fix: changeLayer('Three light coats', layer, { coats: 3, film: 'thin' }),
        };
      }),
  },
  {
    id: 'too-little-contrast',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!IS_EFFECT.test(layer.family) || layer.task === 'wipe' || layer.task === 'lift') return null;
        const base = layers
          .slice(0, at)
          .reverse()
          .find((l) => isColour(l) && !IS_EFFECT.test(l.family));
        if (!base || colourDistance(layer.colour, base.colour) >= TOO_CLOSE) return null;
        return {
          text: `It is too close to “${base.name}” in hue and lightness: nothing of it will be seen under the coats above.`,
          cure: 'Take it darker or lighter; contrast must be exaggerated.',
          fix: changeLayer('Take it darker', layer, { colour: darker(layer.colour) }),
        };
      }),
  },
  {
    id: 'one-heavy-coat',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (
          layer.film !== 'heavy' ||
          layer.coats > 1 ||
          !isPaint(layer) ||
          ['paste', 'water', 'crackle'].includes(layer.family)
        )
          return null;
        return {
          text: 'One heavy coat hides detail, runs, and dries for hours.',
          cure: 'Two light coats.',
          fix: changeLayer('Two light coats', layer, { coats: 2, film: 'thin' }),
        };
      }),
  },
  {
    id: 'nozzle-too-small',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const needs = isMedium(layer) ? 0.7 : isSeal(layer) || layer.family === 'metal' ? 0.4 : 0.2;
        if (layer.method !== 'airbrush' || layer.nozzleMm === undefined || layer.nozzleMm >= needs)
          return null;
        return {
          text: `A ${layer.nozzleMm} mm nozzle clogs with this product and spits.`,
          cure: `Use ${needs} mm.`,
          fix: changeLayer(`Use ${needs} mm`, layer, { nozzleMm: needs }),
        };
      }),
  },
  {
    id: 'pour-too-deep',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const passes = layer.passes?.expected ?? 1;
        if (layer.family !== 'water' || layer.depthMm === undefined || layer.depthMm / passes <= 3)
          return null;
        const pours = Math.ceil(layer.depthMm / 3);
        return {
          text: `${layer.depthMm} mm in ${passes === 1 ? 'one pour' : `${passes} pours`} stays soft and clouds: under 3 mm a pour.`,
          cure: `${pours} pours, 24 h each.`,
          fix: changeLayer(`${pours} pours`, layer, { passes: { expected: pours, waitMinutes: 1440 } }),
        };
      }),
  },
  {
    id: 'glue-on-paint',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (
          layer.task !== 'glue' ||
          layers.slice(0, at).some(isTask('bare', 'unmask')) ||
          !layers.slice(0, at).some(isPaint)
        )
          return null;
        return {
          text: 'The joint is painted: glue holds the paint, not the part.',
          cure: 'Bare the joint first, or keep it masked from the primer on.',
          fix: insertLayer(
            'Bare the joint first',
            indexOf(layer),
            workLayer('bare-joint', 'Bare the joint', 4, 'bare', layer.zones),
          ),
        };
      }),
  },
  {
    id: 'mask-left-on',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.task !== 'mask') return null;
        const off = layers.slice(at + 1).findIndex(isTask('unmask'));
        const over = off < 0 ? [] : layers.slice(at + 1, at + 1 + off);
        const wait = over.reduce((sum, l) => sum + l.dryMinutes, 0);
        if (off >= 0 && wait <= 720) return null;
        const last = layers.slice(at + 1).find(isPaint) ?? layer;
        return {
          text:
            off < 0
              ? 'The mask is never taken off.'
              : 'The mask stays on until the paint has hardened: the edge tears.',
          cure: 'Take it off while the paint is young.',
          ...(off < 0
            ? {
                fix: insertLayer(
                  'Add the unmasking',
                  indexOf(last, 1),
                  workLayer('unmask', 'Unmask', 3, 'unmask', layer.zones),
                ),
              }
            : {}),
        };
      }),
  },
  {
    id: 'spatter-beside-wet',
    severity: 'advice',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.air !== undefined || !(layer.family === 'powder' || layer.task === 'spatter')) return null;
        return {
          text: 'Powder and flicked mud land on whatever is wet nearby.',
          cure: 'Let the plan keep it apart from wet coats that need clean air.',
          fix: changeLayer('Keep it apart', layer, { air: 'contaminates' }),
        };
      }),
  },
];

function firstSeal(layers: Parameters<typeof isSeal>[0][]): number {
  const at = layers.findIndex(isSeal);
  return at < 0 ? layers.length : at;
}

function darker(colour: string): string {
  return `#${[1, 3, 5]
    .map((k) =>
      Math.round(parseInt(colour.slice(k, k + 2), 16) * 0.6)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

/** A last coat on every zone; asked for where pieces are handled. Not among the rules of the recipe alone. */
export function finalCoatMissing(stack: Stack): Hit[] {
  const hits: Hit[] = [];
  for (const [zone, indexes] of stack.zones) {
    const layers = indexes.map((i) => stack.recipe.layers[i]!);
    // By that school powder is put on last and left as it is.
    const isLoose = (l: Layer): boolean =>
      l.family === 'powder' && stack.recipe.schools?.['powders'] === 'never';
    const last = layers.findLast((l) => isPaint(l) && !isShiny(l) && l.family !== 'pen' && !isLoose(l));
    if (!last || isSeal(last)) continue;
    hits.push({
      layer: last,
      zone,
      text: `${zoneName(stack.recipe, zone)} ends with “${last.name}”, unsealed; pieces that are handled wear through it.`,
      cure: 'Give it a last coat of varnish.',
      fix: insertLayer('Add a last matt coat', (r) => r.layers.findIndex((l) => l.id === last.id) + 1, {
        ...sealLayer('last-coat', 'Last matt coat', 'matt', 60),
        zones: zone ? [zone] : [],
      }),
    });
  }
  return hits;
}
