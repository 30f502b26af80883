/** A table in columns, the first left, the others right. */
export function table(head: readonly string[], rows: readonly (readonly string[])[]): string {
  const all = [head, ...rows];
  const width = head.map((_, c) => Math.max(...all.map((r) => (r[c] ?? '').length)));
  const line = (r: readonly string[]): string =>
    r.map((cell, c) => (c === 0 ? cell.padEnd(width[c]!) : cell.padStart(width[c]!))).join('  ');
  return [line(head), width.map((w) => '-'.repeat(w)).join('  '), ...rows.map(line)].join('\n');
}

export const figure = (x: number | null | undefined, digits = 0): string =>
  x === null || x === undefined
    ? '–'
    : x.toLocaleString('en', { minimumFractionDigits: digits, maximumFractionDigits: digits });

export const percent = (x: number): string => `${(100 * x).toFixed(1)} %`;
