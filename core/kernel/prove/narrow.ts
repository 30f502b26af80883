/**
 * A proof by search that there is no plan names nobody. Here it is narrowed down: what can be left out without a plan becoming
 * possible is left out, and then single changes are tried that would lift it.
 */
import type { Conflict, Lift, Problem } from '../document/document';
import { ExactSearch } from './exact';
import { buildModel } from '../model/model';
import { overfull, propagate } from './propagate';

/** Nodes of the exact search for each question asked; an answer that takes longer counts as "possible". */
const NODES = 4000;

export function narrowConflict(problem: Problem): Conflict {
  const core = smallestCore(problem);
  const operations = core.operations.filter((o) => o.minutes > 0).map((o) => o.id);
  return { kind: 'search', operations, lifts: liftsOf(core) };
}

/** Is it proved that there is no plan? */
function isImpossible(problem: Problem): boolean {
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok || overfull(model, propagation.bounds)) return true;
  const exact = new ExactSearch(model, propagation.bounds, propagation.order);
  for (let nodes = 0; nodes < NODES && !exact.isComplete && exact.best === null; nodes += 100)
    exact.step(100);
  return exact.isComplete && exact.best === null;
}

/** Leaves out, one group after the other, what hangs together by lags and is not needed for the conflict. */
function smallestCore(problem: Problem): Problem {
  let core = problem;
  for (const group of groupsOf(problem)) {
    const less = without(core, group);
    if (less.operations.length > 0 && isImpossible(less)) core = less;
  }
  return core;
}

function groupsOf(problem: Problem): Set<string>[] {
  const groups = new Map(problem.operations.map((o) => [o.id, new Set([o.id])]));
  for (const lag of problem.lags ?? []) {
    const a = groups.get(lag.from)!;
    const b = groups.get(lag.to)!;
    if (a === b) continue;
    for (const id of b) {
      a.add(id);
      groups.set(id, a);
    }
  }
  return [...new Set(groups.values())];
}

function without(problem: Problem, group: ReadonlySet<string>): Problem {
  const stays = (id: string): boolean => !group.has(id);
  return {
    ...problem,
    operations: problem.operations.filter((o) => stays(o.id)),
    lags: (problem.lags ?? []).filter((l) => stays(l.from) && stays(l.to)),
    holds: (problem.holds ?? []).filter((h) => stays(h.from) && stays(h.to)),
    units: (problem.units ?? []).filter((u) => stays(u.ready)),
    fixed: (problem.fixed ?? []).filter((f) => stays(f.id)),
  };
}

/** Single changes after which a plan is no longer impossible. */
function liftsOf(core: Problem): Lift[] {
  const lifts: Lift[] = [];
  const tries = (lift: Lift, changed: Problem): void => {
    if (!isImpossible(changed)) lifts.push(lift);
  };
  for (const r of core.resources ?? [])
    if (r.setup === undefined)
      tries(
        { kind: 'capacity', resource: r.id },
        {
          ...core,
          resources: core.resources!.map((x) => (x.id === r.id ? { ...x, capacity: x.capacity + 1 } : x)),
        },
      );
  for (const c of core.calendars ?? [])
    tries(
      { kind: 'hours', calendar: c.id },
      {
        ...core,
        calendars: core.calendars!.map((x) => (x.id === c.id ? { ...x, open: [[0, core.horizon]] } : x)),
      },
    );
  for (const lag of core.lags ?? [])
    if (lag.max !== undefined)
      tries(
        { kind: 'window', from: lag.from, to: lag.to },
        {
          ...core,
          lags: core.lags!.map((x) => {
            if (x !== lag) return x;
            const { max, ...open } = x;
            return max === undefined ? x : open;
          }),
        },
      );
  return lifts;
}
