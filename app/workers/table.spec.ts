/** Records as columns, and back. */
import { describe, expect, it } from 'vitest';
import { rowsOf, tableOf } from './table';

const there = <T extends object>(rows: readonly T[], own: readonly (keyof T & string)[] = []): readonly T[] =>
  rowsOf(structuredClone(tableOf(rows, own)));

describe('records of one shape', () => {
  it('come back as they went, whatever they hold', () => {
    const rows = [
      { id: 'a', minutes: 2.5, note: null, list: ['x'], maybe: undefined, yes: true },
      { id: 'b', minutes: -0, note: 'n', list: [], maybe: 3, yes: false },
      { id: 'a', minutes: Infinity, note: 'n', list: ['x'], maybe: undefined, yes: true },
    ];
    expect(there(rows)).toStrictEqual(rows);
    expect('columns' in tableOf(rows)).toBe(true);
  });

  it('share again what they shared', () => {
    const unit = { name: 'Reed folk' };
    const [first, second] = there([
      { id: 'a', unit },
      { id: 'b', unit },
    ]);
    expect(first!.unit).toBe(second!.unit);
    expect(first!.unit).toEqual(unit);
  });

  it('have what is their own in columns, null where there is none', () => {
    const rows = [
      { id: 'a', tide: { wet: 1, dry: 2 }, gate: null },
      { id: 'b', tide: { wet: 3, dry: 4 }, gate: { opens: 5, steps: ['c'] } },
    ];
    expect(there(rows, ['tide', 'gate'])).toStrictEqual(rows);
    expect(JSON.stringify(tableOf(rows, ['tide'])).match(/"wet"/g)).toHaveLength(1);
  });
});

describe('records of several shapes, or none', () => {
  it('stay as they are', () => {
    const rows: readonly object[] = [{ id: 'a' }, { id: 'b', note: 'n' }];
    expect(there(rows)).toStrictEqual(rows);
    expect(there([])).toStrictEqual([]);
  });
});
