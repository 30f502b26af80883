/** The same without an airbrush. */
import type { Layer } from '#core/muster';

/** A brush takes longer over the same surface (common practice, no source). */
const SLOWER = 2.5;

/** A sprayed layer by brush, in more minutes; any other as it is. */
export function layerByBrush(layer: Layer): Layer {
  if (layer.method !== 'airbrush') return layer;
  const { nozzleMm, pressureBar, ...rest } = layer;
  void nozzleMm;
  void pressureBar;
  return { ...rest, method: 'brush', minutes: Math.ceil(layer.minutes * SLOWER) };
}
