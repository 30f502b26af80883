/** Why an operation stands where it stands, and not sooner: found by taking it out and asking again. */
import { place } from '../place/setups';
import { findSlot } from '../place/earlySlots';
import type { Problem, Solution } from '../document/document';
import { earliestAfter, earliestBefore } from '../model/dryingClock';
import { lastMinute, upTo } from '../document/horizon';
import { buildModel, type Model } from '../model/model';
import { nextFit, nextOpen } from '../model/openHours';
import { propagate } from '../prove/propagate';
import { Schedule, type Slot } from '../place/schedule';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

export type ReasonKind =
  /** it may not start before its own date */
  | 'earliest'
  /** another operation must be over, and dry */
  | 'drying'
  /** something that it uses is shut */
  | 'closed'
  /** … or open for too short a time */
  | 'short'
  /** what it uses is busy */
  | 'busy'
  /** what comes after must start within its window */
  | 'window'
  /** the place where it waits is full */
  | 'full'
  /** sooner it would begin a run of its own, or split one */
  | 'run'
  /** history, or pinned */
  | 'pinned'
  /** it could start sooner at no gain: nothing waits for it, or a set-up is saved */
  | 'free';

export interface Reason {
  readonly kind: ReasonKind;
  /** until this minute it keeps the operation back */
  readonly until: Minute;
  /** … and from this one on */
  readonly from: Minute;
  /** the operations it has to do with */
  readonly operations: readonly string[];
  /** the resource it has to do with */
  readonly resource?: string;
  /** the clock of the wait; without one, plain minutes */
  readonly clock?: string;
}

/** One link of a chain: an operation, what binds it, and so to the next link. */
export interface ChainLink {
  readonly operation: string;
  readonly reason: Reason;
}

/** Explains the operations of one solution. Building it costs as much as reading the solution once. */
export interface Explainer {
  /**
   * Reasons in the order in which they push the start back; the last is the binding one.
   * @throws Error when there is no such operation
   */
  explain(id: string): readonly Reason[];
  /**
   * From an operation back to the start of the plan: what binds it, what binds that, and so on.
   * @param helps whether it would help to take a reason away: the chain follows such reasons where it can
   * @throws Error when there is no such operation
   */
  chain(id: string, helps?: (reason: Reason) => boolean): readonly ChainLink[];
}

/** Links after which a chain is cut: longer than any reader follows. */
const LONGEST = 60;

/** @param solution a feasible solution of the problem */
export function explainer(problem: Problem, solution: Solution): Explainer {
  const model = buildModel(upTo(problem, lastMinute(problem, solution)));
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error(`There is no plan to explain (${propagation.conflict.kind}).`);
  const schedule = new Schedule(model, propagation.bounds);
  const indexOf = new Map(model.ids.map((id, i) => [id, i]));
  for (const o of solution.operations) {
    const i = indexOf.get(o.id);
    if (i !== undefined && !schedule.isPlaced(i)) schedule.assign(i, o.start, o.end, o.setup);
  }
  schedule.commit();

  function explain(id: string): readonly Reason[] {
    const i = indexOf.get(id);
    if (i === undefined) throw new Error(`There is no operation “${id}” to explain.`);
    return explainOne(model, schedule, i);
  }

  function chain(id: string, helps: (reason: Reason) => boolean = () => true): readonly ChainLink[] {
    const links: ChainLink[] = [];
    const seen = new Set<string>();
    let at: string | undefined = id;
    while (at !== undefined && !seen.has(at) && links.length < LONGEST) {
      seen.add(at);
      const reasons = [...explain(at)].reverse();
      const reason = reasons.find(helps) ?? reasons[0];
      if (reason) links.push({ operation: at, reason });
      // Where a reason names nobody (a shut bench, a date), what came before it leads on.
      const leads = reasons.filter((r) => r.operations.some((o) => !seen.has(o)));
      at = (leads.find(helps) ?? leads[0])?.operations.find((o) => !seen.has(o));
    }
    return links;
  }

  return { explain, chain };
}

function explainOne(model: Model, schedule: Schedule, i: OperationIndex): Reason[] {
  const start = schedule.start[i]!;
  if (model.isFixed[i]) return [{ kind: 'pinned', from: start, until: start, operations: [] }];
  const setup = schedule.setup[i]!;
  const reasons: Reason[] = [];
  const id = (k: number): string => model.ids[k]!;

  let at = Math.max(model.earliest[i]!, setup);
  if (model.earliest[i]! > 0) reasons.push({ kind: 'earliest', from: 0, until: at, operations: [] });
  const waits = model.lagsIn[i]!.map((lag) => ({
    lag,
    until: earliestAfter(lag.clock, schedule.end[lag.from]!, lag.min),
  })).sort((a, b) => b.until - a.until);
  if (waits.length > 0 && waits[0]!.until >= at) {
    const from = at;
    at = waits[0]!.until;
    const binding = waits.filter((w) => w.until === at);
    const clock = clockIdOf(model, binding[0]!.lag);
    reasons.push({
      kind: 'drying',
      from,
      until: at,
      operations: binding.map((w) => id(w.lag.from)),
      ...(clock === undefined ? {} : { clock }),
    });
  }
  const open = model.open[i]!;
  const minutes = model.minutes[i]!;
  if (minutes === 0) return bindingOnly(reasons);
  const opens = model.pausable[i] ? nextOpen(open, at, setup) : nextFit(open, at, setup, minutes);
  if (opens > at) {
    const until = Math.min(opens, start);
    reasons.push(...shutReasons(model, i, at, until, setup));
    at = until;
  }
  if (at < start) at = explainWait(model, schedule, i, at, reasons);
  return bindingOnly(reasons);
}

/** That nothing begins before its date is no reason where something later binds. */
function bindingOnly(reasons: readonly Reason[]): Reason[] {
  return reasons.filter((r, k) => r.kind !== 'earliest' || k === reasons.length - 1);
}

function clockIdOf(model: Model, lag: Model['lags'][number]): string | undefined {
  const from = model.ids[lag.from];
  const to = model.ids[lag.to];
  return model.problem.lags?.find((l) => l.from === from && l.to === to && l.min === lag.min)?.clock;
}

/** Of the calendars of what an operation uses, those that keep it from beginning at `from`: shut then, or not open for long enough. */
function shutReasons(model: Model, i: OperationIndex, from: Minute, until: Minute, setup: number): Reason[] {
  const { problem } = model;
  const found: Reason[] = [];
  for (const use of model.uses[i]!) {
    const resource = problem.resources?.[use.resource];
    const calendar = problem.calendars?.find((c) => c.id === resource?.calendar);
    if (!resource || !calendar) continue;
    const session = calendar.open.find(([a, b]) => a <= from - setup && from < b);
    const needed = model.pausable[i] ? 1 : model.minutes[i]!;
    if (session && from + needed <= session[1]) continue;
    // Two resources that keep the same hours are one reason.
    if (found.some((r) => problem.resources?.find((x) => x.id === r.resource)?.calendar === calendar.id))
      continue;
    // It opens when the set-up may begin, which is before the work does.
    const opening = calendar.open.find(([a, b]) => a <= until - setup && until - setup < b)?.[0] ?? until;
    found.push({
      kind: session ? 'short' : 'closed',
      from,
      until: Math.max(from, opening),
      operations: [],
      resource: resource.id,
    });
  }
  // Each is open by itself, and never all together before then.
  return found.length > 0 ? found : [{ kind: 'closed', from, until, operations: [] }];
}

/** What lies between the minute at which `i` could have begun and the minute at which it does. */
function explainWait(
  model: Model,
  schedule: Schedule,
  i: OperationIndex,
  from: Minute,
  reasons: Reason[],
): number {
  const start = schedule.start[i]!;
  const id = (k: number): string => model.ids[k]!;
  const mark = schedule.mark();
  schedule.remove(i);
  const slot = findSlot(schedule, i, from, start, schedule.bounds.endHigh[i]!);
  schedule.undoTo(mark);
  const free = Math.min(slot?.start ?? start, start);
  if (free > from) {
    const uses = new Set(model.uses[i]!.map((u) => u.resource));
    const blockers: { k: number; resource: ResourceIndex }[] = [];
    for (let k = 0; k < model.count; k++) {
      if (k === i || !schedule.isPlaced(k)) continue;
      if (schedule.end[k]! <= from - schedule.setup[i]! || schedule.start[k]! - schedule.setup[k]! >= free)
        continue;
      const shared = model.uses[k]!.find((u) => uses.has(u.resource));
      if (shared) blockers.push({ k, resource: shared.resource });
    }
    blockers.sort((a, b) => schedule.end[b.k]! - schedule.end[a.k]!);
    reasons.push({
      kind: 'busy',
      from,
      until: free,
      operations: blockers.map((b) => id(b.k)),
      ...(blockers[0] ? { resource: model.resourceIds[blockers[0].resource]! } : {}),
    });
  }
  if (free >= start) return free;
  const tied = model.lagsOut[i]!.filter(
    (l) =>
      l.max !== Infinity && earliestBefore(l.clock, schedule.start[l.to]!, l.max) > free + model.minutes[i]!,
  );
  if (tied.length > 0) {
    reasons.push({ kind: 'window', from: free, until: start, operations: tied.map((l) => id(l.to)) });
    return start;
  }
  const hold = model.holdsOf[i]!.find((h) => h.from === i && isFull(schedule, i, h.index));
  if (hold)
    reasons.push({
      kind: 'full',
      from: free,
      until: start,
      operations: [],
      resource: model.resourceIds[hold.resource]!,
    });
  else {
    const along = slot === null ? [] : doneAlong(schedule, i, slot);
    reasons.push({
      kind: along.length > 0 ? 'run' : 'free',
      from: free,
      until: start,
      operations: along.map(id),
    });
  }
  return start;
}

/** The operations next to `i` of which it goes on with the run, or they with its; none when there would be no more runs with it in the slot. */
function doneAlong(schedule: Schedule, i: OperationIndex, slot: Slot): number[] {
  const { model, runs } = schedule;
  const resource = model.runsOn[i]![0];
  if (runs === null || resource === undefined) return [];
  const before = runs.count;
  const row = runs.on(resource)!.list();
  const at = row.indexOf(i);
  const mark = schedule.mark();
  schedule.remove(i);
  place(schedule, i, slot);
  const isDearer = runs.count > before;
  schedule.undoTo(mark);
  if (!isDearer) return [];
  return [row[at - 1], row[at + 1]].filter(
    (k): k is number =>
      k !== undefined &&
      model.family[k] === model.family[i] &&
      runs.sessionOf(resource, k) === runs.sessionOf(resource, i),
  );
}

/** Would the hold that begins with `i` find no room one minute sooner? */
function isFull(schedule: Schedule, i: OperationIndex, holdIndex: number): boolean {
  const hold = schedule.model.holds[holdIndex]!;
  const end = schedule.end[i]!;
  return end > 0 && schedule.holdBlockedAt(hold, end - 1, end) >= 0;
}
