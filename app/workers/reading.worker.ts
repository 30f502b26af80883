/** Reads long lists and calendars away from the page. */
import { expose } from 'comlink';
import { readBusy } from '#core/exchange';
import {
  cellsOf,
  columnsOf,
  readTable,
  withDrafts,
  type Column,
  type Known,
  type ReadTable,
  type UnitDraft,
} from '#core/entry';
import {
  admit,
  differences,
  type Admitted,
  type LocalDateTime,
  type Muster,
  type Recipe,
} from '#core/muster';

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

/** The muster with units made of drafts, checked: thousands of them take longer than a page may stand still. */
export function makeDrafts(
  muster: Muster,
  drafts: readonly UnitDraft[],
  library: readonly Recipe[],
  table: LocalDateTime,
): Admitted {
  const made = withDrafts(muster, drafts, library, table, () => crypto.randomUUID());
  return admit(muster, differences(muster, made));
}

expose({ readList, readBusy, makeDrafts });
