/** What a press at the bench means, as entries for the log: done, how long it took, left off, looked at. Pure: the moment is given. */
import { minutesUntil, type Instant } from '#core/muster';
import { handsOnMinutes, type Plan, type PlanStep } from '#core/plan';
import { endedSteps, MOST_MINUTES, standing, type Deed, type EntryOf, type LogEntry } from '#core/log';

/** What of a cup went on one piece. */
export type Mixed = Pick<EntryOf<'done'>, 'mixture' | 'used' | 'fromJar'>;

/** Minutes of hands for each piece of a run. */
export interface Timing {
  readonly perPiece: number;
  readonly isMeasured: boolean;
}

/**
 * How long these steps took, until `now`: since someone pressed Begin, or since whatever came last (the step before, the session's
 * beginning, the planned start). Absurdly short or long, nobody was timing it, and the planned minutes stand.
 * @param begun the moment at which the run was begun; null when nobody said
 */
export function timingOf(
  plan: Plan,
  log: readonly LogEntry[],
  steps: readonly PlanStep[],
  now: number,
  begun: Instant | null,
): Timing {
  const planned = steps.reduce((sum, s) => sum + handsOnMinutes(plan, s), 0);
  const minutes = measured(plan, log, steps[0]!, planned, now, begun);
  return { perPiece: (minutes ?? planned) / steps.length, isMeasured: minutes !== null };
}

function measured(
  plan: Plan,
  log: readonly LogEntry[],
  step: PlanStep,
  planned: number,
  now: number,
  begun: Instant | null,
): number | null {
  if (begun !== null) {
    const minutes = now - minutesUntil(plan.origin, begun);
    // Begun and forgotten, or the clock was set since: it was not timed.
    return minutes >= 0 && minutes <= MOST_MINUTES ? Math.max(0.1, minutes) : null;
  }
  const last = standing(log).findLast((e) => e.kind === 'done');
  const session = plan.sessions.find((s) => s.start <= now && now < s.end);
  const since = Math.max(
    last ? minutesUntil(plan.origin, last.at) : 0,
    session?.start ?? 0,
    step.start <= now ? step.start : 0,
  );
  const minutes = now - since;
  return minutes >= planned / 3 && minutes <= planned * 3 ? minutes : null;
}

/**
 * Pieces of a run are done one after the other, the last of them at `at`.
 * @param before pieces of the same run that were ticked off before these
 * @param mixed what was really in the cup for each step; nothing where nothing was mixed
 */
export function doneDeeds(
  steps: readonly PlanStep[],
  { perPiece, isMeasured }: Timing,
  before: number,
  mixed: (step: PlanStep) => Mixed,
  at: Date,
): Deed[] {
  return steps.map((s, k) => ({
    entry: {
      kind: 'done',
      step: s.id,
      minutes: Math.min(MOST_MINUTES, Math.round(perPiece * 10) / 10),
      isMeasured,
      nth: Math.max(1, Math.min(500, before + k + 1)),
      ...mixed(s),
    },
    at: new Date(at.getTime() - (steps.length - 1 - k) * perPiece * 60_000),
  }));
}

/** The coat that a step waits for: what was put on its piece last beneath it; null when there is none. */
export function waitedFor(plan: Plan, log: readonly LogEntry[], step: PlanStep): PlanStep | null {
  const ended = endedSteps(log);
  const beneath = [...plan.steps.values()].filter(
    (s) => s.piece.id === step.piece.id && s.layerIndex < step.layerIndex && ended.get(s.id)?.kind === 'done',
  );
  return beneath.reduce<PlanStep | null>((a, b) => (a && a.end >= b.end ? a : b), null);
}

/** The passes that are left of what is in hand, on its pieces: with “enough” they are left off. */
export function passesLeft(plan: Plan, steps: readonly PlanStep[]): PlanStep[] {
  return [...plan.steps.values()].filter((s) =>
    steps.some((own) => s.piece.id === own.piece.id && s.layer.id === own.layer.id && s.round >= own.round),
  );
}
