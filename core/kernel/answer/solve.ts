/**
 * The door to the solver: propagate (or prove that there is no plan), build a first plan, improve it step by step.
 * Nothing here knows the time of day or waits: the caller steps it, asks for the best so far, and stops when it likes.
 */
import { Dates } from '../search/dates';
import { inTime, latenessOf, withMargin } from '../prove/inTime';
import { lowerBound, raisedBound } from '../prove/bound';
import { overload } from '../prove/overload';
import { ExactSearch } from '../prove/exact';
import { builder } from '../search/construct';
import type { Conflict, Problem, Solution } from '../document/document';
import { LONG_MINUTES, looks, upTo, withinReach } from '../document/horizon';
import { improver, type Improver } from '../search/improve';
import { EQUAL, judged } from '../document/judged';
import { buildModel, type Model } from '../model/model';
import { overfull, propagate, type Bounds } from '../prove/propagate';
import { narrowConflict } from '../prove/narrow';
import { isShop, ShopSearch } from '../search/shop';
import { calmOf } from '../place/calm';
import { plainHolds, type PlainHolds } from '../document/plainHolds';
import { inTurn, repair, WAYS } from './repair';
import { seededRandom, type Random } from '../model/random';
import { Schedule } from '../place/schedule';
import { settleIn } from '../place/settle';
import { structureOf } from '../place/structure';
import type { Minute } from '../model/units';

export interface SearchOptions {
  readonly seed?: number;
  /** share of the time or iterations already spent, 0 to 1: cools the search down */
  readonly progress?: () => number;
  /** a plan for a problem like this one, to begin from and to keep close to */
  readonly previous?: Solution;
  /** cost that every operation adds which leaves the session it had in `previous`; default 0 */
  readonly stability?: number;
  /** moves of the search to leave out, for measurements */
  readonly without?: readonly string[];
}

export interface Search {
  /** Works on: the first steps build a plan, every further one tries `tries` improvements. */
  step(tries: number): void;
  /** The best solution so far; `unknown` while there is none. */
  best(): Solution;
  /** No further step can change anything: optimal, or proved infeasible. */
  readonly isDone: boolean;
  /** No plan, no proof, and every way to a first plan has been tried. */
  readonly isStuck: boolean;
  /** improvements tried */
  readonly tried: number;
}

/** Exact search is tried up to so many operations that take time … */
const SMALL = 40;
/** … with most of the effort for so many nodes, with little of it from then on. */
const PATIENT_NODES = 60_000;

/** From these shares of the search on it goes on from the best plan there was, and hardly ever to worse ones. */
const FINISHING = [0.9, 0.97];
/** Up to this share of it the dates alone may be looked for. */
const DATES = 0.8;
/** … and up to this share a margin before them. */
const MARGIN = 0.3;
/** They are looked for no longer when so many steps, and so many for each strand, have brought no more strands in. */
const PATIENT_STEPS = 100;
const PATIENT_ROUNDS = 10;
/** So often everything goes in anew while somebody is late, and with luck in it up to this share only. */
const TURNS = 8;
const TURNING = 0.15;
const DAY = 1440;
/** A mended plan is first improved for this share of it: that moves less. */
const MENDING = 0.15;
/** Settling may take this share of all work. */
const SETTLING = 0.02;

function isSmall(model: Model): boolean {
  let busy = 0;
  for (const minutes of model.minutes) if (minutes > 0) busy++;
  return busy <= SMALL;
}

/** @throws KernelMistake from `best()` if a plan does not pass the validator */
export function startSearch(problem: Problem, options: SearchOptions = {}): Search {
  const near = withinReach(problem);
  const plain = plainHolds(near);
  if (plain === null) return searchFar(near, options);
  const { previous } = options;
  const search = searchFar(plain.problem, {
    ...options,
    ...(previous ? { previous: plain.lift(previous) } : {}),
  });
  return lowered(search, plain);
}

/**
 * A search of a long horizon: it looks so far ahead that there is a plan, and no farther. Such a plan is one of the whole problem; that
 * it is the best, or that there is none, is said only of the whole horizon.
 */
function searchFar(problem: Problem, options: SearchOptions): Search {
  if (problem.horizon <= LONG_MINUTES) return searchPlain(problem, options);
  const horizons = looks(problem);
  let tried = 0;
  let search = next();
  function next(): Search {
    const horizon = horizons.shift()!;
    return searchPlain(upTo(problem, horizon), options, horizon < problem.horizon);
  }
  return {
    step(tries) {
      search.step(tries);
      if (horizons.length === 0 || search.best().cost !== null || !search.isStuck) return;
      tried += search.tried;
      search = next();
    },
    best() {
      const best = search.best();
      return horizons.length > 0 && best.cost === null ? UNKNOWN : best;
    },
    get isDone() {
      return search.isDone && (horizons.length === 0 || search.best().cost !== null);
    },
    get isStuck() {
      return horizons.length === 0 && search.isStuck;
    },
    get tried() {
      return tried + search.tried;
    },
  };
}

/** A search of the problem with plain holds, told in terms of the problem that was asked. */
function lowered(search: Search, plain: PlainHolds): Search {
  let inner: Solution | null = null;
  let outer: Solution = UNKNOWN;
  return {
    step: (tries) => search.step(tries),
    best() {
      const best = search.best();
      // The same solution is the same object, so that a caller sees when it changes.
      if (best !== inner) outer = plain.lower(best);
      inner = best;
      return outer;
    },
    get isDone() {
      return search.isDone;
    },
    get isStuck() {
      return search.isStuck;
    },
    get tried() {
      return search.tried;
    },
  };
}

/** @param isCut the horizon is not the whole one: nothing is proved by it */
function searchPlain(problem: Problem, options: SearchOptions, isCut = false): Search {
  const random = seededRandom(options.seed ?? 1);
  const model = buildModel(problem);
  const propagation = propagate(model);
  const conflict = propagation.ok ? overfull(model, propagation.bounds) : propagation.conflict;
  if (!propagation.ok || conflict) return settled(infeasible(conflict!));
  return running(model, propagation.bounds, propagation.order, random, options, isCut);
}

function running(
  model: Model,
  bounds: Bounds,
  order: Int32Array,
  random: Random,
  options: SearchOptions,
  isCut: boolean,
): Search {
  const { previous, stability = 0, progress = () => 0.5, without = [] } = options;
  const structure = structureOf(model, bounds, order);
  let bound = lowerBound(model, bounds);
  let best: Snapshot | null = null;
  let improve: Improver | null = null;
  // Prices over a part of the horizon prove nothing of the whole.
  let isRaised = isCut;
  let isRepaired = false;
  /** the old plan could be mended: no need to build one */
  let hasStart = false;
  let shop: ShopSearch | null = null;
  const timely = inTime(model, bounds);
  const unavoidable = latenessOf(model, bounds.endLow) + 1e-9;
  const isLate = (plan: Snapshot): boolean => latenessOf(model, plan.end) > unavoidable;
  /** what is looked for alone, one after the other: that nobody is late, and that all have some margin */
  const aims: Aim[] =
    timely === null
      ? []
      : [{ within: timely, until: DATES, isMet: () => schedule.lateness() <= unavoidable }];
  /** the hours are too few for all dates */
  const isCrowded = model.weights.tardiness * overload(model, bounds) > unavoidable;
  const roomy = timely && withMargin(model, timely);
  if (roomy) aims.push({ within: roomy, until: MARGIN, isMet: () => isWithin(schedule, roomy) });
  let dating: Dates | null = null;
  /** how many strands waited outside at the least, and for how many steps it has not been fewer */
  let fewest = Infinity;
  let vain = 0;
  /** how often everything went in anew since somebody was late */
  let turns = 0;
  /** their own, so that the rest of the search is the same with and without them */
  const chance = seededRandom((options.seed ?? 1) + TURNS);
  let tried = 0;
  let shown: Solution | null = null;
  /** how often it has gone back to the best plan */
  let finishing = 0;
  /** changes of the schedule that settling took */
  let settling = 0;
  const schedule = new Schedule(
    model,
    bounds,
    previous && stability > 0 ? calmOf(model, previous, stability) : null,
  );
  const first = builder(schedule, structure, random);
  const exact = isSmall(model) && stability === 0 && !isCut ? new ExactSearch(model, bounds, order) : null;
  let proof: 'open' | 'optimal' | 'impossible' = 'open';

  /** One constructive plan a step, so that the first is out as soon as it is found. */
  function build(): void {
    if (previous && !isRepaired) {
      isRepaired = true;
      for (const way of WAYS) {
        if (repair(schedule, structure, previous, way)) {
          hasStart = true;
          keep();
        }
        schedule.undoTo(0);
      }
    } else if (first.build()) keep();
  }
  /** Everything in anew: what presses most first, then in the order of the best plan, then with some luck in it. */
  function takeTurns(): void {
    const by = turns % 2 === 0 || best === null ? timely!.startHigh : best.start;
    const luck = turns < 2 ? 0 : DAY * (1 + (turns % 3));
    turns++;
    const key = luck === 0 ? by : by.map((minute) => minute + luck * chance());
    // A schedule of its own: the builder goes on from its last plan.
    const anew = new Schedule(model, bounds, schedule.calm);
    if (inTurn(anew, structure, key)) keepFrom(anew);
  }
  function mayTurn(): boolean {
    if (timely === null || turns >= TURNS || (best !== null && !isLate(best))) return false;
    return turns < (best === null ? 1 : 2) || progress() <= TURNING;
  }
  /** Plans by rules: a few in any case, and more while somebody is late. */
  function mayBuild(): boolean {
    return !hasStart && first.isBusy && (!first.hasTriedRules || best === null || isLate(best));
  }

  /** A share of the time goes to the exact search while there is hope that it ends. */
  function prove(tries: number): void {
    if (best !== null) exact!.lowerLimit(best.cost);
    exact!.step(exact!.nodes < PATIENT_NODES ? 20 * tries : tries);
    const found = exact!.best;
    if (found !== null && (best === null || found.cost < best.cost - 1e-12)) {
      best = found;
      shown = null;
      improve = null;
    }
    if (!exact!.isComplete) return;
    proof = best === null ? 'impossible' : 'optimal';
    shown = null;
  }
  /** While somebody is late (or without margin) and need not be, nothing else is looked for. */
  function aim(tries: number): void {
    const [next] = aims;
    if (dating === null) {
      improve = null;
      schedule.clear();
      restore(schedule, best!);
      if (next!.isMet()) aims.shift();
      else if (next!.within === timely && isCrowded) aims.length = 0;
      else {
        dating = new Dates(schedule, structure, next!.within, random);
        fewest = Infinity;
        vain = 0;
      }
      return;
    }
    for (let k = 0; k < tries && dating !== null; k++) {
      const mayGoOn =
        progress() <= next!.until && vain <= PATIENT_STEPS + PATIENT_ROUNDS * structure.strands.length;
      const isFound = mayGoOn && dating.step();
      if (isFound) keepFrom(dating.schedule);
      vain = dating.waiting < fewest ? 0 : vain + 1;
      fewest = Math.min(fewest, dating.waiting);
      if (!isFound && mayGoOn) continue;
      dating = null;
      aims.shift();
    }
  }
  function keep(): void {
    keepFrom(schedule);
  }
  function keepFrom(found: Schedule): void {
    const cost = found.cost();
    if (best !== null && cost >= best.cost - 1e-12) return;
    best = snapshot(found, cost);
    shown = null;
  }
  /** Keeps the plan as it is when settled; the search goes on from the plan that isn't, whose racks are emptier. */
  function keepSettled(): void {
    const begin = schedule.changes;
    const mark = schedule.mark();
    if (settling <= SETTLING * begin) settleIn(schedule);
    keep();
    schedule.undoTo(mark);
    settling += schedule.changes - begin;
  }
  function raise(): void {
    isRaised = true;
    bound = Math.max(bound, raisedBound(model, bounds, order, best!.cost));
    shown = null;
  }
  function swapInShop(tries: number): void {
    shop ??= new ShopSearch(model, best!.start, random);
    tried += tries;
    if (!shop.step(10 * tries) || shop.best.cost >= best!.cost) return;
    best = shop.best;
    shown = null;
  }
  function begin(): Improver {
    schedule.clear();
    restore(schedule, best!);
    const within = roomy && isWithin(schedule, roomy) ? roomy : null;
    return improver(schedule, structure, random, {
      progress,
      without,
      tried,
      within,
      isFinishing: finishing > 0,
    });
  }

  return {
    step(tries) {
      if (this.isDone) return;
      if (exact !== null && proof === 'open') prove(tries);
      if (this.isDone) return;
      if (!hasStart && !first.hasTriedRules) return build();
      if (mayTurn()) return takeTurns();
      if (mayBuild()) return build();
      if (best !== null && aims.length > 0 && (!hasStart || progress() > MENDING)) return aim(tries);
      if (!isRaised) return raise();
      if (isShop(model)) return swapInShop(tries);
      if (finishing < FINISHING.length && progress() >= FINISHING[finishing]!) {
        finishing++;
        improve = null;
      }
      improve ??= begin();
      for (let k = 0; k < tries; k++) {
        tried++;
        if (improve.step()) keepSettled();
      }
    },
    best() {
      shown ??=
        best !== null
          ? judged(model.problem, best, proof === 'optimal' ? best.cost : bound)
          : proof === 'impossible'
            ? infeasible(narrowConflict(model.problem))
            : UNKNOWN;
      return shown;
    },
    get isDone() {
      return (
        proof !== 'open' ||
        (best !== null && !mayBuild() && best.cost <= bound + EQUAL * Math.max(1, Math.abs(bound)))
      );
    },
    get isStuck() {
      return best === null && proof === 'open' && first.isStumped;
    },
    get tried() {
      return tried;
    },
  };
}

interface Aim {
  readonly within: Bounds;
  /** share of the search up to which it is looked for */
  readonly until: Minute;
  readonly isMet: () => boolean;
}

function isWithin(schedule: Schedule, { endHigh }: Bounds): boolean {
  return schedule.end.every((end, i) => end <= endHigh[i]!);
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
  return { step: () => undefined, best: () => solution, isDone: true, isStuck: true, tried: 0 };
}
