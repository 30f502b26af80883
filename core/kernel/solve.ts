/**
 * The door to the solver: propagate (or prove that there is no plan), build a first plan, improve it step by step.
 * Nothing here knows the time of day or waits: the caller steps it, asks for the best so far, and stops when it likes.
 */
import { lowerBound } from './bound';
import { construct, RULES } from './construct';
import type { Conflict, Problem, Solution, Status } from './document';
import { improver, type Improver, type Move } from './improve';
import { buildModel, type Model } from './model';
import { overfull, propagate, type Bounds } from './propagate';
import { seededRandom, type Random } from './random';
import { Schedule } from './schedule';
import { structureOf, type Structure } from './structure';
import { validateSolution } from './validate';

export interface SearchOptions {
  readonly seed?: number;
  /** share of the time or iterations already spent, 0 to 1: cools the search down */
  readonly progress?: () => number;
  /** moves of the search to leave out, for measurements */
  readonly without?: readonly Move[];
}

export interface Search {
  /** Works on: the first steps build a plan, every further one tries `tries` improvements. */
  step(tries: number): void;
  /** The best solution so far; `unknown` while there is none. */
  best(): Solution;
  /** No further step can change anything: optimal, or proved infeasible. */
  readonly isDone: boolean;
  /** improvements tried */
  readonly tried: number;
}

/** Thrown when a plan fails the kernel's own judge: a mistake of the program, never of the problem. */
export class KernelMistake extends Error {
  constructor(text: string) {
    super(`The solver made a plan that breaks a rule (${text}). Please keep the problem file and report it.`);
    this.name = 'KernelMistake';
  }
}

const EQUAL = 1e-7;

/** @throws KernelMistake from `best()` if a plan does not pass the validator */
export function startSearch(problem: Problem, options: SearchOptions = {}): Search {
  const random = seededRandom(options.seed ?? 1);
  const model = buildModel(problem);
  const propagation = propagate(model);
  const conflict = propagation.ok ? overfull(model, propagation.bounds) : propagation.conflict;
  if (!propagation.ok || conflict) return settled(infeasible(conflict!));
  return running(
    model,
    propagation.bounds,
    propagation.order,
    random,
    options.progress ?? (() => 0.5),
    options.without,
  );
}

function running(
  model: Model,
  bounds: Bounds,
  order: Int32Array,
  random: Random,
  progress: () => number,
  without: readonly Move[] | undefined,
): Search {
  const structure = structureOf(model, bounds, order);
  const bound = lowerBound(model, bounds);
  let best: Snapshot | null = null;
  let improve: Improver | null = null;
  let rules = 0;
  let tried = 0;
  let shown: Solution | null = null;
  const schedule = new Schedule(model, bounds);

  /** One constructive rule a step, so that the first plan is out as soon as it is found. */
  function build(): void {
    const rule = RULES[rules++]!;
    if (!construct(schedule, structure, rule, random)) return;
    keep();
    schedule.undoTo(0);
  }
  function keep(): void {
    const cost = schedule.cost();
    if (best !== null && cost >= best.cost - 1e-12) return;
    best = snapshot(schedule, cost);
    shown = null;
  }
  function begin(): Improver {
    restore(schedule, best!);
    return improver(schedule, structure, random, { progress, without: without ?? [] });
  }

  return {
    step(tries) {
      if (this.isDone) return;
      if (rules < RULES.length) return build();
      if (best === null) return retry(schedule, structure, random, keep);
      improve ??= begin();
      for (let k = 0; k < tries; k++) {
        tried++;
        if (improve.step()) keep();
      }
    },
    best() {
      shown ??= best === null ? UNKNOWN : solutionOf(model, best, bound);
      return shown;
    },
    get isDone() {
      return (
        best !== null && rules >= RULES.length && best.cost <= bound + EQUAL * Math.max(1, Math.abs(bound))
      );
    },
    get tried() {
      return tried;
    },
  };
}

/** No rule found a plan: random orders, until one does. */
function retry(schedule: Schedule, structure: Structure, random: Random, keep: () => void): void {
  const noise = structure.strands.map(() => random());
  const keyOf = new Map(structure.strands.map((s, k) => [s, noise[k]!]));
  if (!construct(schedule, structure, (s) => keyOf.get(s)!, random)) return;
  keep();
  schedule.undoTo(0);
}

interface Snapshot {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
  readonly cost: number;
}

function snapshot(schedule: Schedule, cost: number): Snapshot {
  return { start: schedule.start.slice(), end: schedule.end.slice(), setup: schedule.setup.slice(), cost };
}

function restore(schedule: Schedule, from: Snapshot): void {
  for (let i = 0; i < from.start.length; i++)
    if (!schedule.isPlaced(i)) schedule.assign(i, from.start[i]!, from.end[i]!, from.setup[i]!);
  schedule.commit();
}

const UNKNOWN: Solution = {
  format: 'muster-solution/1',
  status: 'unknown',
  operations: [],
  cost: null,
  bound: null,
  conflict: null,
};

function infeasible(conflict: Conflict): Solution {
  return { ...UNKNOWN, status: 'infeasible', conflict };
}

function settled(solution: Solution): Search {
  return { step: () => undefined, best: () => solution, isDone: true, tried: 0 };
}

function solutionOf(model: Model, from: Snapshot, bound: number): Solution {
  const draft: Solution = {
    format: 'muster-solution/1',
    status: 'feasible',
    operations: model.ids.map((id, i) => ({
      id,
      start: from.start[i]!,
      end: from.end[i]!,
      setup: from.setup[i]!,
    })),
    cost: null,
    bound: null,
    conflict: null,
  };
  const { violations, cost } = validateSolution(model.problem, draft);
  const real = violations.filter((v) => v.rule !== 8);
  if (real.length > 0 || cost === null)
    throw new KernelMistake(
      real
        .map((v) => `rule ${v.rule}, ${v.where}: ${v.text}`)
        .slice(0, 3)
        .join('; '),
    );
  const proved = Math.min(bound, cost.total);
  const status: Status =
    cost.total - proved <= EQUAL * Math.max(1, Math.abs(cost.total)) ? 'optimal' : 'feasible';
  return { ...draft, status, cost, bound: proved };
}
