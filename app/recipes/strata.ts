/** The cut-away of a recipe: for each layer which zone columns it covers, its texture, the gate on its seam. */
import { familyOf, type Texture } from '#core/materials';
import type { Layer, Recipe } from '#core/muster';
import { opensAfter, zonesOf } from '#core/recipe';

export interface Stratum {
  readonly layer: Layer;
  readonly index: number;
  /** runs of neighbouring columns, 1-based [first, last + 1) as CSS grid lines */
  readonly spans: readonly { readonly from: number; readonly to: number }[];
  readonly texture: Texture;
  readonly gate: string | null;
  readonly isSoft: boolean;
  /** height of the stratum in pixels: thicker where more coats or more work go on */
  readonly height: number;
  /** black or white, whichever reads on the paint */
  readonly ink: string;
}

/** Top layer first, as it is drawn. */
export function strataOf(recipe: Recipe): Stratum[] {
  const zones = recipe.zones.map((z) => z.id);
  return recipe.layers
    .map((layer, index): Stratum => {
      const on = zonesOf(recipe, layer);
      const columns = zones.length === 0 ? [0] : zones.flatMap((z, k) => (on.includes(z) ? [k] : []));
      const spans: { from: number; to: number }[] = [];
      for (const k of columns) {
        const last = spans[spans.length - 1];
        if (last && last.to === k + 1) last.to = k + 2;
        else spans.push({ from: k + 1, to: k + 2 });
      }
      return {
        layer,
        index,
        spans,
        texture: familyOf(layer.family).texture,
        gate: gateText(recipe, layer),
        isSoft: layer.window?.closesMinutes == null,
        height: 30 + Math.min(18, Math.round(layer.minutes * layer.coats * 0.8)),
        ink: inkOn(layer.colour),
      };
    })
    .reverse();
}

function gateText(recipe: Recipe, layer: Layer): string | null {
  const w = layer.window;
  if (!w) return null;
  const opens = Math.ceil(opensAfter(layer));
  const through = recipe.layers.find((l) => l.id === w.through);
  const to = through ? ` through ${through.name}` : '';
  if (w.closesMinutes !== null && w.preferMinutes !== null)
    return `${opens}–${w.closesMinutes} min, better by ${w.preferMinutes}${to}`;
  if (w.closesMinutes !== null) return `${opens}–${w.closesMinutes} min${to}`;
  if (w.preferMinutes !== null) return `from ${opens}, better by ${w.preferMinutes} min${to}`;
  return w.opensMinutes === null ? null : `from ${opens} min`;
}

/** Relative luminance by WCAG 2.2; the darker of the two inks where the paint is light. */
function inkOn(colour: string): string {
  const channel = (at: number): number => {
    const c = parseInt(colour.slice(at, at + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  };
  const luminance = 0.2126 * channel(1) + 0.7152 * channel(3) + 0.0722 * channel(5);
  return luminance > 0.18 ? '#000000' : '#ffffff';
}
