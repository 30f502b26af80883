/**
 * Hands with names. Pools of hands say when there are enough of them, but not whose evening it is; once a first plan shows who would do
 * what, each step stays with that one, every pair of hands has its own row of work, and its runs are counted.
 */
import type { Problem } from '#core/kernel';
import { presenceOf, type Muster } from '#core/muster';
import { HANDS, SKILLED } from './hands';
import type { Doer } from './who';

/** One person’s hands, as a resource. */
export const laneOf = (person: string): string => `${HANDS}-${person}`;

/**
 * The problem with everybody's hands by themselves. What has happened takes up nobody's any more.
 * @param problem with pools of hands, as compiled for this muster
 * @param doers who does each step in a plan of it
 */
export function withLanes(
  problem: Problem,
  muster: Muster,
  doers: ReadonlyMap<string, Doer>,
  days: number,
): Problem {
  const { people } = muster.bench;
  const idOf = new Map(people.map((p) => [p.name, p.id]));
  const fixed = new Set((problem.fixed ?? []).map((f) => f.id));
  const isPool = (resource: string): boolean => resource === HANDS || resource === SKILLED;
  const horizon = problem.horizon;
  // Cut as the sessions are: nothing begins before the moment from which is planned.
  const from = problem.calendars?.find((c) => c.id === 'sessions')?.open[0]?.[0] ?? 0;
  const open = new Map(
    people.map((p) => [
      p.id,
      presenceOf(muster, p, days)
        .map(({ start, end }): [number, number] => [Math.max(start, from), Math.min(end, horizon)])
        .filter(([a, b]) => a < b),
    ]),
  );
  const isAbsence = (id: string): boolean => id.startsWith('away.');
  return {
    ...problem,
    calendars: [
      ...(problem.calendars ?? []),
      ...people.map((p) => ({ id: laneOf(p.id), open: open.get(p.id)! })),
    ],
    resources: [
      ...(problem.resources ?? []).filter((r) => !isPool(r.id)),
      ...people.map((p) => ({ id: laneOf(p.id), capacity: 1, calendar: laneOf(p.id), runs: true })),
    ],
    operations: problem.operations
      .filter((o) => !isAbsence(o.id))
      .map((o) => {
        if (!o.uses?.some((u) => isPool(u.resource))) return o;
        const others = o.uses.filter((u) => !isPool(u.resource));
        const who = idOf.get(doers.get(o.id)?.who ?? '') ?? people[0]!.id;
        return fixed.has(o.id)
          ? { ...o, uses: others }
          : { ...o, uses: [{ resource: laneOf(who), amount: 1 }, ...others] };
      }),
    fixed: (problem.fixed ?? []).filter((f) => !isAbsence(f.id)),
  };
}
