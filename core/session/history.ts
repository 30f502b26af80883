/** What happened becomes fixed; what is left begins now. */
import type { Problem, ProblemLag, ProblemOperation } from '#core/kernel';
import type { Layer } from '#core/muster';
import { AIRBRUSH, BOOTH, type StepRef } from '#core/plan';
import { minutesUntil, type Origin } from '#core/muster';
import { corrections, standing, type EntryOf, type LogEntry } from '#core/log';
import { approvals } from './pilot';

export function reworkId(step: string, entry: string): string {
  return `${step}!${entry}`;
}

/** Is the cure work of its own? Otherwise something is accepted as it is. */
function isWork(cure: EntryOf<'rework'>): boolean {
  return cure.minutes > 0;
}

/** The steps with every cure that holds among them, each as a layer of its own. */
export function withReworks(
  steps: ReadonlyMap<string, StepRef>,
  log: readonly LogEntry[],
): ReadonlyMap<string, StepRef> {
  const all = new Map(steps);
  for (const e of corrections(log)) {
    const of = steps.get(e.step);
    if (!isWork(e) || !of) continue;
    const layer: Layer = {
      ...of.layer,
      name: `${e.trouble}: ${e.cure}`,
      family: 'work',
      method: 'hand',
      mixture: '',
      minutes: e.minutes,
      coats: 1,
      dryMinutes: e.dryMinutes,
      window: null,
      note: `On “${of.layer.name}”.`,
      passes: undefined,
      faces: undefined,
      task: undefined,
    };
    all.set(reworkId(e.step, e.id), { ...of, layer, round: 1, rounds: 1, clock: null, tool: null });
  }
  return all;
}

/**
 * The problem as it stands at minute `now`: done steps are history, skipped ones cost nothing, reworks are inserted before whatever
 * follows, nothing else starts sooner than now, and calendars are cut so that no set-up begins in the past.
 * @param origin the midnight from which minutes count
 */
export function withHistory(
  problem: Problem,
  log: readonly LogEntry[],
  origin: Origin,
  now: number,
): Problem {
  return withLog(afterAbsences(problem, now), log, origin, now);
}

/**
 * The problem once pilots are approved: the other pieces of their recipe wait for them no longer. A verdict of “changed” after that makes
 * them wait again.
 */
export function withApprovals(
  problem: Problem,
  steps: ReadonlyMap<string, StepRef>,
  log: readonly LogEntry[],
): Problem {
  const approved = approvals(steps, log);
  if (approved.size === 0) return problem;
  const waitsForPilot = ({ from, to }: ProblemLag): boolean => {
    const step = steps.get(to);
    return !!step?.layer.isPiloted && step.piece.recipe === approved.get(from);
  };
  return { ...problem, lags: (problem.lags ?? []).filter((l) => !waitsForPilot(l)) };
}

/** Who was away is away no more: what happened meanwhile, happened. */
function afterAbsences(problem: Problem, now: number): Problem {
  const timed = new Set(problem.operations.flatMap((o) => (o.minutes > 0 ? [o.id] : [])));
  const over = new Set((problem.fixed ?? []).flatMap((f) => (timed.has(f.id) && f.end <= now ? [f.id] : [])));
  return {
    ...problem,
    operations: problem.operations.filter((o) => !over.has(o.id)),
    fixed: (problem.fixed ?? [])
      .filter((f) => !over.has(f.id))
      .map((f) => (timed.has(f.id) ? { ...f, start: Math.max(f.start, now) } : f)),
  };
}

function withLog(problem: Problem, log: readonly LogEntry[], origin: Origin, now: number): Problem {
  const entries = standing(log);
  const known = new Map(problem.operations.map((o) => [o.id, o]));
  const isKnown = (id: string): boolean => known.has(id) || reworks.has(id);
  const cures = corrections(log);
  const reworks = new Set(cures.filter(isWork).map((e) => reworkId(e.step, e.id)));
  const fixed = new Map<string, { id: string; start: number; end: number }>();
  /** by the step that is not dry yet: nothing goes on it before */
  const notBefore = new Map<string, number>();
  const skipped = new Set<string>();
  const extra: ProblemOperation[] = [];
  let lags: ProblemLag[] = [...(problem.lags ?? [])];
  for (const e of entries) {
    const at = Math.max(0, Math.floor(minutesUntil(origin, e.at)));
    if (e.kind === 'done' && isKnown(e.step)) {
      const start = Math.max(0, at - Math.ceil(e.minutes));
      fixed.set(e.step, { id: e.step, start, end: Math.max(at, start) });
    } else if (e.kind === 'skipped' && isKnown(e.step)) {
      fixed.set(e.step, { id: e.step, start: at, end: at });
      skipped.add(e.step);
    } else if (e.kind === 'rework')
      for (const again of e.again ?? []) {
        fixed.delete(again);
        skipped.delete(again);
      }
    else if (e.kind === 'not-dry') notBefore.set(e.step, at + Math.ceil(e.moreMinutes));
    else if (e.kind === 'dry') notBefore.delete(e.step);
  }
  for (const e of cures) {
    const like = known.get(e.step);
    if (!like) continue;
    const after = lags.filter((l) => l.from === e.step);
    // A window that was missed or spoiled does not bind what follows: that begins anew, by drying alone.
    lags = lags.map((l) => {
      if (l.from !== e.step) return l;
      const { max, prefer, ...open } = l;
      return max === undefined && prefer === undefined ? l : open;
    });
    if (!isWork(e)) continue;
    const id = reworkId(e.step, e.id);
    extra.push({
      id,
      minutes: Math.max(1, Math.ceil(e.minutes)),
      ...(like.uses
        ? {
            uses: like.uses.filter(
              (u) => !u.resource.startsWith(AIRBRUSH) && ![BOOTH, 'table'].includes(u.resource),
            ),
          }
        : {}),
    });
    lags.push({ from: e.step, to: id, min: 0 });
    for (const l of after) lags.push({ from: id, to: l.to, min: Math.ceil(e.dryMinutes) });
  }
  const earliest = new Map<string, number>();
  for (const l of lags)
    if (notBefore.has(l.from)) earliest.set(l.to, Math.max(earliest.get(l.to) ?? 0, notBefore.get(l.from)!));
  lags = lags.map((l) => (skipped.has(l.from) ? { from: l.from, to: l.to, min: 0 } : l));
  // What was done out of order was done: nothing undone can still have to come before it.
  lags = lags.filter((l) => !fixed.has(l.to) || fixed.has(l.from));
  const operations = [...problem.operations, ...extra];
  const history = possible(problem, operations, [...fixed.values()]);
  return {
    ...problem,
    calendars: (problem.calendars ?? []).map((c) => ({
      ...c,
      open: c.open.flatMap(([a, b]) => (b <= now ? [] : [[Math.max(a, now), b] as [number, number]])),
    })),
    operations: operations.map((o) =>
      fixed.has(o.id) || o.minutes === 0
        ? o
        : { ...o, earliest: Math.max(o.earliest ?? 0, now, earliest.get(o.id) ?? 0) },
    ),
    lags,
    fixed: [...(problem.fixed ?? []).filter((f) => !fixed.has(f.id)), ...history],
  };
}

type Fixed = NonNullable<Problem['fixed']>[number];

/**
 * What people tick off in one go did not happen at one moment, reworks included: beginnings are moved up so that history never asks for more hands or
 * tools than there are. Ends stay as they were logged.
 */
function possible(
  problem: Problem,
  operations: readonly ProblemOperation[],
  fixed: readonly Fixed[],
): Fixed[] {
  const capacity = new Map((problem.resources ?? []).map((r) => [r.id, r.capacity]));
  const usesOf = new Map(operations.map((o) => [o.id, o.minutes === 0 ? [] : (o.uses ?? [])]));
  const free = new Map<string, number[]>();
  return [...fixed]
    .sort((a, b) => a.end - b.end || a.start - b.start)
    .map((f) => {
      let start = f.start;
      for (const use of usesOf.get(f.id) ?? []) {
        const lanes = lanesOf(use.resource);
        for (let k = 0; k < use.amount && k < lanes.length; k++) start = Math.max(start, lanes[k]!);
      }
      start = Math.min(start, f.end);
      for (const use of usesOf.get(f.id) ?? []) {
        const lanes = lanesOf(use.resource);
        for (let k = 0; k < use.amount && k < lanes.length; k++) lanes[k] = f.end;
        lanes.sort((a, b) => a - b);
      }
      return { id: f.id, start, end: f.end };
    });

  /** For each unit of a resource when it is free again, the soonest first. */
  function lanesOf(resource: string): number[] {
    let lanes = free.get(resource);
    if (!lanes) {
      lanes = new Array<number>(Math.min(50, capacity.get(resource) ?? 1)).fill(0);
      free.set(resource, lanes);
    }
    return lanes;
  }
}

/**
 * The problem without the windows that history has opened, for when they can no longer be met: what was missed is told on the
 * shelf, and the rest is planned all the same.
 */
export function withoutOpenWindows(problem: Problem): Problem {
  const timed = new Set(problem.operations.flatMap((o) => (o.minutes > 0 ? [o.id] : [])));
  const done = new Set((problem.fixed ?? []).flatMap((f) => (timed.has(f.id) ? [f.id] : [])));
  return {
    ...problem,
    lags: (problem.lags ?? []).map((l) => {
      const { max, prefer, ...open } = l;
      return done.has(l.from) && !done.has(l.to) && (max !== undefined || prefer !== undefined) ? open : l;
    }),
    // A rack that history has overfilled holds what lies on it.
    resources: (problem.resources ?? []).map((r) =>
      r.id === 'rack' ? { ...r, capacity: r.capacity * 2 } : r,
    ),
  };
}
