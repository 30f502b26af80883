/** The log as CSV (RFC 4180), one line an entry, nothing left out. */
import Papa from 'papaparse';
import type { LogEntry } from '#core/session';

const COLUMNS = [
  'at',
  'kind',
  'step',
  'minutes',
  'more_minutes',
  'trouble',
  'cure',
  'dry_minutes',
  'verdict',
  'takes_back',
  'note',
  'id',
] as const;

export function writeLogCsv(log: readonly LogEntry[]): string {
  const rows = log.map((e) => [
    e.at,
    e.kind,
    'step' in e ? e.step : '',
    'minutes' in e ? String(e.minutes) : '',
    e.kind === 'not-dry' ? String(e.moreMinutes) : '',
    e.kind === 'rework' ? e.trouble : '',
    e.kind === 'rework' ? e.cure : '',
    e.kind === 'rework' ? String(e.dryMinutes) : '',
    e.kind === 'verdict' ? e.verdict : '',
    e.kind === 'taken-back' ? e.entry : '',
    e.note ?? '',
    e.id,
  ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\r\n', escapeFormulae: true })}\r\n`;
}
