/** What every zone needs: colour, a last coat, contrast that survives, details that are not forgotten. */
import { isFor, isPaint, isLoose, isSeal, isColour, isTask, isShiny, isMatt } from '../kinds';
import { familyOf } from '#core/materials';
import {
  canOvershoot,
  differenceOf,
  effectsOf,
  isEffect,
  labOf,
  LOST,
  overshotColour,
  PLAIN,
  productsByName,
} from '#core/optics';
import type { RecipeFix } from '../finding';
import type { Layer, Recipe } from '#core/muster';
import { zonesOf } from '../links';
import { maskingOf, masksOf, type Mask } from '../masks';
import {
  changeLayer,
  colourLayer,
  eachOnce,
  indexOf,
  insertLayer,
  moveOver,
  paintBelow,
  sealLayer,
  workLayer,
  zoneName,
  type Hit,
  type Rule,
  type Stack,
} from './rule';

/** Rules know no shelf: nominal films. */
const NOMINAL = productsByName([]);
const isLost = (fresh: number, atEnd: number): boolean => fresh >= PLAIN && atEnd < LOST;
const DARK = 35;
const LIGHT = 55;
const SATURATED = 35;

/** Does the mask cover only what gets no colour of its own: glass, lamps? */
function isOnClear(recipe: Recipe, { zones }: Mask): boolean {
  return (
    zones.length > 0 &&
    zones.every((z) => !recipe.layers.some((l) => isColour(l) && zonesOf(recipe, l).includes(z)))
  );
}

export const COVER: readonly Rule[] = [
  {
    id: 'zone-without-colour',
    severity: 'error',
    check: (stack) => {
      const hits: Hit[] = [];
      const masks = masksOf(stack.recipe);
      for (const [zone, indexes] of stack.zones) {
        // What stays masked until the end is clear, and wants none.
        const isClear = masks.some((m) => m.to !== null && m.zones.includes(zone));
        if (
          stack.recipe.layers.length === 0 ||
          isClear ||
          indexes.some((i) => isColour(stack.recipe.layers[i]!))
        )
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
        // What is never seen may stay primed.
        if (stack.recipe.zones.find((z) => z.id === zone)?.seen === 'never') continue;
        const colours = indexes
          .map((i) => stack.recipe.layers[i]!)
          .filter((l) => isColour(l) && !isFor('primer')(l));
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
        if (!below || !isFor('primer')(below) || !isFor('colour')(layer) || layer.coats > 2) return null;
        if (labOf(below.colour).l > DARK) return null;
        const { l: lightness, a, b } = labOf(layer.colour);
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
        if (!isEffect(layer) || isTask('wipe', 'lift', 'decal', 'polish')(layer)) return null;
        // A colour modulated over its own kind is close to it on purpose.
        if (layer.reach === 'half' && isFor('colour')(layer)) return null;
        const base = layers.slice(0, at).findLast((l) => isColour(l) && !isEffect(l));
        if (!base || differenceOf(layer.colour, base.colour) >= PLAIN) return null;
        return {
          text: `It is too close to “${base.name}” in hue and lightness: nothing of it will be seen under the coats above.`,
          cure: 'Take it darker or lighter; contrast must be exaggerated.',
          fix: changeLayer('Take it darker', layer, { colour: darker(layer.colour) }),
        };
      }),
  },
  {
    id: 'effect-eaten',
    severity: 'advice',
    check: (stack) => {
      const hits = new Map<string, Hit>();
      for (const [zone, layers] of stack.stacks)
        for (const effect of effectsOf(layers, NOMINAL, isLost)) {
          if (hits.has(effect.layer)) continue;
          const layer = layers.find((l) => l.id === effect.layer)!;
          // Light under the colours is there to tint them: how much of it comes through is the painter's choice of coats.
          if (layers.slice(layers.indexOf(layer) + 1).some((l) => isColour(l) && !isEffect(l))) continue;
          const eaters = effect.eaten.slice(0, 2).map((e) => layers.find((l) => l.id === e.layer)!);
          const comesBack = canOvershoot(layers, layer.id, NOMINAL);
          hits.set(layer.id, {
            layer,
            ...(zone ? { zone } : {}),
            text: `It differs from what is round it by ${effect.fresh.toFixed(0)} (ΔE) when it is put on and by ${effect.atEnd.toFixed(0)} when all is done${eaters.length > 0 ? `: ${eaters.map((l) => `“${l.name}”`).join(' and ')} eat${eaters.length === 1 ? 's' : ''} it` : ''}.`,
            cure: comesBack
              ? 'Overshoot now, so that it ends as it was meant; or put it on after them.'
              : 'Put it on after them: no colour comes through.',
            ...(comesBack
              ? { fix: overshoot(layers, layer) }
              : eaters[0]
                ? { fix: moveOver(`Put it over “${eaters[0].name}”`, layer, eaters[0]) }
                : {}),
          });
        }
      return [...hits.values()];
    },
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
          // An effect that a piece has heavy is more of it, not a thick coat.
          (layer.isOptional && isEffect(layer)) ||
          isFor('texture', 'pour', 'crackle')(layer)
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
        const needs = familyOf(layer.family).smallestNozzleMm;
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
        if (!isFor('pour')(layer) || layer.depthMm === undefined || layer.depthMm / passes <= 3) return null;
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
    check: ({ recipe }) =>
      masksOf(recipe).flatMap((mask): Hit[] => {
        const { layer, from, to } = mask;
        const over = to === null ? [] : recipe.layers.slice(from + 1, to);
        const wait = over.reduce((sum, l) => sum + l.dryMinutes, 0);
        const masking = maskingOf(layer);
        const stays = masking?.staysMinutes ?? Infinity;
        // Putty and salt give way; clear parts stay covered until all is done, and what crept under is rubbed off.
        if (to !== null && (wait <= stays || isOnClear(recipe, mask))) return [];
        const first = over.find(isPaint);
        const last = recipe.layers.slice(from + 1).find(isPaint) ?? layer;
        const text = masking?.afterwards ?? '';
        const cure = 'Take it off while the paint is young.';
        if (to === null)
          return [
            {
              layer,
              text: 'The mask is never taken off.',
              cure,
              fix: insertLayer(
                'Add the unmasking',
                indexOf(last, 1),
                workLayer('unmask', 'Unmask', 3, 'unmask', layer.zones),
              ),
            },
          ];
        const fix = first && moveOver(`Take it off after “${first.name}”`, recipe.layers[to]!, first);
        return [{ layer, text, cure, ...(fix ? { fix } : {}) }];
      }),
  },
  {
    id: 'wet-mask',
    severity: 'warning',
    check: ({ recipe }) =>
      masksOf(recipe).flatMap(({ layer }): Hit[] => {
        const masking = maskingOf(layer);
        if (!masking || layer.dryMinutes >= masking.driesMinutes) return [];
        const dries = `${masking.driesMinutes} min`;
        return [
          {
            layer,
            text: `The ${masking.name} is painted over while it is wet: it runs, and the edge with it.`,
            cure: `Let it dry ${dries} first.`,
            fix: changeLayer(`Let it dry ${dries}`, layer, { dryMinutes: masking.driesMinutes }),
          },
        ];
      }),
  },
  {
    id: 'under-mask',
    severity: 'warning',
    check: ({ recipe }) => {
      const masks = masksOf(recipe);
      return recipe.layers.flatMap((layer, k): Hit[] => {
        const mask = masks.find(({ from, to, zones }) => {
          const named = layer.zones.length > 0 && layer.zones.every((z) => zones.includes(z));
          return named && to !== null && from < k && k < to;
        });
        if (!mask || isTask('mask', 'putty', 'unmask')(layer)) return [];
        const off = recipe.layers[mask.to!]!;
        return [
          {
            layer,
            text: `All that it goes on is covered by “${mask.layer.name}”.`,
            cure: `Put it on after “${off.name}”, or before the mask.`,
            fix: moveOver(`Put it on after “${off.name}”`, layer, off),
          },
        ];
      });
    },
  },
  {
    id: 'spatter-beside-wet',
    severity: 'advice',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.air !== undefined || !(isLoose(layer) || layer.task === 'spatter')) return null;
        return {
          text: 'Powder and flicked mud land on whatever is wet nearby.',
          cure: 'Let the plan keep it apart from wet coats that need clean air.',
          fix: changeLayer('Keep it apart', layer, { air: 'contaminates' }),
        };
      }),
  },
];

/** The colour is sought when the cure is taken: most are never taken. */
function overshoot(layers: readonly Layer[], layer: Layer): RecipeFix {
  return {
    ...changeLayer('Overshoot its colour', layer, {}),
    apply: (recipe) => {
      const colour = overshotColour(layers, layer.id, NOMINAL) ?? layer.colour;
      return { ...recipe, layers: recipe.layers.map((l) => (l.id === layer.id ? { ...l, colour } : l)) };
    },
  };
}

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
    const isLeftOpen = (l: Layer): boolean => isLoose(l) && stack.recipe.schools?.['powders'] === 'never';
    const last = layers.findLast((l) => isPaint(l) && !isShiny(l) && !isFor('mark')(l) && !isLeftOpen(l));
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
