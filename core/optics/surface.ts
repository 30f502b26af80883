/**
 * What the surface of a film does to the light: Saunderson's correction (1942). From within much is thrown back; from without a little
 * is mirrored, and how much of that reaches the eye depends on the sheen: matt spreads it over all directions and so greys dark colours,
 * gloss sends it elsewhere and deepens them.
 */
import type { Sheen } from '#core/muster';
import { possible } from './film';

/** Mirrored at the outside of a film of index 1.5, straight on (Fresnel); and thrown back inside, spread light (Saunderson's usual 0.6). */
const OUTSIDE = 0.04;
const INSIDE = 0.6;

/** Share of the mirrored light that reaches an eye beside the lamp; from memory, and as dark as colours on a screen are chosen. */
const TO_THE_EYE: Readonly<Record<Sheen, number>> = {
  matt: 0.15,
  satin: 0.07,
  gloss: 0.01,
  metal: 0.1,
  wet: 0.005,
};

/** Seen from outside, of what a film reflects within. */
export function seenThrough(within: number, sheen: Sheen): number {
  return OUTSIDE * TO_THE_EYE[sheen] + ((1 - OUTSIDE) * (1 - INSIDE) * within) / (1 - INSIDE * within);
}

/** Reflected within, of what is seen from outside. */
export function withinOf(seen: number, sheen: Sheen): number {
  const light = Math.max(0, seen - OUTSIDE * TO_THE_EYE[sheen]);
  return possible(light / ((1 - OUTSIDE) * (1 - INSIDE) + INSIDE * light));
}
