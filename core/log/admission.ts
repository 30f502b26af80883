/** Which new entries the log takes, and at which moment: nothing is done twice, and nothing is done again before it was reopened. */
import { instantOf, type Instant } from '#core/muster';
import { endedSteps } from './ended';
import { mergeLogs, standing, type LogEntry } from './log';

/** Kinds of entries that decide whether a step is over. */
export const DECIDING_KINDS: readonly LogEntry['kind'][] = [
  'done',
  'skipped',
  'rework',
  'taken-back',
  'clock',
];

/**
 * The entries that the log takes: those it does not have yet, without a second ending of a step that is over already. A rework that asks for
 * a step again opens it, and so does taking its entry back.
 * @param log what is written, in any order; entries of kinds that decide nothing may be missing
 * @param entries what is to be written, in the order in which it happened
 */
export function newEntries(log: readonly LogEntry[], entries: readonly LogEntry[]): LogEntry[] {
  const known = new Set(log.map((e) => e.id));
  const taken: LogEntry[] = [];
  let over = new Set(endedSteps(mergeLogs(log, [])).keys());
  for (const e of entries) {
    if (known.has(e.id)) continue;
    if (e.kind === 'done' || e.kind === 'skipped') {
      if (over.has(e.step)) continue;
      over.add(e.step);
    }
    taken.push(e);
    if (e.kind === 'rework') for (const step of e.again ?? []) over.delete(step);
    else if (e.kind === 'taken-back' || e.kind === 'clock')
      over = new Set(endedSteps(mergeLogs(log, taken)).keys());
  }
  return taken;
}

const SECOND_MS = 1000;

/**
 * The same entries, with no step done again before the moment at which it was reopened. Pieces of a run are dated back from the press that
 * ends it, and a clock may have been set back: a coat dated before its own rework would count as the one that was taken off.
 */
export function afterReopening(log: readonly LogEntry[], entries: readonly LogEntry[]): LogEntry[] {
  const reopened = new Map<string, Instant>();
  for (const e of standing(log))
    if (e.kind === 'rework')
      for (const step of e.again ?? []) if ((reopened.get(step) ?? '') < e.at) reopened.set(step, e.at);
  return entries.map((e) => {
    const since = e.kind === 'done' || e.kind === 'skipped' ? reopened.get(e.step) : undefined;
    return since === undefined || e.at > since
      ? e
      : { ...e, at: instantOf(new Date(Date.parse(since) + SECOND_MS)) };
  });
}
