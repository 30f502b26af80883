/** How the drawing of the plan follows what is seen, without a screen. */
import { describe, expect, it } from 'vitest';
import { followed, type Shown } from './follow';
import type { Body, Row } from './rows';
import { timeAxis } from './timeAxis';

const axis = timeAxis([], 1);

/** A row with a tile every hundred pixels. */
function row(key: string): Row {
  const tiles = Array.from({ length: 40 }, (_, k) => ({
    key: k,
    bodies: Array.from({ length: 3 }, () => ({}) as Body),
    from: 100 * k + 10,
    to: 100 * k + 90,
  }));
  const unit = {} as Row['unit'];
  return {
    key,
    unit,
    piece: null,
    y: 0,
    height: 90,
    base: 60,
    tideHeight: 30,
    covers: () => [],
    tiles: () => tiles,
  };
}

/** Tiles of a row that are drawn. */
function drawn(shown: Shown, key: string): readonly number[] {
  const at = shown.get(key);
  return at
    ? at.row.tiles().flatMap((t) => (t.to >= at.span.from && t.from <= at.span.to ? [t.key] : []))
    : [];
}

const count = (shown: Shown): number =>
  [...shown.keys()].reduce((sum, key) => sum + drawn(shown, key).length, 0);
const last = (turns: readonly Shown[]): Shown => turns[turns.length - 1]!;

describe('what is drawn of the plan', () => {
  const rows = ['a', 'b', 'c'].map(row);
  const span = { from: 0, to: 2000 };

  it('is in the end every row over all that is seen', () => {
    const shown = last([...followed(new Map(), rows, axis, span)]);
    expect([...shown.keys()]).toEqual(['a', 'b', 'c']);
    for (const { key } of rows) expect(drawn(shown, key)).toEqual(Array.from({ length: 20 }, (_, k) => k));
  });

  it('grows little by little, and never shrinks', () => {
    let before = 0;
    for (const shown of followed(new Map(), rows, axis, span)) {
      // three runs a tile, twenty-four runs a frame
      expect(count(shown) - before).toBeLessThanOrEqual(8);
      expect(count(shown)).toBeGreaterThanOrEqual(before);
      before = count(shown);
    }
    expect(before).toBe(60);
  });

  it('takes one frame where only little comes into sight, and none of what was seen goes meanwhile', () => {
    const before = last([...followed(new Map(), rows, axis, span)]);
    const turns = [...followed(before, rows, axis, { from: 100, to: 2100 })];
    expect(turns).toHaveLength(1);
    expect(drawn(last(turns), 'b')).toContain(20);
    expect(drawn(last(turns), 'b')).not.toContain(0);
  });

  it('lets a row go that is seen no more', () => {
    const before = last([...followed(new Map(), rows, axis, span)]);
    const [first] = followed(before, rows.slice(1), axis, span);
    expect([...first!.keys()]).toEqual(['b', 'c']);
  });

  it('keeps an older drawing of a row until the new one takes its place', () => {
    const before = last([...followed(new Map(), rows, axis, span)]);
    const anew = ['a', 'b', 'c'].map(row);
    const turns = [...followed(before, anew, axis, span)];
    for (const shown of turns) expect(shown.size).toBe(3);
    expect(turns[0]!.get('c')!.row).toBe(rows[2]);
    expect(last(turns).get('c')!.row).toBe(anew[2]);
  });
});
