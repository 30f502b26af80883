/** The log of the bench: what happened, when, to what. Only ever added to; a correction is an entry of its own. */
import * as z from 'zod';

const base = {
  /** unique over all devices */
  id: z.string().min(1).max(80),
  /** local wall time */
  at: z.string().regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/),
  note: z.string().max(1000).optional(),
};
const step = z.string().min(1).max(200);
const air = z
  .object({ celsius: z.number().min(-30).max(60), humidityPercent: z.number().min(1).max(100) })
  .optional();

export const entrySchema = z.discriminatedUnion('kind', [
  /** put on, from its beginning to `at`; minutes of hands */
  z.strictObject({ ...base, kind: z.literal('done'), step, minutes: z.number().min(0).max(2880), air }),
  /** looked at `at` and found dry, or not yet */
  z.strictObject({ ...base, kind: z.literal('dry'), step, air }),
  z.strictObject({
    ...base,
    kind: z.literal('not-dry'),
    step,
    moreMinutes: z.number().min(1).max(10_080),
    air,
  }),
  z.strictObject({ ...base, kind: z.literal('skipped'), step }),
  z.strictObject({
    ...base,
    kind: z.literal('rework'),
    step,
    trouble: z.string().max(80),
    cure: z.string().max(200),
    minutes: z.number().min(0).max(600),
    dryMinutes: z.number().min(0).max(20_160),
  }),
  z.strictObject({ ...base, kind: z.literal('verdict'), step, verdict: z.enum(['approved', 'changed']) }),
  z.strictObject({ ...base, kind: z.literal('stopped') }),
  z.strictObject({ ...base, kind: z.literal('noted') }),
  /** takes an earlier entry back; both stay in the log */
  z.strictObject({ ...base, kind: z.literal('taken-back'), entry: z.string().max(80) }),
]);

export const LOG_FORMAT = 'patient-muster-log/1';
export const logFileSchema = z.strictObject({ format: z.literal(LOG_FORMAT), entries: z.array(entrySchema) });

export type LogEntry = z.infer<typeof entrySchema>;
export type EntryOf<K extends LogEntry['kind']> = Extract<LogEntry, { kind: K }>;

/** Both logs as one: every entry once, by time, then by id. */
export function mergeLogs(a: readonly LogEntry[], b: readonly LogEntry[]): LogEntry[] {
  const all = new Map<string, LogEntry>();
  for (const e of [...a, ...b]) if (!all.has(e.id)) all.set(e.id, e);
  return [...all.values()].sort((x, y) => x.at.localeCompare(y.at) || x.id.localeCompare(y.id));
}

/** The entries that hold: what was taken back, and the taking back, left out. */
export function standing(log: readonly LogEntry[]): LogEntry[] {
  const gone = new Set(log.flatMap((e) => (e.kind === 'taken-back' ? [e.entry] : [])));
  return log.filter((e) => e.kind !== 'taken-back' && !gone.has(e.id));
}
