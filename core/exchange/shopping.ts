/** The shopping list as CSV (RFC 4180). */
import Papa from 'papaparse';
import type { Shortage } from '#core/stores';
import { FORMULA } from './formulae';

const COLUMNS = ['needed_on', 'what', 'name', 'missing', 'unit', 'packs', 'price'] as const;

export function writeShoppingCsv(list: readonly Shortage[]): string {
  const rows = list.map((s) => [
    s.day,
    s.what,
    s.name,
    s.unit === 'ml' ? s.missing.toFixed(1) : String(Math.ceil(s.missing)),
    s.unit,
    s.packs === null ? '' : String(s.packs),
    s.price === null ? '' : s.price.toFixed(2),
  ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\r\n', escapeFormulae: FORMULA })}\r\n`;
}
