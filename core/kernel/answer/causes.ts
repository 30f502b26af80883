/** What keeps a plan back, as something that could be otherwise: each cause can be taken away, and the problem solved again without it. */
import type { Reason } from './explain';
import type { Problem } from '../document/document';

export type Cause =
  /** there is only so much of it, and changing it over takes time */
  | { readonly kind: 'capacity'; readonly resource: string }
  /** it is not always open */
  | { readonly kind: 'hours'; readonly calendar: string }
  /** one operation waits after another; by this clock, or by plain minutes */
  | { readonly kind: 'wait'; readonly clock: string | null }
  /** something may not begin before its date */
  | { readonly kind: 'earliest' }
  /** something must begin before a window closes */
  | { readonly kind: 'window' };

/** Every cause that a problem has, in a fixed order. */
export function causesIn(problem: Problem): Cause[] {
  const done = new Set((problem.fixed ?? []).map((f) => f.id));
  const open = problem.operations.filter((o) => !done.has(o.id));
  const used = new Set([
    ...open.flatMap((o) => (o.minutes > 0 ? (o.uses ?? []).map((u) => u.resource) : [])),
    ...(problem.holds ?? []).map((h) => h.resource),
  ]);
  const resources = (problem.resources ?? []).filter((r) => used.has(r.id));
  const lags = (problem.lags ?? []).filter((l) => !done.has(l.to));
  const causes: Cause[] = resources.map((r) => ({ kind: 'capacity', resource: r.id }));
  for (const calendar of new Set(resources.flatMap((r) => r.calendar ?? [])))
    causes.push({ kind: 'hours', calendar });
  for (const clock of new Set(lags.filter((l) => l.min > 0).map((l) => l.clock ?? null)))
    causes.push({ kind: 'wait', clock });
  if (open.some((o) => (o.earliest ?? 0) > soonest(problem))) causes.push({ kind: 'earliest' });
  if (lags.some((l) => l.max !== undefined)) causes.push({ kind: 'window' });
  return causes;
}

/** The problem without a cause; every plan of the problem is one of it too (but that what pauses may end sooner). */
export function withoutCause(problem: Problem, cause: Cause): Problem {
  switch (cause.kind) {
    case 'capacity':
      return {
        ...problem,
        resources: (problem.resources ?? []).map((r) =>
          r.id === cause.resource
            ? { id: r.id, capacity: demandOf(problem, r.id), ...(r.calendar ? { calendar: r.calendar } : {}) }
            : r,
        ),
      };
    case 'hours':
      return {
        ...problem,
        calendars: (problem.calendars ?? []).map((c) =>
          c.id === cause.calendar && c.open.length > 0
            ? { ...c, open: [[c.open[0]![0], Math.max(problem.horizon, c.open[c.open.length - 1]![1])]] }
            : c,
        ),
      };
    case 'wait':
      return {
        ...problem,
        lags: (problem.lags ?? []).map((l) => ((l.clock ?? null) === cause.clock ? { ...l, min: 0 } : l)),
      };
    case 'earliest':
      return {
        ...problem,
        operations: problem.operations.map((o) =>
          o.earliest === undefined ? o : { ...o, earliest: Math.min(o.earliest, soonest(problem)) },
        ),
      };
    case 'window':
      return {
        ...problem,
        lags: (problem.lags ?? []).map((lag) => {
          const { max, ...open } = lag;
          return max === undefined ? lag : open;
        }),
      };
  }
}

/** The cause behind a reason; null where nothing could be otherwise. */
export function causeOf(problem: Problem, reason: Reason): Cause | null {
  switch (reason.kind) {
    case 'busy':
    case 'full':
      return reason.resource === undefined ? null : { kind: 'capacity', resource: reason.resource };
    case 'closed':
    case 'short': {
      const calendar = problem.resources?.find((r) => r.id === reason.resource)?.calendar;
      return calendar === undefined ? null : { kind: 'hours', calendar };
    }
    case 'drying':
      return { kind: 'wait', clock: reason.clock ?? null };
    case 'earliest':
    case 'window':
      return { kind: reason.kind };
    case 'pinned':
    case 'run':
    case 'free':
      return null;
  }
}

/** The same cause as the other? */
export function isCause(a: Cause, b: Cause): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** The first minute at which anything may begin at all. */
function soonest(problem: Problem): number {
  const dates = problem.operations.filter((o) => o.minutes > 0).map((o) => o.earliest ?? 0);
  return dates.length > 0 ? dates.reduce((a, b) => Math.min(a, b)) : 0;
}

/** As much of a resource as everything together could ask for at once. */
function demandOf(problem: Problem, resource: string): number {
  const amounts = [
    ...problem.operations.flatMap((o) => (o.uses ?? []).filter((u) => u.resource === resource)),
    ...(problem.holds ?? []).filter((h) => h.resource === resource),
  ];
  return Math.max(
    1,
    amounts.reduce((sum, u) => sum + u.amount, 0),
  );
}
