/** How what is drawn of the plan follows what is seen: so much a frame, that the page never stands still. */
import type { Span } from './planRow';
import type { Row } from './rows';
import type { TimeAxis } from './timeAxis';

/** A row as it is drawn, and from where to where. */
export interface ShownRow {
  readonly row: Row;
  readonly axis: TimeAxis;
  readonly span: Span;
}

export type Shown = ReadonlyMap<string, ShownRow>;

/** So many runs are drawn anew in a frame, unless a single turn of a row has more. */
const BODIES_A_FRAME = 24;
/** A row that was not seen before grows by so many pixels a turn. */
const WIDTH_A_TURN = 400;

/**
 * What to show, frame by frame, until all `rows` are drawn over the whole `span` (pixels of the axis).
 * Rows that are seen no more are gone at once; of others what was drawn stays until it is drawn anew.
 */
export function* followed(
  before: Shown,
  rows: readonly Row[],
  axis: TimeAxis,
  span: Span,
): Generator<Shown, void, undefined> {
  const now = new Map<string, ShownRow>();
  for (const { key } of rows) {
    const old = before.get(key);
    if (old) now.set(key, old);
  }
  let drawn = 0;
  for (const row of rows)
    for (const next of turnsOf(now.get(row.key), { row, axis, span })) {
      const bodies = newBodies(now.get(row.key), next);
      if (drawn > 0 && drawn + bodies > BODIES_A_FRAME) {
        yield new Map(now);
        drawn = 0;
      }
      now.set(row.key, next);
      drawn += bodies;
    }
  yield now;
}

/** By which steps one row comes to be drawn as it should be. */
function turnsOf(old: ShownRow | undefined, whole: ShownRow): ShownRow[] {
  if (old && isSameDrawing(old, whole)) return old.span === whole.span ? [] : [whole];
  return widening(whole.span).map((span) => ({ ...whole, span }));
}

/** The span from its left on, wider every turn; last the span itself. */
export function widening(span: Span): Span[] {
  const turns: Span[] = [];
  for (let to = span.from + WIDTH_A_TURN; to < span.to; to += WIDTH_A_TURN)
    turns.push({ from: span.from, to });
  return [...turns, span];
}

/** How many runs it draws that were not drawn before. */
function newBodies(old: ShownRow | undefined, next: ShownRow): number {
  const isKnown = old && isSameDrawing(old, next);
  return next.row
    .tiles()
    .filter((t) => overlaps(t, next.span) && !(isKnown && overlaps(t, old.span)))
    .reduce((sum, t) => sum + t.bodies.length, 0);
}

function isSameDrawing(a: ShownRow, b: ShownRow): boolean {
  return a.row === b.row && a.axis === b.axis;
}

function overlaps(a: Span, b: Span): boolean {
  return a.to >= b.from && a.from <= b.to;
}
