/** The plan as CSV (RFC 4180: comma, CRLF, quotes doubled), a line a step, with units in the headings. */
import Papa from 'papaparse';
import { familyOf, methodOf } from '#core/materials';
import { dateTimeAfter } from '#core/muster';
import { runsOf, type Plan } from '#core/plan';
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
  /** the number of its run in its session, and who does it with which airbrush where there are several */
  'run',
  'who',
  'tool',
] as const;

/** @returns the text of a .csv file with a heading line */
export function writePlanCsv(plan: Plan): string {
  const at = (minute: number | null | undefined): string =>
    minute == null ? '' : dateTimeAfter(plan.origin, minute);
  const runs = new Map<string, number>();
  for (const session of plan.sessions)
    runsOf(session.steps).forEach((run, k) => {
      for (const step of run) if (!runs.has(step.id)) runs.set(step.id, k + 1);
    });
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
      String(runs.get(s.id) ?? ''),
      s.doer?.who ?? '',
      s.tool ?? '',
    ]);
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\r\n', escapeFormulae: FORMULA })}\r\n`;
}
