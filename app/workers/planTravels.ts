/**
 * How a solved plan gets from the worker to the page. Of steps there can be thousands, and a page that reads as many objects stands still
 * meanwhile; as columns they are read in a fraction of the time.
 */
import { transferHandlers } from 'comlink';
import type { PlanStep, StepRef } from '#core/plan';
import type { Shown } from '#core/session';
import { rowsOf, tableOf, type Table } from './table';

interface Travelling {
  readonly rest: Omit<Shown, 'plan' | 'solution' | 'steps'>;
  readonly plan: Omit<Shown['plan'], 'sessions' | 'steps'>;
  readonly steps: Table<PlanStep>;
  readonly sessions: readonly Omit<Shown['plan']['sessions'][number], 'steps'>[];
  /** of each session, where its steps stand among `steps` */
  readonly within: readonly Int32Array[];
  /** steps that the plan does not have yet */
  readonly unplaced: readonly (readonly [string, StepRef])[];
  readonly solution: Omit<Shown['solution'], 'operations'>;
  readonly operations: Table<Shown['solution']['operations'][number]>;
}

/** A plan made ready to be sent. */
export function packed(shown: Shown): Travelling {
  const { plan, solution, steps, ...rest } = shown;
  const { sessions, steps: placed, ...ofPlan } = plan;
  const { operations, ...ofSolution } = solution;
  const at = new Map([...placed.values()].map((step, k) => [step, k]));
  return {
    rest,
    plan: ofPlan,
    steps: tableOf([...placed.values()], ['tide', 'gate']),
    sessions: sessions.map(({ steps: own, ...session }) => (void own, session)),
    within: sessions.map((s) => Int32Array.from(s.steps, (step) => at.get(step)!)),
    unplaced: [...steps].filter(([id]) => !placed.has(id)),
    solution: ofSolution,
    operations: tableOf(operations),
  };
}

/** The same plan where it has arrived. */
export function unpacked(sent: Travelling): Shown {
  const steps = rowsOf(sent.steps);
  const placed = new Map(steps.map((step) => [step.id, step]));
  return {
    ...sent.rest,
    plan: {
      ...sent.plan,
      steps: placed,
      sessions: sent.sessions.map((session, k) => ({
        ...session,
        steps: Array.from(sent.within[k]!, (at) => steps[at]!),
      })),
    },
    steps: sent.unplaced.length === 0 ? placed : new Map<string, StepRef>([...placed, ...sent.unplaced]),
    solution: { ...sent.solution, operations: rowsOf(sent.operations) },
  };
}

/** Whatever comes with a plan: the plan itself, or news of one. */
type Bearer = Shown | { readonly solved: Shown };

/** On both sides: what bears a plan is sent packed. */
export function sendPlansPacked(): void {
  transferHandlers.set('solved plan', {
    canHandle: (value): value is Bearer => isShown(value) || (has(value, 'solved') && isShown(value.solved)),
    serialize: (value: Bearer) => [
      'solved' in value ? { ...value, solved: packed(value.solved) } : packed(value),
      [],
    ],
    deserialize: (sent: Travelling | { readonly solved: Travelling }): Bearer =>
      'solved' in sent ? { ...sent, solved: unpacked(sent.solved) } : unpacked(sent),
  });
}

function isShown(value: unknown): value is Shown {
  return has(value, 'plan') && has(value, 'solution') && has(value, 'cautions');
}

function has<K extends string>(value: unknown, key: K): value is Record<K, unknown> {
  return typeof value === 'object' && value !== null && key in value;
}
