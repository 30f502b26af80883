/** One session as a sheet to pin up: what to do at which time, with what, and what to beware of. */
import { DEFER } from '#core/materials';
import { plainName } from '#core/recipe';
import type { Plan, PlanSession, PlanStep } from './present';
import { CUP_ML, factsOfRun, type RunFacts } from './runFacts';
import { runsOf } from './runs';
import { clockTime, listed } from './words';

/** One run in its session. */
export interface RunEntry extends RunFacts {
  readonly start: number;
  readonly end: number;
  /** minutes of cleaning or loading before `start` */
  readonly setup: number;
  /** when it stood so long that it must be cleaned and loaded (or laid out) once more, and for how many minutes */
  readonly again: readonly { readonly minute: number; readonly minutes: number }[];
  readonly pieces: readonly RunPiece[];
  /** the next layer may go on the first piece from here */
  readonly dryAt: number;
  /** windows of the pieces that shut: first closing, null if none */
  readonly closes: number | null;
  /** those of its cautions that no entry before it on the sheet has told */
  readonly newCautions: readonly string[];
  /** it began in an earlier session, or goes on in a later one */
  readonly isContinued: boolean;
}

export interface RunPiece {
  readonly step: string;
  readonly name: string;
  readonly unit: string;
  readonly count: number;
  /** the layer, where the run has several of different names */
  readonly layer: string | null;
  /** the next layer may go on it from here */
  readonly dryAt: number;
}

export interface RunSheet {
  readonly session: PlanSession;
  readonly entries: readonly RunEntry[];
  /** windows that open or shut in this session or before the next: what, and when */
  readonly closings: readonly { readonly minute: number; readonly text: string }[];
  /** by run what is still wet when the session ends: when the first and the last of it may be touched */
  readonly overnight: readonly { readonly first: number; readonly until: number; readonly text: string }[];
  readonly deferTo: string;
}

/** @throws RangeError when the plan has no such session */
export function runSheet(plan: Plan, index: number, cupMl = CUP_ML): RunSheet {
  const session = plan.sessions[index];
  if (!session) throw new RangeError(`The plan has no session ${index + 1}; it has ${plan.sessions.length}.`);
  const runs = runsOf(session.steps);
  const closings = runs.flatMap((run) => shutting(plan, run) ?? []).sort((a, b) => a.minute - b.minute);
  const overnight = runs.flatMap((run) => leftDrying(run, session) ?? []).sort((a, b) => a.until - b.until);
  return {
    session,
    entries: toldOnce(runs.map((run) => entryOf(run, session, cupMl))),
    closings,
    overnight,
    deferTo: DEFER,
  };
}

/** When the windows that a run has opened shut: the first of them; null: none does. */
function shutting(plan: Plan, run: readonly PlanStep[]): RunSheet['closings'][number] | null {
  const shut = run.flatMap((step) => (step.gate?.closes == null ? [] : [{ step, at: step.gate.closes }]));
  const [first] = shut;
  if (!first) return null;
  const minutes = shut.map((s) => s.at);
  const last = Math.max(...minutes);
  const layers = listed([...new Set(shut.map((s) => `“${s.step.layer.name}”`))]);
  return {
    minute: Math.min(...minutes),
    text:
      shut.length === 1
        ? `the window after ${layers} on ${first.step.piece.name} shuts`
        : `the windows after ${layers} on ${shut.length} pieces begin to shut, the last at ${clockTime(plan.origin, last)}`,
  };
}

/** What of a run is still wet when the session ends; null: nothing. */
function leftDrying(run: readonly PlanStep[], session: PlanSession): RunSheet['overnight'][number] | null {
  const wet = run.filter((s) => s.tide.dryAt > session.end && s.end <= session.end);
  if (wet.length === 0) return null;
  const names = [...new Set(wet.map((s) => s.piece.name))];
  const on = names.length <= NAMED ? listed(names) : `${names.length} pieces of this run`;
  const untils = wet.map((s) => Math.ceil(s.tide.dryAt));
  return {
    first: Math.min(...untils),
    until: Math.max(...untils),
    text: `${listed([...new Set(wet.map((s) => `“${s.layer.name}”`))])} on ${on}`,
  };
}

/** A caution is told where its kind of work begins; after that it is known. */
function toldOnce(entries: readonly Omit<RunEntry, 'newCautions'>[]): RunEntry[] {
  const told = new Set<string>();
  return entries.map((entry) => {
    const newCautions = entry.cautions.filter((c) => !told.has(c));
    for (const c of newCautions) told.add(c);
    return { ...entry, newCautions };
  });
}

/** So many pieces are named where they are left to dry. */
const NAMED = 3;
function entryOf(
  run: readonly PlanStep[],
  session: PlanSession,
  cupMl: number,
): Omit<RunEntry, 'newCautions'> {
  const facts = factsOfRun(run, cupMl);
  const first = run[0]!;
  const last = run[run.length - 1]!;
  const shut = run.flatMap((s) => s.gate?.closes ?? []);
  return {
    ...facts,
    start: Math.max(first.start, session.start),
    end: Math.min(last.end, session.end),
    setup: first.setup,
    again: run
      .slice(1)
      .filter((s) => s.setup > 0)
      .map((s) => ({ minute: s.start - s.setup, minutes: s.setup })),
    pieces: run.map((s) => ({
      step: s.id,
      name: s.piece.name,
      unit: s.unit.name,
      count: s.piece.count,
      layer: facts.hasNames ? plainName(s.piece, s.layer) : null,
      dryAt: Math.ceil(s.tide.dryAt),
    })),
    dryAt: Math.ceil(Math.min(...run.map((s) => s.tide.dryAt))),
    closes: shut.length > 0 ? Math.min(...shut) : null,
    isContinued: first.start < session.start || last.end > session.end,
  };
}
