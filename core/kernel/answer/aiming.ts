/** What is looked for alone, one after the other: that nobody is late, and that all have some margin. */
import { overload } from '../prove/overload';
import { inTime, latenessOf, withMargin } from '../prove/inTime';
import type { Bounds } from '../prove/propagate';
import type { Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';
import { Dates } from '../search/dates';
import type { BestPlan } from './bestPlan';

/** Up to this share of the search the dates alone may be looked for. */
const DATES = 0.8;
/** … and up to this share a margin before them. */
const MARGIN = 0.3;
/** They are looked for no longer when so many steps, and so many for each strand, have brought no more strands in. */
const PATIENT_STEPS = 100;
const PATIENT_ROUNDS = 10;

interface Aim {
  readonly within: Bounds;
  /** share of the search up to which it is looked for */
  readonly until: number;
}

export class Aiming {
  /** bounds within which nobody is late; null: somebody must be */
  readonly timely: Bounds | null;
  /** weighted minutes that nothing can spare */
  private readonly unavoidable: number;
  private readonly roomy: Bounds | null;
  private readonly aims: Aim[] = [];
  /** the hours are too few for all dates */
  private readonly isCrowded: boolean;
  private dating: Dates | null = null;
  /** how many strands waited outside at the least, and for how many steps it has not been fewer */
  private fewest = Infinity;
  private vain = 0;

  constructor(
    private readonly schedule: Schedule,
    private readonly structure: Structure,
    bounds: Bounds,
    private readonly best: BestPlan,
    private readonly random: Random,
  ) {
    const { model } = schedule;
    this.timely = inTime(model, bounds);
    this.unavoidable = latenessOf(model, bounds.endLow) + 1e-9;
    this.isCrowded = model.weights.tardiness * overload(model, bounds) > this.unavoidable;
    this.roomy = this.timely && withMargin(model, this.timely);
    if (this.timely) this.aims.push({ within: this.timely, until: DATES });
    if (this.roomy) this.aims.push({ within: this.roomy, until: MARGIN });
  }

  /** Is anything of it still to be looked for? */
  get isOpen(): boolean {
    return this.aims.length > 0;
  }

  /** Is anybody late in the best plan who need not be? */
  get isLate(): boolean {
    const { plan } = this.best;
    return plan !== null && latenessOf(this.schedule.model, plan.end) > this.unavoidable;
  }

  /** The bounds with a margin, if the schedule keeps them: then it is to go on keeping them. */
  get kept(): Bounds | null {
    return this.roomy && this.keeps(this.roomy) ? this.roomy : null;
  }

  /**
   * While somebody is late (or without margin) and need not be, nothing else is looked for.
   *
   * @param progress share of the search gone by, 0 to 1
   */
  step(tries: number, progress: () => number): void {
    if (this.dating === null) return this.begin();
    for (let k = 0; k < tries && this.dating !== null; k++) {
      const next = this.aims[0]!;
      const mayGoOn =
        progress() <= next.until &&
        this.vain <= PATIENT_STEPS + PATIENT_ROUNDS * this.structure.strands.length;
      const isFound = mayGoOn && this.dating.step();
      if (isFound) this.best.keep(this.dating.schedule);
      this.vain = this.dating.waiting < this.fewest ? 0 : this.vain + 1;
      this.fewest = Math.min(this.fewest, this.dating.waiting);
      if (!isFound && mayGoOn) continue;
      this.dating = null;
      this.aims.shift();
    }
  }

  /** Begins to look for the next aim, if the best plan does not reach it. */
  private begin(): void {
    const next = this.aims[0]!;
    this.best.layOut(this.schedule);
    if (this.isMet(next)) this.aims.shift();
    else if (next.within === this.timely && this.isCrowded) this.aims.length = 0;
    else {
      this.dating = new Dates(this.schedule, this.structure, next.within, this.random);
      this.fewest = Infinity;
      this.vain = 0;
    }
  }

  private isMet({ within }: Aim): boolean {
    return within === this.timely ? this.schedule.lateness() <= this.unavoidable : this.keeps(within);
  }

  private keeps({ endHigh }: Bounds): boolean {
    return this.schedule.end.every((end, i) => end <= endHigh[i]!);
  }
}
