/** What may lie directly over what. */
import { familyOf } from '#core/materials';
import { maskingOf } from '../masks';
import type { Layer } from '#core/muster';
import {
  isFor,
  isPaint,
  isAcrylic,
  isSolvent,
  isOil,
  isEnamel,
  isLacquer,
  isMedium,
  isAcrylicWash,
  isWashable,
  isLoose,
  isSeal,
  isTask,
} from '../kinds';
import {
  changeLayer,
  eachOnce,
  indexOf,
  insertLayer,
  paintBelow,
  sealLayer,
  type Rule,
  restUnder,
} from './rule';

const SEAL_DRY = 240;

const restOf = (l: Layer): number => Math.max(l.dryMinutes, l.window?.opensMinutes ?? 0);
const hoursOf = (minutes: number): string =>
  minutes < 120 ? `${minutes} min` : `${Math.round(minutes / 60)} h`;

export const SEALING: readonly Rule[] = [
  {
    id: 'enamel-over-acrylic',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!isEnamel(layer) || layer.task === 'wipe') return null;
        const below = paintBelow(layers, at);
        if (!below || !(isAcrylic(below) || isMedium(below) || isWashable(below))) return null;
        // Thin, over well-dried airbrushed acrylic, it often does no harm.
        const isTrusted =
          stack.recipe.schools?.['solvent'] === 'trusting' && isAcrylic(below) && below.method === 'airbrush';
        return {
          ...(isTrusted ? { severity: 'warning' as const } : {}),
          text: `Its thinner eats the unsealed “${below.name}” beneath it.`,
          cure: `Put a gloss coat between the two; it must dry ${SEAL_DRY / 60} h, better overnight.`,
          fix: insertLayer(
            'Put a gloss coat between',
            indexOf(layer),
            sealLayer('seal-under', 'Gloss coat', 'gloss', SEAL_DRY),
          ),
        };
      }),
  },
  {
    id: 'oil-over-acrylic',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!isOil(layer) || layer.task === 'wipe') return null;
        const below = paintBelow(layers, at);
        if (!below || !(isAcrylic(below) || isWashable(below))) return null;
        return {
          text: `Thinned oil creeps into the unsealed “${below.name}” and stains it.`,
          cure: 'Put a satin coat between the two.',
          fix: insertLayer(
            'Put a satin coat between',
            indexOf(layer),
            sealLayer('seal-under', 'Satin coat', 'satin', SEAL_DRY),
          ),
        };
      }),
  },
  {
    id: 'lacquer-over-acrylic',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!isLacquer(layer)) return null;
        // Misted on it flashes off before it bites; wet or by brush it does not.
        const isWet = layer.film === 'heavy' || layer.method === 'brush' || layer.method === 'hand';
        const below = paintBelow(layers, at);
        if (!isWet || !below || !(isAcrylic(below) || isMedium(below) || isWashable(below))) return null;
        return {
          text: `So wet, its thinner eats the acrylic of “${below.name}” beneath it.`,
          cure: 'Mist it on in thin coats, each flashed off, or take a waterborne varnish.',
          fix: changeLayer('Mist it on, two thin coats', layer, {
            film: 'thin',
            coats: 2,
            method: 'airbrush',
          }),
        };
      }),
  },
  {
    id: 'solvent-on-young',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const below = paintBelow(layers, at);
        const solvent = below && isSolvent(layer) ? restUnder(layer, below) : null;
        const dries = below ? restOf(below) : 0;
        if (!below || solvent === null || dries >= solvent) return null;
        return {
          text: `“${below.name}” has dried for ${hoursOf(dries)} when the solvent goes on; it bears it after ${hoursOf(solvent)}.`,
          cure: `Let it dry ${hoursOf(solvent)}, or put a gloss coat between.`,
          fix: changeLayer(`Let it dry ${hoursOf(solvent)}`, below, { dryMinutes: solvent }),
        };
      }),
  },
  {
    id: 'tape-on-young',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const below = paintBelow(layers, at);
        const masking = maskingOf(layer);
        if (!masking?.sticks || !below || isFor('release')(below)) return null;
        const { tape } = familyOf(below.family).stages;
        const dries = restOf(below);
        if (tape === null)
          return {
            text: `Tape pulls “${below.name}” off: it never holds one.`,
            cure: 'Seal it first, or use a loose stencil.',
            fix: insertLayer(
              'Seal it first',
              indexOf(layer),
              sealLayer('seal-under-tape', 'Satin coat under the tape', 'satin', 240),
            ),
          };
        if (dries >= tape) return null;
        return {
          text: `“${below.name}” has dried for ${hoursOf(dries)} when the ${masking.name} goes on; it bears it after ${hoursOf(tape)}.`,
          cure: `Let it dry ${hoursOf(tape)}, or use putty.`,
          fix: changeLayer(`Let it dry ${hoursOf(tape)}`, below, { dryMinutes: tape }),
        };
      }),
  },
  {
    id: 'seal-too-young',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const wash = layers[at + 1];
        if (!isFor('seal')(layer) || !wash || !isSolvent(wash) || layer.dryMinutes >= SEAL_DRY) return null;
        return {
          text: `The solvent of “${wash.name}” gets through a coat that is ${layer.dryMinutes} min old.`,
          cure: 'Let it dry 4 h, better overnight.',
          fix: changeLayer('Let it dry 4 h', layer, { dryMinutes: SEAL_DRY }),
        };
      }),
  },
  {
    id: 'wipe-without-wash',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.task !== 'wipe') return null;
        const below = paintBelow(layers, at);
        if (below && isSolvent(below)) return null;
        return {
          text:
            below && isAcrylicWash(below)
              ? `“${below.name}” is acrylic: once dry it cannot be wiped back.`
              : 'There is no wash beneath it to wipe.',
          cure: 'Take the wiping out, or make the wash an enamel one.',
          fix:
            below && isAcrylicWash(below)
              ? changeLayer('Make the wash an enamel one', below, { family: 'enamel', dryMinutes: 45 })
              : {
                  label: 'Take the wiping out',
                  addsMinutes: -layer.minutes,
                  addsDryMinutes: 0,
                  apply: (r) => ({ ...r, layers: r.layers.filter((l) => l.id !== layer.id) }),
                },
        };
      }),
  },
  {
    id: 'water-over-washable',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!isTask('lift', 'decal', 'rinse')(layer) && !isAcrylicWash(layer)) return null;
        // Lifting washable paint with water is what it is for: only what lies between the two counts.
        const below = paintBelow(layers, at);
        if (
          !below ||
          !(isLoose(below) || (isWashable(below) && layer.task !== 'lift' && layer.task !== 'rinse'))
        )
          return null;
        return {
          text: `Its water moves the unsealed “${below.name}”.`,
          cure: 'Seal that first.',
          fix: insertLayer(
            'Seal it first',
            indexOf(layer),
            sealLayer('seal-powder', 'Light seal', 'matt', 60),
          ),
        };
      }),
  },
  {
    id: 'heavy-unsealed',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const rubsOff =
          isLoose(layer) ||
          layer.task === 'decal' ||
          (isFor('texture')(layer) && layer.reach !== undefined && !layers.slice(at + 1).some(isPaint)) ||
          (isFor('mark')(layer) && layer.sheen !== 'metal' && layer.task !== 'polish');
        if (!rubsOff || layers.slice(at + 1).some(isSeal) || stack.recipe.schools?.['powders'] === 'never')
          return null;
        return {
          text: 'Nothing seals it: it rubs off at the first touch.',
          cure: 'Put a thin matt coat over it, and overshoot the effect: varnish mutes it.',
          fix: insertLayer(
            'Put a matt coat over it',
            indexOf(layer, 1),
            sealLayer('seal-effects', 'Matt coat', 'matt', 60),
          ),
        };
      }),
  },
  {
    id: 'decal-after-dirt',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.task !== 'decal') return null;
        const dirt = layers.slice(0, at).find((l) => isLoose(l) || isSolvent(l));
        if (!dirt) return null;
        return {
          text: `It goes over “${dirt.name}”: a new marking on old dirt. Film does not stick to dust.`,
          cure: 'Put the decals under the dirt, unless the marking is meant to be a renewed one.',
          fix: {
            label: `Put it under “${dirt.name}”`,
            addsMinutes: 0,
            addsDryMinutes: 0,
            apply: (r) => {
              const rest = r.layers.filter((l) => l.id !== layer.id);
              rest.splice(
                rest.findIndex((l) => l.id === dirt.id),
                0,
                layer,
              );
              return { ...r, layers: rest };
            },
          },
        };
      }),
  },
  {
    id: 'decal-on-matt',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.task !== 'decal') return null;
        const below = paintBelow(layers, at);
        const hasSoftener = layers
          .slice(Math.max(0, at - 2), at + 3)
          .some((l) => l !== layer && (isFor('helper')(l) || l.task === 'softener'));
        if (hasSoftener || !below || below.sheen === 'gloss' || below.sheen === 'satin') return null;
        return {
          text: 'On matt and without softener the film silvers.',
          cure: 'Put a gloss coat under it, or softening solution over it.',
          fix: insertLayer(
            'Put a gloss coat under it',
            indexOf(layer),
            sealLayer('gloss-spots', 'Gloss under the decals', 'gloss', 60),
          ),
        };
      }),
  },
];
