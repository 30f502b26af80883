/** Which steps are over, by what stands in the log. */
import { standing, type EntryOf, type LogEntry } from './log';

export type Ended = ReadonlyMap<string, EntryOf<'done'> | EntryOf<'skipped'>>;

/** Steps that are done or left off, each by the entry that says so; what has to be done again since then is not among them. */
export function endedSteps(log: readonly LogEntry[]): Ended {
  const ended = new Map<string, EntryOf<'done'> | EntryOf<'skipped'>>();
  for (const e of standing(log))
    if (e.kind === 'done' || e.kind === 'skipped') ended.set(e.step, e);
    else if (e.kind === 'rework') for (const step of e.again ?? []) ended.delete(step);
  return ended;
}

/**
 * Cures that hold: work on a step, or its being accepted as it is. Where the step has to be done again since, the cure went off with the
 * coat that it was for.
 */
export function corrections(log: readonly LogEntry[]): EntryOf<'rework'>[] {
  let hold: EntryOf<'rework'>[] = [];
  for (const e of standing(log)) {
    if (e.kind !== 'rework') continue;
    const { again } = e;
    if (again) hold = hold.filter((c) => !again.includes(c.step));
    else hold.push(e);
  }
  return hold;
}

/** What a plan does not go by: a note, a look at what was dry, a picture, a jar, odds that were given, a look before the table, where
 * marks went.
 */
const SILENT: ReadonlySet<LogEntry['kind']> = new Set([
  'noted',
  'dry',
  'touch-dry',
  'picture',
  'jar',
  'forecast',
  'looked',
  'placed',
]);

/** Has anything happened that a plan must go by? */
export function hasHistory(log: readonly LogEntry[]): boolean {
  return standing(log).some((e) => !SILENT.has(e.kind));
}
