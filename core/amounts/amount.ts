/** Millilitres of a layer: area × wet film × coats ÷ what is not lost (common practice, no source). */
import { familyOf, REACH, THICKNESS, type MethodId } from '#core/materials';
import type { Layer, Piece, Recipe } from '#core/muster';
import { areaOf, shareOf } from './area';

/** Wet film of one coat of plain paint in micrometres; from memory. */
const PLAIN_UM: Readonly<Record<MethodId, number>> = {
  airbrush: 20,
  brush: 45,
  can: 50,
  sponge: 8,
  hand: 25,
  pour: 2500,
};
/** Shares that miss the piece: half or more by airbrush on small parts, little by brush. */
const LOSS: Readonly<Record<MethodId, number>> = {
  airbrush: 0.55,
  can: 0.7,
  brush: 0.1,
  sponge: 0.3,
  hand: 0.1,
  pour: 0.05,
};

export interface Amount {
  /** all that is mixed, what is kept included */
  readonly ml: number;
  /** of it, kept for touching up */
  readonly keptMl: number;
  /** in words: area, film, coats, loss, or that it is the user's own figure */
  readonly from: string;
}

/** What a layer takes on one piece or tray, all coats and passes; 0 where nothing is put on. */
export function amountOf(recipe: Recipe, layer: Layer, piece: Piece): Amount {
  const { ml, from } = putOn(recipe, layer, piece);
  const keptMl = ml > 0 ? (layer.reserveMl ?? 0) * piece.count : 0;
  return keptMl > 0
    ? { ml: ml + keptMl, keptMl, from: `${from}, and ${round(keptMl)} ml kept for touching up` }
    : { ml, keptMl, from };
}

function putOn(recipe: Recipe, layer: Layer, piece: Piece): Omit<Amount, 'keptMl'> {
  const { role, wetUm } = familyOf(layer.family);
  if (wetUm === 0) return { ml: 0, from: 'nothing is put on' };
  if (layer.millilitres !== undefined)
    return { ml: layer.millilitres * piece.count, from: `your own figure, ${layer.millilitres} ml a piece` };
  const area = areaOf(piece);
  const share = shareOf(recipe, layer) * REACH[layer.reach ?? 'all'].share;
  const passes = layer.passes?.expected ?? 1;
  const um =
    role === 'pour' && layer.depthMm !== undefined
      ? (layer.depthMm * 1000) / passes
      : (wetUm ?? PLAIN_UM[layer.method]) * THICKNESS[layer.film ?? 'normal'];
  const loss = LOSS[layer.method];
  // 1 cm² × 1 µm = 0.0001 cm³ = 0.0001 ml
  const ml = (area.cm2 * share * piece.count * um * 1e-4 * layer.coats * passes) / (1 - loss);
  const parts = [
    `${round(area.cm2)} cm² (${area.from})`,
    ...(share < 1 ? [`× ${Math.round(share * 100)} % of it`] : []),
    ...(piece.count > 1 ? [`× ${piece.count}`] : []),
    `× ${round(um)} µm wet`,
    ...(layer.coats * passes > 1 ? [`× ${layer.coats * passes} coats`] : []),
    `÷ ${Math.round((1 - loss) * 100)} % that lands`,
  ];
  return { ml, from: parts.join(' ') };
}

function round(x: number): number {
  return x >= 10 ? Math.round(x) : Math.round(x * 10) / 10;
}
