/** A planned demo and a bench that follows it, for tests. */
import { solveProblem } from '#core/kernel';
import { instantAfter, originOf } from '#core/muster';
import { compile, present } from '#core/plan';
import { fenMuster } from '../../demo/fen';
import type { LogEntry } from '#core/log';

export const demo = fenMuster('2026-11-30');
export const compiled = compile(demo);
export const plan = present(demo, compiled, solveProblem(compiled.problem, { iterations: 30 }));
export const origin = originOf(demo);
/** its steps by time */
export const order = [...plan.steps.values()].sort(
  (a, b) => a.start - b.start || a.end - b.end || a.id.localeCompare(b.id),
);
/** the minute at which the last of them ends */
export const last = order[order.length - 1]!.end;

/** The log of a bench that has followed the plan up to a minute. */
export function followed(minute: number): LogEntry[] {
  return order
    .filter((s) => s.end <= minute)
    .map((s, k) => ({
      id: `e${k}`,
      at: instantAfter(origin, s.end),
      kind: 'done',
      step: s.id,
      minutes: s.end - s.start,
    }));
}

let ids = 0;
/** An entry at a minute. */
export function entry(of: Record<string, unknown>, minute: number): LogEntry {
  return { id: `x${ids++}`, at: instantAfter(origin, minute), ...of } as LogEntry;
}
