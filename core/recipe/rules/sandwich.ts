/** The chipping sandwich: medium, topcoat, lifting, sealing, and what must not come between. */
import { isFor, isPaint, isAcrylic, isMedium, isWash, isAcrylicWash, isSeal, isTask } from '../kinds';
import type { Layer } from '#core/muster';
import { maskingOf } from '../masks';
import {
  changeLayer,
  eachOnce,
  indexOf,
  insertLayer,
  moveOver,
  moveUnder,
  paintBelow,
  removeLayer,
  sealLayer,
  workLayer,
  type Rule,
  type Stack,
} from './rule';

/** Layers from a medium to the seal that ends it (to the top if none does). */
function liveAbove(layers: readonly Layer[], at: number): Layer[] {
  const live: Layer[] = [];
  for (const l of layers.slice(at + 1)) {
    if (isSeal(l)) break;
    live.push(l);
  }
  return live;
}

/** Is the layer part of a live sandwich, and on which medium? */
function liveMedium(layers: readonly Layer[], at: number): Layer | null {
  for (let k = at - 1; k >= 0; k--) {
    if (isSeal(layers[k]!)) return null;
    if (isMedium(layers[k]!)) return layers[k]!;
  }
  return null;
}

const perMedium = (stack: Stack, find: Parameters<typeof eachOnce>[1]): ReturnType<typeof eachOnce> =>
  eachOnce(stack, (layers, at, zone) => (isMedium(layers[at]!) ? find(layers, at, zone) : null));

export const SANDWICH: readonly Rule[] = [
  {
    id: 'medium-without-topcoat',
    severity: 'error',
    check: (stack) =>
      perMedium(stack, (layers, at) =>
        liveAbove(layers, at).some((l) => isPaint(l) && !isMedium(l))
          ? null
          : {
              text: 'No topcoat follows it: there is nothing to chip, and the medium stays sticky.',
              cure: 'Put the topcoat on within its window, or take the medium out.',
              fix: removeLayer('Take the medium out', layers[at]!),
            },
      ),
  },
  {
    id: 'never-chipped',
    severity: 'error',
    check: (stack) =>
      perMedium(stack, (layers, at) => {
        const live = liveAbove(layers, at);
        const topcoat = live.filter((l) => isPaint(l) && !isMedium(l));
        if (topcoat.length === 0 || live.some(isTask('lift'))) return null;
        return {
          text: 'The topcoat over it is never lifted: the work is lost and the layer stays live.',
          cure: 'Moisten and lift once it is touch-dry.',
          fix: insertLayer(
            'Add the lifting',
            indexOf(topcoat[topcoat.length - 1]!, 1),
            workLayer('lift', 'Lift chips', 12, 'lift', layers[at]!.zones),
          ),
        };
      }),
  },
  {
    id: 'sandwich-unsealed',
    severity: 'error',
    check: (stack) =>
      perMedium(stack, (layers, at) => {
        const lift = [...layers.slice(at + 1)].reverse().find(isTask('lift'));
        if (!lift || layers.slice(layers.indexOf(lift) + 1).some(isSeal)) return null;
        return {
          text: 'The chipped layer is never sealed: damp fingers bring it to life again.',
          cure: 'Seal it with two light coats, not touched in between.',
          fix: insertLayer(
            'Seal it with two light coats',
            indexOf(lift, 1),
            sealLayer('seal-chips', 'Two light seals, hands off', 'satin', 240, 2),
          ),
        };
      }),
  },
  {
    id: 'heat-on-live',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (layer.aid !== 'heat' || !(isMedium(layer) || liveMedium(layers, at))) return null;
        return {
          text: 'Heat sets a live chipping layer: it will not lift any more.',
          cure: 'Use cool moving air.',
          fix: changeLayer('Cool moving air instead', layer, { aid: 'moving-air' }),
        };
      }),
  },
  {
    id: 'tape-on-live',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const medium = maskingOf(layer)?.sticks ? liveMedium(layers, at) : null;
        if (!medium) return null;
        return {
          text: 'Tape tears a live chipping layer off.',
          cure: 'Mask and paint that area before the medium, or use a loose stencil, or seal first.',
          fix: moveUnder(`Mask under “${medium.name}”`, layer, medium),
        };
      }),
  },
  {
    id: 'putty-on-live',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const medium = layer.task === 'putty' ? liveMedium(layers, at) : null;
        if (!medium) return null;
        return {
          text: 'Putty may pull on a live chipping layer.',
          cure: 'Press it on lightly and take it off soon, or mask before the medium.',
          fix: moveUnder(`Mask under “${medium.name}”`, layer, medium),
        };
      }),
  },
  {
    id: 'touched-between-seals',
    severity: 'error',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const before = layers[at - 1];
        const after = layers[at + 1];
        if (!before || !after || !isSeal(before) || !isSeal(after) || isSeal(layer)) return null;
        if (layer.method === 'airbrush' || layer.method === 'can') return null;
        // Only where the first of the two closes a chipped layer does skin moisture matter.
        const lift = layers.slice(0, at).some(isTask('lift'));
        const sealedBefore = layers
          .slice(0, at)
          .filter((l, k) => isSeal(l) && layers.slice(0, k).some(isTask('lift'))).length;
        if (!lift || sealedBefore !== 1 || before.coats > 1 || isPaint(layer)) return null;
        return {
          text: 'It is touched between the two sealing coats: skin moisture wakes the chipping layer.',
          cure: 'Put it over the second coat.',
          fix: moveOver(`Put it over “${after.name}”`, layer, after),
        };
      }),
  },
  {
    id: 'medium-over-unsealed',
    severity: 'warning',
    check: (stack) =>
      perMedium(stack, (layers, at) => {
        const below = paintBelow(layers, at);
        const isRisky =
          below && (isAcrylicWash(below) || (isFor('metal')(below) && below.method !== 'brush'));
        const open = liveMedium(layers, at);
        if (!open && (!isRisky || stack.recipe.schools?.['under-medium'] === 'bare')) return null;
        return {
          text: `Lifting goes through the unsealed “${(open ?? below)!.name}” beneath it.`,
          cure: 'Seal that first.',
          fix: insertLayer(
            'Seal beneath it',
            indexOf(layers[at]!),
            sealLayer('seal-under-medium', 'Seal under the medium', 'satin', 120),
          ),
        };
      }),
  },
  {
    id: 'seal-lifts-in-strings',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        const next = layers[at + 1];
        if (
          !isSeal(layer) ||
          !next ||
          !isMedium(next) ||
          !/medium/i.test(layer.mixture) ||
          !/gloss/i.test(layer.mixture)
        )
          return null;
        return {
          text: 'A seal mixed of medium and gloss lifts in strings under a chipping layer.',
          cure: 'Use varnish alone.',
          fix: changeLayer('Use satin varnish alone', layer, {
            mixture: 'satin varnish 4:1',
            sheen: 'satin',
          }),
        };
      }),
  },
  {
    id: 'crackle-unsealed',
    severity: 'warning',
    check: (stack) =>
      eachOnce(stack, (layers, at) => {
        const layer = layers[at]!;
        if (!isFor('crackle')(layer)) return null;
        const wash = layers.slice(at + 1).findIndex((l) => isWash(l) || isFor('crackle')(l));
        if (wash < 0 || layers.slice(at + 1, at + 1 + wash).some(isSeal)) return null;
        const first = layers[at + 1 + wash]!;
        return {
          text: `Left open under “${first.name}”, crackle goes on lifting like a chipping layer.`,
          cure: 'Seal it before the wash.',
          fix: insertLayer(
            'Seal it before the wash',
            indexOf(first),
            sealLayer('seal-crackle', 'Seal over the crackle', 'satin', 240),
          ),
        };
      }),
  },
  {
    id: 'chips-unsealed-base',
    severity: 'advice',
    check: (stack) =>
      perMedium(stack, (layers, at) => {
        const below = paintBelow(layers, at);
        if (!below || !isAcrylic(below) || isAcrylicWash(below) || isFor('metal')(below)) return null;
        if (stack.recipe.schools?.['under-medium'] === 'bare') return null;
        return {
          text: `“${below.name}” lies bare under the medium: hard rubbing may go through it.`,
          cure: 'Seal it, or choose the school that lifts gently over bare acrylic.',
          fix: insertLayer(
            'Seal beneath it',
            indexOf(layers[at]!),
            sealLayer('seal-under-medium', 'Seal under the medium', 'satin', 120),
          ),
        };
      }),
  },
];
