import { isPaint } from '#core/recipe';
import type { Layer } from '#core/muster';

/** What an airbrush is loaded with, or what lies ready on the table: a run is one load (rule 9 of the kernel's format). */
export function loadOf(layer: Layer): string {
  const second = layer.wetWith === undefined ? '' : ` and ${layer.wetWith.trim().toLowerCase()}`;
  return `${layer.family}: ${inCup(layer).toLowerCase()}${second}`;
}

/** Paint that nobody has named is at least of its colour: two “base colours” are not one load. */
function inCup(layer: Layer): string {
  const mixture = layer.mixture.trim();
  if (mixture !== '') return mixture;
  return isPaint(layer) ? `${layer.name.trim()} ${layer.colour}` : layer.name.trim();
}
