/** Lines of a spreadsheet, pasted or from a CSV file, as units and pieces. */
import Papa from 'papaparse';
import { NAME_LETTERS, SIZE_CLASSES, type LocalDateTime } from '#core/muster';
import { readDate } from './dates';
import type { PieceDraft, UnitDraft } from './draft';
import { MOST_PIECES, type Known } from './line';
import { matchRecipe } from './match';

/** What a column may be. */
export const COLUMNS = [
  'unit',
  'piece',
  'pieces',
  'figures',
  'recipe',
  'table',
  'ready',
  'size',
  'importance',
  'ignored',
] as const;
export type Column = (typeof COLUMNS)[number];

export const COLUMN_NAMES: Readonly<Record<Column, string>> = {
  unit: 'unit',
  piece: 'piece or tray',
  pieces: 'how many pieces',
  figures: 'figures on a tray',
  recipe: 'recipe',
  table: 'on the table by',
  ready: 'ready from',
  size: 'size',
  importance: 'importance of 5',
  ignored: 'not taken',
};

/** Headings by which a column is known, whole or their beginning. */
const HEADINGS: Readonly<Record<Exclude<Column, 'ignored'>, RegExp>> = {
  unit: /^(unit|squad|fleet|group|regiment|project|army)/i,
  piece: /^(piece|model|tray|name|part|item|miniature|figure name)/i,
  pieces: /^(pieces|number|count|qty|quantity|how many|amount|n$|#)/i,
  figures: /^(figures|per tray|on (a|the) tray|models)/i,
  recipe: /^(recipe|scheme|finish|paint|stack)/i,
  table: /^(table|date|due|deadline|by|until|on the table|event)/i,
  ready: /^(ready|built|assembled|from)/i,
  size: /^size/i,
  importance: /^(importance|priority|matters)/i,
};

export interface Table {
  /** as they stand above the columns, or "column 1" */
  readonly headings: readonly string[];
  readonly hasHeadings: boolean;
  readonly rows: readonly (readonly string[])[];
  /** number of the first row as an editor counts lines */
  readonly firstLine: number;
}

export interface RowFault {
  /** as an editor counts, from 1; 0: the whole text */
  readonly line: number;
  readonly text: string;
}

export interface ReadTable {
  readonly drafts: readonly UnitDraft[];
  readonly faults: readonly RowFault[];
  readonly pieces: number;
}

/** No cell needs more; what is longer is told and cut. */
const CELL_LETTERS = 2000;
const SAMPLE = 200;
const MOST_SHOWN = 50;

/** Cells of a text with commas, semicolons, tabs or bars between them, quotes and a byte order mark allowed. */
export function cellsOf(text: string): Table {
  const delimiter = text.includes('\t') ? '\t' : '';
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimiter,
    delimitersToGuess: [',', ';', '|'],
  });
  const rows = data.map((row) => row.map((cell) => cell.slice(0, CELL_LETTERS).trim()));
  const width = Math.max(0, ...rows.map((r) => r.length));
  const first = rows[0] ?? [];
  const hasHeadings =
    first.filter((cell) => Object.values(HEADINGS).some((h) => h.test(cell))).length >= Math.min(2, width);
  const headings = Array.from({ length: width }, (_, k) => (hasHeadings && first[k]) || `column ${k + 1}`);
  return {
    headings,
    hasHeadings,
    rows: hasHeadings ? rows.slice(1) : rows,
    firstLine: hasHeadings ? 2 : 1,
  };
}

const LOOKED_AT = 20;

/** Are these cells of a table rather than lines in words? Tabs tell, headings do, and columns of figures. */
export function isTable(text: string): boolean {
  const head = text.split('\n', LOOKED_AT).join('\n');
  if (head.includes('\t')) return true;
  const { headings, hasHeadings, rows } = cellsOf(head);
  if (headings.length < 2) return false;
  if (hasHeadings) return true;
  return (
    rows.length > 1 &&
    rows.every((r) => r.length === headings.length) &&
    headings.some((_, k) => rows.every((r) => /^\d+([.,]\d+)?$/.test(r[k]!)))
  );
}

/** What each column is, by its heading, else by what stands in it. */
export function columnsOf(table: Table, known: Known): Column[] {
  const taken = new Set<Column>();
  const take = (column: Column): Column => {
    if (column !== 'ignored') taken.add(column);
    return column;
  };
  const byHeading = table.headings.map((heading): Column | null => {
    if (!table.hasHeadings) return null;
    const found = (Object.keys(HEADINGS) as (keyof typeof HEADINGS)[]).find(
      (c) => !taken.has(c) && HEADINGS[c].test(heading),
    );
    return found ? take(found) : null;
  });
  const sample = table.rows.slice(0, SAMPLE);
  return byHeading.map((column, k) => {
    if (column) return column;
    const cells = sample.map((r) => r[k] ?? '').filter((c) => c !== '');
    const share = (is: (cell: string) => boolean): number =>
      cells.length === 0 ? 0 : cells.filter(is).length / cells.length;
    const free = (c: Column): boolean => !taken.has(c);
    if (cells.length === 0) return 'ignored';
    const isNumber = share((c) => /^\d{1,4}([.,]0+)?$/.test(c)) > 0.8;
    if (isNumber && free('pieces')) return take('pieces');
    if (isNumber && free('figures')) return take('figures');
    if (free('table') && share((c) => readDate(c, known.today, known.monthFirst) !== null) > 0.8)
      return take('table');
    if (free('size') && share((c) => sizeOf(c) !== undefined) > 0.8) return take('size');
    if (free('recipe') && share((c) => matchRecipe(c, known.recipes) !== null) > 0.6) return take('recipe');
    if (free('unit') && share((c) => /\p{L}/u.test(c)) > 0.5) return take('unit');
    if (free('piece') && share((c) => /\p{L}/u.test(c)) > 0.5) return take('piece');
    return 'ignored';
  });
}

/** The rows as units; what a row lacks or has wrong is told by its line, and that row is left out. */
export function readTable(table: Table, columns: readonly Column[], known: Known): ReadTable {
  const units = new Map<
    string,
    { -readonly [K in keyof UnitDraft]: UnitDraft[K] } & { pieces: PieceDraft[] }
  >();
  const faults: RowFault[] = [];
  const at = (column: Column): number => columns.indexOf(column);
  const recipes = new Map<string, string | null>();
  const recipeOf = (text: string): string | null => {
    if (!recipes.has(text)) recipes.set(text, matchRecipe(text, known.recipes)?.id ?? null);
    return recipes.get(text)!;
  };
  let pieces = 0;
  if (at('unit') < 0 && at('piece') < 0)
    return {
      drafts: [],
      faults: [{ line: 0, text: 'No column names the unit or the piece: choose one.' }],
      pieces,
    };
  table.rows.forEach((row, index) => {
    const cell = (column: Column): string => row[at(column)] ?? '';
    const wrong = (text: string): void => void faults.push({ line: table.firstLine + index, text });
    const unit = cell('unit') || cell('piece');
    const name = cell('piece') || cell('unit');
    if (unit === '') return wrong('names neither unit nor piece.');
    if (unit.length > NAME_LETTERS || name.length > NAME_LETTERS)
      return wrong(`has a name of more than ${NAME_LETTERS} letters: “${unit.slice(0, 30)}…”.`);
    const count = wholeOf(cell('pieces'), 1);
    const figures = wholeOf(cell('figures'), 1);
    if (count === null || count < 1 || count > MOST_PIECES)
      return wrong(`“${shown(cell('pieces'))}” is no number of pieces from 1 to ${MOST_PIECES}.`);
    if (figures === null || figures < 1 || figures > MOST_PIECES)
      return wrong(`“${shown(cell('figures'))}” is no number of figures from 1 to ${MOST_PIECES}.`);
    const dates: Partial<Record<'table' | 'ready', LocalDateTime>> = {};
    for (const column of ['table', 'ready'] as const) {
      if (cell(column) === '') continue;
      const date = readDate(cell(column), known.today, known.monthFirst);
      if (date === null) return wrong(`“${shown(cell(column))}” is no date.`);
      dates[column] = date;
    }
    const importance = wholeOf(cell('importance'), null);
    if (cell('importance') !== '' && (importance === null || importance < 1 || importance > 5))
      return wrong(`“${shown(cell('importance'))}” is no importance from 1 to 5.`);
    const recipe = cell('recipe') === '' ? null : recipeOf(cell('recipe'));
    if (cell('recipe') !== '' && recipe === null)
      wrong(`“${shown(cell('recipe'))}” is no recipe: made without one.`);
    const size = sizeOf(cell('size'));
    const draft = units.get(unit.toLowerCase()) ?? { name: unit, table: null, pieces: [] };
    units.set(unit.toLowerCase(), draft);
    draft.table ??= dates.table ?? null;
    if (dates.ready) draft.readyFrom = dates.ready;
    if (importance !== null) draft.importance = importance;
    pieces += count;
    for (let k = 0; k < count; k++)
      draft.pieces.push({
        name: count > 1 ? `${name.slice(0, NAME_LETTERS - 5)} ${k + 1}` : name,
        figures,
        recipe,
        ...(size ? { size } : {}),
      });
  });
  return { drafts: [...units.values()], faults, pieces };
}

function shown(cell: string): string {
  return cell.length > MOST_SHOWN ? `${cell.slice(0, MOST_SHOWN)}…` : cell;
}

/** A whole number, with points or commas where spreadsheets put them: "12", "12.0", "12,00". */
function wholeOf<T>(text: string, without: T): number | T | null {
  if (text === '') return without;
  const value = Number(text.replace(',', '.'));
  return Number.isInteger(value) ? value : null;
}

function sizeOf(text: string): (typeof SIZE_CLASSES)[number] | undefined {
  return SIZE_CLASSES.find((s) => s === text.toLowerCase());
}
