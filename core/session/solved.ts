/** One muster, one log, one solved plan: everything a screen shows of it comes from here, and from the problem that was really solved. */
import type { ClockPoints } from '#core/climate';
import { leastSums, movedOperations, type Problem, type Solution, type Sums } from '#core/kernel';
import { minutesUntil, originOf, type Instant, type Muster } from '#core/muster';
import {
  checkPlan,
  compile,
  horizonDays,
  present,
  withLanes,
  type Compiled,
  type Plan,
  type PlanFinding,
  type StepRef,
} from '#core/plan';
import { withApprovals, withHistory, withReworks } from './history';
import { paceKey, pacesOf, taught, type Paces } from './lessons';
import type { LogEntry } from '#core/log';

/** What is to be solved: the muster as it stands, with what has happened so far. */
export interface Posed extends Compiled {
  readonly muster: Muster;
  /** what no plan goes below; null when there is none at all */
  readonly least: Sums | null;
  /** how each of several people differs from the bench’s mean */
  readonly paces: Paces;
}

/** What came of it. All of it can be sent from a worker to a page. */
export interface Solved extends Compiled {
  readonly problem: Problem;
  readonly solution: Solution;
  /** every step, reworks among them */
  readonly steps: ReadonlyMap<string, StepRef>;
  readonly clocks: ReadonlyMap<string, ClockPoints>;
  readonly plan: Plan;
  /** what no plan goes below */
  readonly least: Sums | null;
  /** what the craft says of the times of this plan */
  readonly cautions: readonly PlanFinding[];
  /** ids of the steps that changed their session against the plan before; null where there is none to compare with */
  readonly moved: readonly string[] | null;
}

/** What a page shows of it: without the problem, which is large and of use only where it was solved. */
export type Shown = Omit<Solved, 'problem' | 'spells'>;

export function shownOf({ problem, spells, ...shown }: Solved): Shown {
  void problem;
  void spells;
  return shown;
}

/**
 * @param told a muster in which `checkMuster` finds no error; it is planned with what its bench has taught
 * @param now the moment from which the rest is planned; null: nothing has happened yet
 */
export function pose(told: Muster, log: readonly LogEntry[], now: Instant | null): Posed {
  const muster = taught(told, log, () => compile(told));
  const origin = originOf(muster);
  const minute = now === null ? 0 : Math.max(0, Math.floor(minutesUntil(origin, now)));
  const compiled = compile(muster, minute);
  const paces = pacesOf(muster, log, compiled.steps);
  if (now === null) return { ...compiled, muster, least: leastSums(compiled.problem), paces };
  const problem = withHistory(withApprovals(compiled.problem, compiled.steps, log), log, origin, minute);
  return {
    ...compiled,
    muster,
    least: leastSums(problem),
    paces,
    steps: withReworks(compiled.steps, log),
    problem,
  };
}

/** Who does each step, by its id: the name of one of the people. */
export type HandNames = ReadonlyMap<string, string>;

/** Who would do what in a plan in which hands are only counted; empty where one works alone. */
export function handNames(posed: Posed, solution: Solution): HandNames {
  const plan = present(posed.muster, posed, solution);
  return new Map([...plan.steps].flatMap(([id, s]) => (s.doer ? [[id, s.doer.who] as const] : [])));
}

/** The same with everybody's hands by themselves. */
export function withHands(posed: Posed, names: HandNames): Posed {
  if (names.size === 0) return posed;
  const doers = new Map([...names].map(([id, who]) => [id, { who, handovers: [] }]));
  return {
    ...posed,
    problem: atTheirPace(
      withLanes(posed.problem, posed.muster, doers, horizonDays(posed.muster)),
      posed,
      names,
    ),
    doers,
  };
}

/** Each step with the minutes of the one who does it, where the log has shown them to differ; what has happened stays. */
function atTheirPace(problem: Problem, { steps, paces }: Posed, names: HandNames): Problem {
  if (paces.size === 0) return problem;
  const fixed = new Set((problem.fixed ?? []).map((f) => f.id));
  return {
    ...problem,
    operations: problem.operations.map((o) => {
      const step = steps.get(o.id);
      const who = names.get(o.id);
      const pace = step && who !== undefined && paces.get(paceKey(who, step.recipe.id, step.layer.id));
      return !pace || fixed.has(o.id) || o.minutes === 0
        ? o
        : { ...o, minutes: Math.max(1, Math.round(o.minutes * pace)) };
    }),
  };
}

/**
 * @param solution feasible or optimal, for `posed.problem`
 * @param before the solution of the plan before, if there was one
 */
export function solvedPlan(posed: Posed, solution: Solution, before: Solution | null = null): Solved {
  const plan = present(posed.muster, posed, solution);
  return {
    problem: posed.problem,
    steps: posed.steps,
    clocks: posed.clocks,
    spells: posed.spells,
    pins: posed.pins,
    absences: posed.absences,
    ...(posed.doers ? { doers: posed.doers } : {}),
    solution,
    plan,
    least: posed.least,
    cautions: checkPlan(plan, posed),
    moved: before && before.cost ? movedOperations(posed.problem, before, solution) : null,
  };
}
