/** The plan as CSV (RFC 4180: comma, CRLF, quotes doubled), a line a step, with units in the headings. */
import Papa from 'papaparse';
import { familyOf, methodOf } from '#core/materials';
import { dateTimeAfter } from '#core/muster';
import type { Plan } from '#core/plan';
import { FORMULA } from './formulae';

const COLUMNS = [
  'session',
  'start',
  'end',
  'setup_minutes',
  'hands_minutes',
  'unit',
  'piece',
  'count',
  'layer',
  'family',
  'method',
  'coats',
  'mixture',
  'dry_for_next_layer',
  'window_opens',
  'window_closes',
  'better_by',
] as const;

/** @returns the text of a .csv file with a heading line */
export function writePlanCsv(plan: Plan): string {
  const at = (minute: number | null | undefined): string =>
    minute == null ? '' : dateTimeAfter(plan.origin, minute);
  const rows = [...plan.steps.values()]
    .sort((a, b) => a.start - b.start)
    .map((s) => [
      String(plan.sessions.findIndex((x) => x.start <= s.start && s.start < x.end) + 1),
      at(s.start),
      at(s.end),
      String(s.setup),
      String(s.end - s.start),
      s.unit.name,
      s.piece.name,
      String(s.piece.count),
      s.layer.name,
      familyOf(s.layer.family).name,
      methodOf(s.layer.method).name,
      String(s.layer.coats),
      s.layer.mixture,
      at(Math.ceil(s.tide.dryAt)),
      at(s.gate?.opens),
      at(s.gate?.closes),
      at(s.gate?.prefer),
    ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\r\n', escapeFormulae: FORMULA })}\r\n`;
}
