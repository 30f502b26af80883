import type { Layer, Piece, Recipe, Unit } from '#core/muster';

/** Which layer of which piece an operation stands for. */
export interface StepRef {
  readonly unit: Unit;
  readonly piece: Piece;
  /** as this piece follows it: substitutes taken, cut to its finish level, begun part-way */
  readonly recipe: Recipe;
  readonly layer: Layer;
  readonly layerIndex: number;
  /** 1 … `rounds`: face by face, or again until it looks right */
  readonly round: number;
  readonly rounds: number;
  /** the drying clock by which it dries, as the problem calls it; null: nothing dries */
  readonly clock: string | null;
  /** what it is put on with, where the bench has several airbrushes: `airbrush “Fine”` */
  readonly tool: string | null;
}

export function operationId(piece: Pick<Piece, 'id'>, layer: Pick<Layer, 'id'>, round = 1): string {
  return round === 1 ? `${piece.id}.${layer.id}` : `${piece.id}.${layer.id}~${round}`;
}
/** When a piece is finished: nothing is done then. No layer can be called so: ids of steps have a dot there. */
export function doneId(piece: Pick<Piece, 'id'>): string {
  return `${piece.id}!done`;
}

export function readyId(unit: Unit): string {
  return `${unit.id}!ready`;
}
