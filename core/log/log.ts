/** The log of the bench: what happened, when, to what. Only ever added to; a correction is an entry of its own. */
import * as z from 'zod';
import { toDotPath } from 'zod/v4/core';
import { FAMILY_IDS, FILMS, METHOD_IDS } from '#core/materials';
import {
  MIXTURE_LETTERS,
  INSTANT_PATTERN,
  instantOf,
  instantOfWall,
  isRealDate,
  type Instant,
} from '#core/muster';

const id = z.string().min(1).max(80);
const base = {
  /** unique over all devices */
  id,
  /** the moment, the same everywhere */
  at: z
    .string()
    .regex(INSTANT_PATTERN, 'is no instant from 2000 to 2199 (YYYY-MM-DDTHH:mm:ssZ)')
    .refine(isRealDate, 'is no day of the calendar'),
  /** what the step was, in words, so that the log can be read when the recipe has changed or is gone */
  about: z
    .strictObject({
      unit: z.string().max(120),
      piece: z.string().max(120),
      recipe: z.string().max(120),
      layer: z.string().max(200),
      family: z.enum(FAMILY_IDS),
      method: z.enum(METHOD_IDS),
      mixture: z.string().max(MIXTURE_LETTERS),
      coats: z.int().min(1).max(20),
      film: z.enum(FILMS).optional(),
    })
    .optional(),
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
    mixture: z.string().max(MIXTURE_LETTERS).optional(),
    /** what left the bottles for this piece; without it what the plan reckons with */
    used: z
      .array(z.strictObject({ name: z.string().min(1).max(120), ml: z.number().min(0).max(5000) }))
      .max(12)
      .optional(),
    /** what came out of a jar of left-over mix instead */
    fromJar: z.strictObject({ jar: id, ml: z.number().min(0).max(5000) }).optional(),
  }),
  /** so much of a mix is in a jar at this moment; 0: it was thrown out */
  z.strictObject({
    ...base,
    kind: z.literal('jar'),
    jar: id,
    mixture: z.string().min(1).max(MIXTURE_LETTERS),
    family: z.enum(FAMILY_IDS).optional(),
    ml: z.number().min(0).max(5000),
    /** it is good until then */
    until: z.string().regex(INSTANT_PATTERN).refine(isRealDate, 'is no day of the calendar').optional(),
  }),
  /** looked at `at` and found dry, or not yet */
  z.strictObject({ ...base, kind: z.literal('dry'), step }),
  z.strictObject({ ...base, kind: z.literal('not-dry'), step, moreMinutes: z.number().min(1).max(10_080) }),
  /** touched at `at` without a mark: long before anything may go on it */
  z.strictObject({ ...base, kind: z.literal('touch-dry'), step }),
  z.strictObject({ ...base, kind: z.literal('skipped'), step }),
  z.strictObject({
    ...base,
    kind: z.literal('rework'),
    step,
    trouble: z.string().max(80),
    cure: z.string().max(200),
    minutes: z.number().min(0).max(600),
    dryMinutes: z.number().min(0).max(20_160),
    /** steps that have to be done again, in place of work of its own: they count as not done from here on */
    again: z.array(step).min(1).max(200).optional(),
  }),
  z.strictObject({ ...base, kind: z.literal('verdict'), step, verdict: z.enum(['approved', 'changed']) }),
  z.strictObject({ ...base, kind: z.literal('stopped') }),
  z.strictObject({
    ...base,
    kind: z.literal('noted'),
    step: step.optional(),
    /** to be told when this layer is in hand again */
    isForNextTime: z.literal(true).optional(),
  }),
  z.strictObject({
    ...base,
    kind: z.literal('picture'),
    step: step.optional(),
    /** it is the picture of this reference of a recipe, not one of the work */
    reference: id.optional(),
    data: z
      .string()
      .max(PICTURE_CHARACTERS, 'is too large')
      .regex(/^data:image\/(jpeg|png|webp);base64,[A-Za-z0-9+/=]+$/, 'is no JPEG, PNG or WebP picture'),
  }),
  /** what odds each unit was given at this moment, and the steps by which it can be told afterwards whether it was ready */
  z.strictObject({
    ...base,
    kind: z.literal('forecast'),
    units: z
      .array(
        z.strictObject({
          unit: id,
          name: z.string().max(120),
          share: z.number().min(0).max(1),
          due: z.string().regex(INSTANT_PATTERN).refine(isRealDate, 'is no day of the calendar'),
          /** its last steps, with the minutes that each dries */
          last: z.array(z.strictObject({ step, dry: z.number().min(0).max(200_000) })).max(5000),
        }),
      )
      .min(1)
      .max(500),
  }),
  /** a unit looked over before the table: one thing of the list, found good or not; `table` itself: it stands there */
  z.strictObject({
    ...base,
    kind: z.literal('looked'),
    unit: id,
    /** the thing of the list, by its id; and as it read */
    item: z.string().min(1).max(200),
    text: z.string().max(400),
    verdict: z.enum(['good', 'rework']),
  }),
  /** marks of a layer that went on one place of a piece: as its brief said, or where the hand put them */
  z.strictObject({
    ...base,
    kind: z.literal('placed'),
    piece: id,
    layer: id,
    /** as it read */
    text: z.string().max(400),
    face: z.enum(['front', 'back', 'left', 'right', 'top', 'under']),
    where: z.string().max(80),
    isDrawn: z.literal(true).optional(),
    /** centre and half axes, 0 to 1 of the face; y from its top */
    x: z.number().min(0).max(1),
    y: z.number().min(0).max(1),
    rx: z.number().gt(0).max(1),
    ry: z.number().gt(0).max(1),
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

export const LOG_FORMAT = 'patient-muster-log/2';
export const logFileSchema = z.strictObject({ format: z.literal(LOG_FORMAT), entries: z.array(entrySchema) });

const FIRST_FORMAT = 'patient-muster-log/1';

/** An entry of the first format, whose `at` was the bench's wall clock, as one of today. What is no such entry is left as it is. */
export function fromFirstLog(entry: unknown, zone: string): unknown {
  if (typeof entry !== 'object' || entry === null || !('at' in entry) || typeof entry.at !== 'string')
    return entry;
  const isWall = /^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(entry.at) && isRealDate(entry.at);
  return isWall && Number(entry.at.slice(11, 13)) < 24 && Number(entry.at.slice(14)) < 60
    ? { ...entry, at: instantOfWall(zone, entry.at) }
    : entry;
}

/**
 * Reads the text of a log file, of this format or the first.
 * @param zone the bench's time zone, by whose wall the first format kept its times
 * @throws Error in words when the file is no log; nothing of it is taken then
 */
export function readLogFile(text: string, zone: string): LogEntry[] {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new Error('This is no JSON file; nothing is changed.');
  }
  const file =
    typeof value === 'object' && value !== null ? (value as Readonly<Record<string, unknown>>) : {};
  const { format, entries } = file;
  if (typeof format === 'string' && /^patient-muster-log\/\d+$/.test(format) && Number(format.slice(19)) > 2)
    throw new Error(
      `This log was written by a newer program (${format}); this one reads up to ${LOG_FORMAT}. Nothing is changed.`,
    );
  const isFirst = format === FIRST_FORMAT && Array.isArray(entries);
  const read = logFileSchema.safeParse(
    isFirst
      ? { ...file, format: LOG_FORMAT, entries: entries.map((e: unknown) => fromFirstLog(e, zone)) }
      : value,
  );
  if (read.success) return read.data.entries;
  const [first] = read.error.issues;
  throw new Error(
    `This is no log: ${first ? toDotPath(first.path) : ''}: ${first?.message ?? ''}; nothing is changed.`,
  );
}

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
  // Nobody did the odds that were given.
  const holds = standing(log).filter((e) => e.kind !== 'forecast');
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

function shifted(at: Instant, byMinutes: number): Instant {
  return instantOf(new Date(Date.parse(at) + byMinutes * 60_000));
}

/** A minute or two is no mistake: two devices, a slow tap. */
const ALIKE_MINUTES = 2;

/**
 * Entries that seem to lie in the future: the machine's clock was wrong when they were written, or is wrong now.
 * @returns what to tell and what to put right, or null when all is well
 */
export function aheadOfClock(
  log: readonly LogEntry[],
  now: Instant,
): { readonly minutes: number; readonly entries: readonly string[] } | null {
  const holds = standing(log);
  const newest = holds[holds.length - 1];
  if (!newest) return null;
  const ahead = (e: LogEntry): number => Math.round((Date.parse(e.at) - Date.parse(now)) / 60_000);
  if (ahead(newest) <= ALIKE_MINUTES) return null;
  return { minutes: ahead(newest), entries: holds.filter((e) => ahead(e) > 0).map((e) => e.id) };
}
