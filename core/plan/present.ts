/** From the kernel's solution back to what a painter reads: sessions, steps, drying, gates, units and their dates. */
import { minuteAfter, type ClockPoints } from '#core/climate';
import type { Solution } from '#core/kernel';
import {
  minutesSince,
  originOf,
  presenceOf,
  sessionsOf,
  type BenchSession,
  type Muster,
  type Origin,
} from '#core/muster';
import { curedAfter, dryingOf, linksOf, opensAfter } from '#core/recipe';
import { type Compiled } from './compile';
import { whoDoes, type Doer } from './who';
import { operationId, readyId, type StepRef } from './stepRef';
import { horizonDays } from './horizon';

/** When what a step put on may be touched again; minutes since the origin, fractions kept. */
export interface Tide {
  /** do not touch before */
  readonly wetUntil: number;
  /** can still be moved, lifted or wiped before */
  readonly workableUntil: number;
  /** the next layer may go on from here */
  readonly dryAt: number;
}

/** A window as it falls in this plan's air: whole minutes, within which the next layer may start. */
export interface Gate {
  readonly opens: number;
  /** null: it never shuts */
  readonly closes: number | null;
  /** null: any time will do */
  readonly prefer: number | null;
  /** steps that must start between the posts */
  readonly steps: readonly string[];
}

export interface PlanStep extends StepRef {
  readonly id: string;
  readonly start: number;
  readonly end: number;
  readonly setup: number;
  readonly tide: Tide;
  readonly gate: Gate | null;
  /** it has hardened through from here */
  readonly curedAt: number;
  /** who does it, where several work; null: the one person there is */
  readonly doer: Doer | null;
}

export interface PlanSession {
  readonly index: number;
  readonly start: number;
  readonly end: number;
  /** share of the people's minutes that is work or set-up, 0 to 1 */
  readonly busy: number;
  /** by start */
  readonly steps: readonly PlanStep[];
  /** who is there and when, where several work */
  readonly there: readonly { readonly name: string; readonly from: number; readonly to: number }[];
}

export interface PlanUnit {
  readonly id: string;
  readonly name: string;
  readonly due: number;
  readonly ready: number;
  /** 0 when in time */
  readonly lateMinutes: number;
  readonly spareMinutes: number;
  /** whole sessions between ready and table date */
  readonly spareSessions: number;
}

export interface Plan {
  readonly origin: Origin;
  readonly sessions: readonly PlanSession[];
  readonly steps: ReadonlyMap<string, PlanStep>;
  readonly units: readonly PlanUnit[];
  readonly lateMinutes: number;
  readonly setupMinutes: number;
  /** how often another task is taken up */
  readonly runs: number;
  readonly handsMinutes: number;
  readonly cost: number;
  readonly bound: number;
  readonly isOptimal: boolean;
}

/** Shares of the drying time after which wet turns workable, and workable nearly dry, where no window says it. */
export const WET_SHARE = 0.4;
const WORKABLE_SHARE = 0.75;

/** @param solution feasible or optimal, for `compiled.problem` */
export function present(muster: Muster, compiled: Compiled, solution: Solution): Plan {
  const origin = originOf(muster);
  const at = new Map(solution.operations.map((o) => [o.id, o]));
  const steps = new Map<string, PlanStep>();
  const placed = [...compiled.steps]
    .flatMap(([id, ref]) => {
      const o = at.get(id);
      return o ? [{ ...ref, id, start: o.start, end: o.end, setup: o.setup }] : [];
    })
    .sort((a, b) => a.start - b.start || a.end - b.end);
  const doers = compiled.doers ?? whoDoes(muster, placed, horizonDays(muster));
  for (const [id, ref] of compiled.steps) {
    // A step that this solution does not know yet (a rework just noted) stands in the next plan.
    const placed = at.get(id);
    if (!placed) continue;
    const points = (ref.clock !== null && compiled.clocks.get(ref.clock)) || null;
    const gate = gateOf(ref, placed.end, points);
    steps.set(id, {
      ...ref,
      id,
      start: placed.start,
      end: placed.end,
      setup: placed.setup,
      tide: tideOf(ref, placed.end, points, gate),
      gate,
      curedAt: after(points, placed.end, curedAfter(ref.layer)),
      doer: doers.get(id) ?? null,
    });
  }
  const byStart = [...steps.values()].sort((a, b) => a.start - b.start || a.end - b.end);
  const all = sessionsOf(muster, horizonDays(muster));
  const last = Math.max(0, ...byStart.map((s) => s.end));
  const dueLast = Math.max(0, ...muster.units.map((u) => minutesSince(origin, u.table)));
  const people = muster.bench.people.map((p) => presenceOf(muster, p, horizonDays(muster)));
  const lit = all.filter((s) => s.start < Math.max(last, dueLast));
  const inside = stepsBySession(byStart, lit);
  const sessions = lit.map((s, index): PlanSession => {
    const steps = inside[index]!;
    const busy = steps.reduce(
      (sum, p) => sum + Math.max(0, Math.min(p.end, s.end) - Math.max(p.start - p.setup, s.start)),
      0,
    );
    const there = people.reduce((sum, spans) => sum + minutesWithin(spans, s), 0);
    return {
      ...s,
      index,
      busy: there === 0 ? 0 : busy / there,
      steps,
      there: people.length < 2 ? [] : thereIn(muster, people, s),
    };
  });
  const units = muster.units
    .map((unit): PlanUnit => {
      const due = minutesSince(origin, unit.table);
      const ready = at.get(readyId(unit))!.end;
      return {
        id: unit.id,
        name: unit.name,
        due,
        ready,
        lateMinutes: Math.max(0, ready - due),
        spareMinutes: Math.max(0, due - ready),
        spareSessions: all.filter((s) => s.start >= ready && s.end <= due).length,
      };
    })
    .sort((a, b) => a.due - b.due || a.name.localeCompare(b.name));
  return {
    origin,
    sessions,
    steps,
    units,
    lateMinutes: units.reduce((sum, u) => sum + u.lateMinutes, 0),
    setupMinutes: solution.cost?.setup ?? 0,
    runs: solution.cost?.runs ?? 0,
    // What may rest overnight takes no longer for it.
    handsMinutes: compiled.problem.operations.reduce((sum, o) => sum + (steps.has(o.id) ? o.minutes : 0), 0),
    cost: solution.cost?.total ?? 0,
    bound: solution.bound ?? 0,
    isOptimal: solution.status === 'optimal',
  };
}

/** @param presence of each of the people, in their order */
function thereIn(
  muster: Muster,
  presence: readonly (readonly BenchSession[])[],
  session: { readonly start: number; readonly end: number },
): PlanSession['there'] {
  return muster.bench.people.flatMap(({ name }, k) =>
    presence[k]!.filter((s) => s.start < session.end && s.end > session.start).map((s) => ({
      name,
      from: Math.max(s.start, session.start),
      to: Math.min(s.end, session.end),
    })),
  );
}

/** How many minutes of a session somebody is there. */
function minutesWithin(
  spans: readonly BenchSession[],
  session: { readonly start: number; readonly end: number },
): number {
  let sum = 0;
  for (const s of spans) {
    if (s.start >= session.end) break;
    sum += Math.max(0, Math.min(s.end, session.end) - Math.max(s.start, session.start));
  }
  return sum;
}

/** Of sessions by time the number of the first that is not over at `minute`; how many there are where all are. */
export function sessionFrom(sessions: readonly { readonly end: number }[], minute: number): number {
  let low = 0;
  let high = sessions.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sessions[middle]!.end > minute) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** The steps that are worked on, or got ready for, in each session. @param byStart sorted; @param sessions sorted and disjoint */
function stepsBySession(
  byStart: readonly PlanStep[],
  sessions: readonly { readonly start: number; readonly end: number }[],
): PlanStep[][] {
  const inside: PlanStep[][] = sessions.map(() => []);
  for (const step of byStart) {
    const first = sessionFrom(sessions, step.start - step.setup);
    for (let k = first; k < sessions.length && sessions[k]!.start < step.end; k++) inside[k]!.push(step);
  }
  return inside;
}

/** A plan in which nothing has been placed yet: its sessions and its dates, to be filled as plans come. */
export function barePlan(muster: Muster): Plan {
  const origin = originOf(muster);
  const units = muster.units
    .map((unit): PlanUnit => {
      const due = minutesSince(origin, unit.table);
      const none = { lateMinutes: 0, spareMinutes: 0, spareSessions: 0 };
      return { id: unit.id, name: unit.name, due, ready: due, ...none };
    })
    .sort((a, b) => a.due - b.due || a.name.localeCompare(b.name));
  const last = Math.max(0, ...units.map((u) => u.due));
  const sessions = sessionsOf(muster, horizonDays(muster))
    .filter((s) => s.start < last)
    .map((s, index): PlanSession => ({ ...s, index, busy: 0, steps: [], there: [] }));
  const nothing = { lateMinutes: 0, setupMinutes: 0, runs: 0, handsMinutes: 0, cost: 0, bound: 0 };
  return { origin, sessions, steps: new Map(), units, ...nothing, isOptimal: false };
}

/** Lateness of the worst unit of a solution, whole minutes. */
export function worstLateness(problem: Compiled['problem'], solution: Solution): number {
  const at = new Map(solution.operations.map((o) => [o.id, o.end]));
  return Math.max(0, ...(problem.units ?? []).map((u) => (at.get(u.ready) ?? 0) - u.due));
}

function after(points: ClockPoints | null, end: number, ticks: number): number {
  return points === null ? end + ticks : minuteAfter(points, end, ticks);
}

/** A hair of a minute: clocks are kept to a thousandth of one. */
const HAIR = 1e-3;

/** The first whole minute from a moment on. */
function firstFrom(moment: number): number {
  return Math.ceil(moment - HAIR);
}

/** The last whole minute up to a moment. */
function lastUpTo(moment: number): number {
  return Math.floor(moment + HAIR);
}

function gateOf(ref: StepRef, end: number, points: ClockPoints | null): Gate | null {
  const window = ref.layer.window;
  // Between the rounds of a layer no window runs: it begins with the last.
  if (!window || ref.round < ref.rounds || (window.closesMinutes === null && window.preferMinutes === null))
    return null;
  const links = linksOf(ref.recipe).filter((l) => l.from === ref.layerIndex);
  const within = links.filter((l) => l.max !== Infinity || l.prefer !== Infinity);
  return {
    opens: firstFrom(after(points, end, opensAfter(ref.layer))),
    closes: window.closesMinutes === null ? null : lastUpTo(after(points, end, window.closesMinutes)),
    prefer: window.preferMinutes === null ? null : lastUpTo(after(points, end, window.preferMinutes)),
    steps: within.map((l) => operationId(ref.piece, ref.recipe.layers[l.to]!)),
  };
}

function tideOf(ref: StepRef, end: number, points: ClockPoints | null, gate: Gate | null): Tide {
  const dry = dryingOf(ref.layer);
  const dryAt = after(points, end, dry);
  const shut = gate?.closes ?? gate?.prefer ?? null;
  if (gate && shut !== null)
    return { wetUntil: gate.opens, workableUntil: shut, dryAt: Math.max(dryAt, shut) };
  return {
    wetUntil: after(points, end, dry * WET_SHARE),
    workableUntil: after(points, end, dry * WORKABLE_SHARE),
    dryAt,
  };
}
