/** Layers that take several goes: face by face, and again until it looks right. */
import { filmFactor } from '#core/materials';
import type { Layer } from '#core/muster';

/** Drying minutes until the next layer may go on, at 21 °C and 50 %, with this film and this aid. */
export function dryingOf(layer: Layer): number {
  return layer.dryMinutes * filmFactor(layer.film ?? 'normal', layer.aid ?? 'none');
}

/** Hands-on minutes of a layer on one piece, all coats and passes. */
export function hands(layer: Layer): number {
  return layer.minutes * layer.coats * (layer.passes?.expected ?? 1);
}

/** How often a layer is taken up. */
export function roundsOf(layer: Layer): number {
  return (layer.passes?.expected ?? 1) * (layer.faces?.count ?? 1);
}

/** Waits between the rounds, drying minutes; one fewer than there are rounds. */
export function waitsBetween(layer: Layer): number[] {
  const faces = layer.faces?.count ?? 1;
  return Array.from({ length: roundsOf(layer) - 1 }, (_, k) =>
    (k + 1) % faces === 0 ? (layer.passes?.waitMinutes ?? 0) : (layer.faces?.waitMinutes ?? 0),
  );
}

/** The first time takes about a quarter longer (from memory): so much is planned for it. */
const FIRST_TIME = 1.25;

/** What is planned for one round on one tray or piece: more where it is done for the first time. */
export function plannedMinutes(layer: Layer, count: number): number {
  const minutes = workMinutes(layer, count);
  return layer.isFirstTime ? Math.ceil(minutes * FIRST_TIME) : minutes;
}

/** Hands-on minutes of one round on one tray or piece: a whole number, at least 1. Faces share the minutes, passes repeat them. */
export function workMinutes(layer: Layer, count: number): number {
  return Math.max(1, Math.ceil((layer.minutes * layer.coats * count) / (layer.faces?.count ?? 1) - 1e-9));
}
