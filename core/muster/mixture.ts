/** Mixtures: made of products, or in the user's own words (“cream 3:1”, “brown, water, medium 2:1:1”); either way read in components. */
import { AmountError, familyOf, parseRatio, sharesOf, toNumber } from '#core/materials';
import { MIXTURE_LETTERS, NAME_LETTERS, type Layer, type MadeOf, type Product } from './document';

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

/** What of a layer says how it is mixed. */
export type Mixed = Pick<Layer, 'family' | 'mixture' | 'name' | 'madeOf' | 'wetWith'>;

const RATIO = /(\d+(?:\.\d+)?(?:\s*:\s*\d+(?:\.\d+)?){1,5})/;

/**
 * What a layer is mixed of. Two loads that are put on wet into wet count half each.
 * @throws AmountError for an impossible ratio in the user's own words
 */
export function mixOf(layer: Mixed): Mix {
  const one = layer.madeOf ? ofProducts(layer.madeOf) : ofWords(layer);
  if (layer.wetWith === undefined) return one;
  const other = ofWords({ ...layer, mixture: layer.wetWith });
  const half = ({ name, share }: Component): Component => ({ name, share: share / 2 });
  return { components: [...one.components, ...other.components].map(half), ratio: one.ratio };
}

function ofProducts({ parts }: MadeOf): Mix {
  const all = parts.reduce((sum, p) => sum + p.parts, 0);
  return {
    components: parts.map(({ name, parts: own }) => ({ name, share: own / all })),
    ratio: parts.length > 1 ? ratioOf(parts) : '',
  };
}

function ofWords(layer: Pick<Layer, 'family' | 'mixture' | 'name'>): Mix {
  const text = layer.mixture.trim() || layer.name.trim();
  const found = RATIO.exec(text);
  if (!found) return { components: [{ name: text.split(',')[0]!.trim(), share: 1 }], ratio: '' };
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
  return { components: components.filter((c) => c.share > 0), ratio: found[1]!.replace(/\s/g, '') };
}

const ratioOf = (parts: MadeOf['parts']): string => parts.map((p) => String(p.parts)).join(':');

/** A mixture made of products, in words: “cream, water 3:1, by eye to the card on the lid”. Alike in parts is alike in words, and one load. */
export function mixtureWords({ parts, target }: MadeOf): string {
  const names = parts.map((p) => p.name).join(', ');
  const ratio = parts.length > 1 ? ` ${ratioOf(parts)}` : '';
  const eye = target === undefined ? '' : `, by eye to ${target}`;
  return `${names}${ratio}${eye}`.slice(0, MIXTURE_LETTERS);
}

/** Stands in a mixture for a product that nobody has chosen yet: it is asked about, and never bought. */
export const TO_BE_CHOSEN = 'to be chosen';

/** What thins or carries, and is no paint itself. */
export const isThinner = (name: string): boolean => /\b(water|thinner|medium|spirit)\b/i.test(name);

/** What a layer is mixed of; nothing where its words cannot be read (which a check tells). */
export function componentsOf(layer: Mixed): readonly Component[] {
  return read(layer)?.components ?? [];
}

/** Share of paint in a layer's mixture; null where it says nothing of it, or nothing that can be read. */
export function paintShareOf(layer: Mixed): number | null {
  const mix = read(layer);
  if (mix === null || mix.ratio === '') return null;
  return mix.components.reduce((sum, c) => (isThinner(c.name) ? sum : sum + c.share), 0);
}

/** Layers are never changed, only replaced: each is read once. */
const already = new WeakMap<Mixed, Mix | null>();

function read(layer: Mixed): Mix | null {
  const known = already.get(layer);
  if (known !== undefined) return known;
  const mix = readAnew(layer);
  already.set(layer, mix);
  return mix;
}

function readAnew(layer: Mixed): Mix | null {
  try {
    return mixOf(layer);
  } catch (error) {
    if (error instanceof AmountError) return null;
    throw error;
  }
}

/**
 * A layer's mixture as parts, for those who want to say it in parts: what stands in it by name is the product of that name.
 * @param products on the shelf
 * @returns none where its words cannot be read, or there are none
 */
export function partsOf(layer: Mixed, products: readonly Product[]): Omit<MadeOf['parts'][number], 'id'>[] {
  if (layer.madeOf) return layer.madeOf.parts;
  if (layer.mixture.trim() === '') return [];
  const components = componentsOf({ ...layer, wetWith: undefined });
  const least = Math.min(...components.map((c) => c.share));
  return components.map(({ name, share }) => {
    const product = products.find((p) => p.name.trim().toLowerCase() === name.trim().toLowerCase());
    return {
      ...(product ? { product: product.id } : {}),
      name: product?.name ?? name.slice(0, NAME_LETTERS),
      parts: Math.round((share / least) * 100) / 100,
    };
  });
}
