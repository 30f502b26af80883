/** One session as a sheet to pin up: what to do at which time, with what, and what to beware of. */
import { amountOf, cupsFor, mixOf, type CupPlan } from '#core/amounts';
import { AmountError, cautionsFor, DEFER, methodOf, sprayGuide, type SprayGuide } from '#core/materials';
import type { Plan, PlanSession, PlanStep } from './present';
import { runsOf } from './runs';
import { listed } from './words';

/** One run: a load taken up once, and everything it goes on. */
export interface RunEntry {
  readonly start: number;
  readonly end: number;
  /** minutes of cleaning or loading before `start` */
  readonly setup: number;
  /** when it stood so long that it must be cleaned and loaded (or laid out) once more, and for how many minutes */
  readonly again: readonly { readonly minute: number; readonly minutes: number }[];
  readonly verb: string;
  /** what it is called: the names of its layers */
  readonly name: string;
  /** the first of its layers: all are put on alike */
  readonly layer: PlanStep['layer'];
  /** fewest and most coats */
  readonly coats: readonly [number, number];
  /** what the layers say besides, each once */
  readonly notes: readonly string[];
  readonly pieces: readonly RunPiece[];
  /** what to mix for this run; null where nothing is mixed */
  readonly mix: RunMix | null;
  /** the next layer may go on the first piece from here */
  readonly dryAt: number;
  /** windows of the pieces that shut: first closing, null if none */
  readonly closes: number | null;
  readonly cautions: readonly string[];
  /** those of them that no entry before it on the sheet has told */
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

/** So much of the mixture for all pieces of the run, by the cup, and with what to spray it. */
export interface RunMix extends CupPlan {
  readonly from: string;
  readonly spray: SprayGuide | null;
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
  const closings = session.steps
    .flatMap((step) =>
      step.gate?.closes == null
        ? []
        : [
            {
              minute: step.gate.closes,
              text: `the window after “${step.layer.name}” on ${step.piece.name} shuts`,
            },
          ],
    )
    .sort((a, b) => a.minute - b.minute);
  const runs = runsOf(session.steps);
  const overnight = runs.flatMap((run) => leftDrying(run, session) ?? []).sort((a, b) => a.until - b.until);
  return {
    session,
    entries: toldOnce(runs.map((run) => entryOf(run, session, cupMl))),
    closings,
    overnight,
    deferTo: DEFER,
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
/** What a cup holds where the bench does not say: cups hold 2 to 9 ml (common practice, no source). */
const CUP_ML = 7;

function mixFor(run: readonly PlanStep[], cupMl: number): RunMix | null {
  const first = run[0]!;
  const amounts = run.map((s) => amountOf(s.recipe, s.layer, s.piece));
  const ml = amounts.reduce((sum, a, k) => sum + a.ml / run[k]!.rounds, 0);
  if (ml === 0) return null;
  const spray = sprayGuide(first.layer.family, first.layer.method, first.layer.nozzleMm);
  try {
    const cups = cupsFor(mixOf(first.layer), ml, cupMl);
    return {
      ...cups,
      from: amounts[0]!.from + (run.length > 1 ? `, and ${run.length - 1} more pieces` : ''),
      spray,
    };
  } catch (error) {
    if (error instanceof AmountError) return null;
    throw error;
  }
}

function entryOf(
  run: readonly PlanStep[],
  session: PlanSession,
  cupMl: number,
): Omit<RunEntry, 'newCautions'> {
  const first = run[0]!;
  const last = run[run.length - 1]!;
  const shut = run.flatMap((s) => s.gate?.closes ?? []);
  const names = [...new Set(run.map((s) => s.layer.name))];
  const coats = run.map((s) => s.layer.coats);
  return {
    start: Math.max(first.start, session.start),
    end: Math.min(last.end, session.end),
    setup: first.setup,
    again: run
      .slice(1)
      .filter((s) => s.setup > 0)
      .map((s) => ({ minute: s.start - s.setup, minutes: s.setup })),
    verb: methodOf(first.layer.method).verb,
    name: listed(names),
    layer: first.layer,
    coats: [Math.min(...coats), Math.max(...coats)],
    notes: [...new Set(run.map((s) => s.layer.note.trim()).filter((note) => note !== ''))],
    pieces: run.map((s) => ({
      step: s.id,
      name: s.piece.name,
      unit: s.unit.name,
      count: s.piece.count,
      layer: names.length > 1 ? s.layer.name : null,
      dryAt: Math.ceil(s.tide.dryAt),
    })),
    mix: mixFor(run, cupMl),
    dryAt: Math.ceil(Math.min(...run.map((s) => s.tide.dryAt))),
    closes: shut.length > 0 ? Math.min(...shut) : null,
    cautions: cautionsFor(first.layer.family, first.layer.method),
    isContinued: first.start < session.start || last.end > session.end,
  };
}
