/** A search under way: what it does next, with what it has. */
import { lowerBound, raisedBound } from '../prove/bound';
import { ExactSearch } from '../prove/exact';
import { builder } from '../search/construct';
import type { Solution } from '../document/document';
import { improver, type Improver } from '../search/improve';
import { EQUAL, judged } from '../document/judged';
import type { Model } from '../model/model';
import type { Bounds } from '../prove/propagate';
import { narrowConflict } from '../prove/narrow';
import { isShop, ShopSearch } from '../search/shop';
import { calmOf } from '../place/calm';
import { seededRandom, type Random } from '../model/random';
import { Schedule } from '../place/schedule';
import { settleIn } from '../place/settle';
import { structureOf, type Structure } from '../place/structure';
import { Aiming } from './aiming';
import { BestPlan, type Snapshot } from './bestPlan';
import { Loads } from './loads';
import { Menders } from './menders';
import { inTurn } from './repair';
import { infeasible, UNKNOWN, type Search, type SearchOptions } from './search';

/** Exact search is tried up to so many operations that take time … */
const SMALL = 40;
/** … with most of the effort for so many nodes, with little of it from then on. */
const PATIENT_NODES = 60_000;
/** From these shares of the search on it goes on from the best plan there was, and hardly ever to worse ones. */
const FINISHING = [0.9, 0.97];
/** So often everything goes in anew while somebody is late, and with luck in it up to this share only. */
const TURNS = 8;
const TURNING = 0.15;
const DAY = 1440;
/** A mended plan is first improved for this share of it, longer where as little as possible is to move. */
const MENDING = 0.15;
const CALMLY = 0.4;
/** Settling may take this share of all work. */
const SETTLING = 0.02;

export class Running implements Search {
  private readonly structure: Structure;
  private readonly schedule: Schedule;
  private readonly random: Random;
  private readonly kept = new BestPlan();
  private readonly aiming: Aiming;
  private readonly first: ReturnType<typeof builder>;
  private readonly exact: ExactSearch | null;
  private readonly progress: () => number;
  private bound: number;
  private improve: Improver | null = null;
  private isRaised: boolean;
  /** mends the old plan; null: there is none */
  private readonly menders: Menders | null;
  /** the mended plan from which the search begins; null: from the best there is */
  private mended: BestPlan | null = null;
  /** the old plan could be mended: no need to build one */
  private hasStart = false;
  private shop: ShopSearch | null = null;
  /** how often everything went in anew since somebody was late */
  private turns = 0;
  private readonly loads: Loads;
  /** their own, so that the rest of the search is the same with and without them */
  private readonly chance: Random;
  private tries = 0;
  /** what was answered last, of which plan and by what bound */
  private shown: {
    readonly solution: Solution;
    readonly plan: Snapshot | null;
    readonly bound: number;
  } | null = null;
  /** how often it has gone back to the best plan */
  private finishing = 0;
  /** changes of the schedule that settling took */
  private settling = 0;
  private proof: 'open' | 'optimal' | 'impossible' = 'open';

  /** @param isCut the horizon is not the whole one: nothing is proved by it */
  constructor(
    private readonly model: Model,
    private readonly bounds: Bounds,
    private readonly order: Int32Array,
    private readonly options: SearchOptions,
    isCut: boolean,
  ) {
    const { previous, stability = 0, seed = 1, progress = () => 0.5 } = options;
    const calm = previous && stability > 0 ? calmOf(model, previous, stability) : null;
    this.random = seededRandom(seed);
    this.chance = seededRandom(seed + TURNS);
    this.progress = progress;
    this.structure = structureOf(model, bounds, order);
    this.schedule = new Schedule(model, bounds, calm);
    this.bound = lowerBound({ model, bounds, order });
    // Prices over a part of the horizon prove nothing of the whole.
    this.isRaised = isCut;
    this.aiming = new Aiming(this.schedule, this.structure, bounds, this.kept, this.random);
    this.menders = previous ? new Menders(this.schedule, this.structure, previous) : null;
    this.loads = new Loads(model, bounds, this.structure, this.chance, calm);
    this.first = builder(this.schedule, this.structure, this.random);
    this.exact = isSmall(model) && stability === 0 && !isCut ? new ExactSearch(model, bounds, order) : null;
  }

  step(tries: number): void {
    if (this.isDone) return;
    if (this.exact !== null && this.proof === 'open') this.prove(this.exact, tries);
    if (this.isDone) return;
    if (this.menders?.mayGoOn(this.progress())) return this.mend(this.menders);
    if (!this.hasStart && !this.first.hasTriedRules) return this.build();
    if (this.mayTurn()) return this.takeTurns();
    if (this.mayLoad()) return this.takeUpLoads();
    if (this.mayBuild()) return this.build();
    const { plan } = this.kept;
    if (plan !== null && this.aiming.isOpen && !this.isMending) {
      this.improve = null;
      return this.aiming.step(tries, this.progress);
    }
    if (!this.isRaised) return this.raise();
    if (isShop(this.model)) return this.swapInShop(tries);
    if (this.finishing < FINISHING.length && this.progress() >= FINISHING[this.finishing]!) {
      this.finishing++;
      this.improve = null;
    }
    if (this.mended !== null && !this.isMending) {
      this.mended = null;
      this.improve = null;
    }
    this.improve ??= this.begin();
    for (let k = 0; k < tries; k++) {
      this.tries++;
      if (this.improve.step()) this.keepSettled();
    }
  }

  best(): Solution {
    const { plan } = this.kept;
    const bound = this.proof === 'optimal' && plan ? plan.cost : this.bound;
    // The same solution is the same object, so that a caller sees when it changes.
    const { shown } = this;
    if (shown !== null && shown.plan === plan && shown.bound === bound) return shown.solution;
    const solution = this.solutionOf(plan, bound);
    if (solution !== UNKNOWN) this.shown = { solution, plan, bound };
    return solution;
  }

  get isDone(): boolean {
    const { plan } = this.kept;
    return (
      this.proof !== 'open' ||
      (plan !== null &&
        !this.mayBuild() &&
        plan.cost <= this.bound + EQUAL * Math.max(1, Math.abs(this.bound)))
    );
  }

  get isStuck(): boolean {
    return this.kept.plan === null && this.proof === 'open' && this.first.isStumped;
  }

  get tried(): number {
    return this.tries;
  }

  private solutionOf(plan: Snapshot | null, bound: number): Solution {
    if (plan !== null) return judged(this.model.problem, plan, bound);
    return this.proof === 'impossible' ? infeasible(narrowConflict(this.model.problem)) : UNKNOWN;
  }

  /** One constructive plan a step, so that the first is out as soon as it is found. */
  private build(): void {
    if (this.first.build()) this.kept.keep(this.schedule);
  }

  /** One way a step in which the old plan is mended. */
  private mend(menders: Menders): void {
    menders.next(this.kept);
    this.mended = menders.calmest;
    this.hasStart ||= this.mended !== null;
  }

  /** Is the mended plan still improved as it is? */
  private get isMending(): boolean {
    return this.hasStart && this.progress() <= (this.schedule.calm === null ? MENDING : CALMLY);
  }

  /** Everything in anew: what presses most first, then in the order of the best plan, then with some luck in it. */
  private takeTurns(): void {
    const { plan } = this.kept;
    const by = this.turns % 2 === 0 || plan === null ? this.aiming.timely!.startHigh : plan.start;
    const luck = this.turns < 2 ? 0 : DAY * (1 + (this.turns % 3));
    this.turns++;
    const key = luck === 0 ? by : by.map((minute) => minute + luck * this.chance());
    // A schedule of its own: the builder goes on from its last plan.
    const anew = new Schedule(this.model, this.bounds, this.schedule.calm);
    if (inTurn(anew, this.structure, key)) this.kept.keep(anew);
  }

  private mayTurn(): boolean {
    const isMissing = this.kept.plan === null;
    if (this.aiming.timely === null || this.turns >= TURNS || !(isMissing || this.aiming.isLate))
      return false;
    return this.turns < (isMissing ? 1 : 2) || this.progress() <= TURNING;
  }

  /** Everything in anew load by load, one way a step. */
  private takeUpLoads(): void {
    const found = this.loads.next(this.kept.plan, this.aiming.timely ?? this.bounds);
    if (found !== null) this.kept.keep(found);
  }

  private mayLoad(): boolean {
    return this.schedule.runs !== null && !this.hasStart && this.loads.mayGoOn(this.progress());
  }

  /** Plans by rules: a few in any case, and more while somebody is late. */
  private mayBuild(): boolean {
    if (this.hasStart || !this.first.isBusy) return false;
    return !this.first.hasTriedRules || this.kept.plan === null || this.aiming.isLate;
  }

  /** A share of the time goes to the exact search while there is hope that it ends. */
  private prove(exact: ExactSearch, tries: number): void {
    if (this.kept.plan !== null) exact.lowerLimit(this.kept.plan.cost);
    exact.step(exact.nodes < PATIENT_NODES ? 20 * tries : tries);
    if (exact.best !== null && this.kept.take(exact.best)) this.improve = null;
    if (exact.isComplete) this.proof = this.kept.plan === null ? 'impossible' : 'optimal';
  }

  /** Keeps the plan as it is when settled; the search goes on from the plan that isn't, whose racks are emptier. */
  private keepSettled(): void {
    const { schedule } = this;
    const begin = schedule.changes;
    const mark = schedule.mark();
    if (this.settling <= SETTLING * begin) settleIn(schedule);
    this.kept.keep(schedule);
    schedule.undoTo(mark);
    this.settling += schedule.changes - begin;
  }

  private raise(): void {
    this.isRaised = true;
    const { plan } = this.kept;
    this.bound = Math.max(
      this.bound,
      raisedBound({ model: this.model, bounds: this.bounds, order: this.order }, plan!.cost),
    );
  }

  private swapInShop(tries: number): void {
    this.shop ??= new ShopSearch(this.model, this.kept.plan!.start, this.random);
    this.tries += tries;
    if (this.shop.step(10 * tries)) this.kept.take(this.shop.best);
  }

  private begin(): Improver {
    (this.mended ?? this.kept).layOut(this.schedule);
    return improver(this.schedule, this.structure, this.random, {
      progress: this.progress,
      without: this.options.without ?? [],
      tried: this.tries,
      within: this.aiming.kept,
      isFinishing: this.finishing > 0,
    });
  }
}

function isSmall(model: Model): boolean {
  let busy = 0;
  for (const minutes of model.minutes) if (minutes > 0) busy++;
  return busy <= SMALL;
}
