/** The log of the bench: what happened, when, to what. Only ever added to; a correction is an entry of its own. */
import * as z from 'zod';
import { dateTimeAfter, minutesSince } from '#core/muster';

const id = z.string().min(1).max(80);
const base = {
  /** unique over all devices */
  id,
  /** local wall time */
  at: z.string().regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/),
  note: z.string().max(1000).optional(),
  /** the same for all that one press wrote: it is taken back as one */
  act: id.optional(),
  /** who was at it, by name */
  people: z.array(z.string().max(120)).max(20).optional(),
  /** the air at the bench at that moment */
  air: z
    .strictObject({ celsius: z.number().min(-30).max(60), humidityPercent: z.number().min(1).max(100) })
    .optional(),
};
const step = z.string().min(1).max(200);
/** Longer than two days nobody is at one run. */
export const MOST_MINUTES = 2880;
/** A small picture as a data address; about half a megabyte at the most. */
export const PICTURE_CHARACTERS = 700_000;

export const entrySchema = z.discriminatedUnion('kind', [
  /** put on, from its beginning to `at`; minutes of hands */
  z.strictObject({
    ...base,
    kind: z.literal('done'),
    step,
    minutes: z.number().min(0).max(MOST_MINUTES),
    /** taken by the clock; without it the planned minutes stand for them, and nothing is learned from them */
    isMeasured: z.boolean().optional(),
    /** the how many-th piece of its run it was, 1 the first */
    nth: z.int().min(1).max(500).optional(),
    /** as it was mixed for this run, with millilitres */
    mixture: z.string().max(400).optional(),
  }),
  /** looked at `at` and found dry, or not yet */
  z.strictObject({ ...base, kind: z.literal('dry'), step }),
  z.strictObject({ ...base, kind: z.literal('not-dry'), step, moreMinutes: z.number().min(1).max(10_080) }),
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
  z.strictObject({ ...base, kind: z.literal('noted'), step: step.optional() }),
  z.strictObject({
    ...base,
    kind: z.literal('picture'),
    step: step.optional(),
    data: z
      .string()
      .max(PICTURE_CHARACTERS, 'is too large')
      .regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/=]+$/, 'is no JPEG, PNG or WebP picture'),
  }),
  /** the machine's clock was wrong when these were written: they happened so many minutes later (negative: sooner) */
  z.strictObject({
    ...base,
    kind: z.literal('clock'),
    entries: z.array(id).min(1).max(2000),
    byMinutes: z.int().min(-5_000_000).max(5_000_000),
  }),
  /** takes an earlier entry back; both stay in the log */
  z.strictObject({ ...base, kind: z.literal('taken-back'), entry: z.string().max(80) }),
]);

export const LOG_FORMAT = 'patient-muster-log/1';
export const logFileSchema = z.strictObject({ format: z.literal(LOG_FORMAT), entries: z.array(entrySchema) });

export type LogEntry = z.infer<typeof entrySchema>;
export type EntryOf<K extends LogEntry['kind']> = Extract<LogEntry, { kind: K }>;

/**
 * An id that sorts by the moment of writing, so that entries of the same minute keep their order.
 * @param stampMs milliseconds, never the same twice on one device
 * @param unique what no other device writes
 */
export function entryId(stampMs: number, unique: string): string {
  return `${Math.max(0, Math.round(stampMs)).toString(36).padStart(9, '0')}-${unique}`;
}

/** The standing entries that the last press wrote, one after another; empty when nothing stands. */
export function lastAct(log: readonly LogEntry[]): LogEntry[] {
  const holds = standing(log);
  const newest = holds[holds.length - 1];
  if (!newest) return [];
  return newest.act === undefined ? [newest] : holds.filter((e) => e.act === newest.act);
}

/** Both logs as one: every entry once, by time, then by id. */
export function mergeLogs(a: readonly LogEntry[], b: readonly LogEntry[]): LogEntry[] {
  const all = new Map<string, LogEntry>();
  for (const e of [...a, ...b]) if (!all.has(e.id)) all.set(e.id, e);
  return [...all.values()].sort((x, y) => x.at.localeCompare(y.at) || x.id.localeCompare(y.id));
}

/**
 * The entries that hold, by time: what was taken back, and the taking back, left out; what a wrong clock wrote, at the time at
 * which it happened. The log itself keeps what it said.
 */
export function standing(log: readonly LogEntry[]): LogEntry[] {
  const gone = new Set(log.flatMap((e) => (e.kind === 'taken-back' ? [e.entry] : [])));
  const holds = log.filter((e) => e.kind !== 'taken-back' && !gone.has(e.id));
  const shift = new Map<string, number>();
  for (const e of holds)
    if (e.kind === 'clock') for (const id of e.entries) shift.set(id, (shift.get(id) ?? 0) + e.byMinutes);
  if (shift.size === 0) return holds;
  return mergeLogs(
    holds.map((e) => (shift.has(e.id) ? { ...e, at: shifted(e.at, shift.get(e.id)!) } : e)),
    [],
  );
}

function shifted(at: string, byMinutes: number): string {
  const day = at.slice(0, 10);
  return dateTimeAfter(day, minutesSince(day, at) + byMinutes);
}

/** A minute or two is no mistake: two devices, a slow tap. */
const ALIKE_MINUTES = 2;

/**
 * Entries that seem to lie in the future: the machine's clock was wrong when they were written, or is wrong now.
 * @param now local wall time
 * @returns what to tell and what to put right, or null when all is well
 */
export function aheadOfClock(
  log: readonly LogEntry[],
  now: string,
): { readonly minutes: number; readonly entries: readonly string[] } | null {
  const holds = standing(log);
  const newest = holds[holds.length - 1];
  if (!newest) return null;
  const day = now.slice(0, 10);
  const ahead = (e: LogEntry): number => minutesSince(day, e.at) - minutesSince(day, now);
  if (ahead(newest) <= ALIKE_MINUTES) return null;
  return { minutes: ahead(newest), entries: holds.filter((e) => ahead(e) > 0).map((e) => e.id) };
}
