/** What there is to do at the bench, in order: the run in hand, what comes after, what may fill a wait. */
import { isFor } from '#core/recipe';
import { minutesUntil } from '#core/muster';
import { runsOf, type Plan, type PlanStep } from '#core/plan';
import { type Ended, endedSteps, type LogEntry } from '#core/log';

export interface Agenda {
  /** steps of the run in hand that are not done yet; empty when there is nothing (more) to do */
  readonly run: readonly PlanStep[];
  /** the next runs after it */
  readonly next: readonly (readonly PlanStep[])[];
  /** minute at which the run is planned to begin */
  readonly begins: number | null;
  /** steps of this plan done or left off, and all of them */
  readonly done: number;
  readonly all: number;
  /** short work for idle hands; it may be begun from `readyAt` on (minute), when all beneath it is dry */
  readonly fillers: readonly { readonly step: PlanStep; readonly readyAt: number }[];
}

const NEXT_RUNS = 2;
/** Longer than this it keeps nobody from filling a wait with it, minutes. */
const SHORT_DRYING = 10;

/** @param who whose runs are wanted, where several work; null: everybody's */
export function agenda(plan: Plan, log: readonly LogEntry[], who: string | null = null): Agenda {
  const ended = endedSteps(log);
  const open = [...plan.steps.values()]
    .filter((s) => !ended.has(s.id))
    .sort((a, b) => a.start - b.start || a.end - b.end || a.id.localeCompare(b.id));
  const runs = comingRuns(
    plan,
    open.filter((s) => who === null || s.doer === null || s.doer.who === who),
  );
  const first = runs[0] ?? [];
  return {
    run: first,
    next: runs.slice(1, 1 + NEXT_RUNS),
    begins: first[0]?.start ?? null,
    done: plan.steps.size - open.length,
    all: plan.steps.size,
    fillers: fillersAmong(plan, open, new Set(first), ended),
  };
}

/** What is left as runs, session by session, so far as it is shown. */
function comingRuns(plan: Plan, open: readonly PlanStep[]): (readonly PlanStep[])[] {
  const runs: (readonly PlanStep[])[] = [];
  let from = 0;
  while (from < open.length && runs.length <= NEXT_RUNS) {
    const session = plan.sessions.find((s) => s.end > open[from]!.start);
    let to = from + 1;
    while (to < open.length && session && open[to]!.start < session.end) to++;
    runs.push(...runsOf(open.slice(from, to)));
    from = to;
  }
  return runs;
}

function fillersAmong(
  plan: Plan,
  open: readonly PlanStep[],
  inHand: ReadonlySet<PlanStep>,
  ended: Ended,
): Agenda['fillers'] {
  const ofPiece = new Map<string, PlanStep[]>();
  for (const s of plan.steps.values()) {
    const own = ofPiece.get(s.piece.id);
    if (own) own.push(s);
    else ofPiece.set(s.piece.id, [s]);
  }
  return open
    .filter((s) => isFiller(s) && !inHand.has(s))
    .flatMap((step) => {
      const beneath = ofPiece.get(step.piece.id)!.filter((s) => s.layerIndex < step.layerIndex);
      return beneath.every((s) => ended.has(s.id))
        ? [{ step, readyAt: Math.max(0, ...beneath.map((s) => dryAfter(plan, s, ended))) }]
        : [];
    });
}

/** When a step that is over is dry: as planned, from when it really ended. */
function dryAfter(plan: Plan, step: PlanStep, ended: Ended): number {
  return step.tide.dryAt + minutesUntil(plan.origin, ended.get(step.id)!.at) - step.end;
}

/** Dry brush, sponge, pencil, details: nothing that has to dry for long. */
function isFiller(step: PlanStep): boolean {
  return (
    (step.layer.method === 'sponge' ||
      isFor('mark')(step.layer) ||
      step.layer.pausable ||
      step.layer.dryMinutes <= SHORT_DRYING) &&
    step.gate === null
  );
}
