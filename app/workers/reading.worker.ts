/** Reads long lists and calendars away from the page. */
import { expose } from 'comlink';
import { readBusy } from '#core/exchange';
import { cellsOf, columnsOf, readTable, type Column, type Known, type ReadTable } from '#core/entry';

export interface ReadList extends ReadTable {
  readonly columns: readonly Column[];
  readonly headings: readonly string[];
  /** the first rows, to look at */
  readonly sample: readonly (readonly string[])[];
  readonly rows: number;
}

const SAMPLE = 4;

/** @param columns as the user has said; null: as they are understood */
export function readList(text: string, known: Known, columns: readonly Column[] | null): ReadList {
  const table = cellsOf(text);
  const own = columns?.length === table.headings.length ? columns : columnsOf(table, known);
  return {
    ...readTable(table, own, known),
    columns: own,
    headings: table.headings,
    sample: table.rows.slice(0, SAMPLE),
    rows: table.rows.length,
  };
}

expose({ readList, readBusy });
