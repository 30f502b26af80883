/** A mixture as the user wrote it (“cream 3:1”, “brown, water, medium 2:1:1”), in components and cups. */
import { AmountError, dropsOf, familyOf, parseRatio, sharesOf, toNumber } from '#core/materials';
import type { Layer } from '#core/muster';

export interface Component {
  readonly name: string;
  /** share of the whole */
  readonly share: number;
}

export interface Mix {
  readonly components: readonly Component[];
  /** the ratio as written; empty when undiluted or by eye */
  readonly ratio: string;
}

const RATIO = /(\d+(?:\.\d+)?(?::\d+(?:\.\d+)?){1,5})/;

/**
 * Reads a layer's mixture.
 * @throws AmountError for an impossible ratio
 */
export function mixOf(layer: Pick<Layer, 'family' | 'mixture' | 'name'>): Mix {
  const text = layer.mixture.trim() || layer.name.trim();
  const found = RATIO.exec(text);
  if (!found) return { components: [{ name: nameIn(text), share: 1 }], ratio: '' };
  const shares = sharesOf(parseRatio(found[1]!)).map(toNumber);
  const names = text
    .replace(found[1]!, '')
    .split(',')
    .map((n) => n.trim())
    .filter((n) => n !== '');
  if (names.length > shares.length)
    throw new AmountError(
      `“${text}” names ${names.length} components and has a ratio of ${shares.length} parts.`,
    );
  const components = shares.map((share, k) => ({
    name:
      names[k] ?? (k === shares.length - 1 ? familyOf(layer.family).thinner : `${layer.name}, part ${k + 1}`),
    share,
  }));
  return { components: components.filter((c) => c.share > 0), ratio: found[1]! };
}

function nameIn(text: string): string {
  return text.split(',')[0]!.trim();
}

export interface CupPlan {
  readonly ml: number;
  readonly cups: number;
  readonly refills: number;
  /** each component, millilitres and drops, of one full cup and of all */
  readonly components: readonly { readonly name: string; readonly ml: number; readonly drops: number }[];
  /** what a mix of whole drops leaves over */
  readonly leftMl: number;
}

/**
 * So much of a mix, by cups.
 * @throws AmountError for a cup of nothing
 */
export function cupsFor(mix: Mix, ml: number, cupMl: number): CupPlan {
  if (!(cupMl > 0)) throw new AmountError('A cup must hold more than 0 ml.');
  if (!(ml >= 0) || ml > 100_000) throw new AmountError(`${ml} ml cannot be mixed here.`);
  const components = mix.components.map((c) => {
    const drops = ml === 0 ? 0 : Math.max(1, dropsOf(ml * c.share));
    return { name: c.name, ml: ml * c.share, drops };
  });
  const mixed = components.reduce((sum, c) => sum + c.drops * 0.05, 0);
  const cups = Math.ceil(ml / cupMl - 1e-9);
  return { ml, cups, refills: Math.max(0, cups - 1), components, leftMl: Math.max(0, mixed - ml) };
}
