import type { Layer } from '#core/muster';

/** What an airbrush is loaded with, or what lies ready on the table: a run is one load (rule 9 of the kernel's format). */
export function loadOf(layer: Layer): string {
  const second = layer.wetWith === undefined ? '' : ` and ${layer.wetWith.trim().toLowerCase()}`;
  return `${layer.family}: ${(layer.mixture.trim() || layer.name.trim()).toLowerCase()}${second}`;
}
