/** Many records of one shape as columns, for the way between two threads. */

/** Numbers by themselves; of anything else each thing once, and which of them stands where (-1: null). */
type Column =
  | { readonly numbers: Float64Array }
  | { readonly at: Int32Array; readonly each: readonly unknown[] }
  | { readonly at: Int32Array; readonly own: Table<object> };

/** Where records are of several shapes they stay as they are. */
export type Table<T extends object> =
  | { readonly size: number; readonly columns: readonly (readonly [keyof T & string, Column])[] }
  | { readonly rows: readonly T[] };

/**
 * @param own fields that hold a record or null, and nobody else has it: those go in columns too
 * @returns columns where all records have the same fields, in the same order; else the records
 */
export function tableOf<T extends object>(
  rows: readonly T[],
  own: readonly (keyof T & string)[] = [],
): Table<T> {
  const [first] = rows;
  if (!first || !rows.every((row) => isOfShape(row, Object.keys(first)))) return { rows };
  return {
    size: rows.length,
    columns: (Object.keys(first) as (keyof T & string)[]).map((key) => [
      key,
      columnOf(
        rows.map((row) => row[key]),
        own.includes(key),
      ),
    ]),
  };
}

/** The records that a table was made of; what several of them shared they share again. */
export function rowsOf<T extends object>(table: Table<T>): readonly T[] {
  if ('rows' in table) return table.rows;
  const rows = Array.from({ length: table.size }, () => ({}) as Record<string, unknown>);
  for (const [key, column] of table.columns) {
    if ('numbers' in column) rows.forEach((row, k) => (row[key] = column.numbers[k]));
    else {
      const each = 'own' in column ? rowsOf(column.own) : column.each;
      rows.forEach((row, k) => (row[key] = column.at[k]! < 0 ? null : each[column.at[k]!]));
    }
  }
  return rows as readonly T[];
}

function columnOf(values: readonly unknown[], isOwn: boolean): Column {
  if (values.every((v) => typeof v === 'number')) return { numbers: Float64Array.from(values) };
  const known = new Map<unknown, number>();
  const at = Int32Array.from(values, (value) => {
    if (value === null) return -1;
    const place = known.get(value) ?? known.size;
    known.set(value, place);
    return place;
  });
  const each = [...known.keys()];
  return isOwn ? { at, own: tableOf(each as object[]) } : { at, each };
}

function isOfShape(row: object, keys: readonly string[]): boolean {
  const own = Object.keys(row);
  return own.length === keys.length && own.every((key, k) => key === keys[k]);
}
