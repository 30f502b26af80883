/** The session at the bench as it stands: the run in hand, what comes after, what is drying and what closes first. */
import { isFor } from '#core/recipe';
import { duration, runsOf, type Plan, type PlanStep } from '#core/plan';
import { minutesUntil } from '#core/muster';
import { standing, type LogEntry } from './log';

export type ShelfState = 'wet' | 'opening' | 'open' | 'closing' | 'missed' | 'safe';

export interface ShelfItem {
  readonly step: PlanStep;
  readonly state: ShelfState;
  /** in words, with minutes */
  readonly words: string;
  /** share of wetness left, 1 … 0 */
  readonly level: number;
  /** what orders the shelf: the next moment that matters */
  readonly moment: number;
}

export interface Tonight {
  /** steps of the run in hand that are not done yet; empty when there is nothing (more) to do now */
  readonly run: readonly PlanStep[];
  /** the next runs after it */
  readonly next: readonly (readonly PlanStep[])[];
  readonly shelf: readonly ShelfItem[];
  /** minute at which the run is planned to begin */
  readonly begins: number | null;
  /** steps of this plan done or skipped, and all of them */
  readonly done: number;
  readonly all: number;
  /** fillers that hardly wait, for idle hands */
  readonly fillers: readonly PlanStep[];
}

const SOON = 10;
const NEXT_RUNS = 2;

/**
 * @param now minutes since the plan's origin; they pass evenly, whatever the wall clock does
 * @param who whose runs are wanted, where several work; null: everybody's
 */
export function tonight(
  plan: Plan,
  log: readonly LogEntry[],
  now: number,
  who: string | null = null,
): Tonight {
  const entries = standing(log);
  const ended = new Map<string, number>();
  for (const e of entries)
    if (e.kind === 'done' || e.kind === 'skipped') ended.set(e.step, minutesUntil(plan.origin, e.at));
  const order = [...plan.steps.values()].sort(
    (a, b) => a.start - b.start || a.end - b.end || a.id.localeCompare(b.id),
  );
  const open = order.filter((s) => !ended.has(s.id));
  const runs = comingRuns(
    plan,
    open.filter((s) => who === null || s.doer === null || s.doer.who === who),
  );
  const first = runs[0] ?? [];
  return {
    run: first,
    next: runs.slice(1, 1 + NEXT_RUNS),
    shelf: shelfOf(plan, ended, now),
    begins: first[0]?.start ?? null,
    done: [...ended.keys()].filter((id) => plan.steps.has(id)).length,
    all: plan.steps.size,
    fillers: open
      .filter((s) => isFiller(s) && isReady(plan, s, ended, now) && !first.includes(s))
      .slice(0, 4),
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

/** Dry brush, sponge, pencil, details: nothing that has to dry for long. */
function isFiller(step: PlanStep): boolean {
  return (
    (step.layer.method === 'sponge' ||
      isFor('mark')(step.layer) ||
      step.layer.pausable ||
      step.layer.dryMinutes <= 10) &&
    step.gate === null
  );
}

function isReady(plan: Plan, step: PlanStep, ended: ReadonlyMap<string, number>, now: number): boolean {
  return [...plan.steps.values()].every(
    (s) =>
      s.piece.id !== step.piece.id ||
      s.layerIndex >= step.layerIndex ||
      (ended.has(s.id) && s.tide.dryAt <= now),
  );
}

function shelfOf(plan: Plan, ended: ReadonlyMap<string, number>, now: number): ShelfItem[] {
  const items: ShelfItem[] = [];
  const last = new Map<string, PlanStep>();
  for (const step of plan.steps.values())
    if (ended.has(step.id)) {
      const known = last.get(step.piece.id);
      if (!known || step.end >= known.end) last.set(step.piece.id, step);
    }
  for (const step of last.values()) {
    const item = itemOf(step, now);
    if (item) items.push(item);
  }
  return items.sort((a, b) => a.moment - b.moment || a.step.id.localeCompare(b.step.id));
}

function itemOf(step: PlanStep, now: number): ShelfItem | null {
  const { tide, gate } = step;
  const span = Math.max(1, tide.dryAt - step.end);
  const level = Math.max(0, Math.min(1, (tide.dryAt - now) / span));
  const at = (state: ShelfState, words: string, moment: number): ShelfItem => ({
    step,
    state,
    words,
    level,
    moment,
  });
  const minutes = (m: number): string =>
    m > 120 ? duration(Math.ceil(m)) : `${Math.max(0, Math.ceil(m))} min`;
  if (gate?.closes != null) {
    if (now < gate.opens) return at('opening', `opens in ${minutes(gate.opens - now)}`, gate.closes);
    if (now > gate.closes)
      return at('missed', `shut ${minutes(now - gate.closes)} ago; see Trouble`, gate.closes);
    if (gate.closes - now <= SOON) return at('closing', `${minutes(gate.closes - now)} left`, gate.closes);
    return at('open', `closes in ${minutes(gate.closes - now)}`, gate.closes);
  }
  if (now < tide.wetUntil) return at('wet', `do not touch for ${minutes(tide.wetUntil - now)}`, tide.dryAt);
  if (now < tide.dryAt) return at('opening', `next layer in ${minutes(tide.dryAt - now)}`, tide.dryAt);
  if (now < tide.dryAt + 60) return at('safe', 'dry, may be touched', tide.dryAt);
  return null;
}
