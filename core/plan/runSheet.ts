/** One session as a sheet to pin up: what to do at which time, with what, and what to beware of. */
import { amountOf, cupsFor, mixOf, type CupPlan } from '#core/amounts';
import { AmountError, cautionsFor, DEFER, methodOf, sprayGuide, type SprayGuide } from '#core/materials';
import type { Plan, PlanSession, PlanStep } from './present';

/** One run: neighbouring steps of the same layer, worked one after the other without putting the tool down. */
export interface RunEntry {
  readonly start: number;
  readonly end: number;
  /** minutes of cleaning or loading before `start` */
  readonly setup: number;
  readonly verb: string;
  readonly layer: PlanStep['layer'];
  readonly recipeName: string;
  readonly pieces: readonly {
    readonly step: string;
    readonly name: string;
    readonly unit: string;
    readonly count: number;
  }[];
  /** what to mix for this run; null where nothing is mixed */
  readonly mix: RunMix | null;
  /** the next layer may go on the first piece from here */
  readonly dryAt: number;
  /** windows of the pieces that shut: first closing, null if none */
  readonly closes: number | null;
  readonly cautions: readonly string[];
  /** it began in an earlier session, or goes on in a later one */
  readonly isContinued: boolean;
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
  /** dryings that run past the end of the session */
  readonly overnight: readonly { readonly until: number; readonly text: string }[];
  readonly deferTo: string;
}

/** @throws RangeError when the plan has no such session */
export function runSheet(plan: Plan, index: number, cupMl = CUP_ML): RunSheet {
  const session = plan.sessions[index];
  if (!session) throw new RangeError(`The plan has no session ${index + 1}; it has ${plan.sessions.length}.`);
  const runs: PlanStep[][] = [];
  for (const step of session.steps) {
    const run = runs[runs.length - 1];
    const last = run?.[run.length - 1];
    if (run && last && sameRun(last, step)) run.push(step);
    else runs.push([step]);
  }
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
  const overnight = session.steps
    .filter((s) => s.tide.dryAt > session.end && s.end <= session.end)
    .map((s) => ({ until: Math.ceil(s.tide.dryAt), text: `“${s.layer.name}” on ${s.piece.name}` }))
    .sort((a, b) => a.until - b.until);
  return {
    session,
    entries: runs.map((run) => entryOf(run, session, cupMl)),
    closings,
    overnight,
    deferTo: DEFER,
  };
}

function sameRun(a: PlanStep, b: PlanStep): boolean {
  return (
    a.recipe.id === b.recipe.id &&
    a.layer.id === b.layer.id &&
    a.round === b.round &&
    b.setup === 0 &&
    b.start === a.end
  );
}

/** What a cup holds where the bench does not say: cups hold 2 to 9 ml (common practice, no source). */
const CUP_ML = 7;

function mixFor(run: readonly PlanStep[], cupMl: number): RunMix | null {
  const first = run[0]!;
  const amounts = run.map((s) => amountOf(s.recipe, s.layer, s.piece));
  const ml = amounts.reduce((sum, a) => sum + a.ml, 0) / first.rounds;
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

function entryOf(run: readonly PlanStep[], session: PlanSession, cupMl: number): RunEntry {
  const first = run[0]!;
  const last = run[run.length - 1]!;
  const shut = run.flatMap((s) => s.gate?.closes ?? []);
  return {
    start: Math.max(first.start, session.start),
    end: Math.min(last.end, session.end),
    setup: first.setup,
    verb: methodOf(first.layer.method).verb,
    layer: first.layer,
    recipeName: first.recipe.name,
    pieces: run.map((s) => ({ step: s.id, name: s.piece.name, unit: s.unit.name, count: s.piece.count })),
    mix: mixFor(run, cupMl),
    dryAt: Math.ceil(Math.min(...run.map((s) => s.tide.dryAt))),
    closes: shut.length > 0 ? Math.min(...shut) : null,
    cautions: cautionsFor(first.layer.family, first.layer.method),
    isContinued: first.start < session.start || last.end > session.end,
  };
}
