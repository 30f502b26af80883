/** Marks that are on a piece, place by place: ticked off its brief, or drawn where the hand put them. */
import type { Layer, Piece, Unit } from '#core/muster';
import { standing, type EntryOf, type LogEntry, type New } from '#core/log';

export type PlacedMark = EntryOf<'placed'>;
/** Where on a piece: centre and half axes, 0 to 1 of the face. */
export type MarkPlace = Pick<PlacedMark, 'face' | 'x' | 'y' | 'rx' | 'ry'>;
/** A place that a brief names. */
type Named = Pick<PlacedMark, 'face' | 'where'>;

/** A place of the brief that has what it is to have. */
export function tickedEntry(unit: Unit, piece: Piece, layer: Layer, area: MarkPlace & Named): New<LogEntry> {
  return entryOf(unit, piece, layer, area, area.where, false);
}

/** A place that the brief did not name. */
export function drawnEntry(unit: Unit, piece: Piece, layer: Layer, place: MarkPlace): New<LogEntry> {
  return entryOf(unit, piece, layer, place, 'drawn by hand', true);
}

function entryOf(
  unit: Unit,
  piece: Piece,
  layer: Layer,
  { face, x, y, rx, ry }: MarkPlace,
  where: string,
  isDrawn: boolean,
): New<LogEntry> {
  return {
    kind: 'placed',
    piece: piece.id,
    layer: layer.id,
    text: `${unit.name}, ${piece.name}: ${layer.name}, ${face}, ${where}`.slice(0, 400),
    face,
    where: where.slice(0, 80),
    ...(isDrawn ? { isDrawn: true as const } : {}),
    x,
    y,
    rx,
    ry,
  };
}

/** What is on a piece, in the order in which it was told. */
export function placedMarks(log: readonly LogEntry[], piece: string): PlacedMark[] {
  return standing(log).filter((e): e is PlacedMark => e.kind === 'placed' && e.piece === piece);
}

/** Is this place of the brief among what is done? By face and name: another brief keeps what it shares with the one before. */
export function markOn(done: readonly PlacedMark[], layer: string, area: Named): PlacedMark | null {
  return (
    done.find((m) => !m.isDrawn && m.layer === layer && m.face === area.face && m.where === area.where) ??
    null
  );
}
