/**
 * Holds made plain. The search asks of one hold at a time whether there is room for it; where several on one resource begin or end with the
 * same operation, or one ends at an operation whose own set-up needs what is held, it would have to ask of them together. Such
 * holds, and those that begin with an operation whose coming lengthens the set-up of one that needs what is held, get a stand-in to begin or end with: an operation of no minutes tied to the real one by a window of no width. So each is
 * placed, and counted, by itself. No cost knows of stand-ins.
 */
import type { Conflict, Problem, ProblemLag, ProblemOperation, Solution } from './document';

export interface PlainHolds {
  readonly problem: Problem;
  /** the solution with every stand-in where its operation begins or ends */
  lift(solution: Solution): Solution;
  /** the solution as the problem asked for it */
  lower(solution: Solution): Solution;
}

interface StandIn {
  readonly id: string;
  readonly of: string;
  /** it stands where its operation starts, or where it ends */
  readonly at: 'start' | 'end';
}

/** @returns null where every hold is plain already */
export function plainHolds(problem: Problem): PlainHolds | null {
  const holds = problem.holds ?? [];
  const standIns = new Map<string, StandIn>();
  const known = new Set(problem.operations.map((o) => o.id));
  const standIn = (of: string, at: StandIn['at'], k: number): string => {
    let id = `${of} ${at} of hold ${k + 1}`;
    while (known.has(id)) id += '′';
    known.add(id);
    standIns.set(id, { id, of, at });
    return id;
  };
  const taken = new Set<string>();
  /** The first of several may stay as it is. */
  const isTaken = (key: string): boolean => {
    if (taken.has(key)) return true;
    taken.add(key);
    return false;
  };
  const setsUp = setupUsers(problem);
  const lengthens = lengthening(problem);
  const plain = holds.map((h, k) => {
    if (h.from === h.to) return h;
    const endsInSetup = setsUp.has(JSON.stringify([h.resource, h.to]));
    const to =
      isTaken(JSON.stringify(['start', h.resource, h.to])) || endsInSetup ? standIn(h.to, 'start', k) : h.to;
    const from =
      isTaken(JSON.stringify(['end', h.resource, h.from])) || lengthens(h.from, h.resource)
        ? standIn(h.from, 'end', k)
        : h.from;
    return to === h.to && from === h.from ? h : { ...h, from, to };
  });
  if (standIns.size === 0) return null;
  const fixed = new Map((problem.fixed ?? []).map((f) => [f.id, f]));
  const operations: ProblemOperation[] = [];
  const lags: ProblemLag[] = [];
  const history: NonNullable<Problem['fixed']> = [];
  for (const { id, of, at } of standIns.values()) {
    operations.push({ id, minutes: 0 });
    lags.push({ ...(at === 'start' ? { from: id, to: of } : { from: of, to: id }), min: 0, max: 0 });
    const past = fixed.get(of);
    if (past) history.push({ id, start: past[at], end: past[at] });
  }
  return {
    problem: {
      ...problem,
      operations: [...problem.operations, ...operations],
      lags: [...(problem.lags ?? []), ...lags],
      holds: plain,
      fixed: [...(problem.fixed ?? []), ...history],
    },
    lift: (solution) => {
      const times = new Map(solution.operations.map((o) => [o.id, o]));
      return {
        ...solution,
        operations: [
          ...solution.operations,
          ...[...standIns.values()].flatMap(({ id, of, at }) => {
            const placed = times.get(of);
            return placed ? [{ id, start: placed[at], end: placed[at], setup: 0 }] : [];
          }),
        ],
      };
    },
    lower: (solution) => ({
      ...solution,
      operations: solution.operations.filter((o) => !standIns.has(o.id)),
      conflict: solution.conflict && lowered(solution.conflict, standIns),
    }),
  };
}

/** Every operation that takes time and may have to be set up for, with each resource that it takes up meanwhile. */
function setupUsers(problem: Problem): ReadonlySet<string> {
  const tools = new Set((problem.resources ?? []).filter((r) => r.setup).map((r) => r.id));
  return new Set(
    problem.operations
      .filter((o) => o.minutes > 0 && (o.uses ?? []).some((u) => tools.has(u.resource)))
      .flatMap((o) => (o.uses ?? []).map((u) => JSON.stringify([u.resource, o.id]))),
  );
}

/** Can an operation, coming on its tool before another that takes up this resource, lengthen the set-up of that one? */
function lengthening(problem: Problem): (operation: string, resource: string) => boolean {
  const tools = new Set((problem.resources ?? []).filter((r) => r.setup).map((r) => r.id));
  const toolOf = new Map<string, string>();
  const takenWith = new Map<string, Set<string>>();
  for (const o of problem.operations) {
    const tool = o.minutes > 0 ? o.uses?.find((u) => tools.has(u.resource))?.resource : undefined;
    if (tool === undefined) continue;
    toolOf.set(o.id, tool);
    const taken = takenWith.get(tool) ?? new Set<string>();
    for (const u of o.uses ?? []) taken.add(u.resource);
    takenWith.set(tool, taken);
  }
  return (operation, resource) => takenWith.get(toolOf.get(operation) ?? '')?.has(resource) ?? false;
}

function lowered(conflict: Conflict, standIns: ReadonlyMap<string, StandIn>): Conflict {
  const real = (id: string): string => standIns.get(id)?.of ?? id;
  const all = (ids: readonly string[]): string[] => [...new Set(ids.map(real))];
  switch (conflict.kind) {
    case 'setup':
      return { ...conflict, operations: [real(conflict.operations[0]), real(conflict.operations[1])] };
    case 'window':
      return {
        ...conflict,
        operations: all(conflict.operations),
        from: real(conflict.from),
        to: real(conflict.to),
      };
    case 'search':
      return {
        ...conflict,
        operations: all(conflict.operations),
        lifts: conflict.lifts.map((lift) =>
          lift.kind === 'window' ? { ...lift, from: real(lift.from), to: real(lift.to) } : lift,
        ),
      };
    default:
      return { ...conflict, operations: all(conflict.operations) };
  }
}
