/**
 * The planning, away from the page: it turns muster and log into one solved plan, explains from what it solved, and weighs single changes.
 * It searches in slices, so that a new order or a stop is heard between two of them.
 */
import { dequal } from 'dequal';
import {
  causesIn,
  inHours,
  movedOperations,
  settle,
  startSearch,
  validateSolution,
  withoutCause,
  type Cause,
  type Problem,
  type Search,
  type Solution,
} from '#core/kernel';
import { mended, minutesUntil, originOf, type Instant, type Muster } from '#core/muster';
import {
  causeWords,
  conflictInWords,
  lateBecause,
  oneAfterAnother,
  whyOf,
  withReserve,
  worstLateness,
  type ReasonWords,
  type Why,
} from '#core/plan';
import { mergeLogs, type LogEntry } from '#core/log';
import { Forecaster, type Forecast, type Given, type LatestStart, type Margin, type Tally } from '#core/odds';
import {
  pose,
  shownOf,
  solvedPlan,
  handNames,
  withHands,
  type HandNames,
  withoutOpenWindows,
  type Posed,
  type Shown,
  type Solved,
} from '#core/session';
import { breathe, playFutures, type Helper } from './playing';

/** What is to be planned, and from when on. */
export interface Posing {
  readonly muster: Muster;
  readonly log: readonly LogEntry[];
  /** the moment from which the rest is planned; null: nothing has happened yet */
  readonly now: Instant | null;
}

/** One thing otherwise: another muster, or more that has happened. */
export interface Changed {
  readonly id: string;
  readonly muster?: Muster;
  readonly happened?: readonly LogEntry[];
}

/** What a change would come to. */
export interface Comes {
  readonly id: string;
  /** lateness of the worst unit; null where no plan was found in the time */
  readonly lateMinutes: number | null;
  /** how likely every date holds, 0 to 1 */
  readonly allHold: number | null;
  /** minutes of hands that the plan takes from now on */
  readonly handsMinutes: number | null;
}

/** Odds as far as they are known. */
export interface Told {
  readonly forecast: Forecast;
  /** what is to be kept of them, once all are played */
  readonly given: readonly Given[];
  /** by unit, once all are played */
  readonly margins: readonly Margin[];
  /** the latest day to begin, of the units for which it is known so far */
  readonly latest: readonly LatestStart[];
}

export interface Order extends Posing {
  readonly seconds: number;
  readonly seed: number;
  /** the plan before, to mend and to keep close to */
  readonly previous: Solution | null;
  /** cost of every step that leaves its session of the plan before */
  readonly stability: number;
  /** once nothing leaves its session any more and nobody is late it need not go on for all of its time */
  readonly endsCalm?: boolean;
}

export type News =
  | { readonly kind: 'progress'; readonly share: number; readonly tried: number }
  | { readonly kind: 'better'; readonly solved: Shown };

export type Outcome =
  | {
      readonly kind: 'planned';
      readonly solved: Shown;
      /** lateness of one unit after another; null where that finds no end, or something has happened already */
      readonly naiveLateMinutes: number | null;
      /** a window that was open can no longer be met; the plan goes on without it */
      readonly isMissed: boolean;
    }
  | { readonly kind: 'impossible'; readonly why: string }
  | { readonly kind: 'unknown' }
  /** another order has come, or a stop */
  | { readonly kind: 'left' };

/** Why one unit is late. */
export interface LateChain {
  readonly unit: string;
  readonly name: string;
  readonly lateMinutes: number;
  /** what would bring it nearer if it were otherwise, what gains most first */
  readonly gains: readonly { readonly text: string; readonly minutes: number }[];
  /** what would not */
  readonly idle: readonly string[];
  /** from the table date back to the start, through what binds */
  readonly links: readonly ReasonWords[];
}

const SLICE_MS = 20;
const TELL_MS = 200;
/** Each better plan is drawn anew: it is told less often, and of many steps less often still. */
const TELL_PLAN_MS = 700;
const TELL_MS_A_STEP = 0.5;
/** The naive order needs no polish, only its first plans. */
const NAIVE_MS = 600;
/** … which a slow machine may need longer for. */
const NAIVE_MOST_MS = 10_000;
/** Beyond so many steps even its first plan takes longer than anybody waits for a comparison. */
const NAIVE_MOST_STEPS = 3000;
/** Up to so many operations settling is a matter of a twentieth of a second: every plan told is settled, beyond only the last. */
const SETTLED_AT_ONCE = 1000;
/** While there is no plan at all, so many times the time is given. */
const PATIENT_TIMES = 4;
/**
 * Up to this share of the time the hands of several people are only counted; then each step has somebody's name. By then dates and margins
 * have been looked for.
 */
const COUNTED = 0.4;
/** Is somebody late after this share of the time, or is there no plan, no part of the sessions is kept free any more. */
const RESERVES_UNTIL = 0.15;
/** From this share of the time on a plan that keeps a part of the sessions free is improved with all hours; no step leaves its session then. */
const TRUE_FROM = 0.95;
const STEADY = 1000;
/** From this share of the time on a search may end that has come to rest. */
const CALM_FROM = 0.3;
const WEIGH_MS = 1800;
/** So many futures tell one change from another: they meet the same luck. */
const WEIGH_FUTURES = 150;
/** From so many futures on the latest day to begin is looked for as well, for so long in all. */
const FULL = 500;
const LATEST_MS = 20_000;
/** Longer nobody waits for odds; nor is a large plan played for so long before anybody asks. */
const ODDS_MS = 29_000;
const FIRST_MS = 4_000;
/** The odds that people want of a day to begin. */
const GOOD = 0.9;
const CAUSE_MS = 800;

export class PlanningDesk {
  private run = 0;
  private playing = 0;
  private solved: Solved | null = null;
  /** what it was solved for */
  private posing: Posing | null = null;
  private why: ((step: string) => Why) | null = null;
  /** plays futures for another desk */
  private helping: Forecaster | null = null;

  /** @param clock milliseconds that go by; a clock that counts its readings makes every search repeatable */
  constructor(private readonly clock: () => number = () => performance.now()) {}

  /** Plans, telling better plans as they come. A second order makes the first one leave. */
  async plan(order: Order, tell: (news: News) => void): Promise<Outcome> {
    const run = ++this.run;
    this.playing++;
    const budget = order.seconds * 1000;
    const begun = this.clock();
    const share = (): number => Math.min(1, (this.clock() - begun) / budget);
    const given = pose(order.muster, order.log, order.now);
    let posed = given;
    const from = order.now === null ? 0 : minutesUntil(originOf(order.muster), order.now);
    let isReserving = reserves(order) && withReserve(posed.problem, from) !== posed.problem;
    const begin = (previous: Solution | null, stability = order.stability): Search =>
      startSearch(isReserving ? withReserve(posed.problem, from) : posed.problem, {
        seed: order.seed,
        progress: share,
        stability,
        ...(previous ? { previous } : {}),
      });
    let search = begin(order.previous);
    let isMissed = false;
    /** a plan as it is with all hours; null where it is none then */
    const read = (found: Solution): Solution | null => (isReserving ? inHours(posed.problem, found) : found);
    /** the plan that a search was left with for another that may find none: with fewer hours, or with hands only counted */
    let fallback: { readonly posed: Posed; readonly best: Solution } | null = null;
    const keepFallback = (found: Solution): void => {
      const best = read(found);
      if (best) fallback = { posed, best };
    };
    // A part of each session is kept free as long as no date asks for it; at last the plan is made true with all hours.
    const useAllHours = (): void => {
      const found = search.best();
      const isOver = share() > RESERVES_UNTIL || search.isDone;
      if (found.status === 'infeasible' || (isOver && !isInTime(found))) {
        isReserving = false;
        search = begin(order.previous ?? (found.cost === null ? null : found));
      } else if (share() > TRUE_FROM || search.isDone) {
        keepFallback(found);
        isReserving = false;
        search = begin(found, STEADY);
      }
    };
    if (isReserving) useAllHours();
    // What has happened can make a window unreachable, proved or not; the rest is planned all the same, and that is said.
    const relax = (): void => {
      isMissed = true;
      posed = { ...given, problem: withoutOpenWindows(given.problem) };
      search = begin(order.previous);
    };
    if (order.now !== null && search.best().status === 'infeasible') relax();

    let isNamed = order.muster.bench.people.length < 2;
    const nameHands = (): void => {
      const counted = search.best();
      keepFallback(counted);
      posed = withHands(posed, handNames(posed, counted));
      search = begin(counted);
      isNamed = true;
    };
    const isUnknown = (): boolean => search.best().status === 'unknown';
    const hasNone = (): boolean => isUnknown() || search.best().status === 'infeasible';
    const tellPlanMs = Math.max(TELL_PLAN_MS, posed.steps.size * TELL_MS_A_STEP);
    let shown: Solution | null = null;
    let seen: Solution | null = null;
    let told = 0;
    let toldPlan = -Infinity;
    while (
      !search.isDone &&
      // A slow moment may last beyond the end of the time: what was planned with fewer hours is made true with all of them all the same.
      (share() < 1 || isReserving || (isUnknown() && this.clock() - begun < PATIENT_TIMES * budget))
    ) {
      const slice = this.clock() + SLICE_MS;
      do search.step(1);
      while (!search.isDone && this.clock() < slice);
      if (isReserving) useAllHours();
      if (order.now !== null && !isMissed && (share() > 0.5 || search.isDone) && hasNone()) relax();
      if (!isNamed && share() > COUNTED && !hasNone()) nameHands();
      if (this.clock() - toldPlan > tellPlanMs) {
        const found = search.best();
        const best = found !== shown && found.cost !== null ? read(found) : null;
        if (best) {
          tell({ kind: 'better', solved: shownOf(this.keep(posed, order, best)) });
          toldPlan = this.clock();
        }
        shown = found;
      }
      if (this.clock() - told > TELL_MS) {
        told = this.clock();
        if (order.endsCalm && share() > CALM_FROM && seen !== search.best()) {
          seen = search.best();
          if (isCalm(posed.problem, order.previous, seen)) break;
        }
        tell({ kind: 'progress', share: share(), tried: search.tried });
      }
      await breathe();
      if (this.run !== run) return { kind: 'left' };
    }
    const isCompared = order.now === null && posed.steps.size <= NAIVE_MOST_STEPS;
    const naiveLateMinutes = isCompared ? await this.naive(run, order.muster) : null;
    if (this.run !== run) return { kind: 'left' };
    if (fallback !== null && hasNone()) return this.planned(fallback, order, naiveLateMinutes, isMissed);
    const last = search.best();
    if (last.status === 'infeasible')
      return { kind: 'impossible', why: conflictInWords(last.conflict!, posed, order.muster) };
    if (last.cost === null) return { kind: 'unknown' };
    return this.planned({ posed, best: last }, order, naiveLateMinutes, isMissed);
  }

  private planned(
    { posed, best }: { readonly posed: Posed; readonly best: Solution },
    order: Order,
    naiveLateMinutes: number | null,
    isMissed: boolean,
  ): Outcome {
    const solved = shownOf(this.keep(posed, order, best, true));
    return { kind: 'planned', solved, naiveLateMinutes, isMissed };
  }

  /** A plan that was kept, as it was solved, by these hands; null where it is none of this muster any more. */
  show(posing: Posing, solution: Solution, isMissed: boolean, hands: HandNames = new Map()): Shown | null {
    const { problem } = posedFor(posing, isMissed, hands);
    // It may be damaged, or of another edition: the judge has the word.
    if (validateSolution(problem, solution).violations.length > 0) return null;
    const solved = this.again(posing, solution, isMissed, hands);
    return solved && shownOf(solved);
  }

  /**
   * A plan read with a muster that has changed since: a name or a note changes nothing that is scheduled.
   * @returns null where the muster asks for another plan
   */
  still(
    was: Posing,
    is: Posing,
    solution: Solution,
    isMissed: boolean,
    hands: HandNames = new Map(),
  ): Shown | null {
    const posed = posedFor(is, isMissed, hands);
    if (!dequal(posed.problem, posedFor(was, isMissed, hands).problem)) return null;
    return shownOf(this.take(is, solvedPlan(posed, solution, solution)));
  }

  private again(posing: Posing, solution: Solution, isMissed: boolean, hands: HandNames): Solved | null {
    const posed = posedFor(posing, isMissed, hands);
    const known = new Set(solution.operations.map((o) => o.id));
    if (solution.cost === null || posed.problem.operations.some((o) => !known.has(o.id))) return null;
    return this.take(posing, solvedPlan(posed, solution));
  }

  /** The search in hand ends with the best plan it has. */
  stop(): void {
    this.run++;
  }

  /** Why a step of the plan last told is then and not sooner; null when it has no such step. */
  explain(step: string): Why | null {
    if (!this.solved?.plan.steps.has(step)) return null;
    this.why ??= whyOf(this.solved, this.solved.solution, this.solved.plan);
    return this.why(step);
  }

  /**
   * Why each late unit is late. What merely stands in the way in this plan need not be what makes a unit late: each cause is taken away in
   * turn and the rest planned again for a short while; a cause is told where that brings the unit nearer.
   * @param tell hears how far it is, 0 to 1
   * @returns null when another order has come
   */
  async explainLate(
    posing: Posing,
    solution: Solution,
    isMissed: boolean,
    tell: (share: number) => void,
    hands: HandNames = new Map(),
  ): Promise<readonly LateChain[] | null> {
    const run = ++this.run;
    const solved = this.again(posing, solution, isMissed, hands);
    if (!solved) return [];
    const late = solved.plan.units
      .filter((u) => u.lateMinutes > 0)
      .sort((a, b) => b.lateMinutes - a.lateMinutes);
    const { problem } = solved;
    const causes = causesIn(problem);
    const same = latenessOf(problem, await this.briefly(run, problem, solution));
    const gains: { cause: Cause; late: ReadonlyMap<string, number> }[] = [];
    for (const [k, cause] of causes.entries()) {
      tell((k + 1) / (causes.length + 1));
      const relaxed = withoutCause(problem, cause);
      gains.push({ cause, late: latenessOf(relaxed, await this.briefly(run, relaxed, solution)) });
      if (this.run !== run) return null;
    }
    return late.map((u) => {
      const now = Math.min(u.lateMinutes, same.get(u.id) ?? Infinity);
      const gain = gains
        .map((g) => ({ cause: g.cause, minutes: now - (g.late.get(u.id) ?? now) }))
        .sort((a, b) => b.minutes - a.minutes);
      const binding = gain.filter((g) => g.minutes > 0);
      return {
        unit: u.id,
        name: u.name,
        lateMinutes: u.lateMinutes,
        gains: binding.map((g) => ({ text: causeWords(g.cause), minutes: g.minutes })),
        idle: gain.filter((g) => g.minutes <= 0).map((g) => causeWords(g.cause)),
        links: lateBecause(
          solved,
          solution,
          solved.plan,
          u.id,
          binding.map((g) => g.cause),
        ),
      };
    });
  }

  /** Plans each change for a short while and tells what it would come to, in dates and in odds. */
  async weigh(
    posing: Posing,
    changed: readonly Changed[],
    previous: Solution | null,
    tell: (comes: Comes) => void,
  ): Promise<void> {
    const run = ++this.run;
    const turn = ++this.playing;
    for (const { id, muster, happened } of changed) {
      const log = mergeLogs(posing.log, happened ?? []);
      let posed = pose(muster ? mended(posing.muster, muster).muster : posing.muster, log, posing.now);
      let solution = await this.briefly(run, posed.problem, previous, WEIGH_MS);
      if (solution.cost === null && posing.now !== null) {
        posed = { ...posed, problem: withoutOpenWindows(posed.problem) };
        solution = await this.briefly(run, posed.problem, previous, WEIGH_MS);
      }
      if (this.run !== run) return;
      if (solution.cost === null) {
        tell({ id, lateMinutes: null, allHold: null, handsMinutes: null });
        continue;
      }
      const { problem } = posed;
      // Of helpers who may stay away only those with hands of their own.
      const lent = withHands(posed, handNames(posed, solution));
      const solved = solvedPlan(lent, solution);
      const player = new Forecaster(solved, posed.muster, solution, log, posing.now);
      const odds = await playFutures({
        player,
        futures: WEIGH_FUTURES,
        ms: WEIGH_MS,
        clock: this.clock,
        isEnded: () => this.playing !== turn,
        tell: () => undefined,
      });
      if (this.run !== run || odds === null) return;
      tell({
        id,
        lateMinutes: worstLateness(problem, solution),
        allHold: odds.all,
        handsMinutes: solved.plan.handsMinutes,
      });
    }
  }

  /**
   * The odds of a plan: the first few futures at once, then more and more, at last the latest day to begin each unit.
   * @param futures so many in all
   * @param tell hears the odds as far as they are counted; nothing where the plan is none of this muster any more
   * @param helper plays some of them, where there is one
   */
  async odds(
    posing: Posing,
    solution: Solution,
    isMissed: boolean,
    futures: number,
    tell: (told: Told) => void,
    hands: HandNames = new Map(),
    helper: Helper | null = null,
  ): Promise<void> {
    const turn = ++this.playing;
    const solved = this.isInHand(posing, solution)
      ? this.solved
      : this.again(posing, solution, isMissed, hands);
    if (!solved) return;
    const player = new Forecaster(solved, posing.muster, solution, posing.log, posing.now);
    const forecast = await playFutures({
      player,
      futures,
      ms: futures < FULL ? FIRST_MS : ODDS_MS,
      helper,
      clock: this.clock,
      isEnded: () => this.playing !== turn,
      tell: (forecast, isLast) =>
        tell({ forecast, given: isLast ? player.given(forecast) : [], margins: [], latest: [] }),
    });
    if (forecast === null || futures < FULL) return;
    const margins = await this.inSlices(turn, player.margins());
    if (margins === null) return;
    tell({ forecast, given: [], margins, latest: [] });
    const latest: LatestStart[] = [];
    const begun = this.clock();
    for (const u of forecast.units) {
      if (this.clock() - begun > LATEST_MS) return;
      const start = await this.inSlices(turn, player.latestStart(u.id, GOOD));
      if (start === null) return;
      latest.push(start);
      tell({ forecast, given: [], margins, latest: [...latest] });
    }
  }

  /** Gets ready to play futures of a plan for another desk. @returns false where it is no plan of this muster */
  helpWith(posing: Posing, solution: Solution, isMissed: boolean, hands: HandNames = new Map()): boolean {
    const solved = this.again(posing, solution, isMissed, hands);
    this.helping = solved && new Forecaster(solved, posing.muster, solution, posing.log, posing.now);
    return this.helping !== null;
  }

  /** What so many futures of the plan that it helps with come to, the first given. @throws Error where it helps with none */
  played(from: number, futures: number): Tally {
    if (!this.helping) throw new Error('There is no plan to play futures of.');
    return this.helping.played(from, futures);
  }

  /** What takes long, with room for other calls in between; null when the playing has been ended. */
  private async inSlices<T>(turn: number, work: Generator<void, T>): Promise<T | null> {
    for (;;) {
      const slice = this.clock() + SLICE_MS;
      do {
        const step = work.next();
        if (step.done) return step.value;
      } while (this.clock() < slice);
      await breathe();
      if (this.playing !== turn) return null;
    }
  }

  /** Ends the playing of futures; a plan in the making goes on. */
  stopOdds(): void {
    this.playing++;
  }

  /** Is it the plan that was told last? Then nothing has to be posed again. */
  private isInHand({ muster, log, now }: Posing, { operations }: Solution): boolean {
    const { posing, solved } = this;
    const mine = solved?.solution.operations;
    return (
      posing !== null &&
      posing.now === now &&
      posing.log.length === log.length &&
      mine?.length === operations.length &&
      mine.every((o, k) => o.id === operations[k]!.id && o.start === operations[k]!.start) &&
      dequal(posing.muster, muster)
    );
  }

  private keep(posed: Posed, order: Order, best: Solution, isLast = false): Solved {
    const isSettled = isLast || posed.problem.operations.length <= SETTLED_AT_ONCE;
    return this.take(
      order,
      solvedPlan(posed, isSettled ? settle(posed.problem, best) : best, order.previous),
    );
  }

  private take(posing: Posing, solved: Solved): Solved {
    this.posing = posing;
    this.solved = solved;
    this.why = null;
    return solved;
  }

  private async briefly(
    run: number,
    problem: Problem,
    previous: Solution | null,
    ms = CAUSE_MS,
  ): Promise<Solution> {
    const begun = this.clock();
    const search = startSearch(problem, {
      progress: () => Math.min(1, (this.clock() - begun) / ms),
      ...(previous ? { previous } : {}),
    });
    while (!search.isDone && this.clock() - begun < ms && this.run === run) {
      const slice = this.clock() + SLICE_MS;
      do search.step(1);
      while (!search.isDone && this.clock() < slice);
      await breathe();
    }
    return search.best();
  }

  private async naive(run: number, muster: Muster): Promise<number | null> {
    const problem = oneAfterAnother(muster);
    const begun = this.clock();
    const search = startSearch(problem, { progress: () => 1 });
    const gone = (): number => this.clock() - begun;
    const isOver = (): boolean =>
      gone() > (search.best().cost === null ? NAIVE_MOST_MS : NAIVE_MS) || this.run !== run;
    while (!search.isDone && !isOver()) {
      search.step(1);
      await breathe();
    }
    const solution = search.best();
    return solution.cost === null ? null : worstLateness(problem, solution);
  }
}

/** Is all planned anew, with no wish to be done early? What is kept close to a plan stays as it is. */
function reserves({ muster, previous, stability }: Order): boolean {
  return (previous === null || stability === 0) && muster.bench.wish !== 'early';
}

function isInTime({ cost }: Solution): boolean {
  return cost !== null && cost.tardiness === 0;
}

/** What was solved: without the windows that had been missed, by these hands. */
function posedFor({ muster, log, now }: Posing, isMissed: boolean, hands: HandNames): Posed {
  const given = pose(muster, log, now);
  return withHands(isMissed ? { ...given, problem: withoutOpenWindows(given.problem) } : given, hands);
}

/** Does everything keep its session, and nobody come late? */
function isCalm(problem: Problem, previous: Solution | null, best: Solution): boolean {
  return (
    previous !== null && best.cost?.tardiness === 0 && movedOperations(problem, previous, best).length === 0
  );
}

/** Minutes by which each unit is late, by its id; empty where there is no plan. */
function latenessOf(problem: Problem, solution: Solution): ReadonlyMap<string, number> {
  const at = new Map(solution.cost === null ? [] : solution.operations.map((o) => [o.id, o.end]));
  return new Map(
    (problem.units ?? []).flatMap((u) => {
      const end = at.get(u.ready);
      return end === undefined ? [] : [[u.id, Math.max(0, end - u.due)] as const];
    }),
  );
}
