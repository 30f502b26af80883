/** Which pieces are under way. */
import { standing, type LogEntry } from '#core/log';

/**
 * Ids of the pieces of which a step is done or left off, by what stands in the log. A step begins with the id of its piece and a dot, and
 * ids may hold dots themselves: whatever ends at a dot is in the set.
 */
export function begunPieces(log: readonly LogEntry[]): ReadonlySet<string> {
  const begun = new Set<string>();
  for (const e of standing(log)) {
    if (e.kind !== 'done' && e.kind !== 'skipped') continue;
    for (let dot = e.step.indexOf('.'); dot >= 0; dot = e.step.indexOf('.', dot + 1))
      begun.add(e.step.slice(0, dot));
  }
  return begun;
}
