/** One evening as a strip: its runs, the waits between them, the windows that are under way. Minutes since the plan's origin. */
import { runsOf, type Plan, type PlanSession, type PlanStep } from '#core/plan';
import type { Resting } from './shelf';

export interface StripRun {
  readonly steps: readonly PlanStep[];
  readonly start: number;
  readonly end: number;
  readonly isDone: boolean;
  readonly isInHand: boolean;
}

export interface Strip {
  readonly from: number;
  readonly to: number;
  readonly runs: readonly StripRun[];
  /** how many of them are done */
  readonly done: number;
  /** hands are idle, from … to */
  readonly waits: readonly { readonly start: number; readonly end: number }[];
  readonly gates: readonly { readonly opens: number; readonly closes: number; readonly name: string }[];
}

/** A pause shorter than this is a breath, not a wait. */
const LEAST_WAIT = 4;

/**
 * @param isOver of a step
 * @param who whose runs are wanted, where several work; null: everybody's
 */
export function stripOf(
  plan: Plan,
  session: PlanSession,
  coats: readonly Resting[],
  isOver: (step: PlanStep) => boolean,
  who: string | null = null,
): Strip {
  const steps = session.steps.filter((s) => who === null || s.doer === null || s.doer.who === who);
  const all = runsOf(steps).map((run) => ({
    steps: run,
    start: run[0]!.start,
    end: Math.max(...run.map((s) => s.end)),
    isDone: run.every(isOver),
  }));
  const inHand = all.find((r) => !r.isDone);
  const runs = all.map((r) => ({ ...r, isInHand: r === inHand }));
  const waits: { start: number; end: number }[] = [];
  let free = session.start;
  for (const run of runs) {
    if (run.start - free >= LEAST_WAIT) waits.push({ start: free, end: run.start });
    free = Math.max(free, run.end);
  }
  const gates = coats.flatMap(({ gate, step }) =>
    gate && gate.closes > session.start && gate.opens < session.end
      ? [{ ...gate, name: step.layer.name }]
      : [],
  );
  return {
    from: session.start,
    to: session.end,
    runs,
    done: runs.filter((r) => r.isDone).length,
    waits,
    gates: [
      ...new Map(gates.map((g) => [`${g.name} ${Math.round(g.opens)} ${Math.round(g.closes)}`, g])).values(),
    ],
  };
}
