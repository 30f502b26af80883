/** The log as CSV (RFC 4180), one line an entry, nothing left out. */
import Papa from 'papaparse';
import type { LogEntry } from '#core/session';
import { FORMULA } from './formulae';

const COLUMNS = [
  'at',
  'kind',
  'unit',
  'piece',
  'layer',
  'recipe',
  'step',
  'minutes',
  'more_minutes',
  'trouble',
  'cure',
  'dry_minutes',
  'verdict',
  'takes_back',
  'people',
  'celsius',
  'humidity_percent',
  'mixture',
  'is_measured',
  'nth_of_run',
  'shifts_entries',
  'by_minutes',
  'picture',
  'note',
  'act',
  'id',
] as const;

export function writeLogCsv(log: readonly LogEntry[]): string {
  // Numbers stay numbers: as text, a frost of −5 °C would be guarded like a formula.
  const rows = log.map((e) => [
    e.at,
    e.kind,
    e.about?.unit ?? '',
    e.about?.piece ?? '',
    e.about?.layer ?? '',
    e.about?.recipe ?? '',
    'step' in e ? (e.step ?? '') : '',
    'minutes' in e ? e.minutes : '',
    e.kind === 'not-dry' ? e.moreMinutes : '',
    e.kind === 'rework' ? e.trouble : '',
    e.kind === 'rework' ? e.cure : '',
    e.kind === 'rework' ? e.dryMinutes : '',
    e.kind === 'verdict' ? e.verdict : '',
    e.kind === 'taken-back' ? e.entry : '',
    (e.people ?? []).join(' + '),
    e.air ? e.air.celsius : '',
    e.air ? e.air.humidityPercent : '',
    e.kind === 'done' ? (e.mixture ?? '') : '',
    e.kind === 'done' && e.isMeasured !== undefined ? String(e.isMeasured) : '',
    e.kind === 'done' && e.nth !== undefined ? e.nth : '',
    e.kind === 'clock' ? e.entries.join(' ') : '',
    e.kind === 'clock' ? e.byMinutes : '',
    e.kind === 'picture' ? e.data : '',
    e.note ?? '',
    e.act ?? '',
    e.id,
  ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\r\n', escapeFormulae: FORMULA })}\r\n`;
}
