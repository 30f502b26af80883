/** An old plan mended, way by way: the best of them all, and the one that leaves most as it was. */
import type { Solution } from '../document/document';
import type { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';
import { BestPlan } from './bestPlan';
import { repair, waysFor, type Mending } from './repair';

/** So much of the search may go into mending the plan in all ways, once one has led to a plan. */
const UNTIL = 0.25;

export class Menders {
  private readonly ways: Mending[];
  private least = Infinity;
  /** the plan that is cheapest but for its lateness; null: none yet */
  calmest: BestPlan | null = null;

  constructor(
    private readonly schedule: Schedule,
    private readonly structure: Structure,
    private readonly previous: Solution,
  ) {
    this.ways = waysFor(schedule);
  }

  /** @param progress share of the search gone by */
  mayGoOn(progress: number): boolean {
    return this.ways.length > 0 && (this.calmest === null || progress <= UNTIL);
  }

  /** Fills the empty schedule in the next way, and empties it again. @param best keeps what is found, if it is better */
  next(best: BestPlan): void {
    const { schedule } = this;
    if (repair(schedule, this.structure, this.previous, this.ways.shift()!)) {
      best.keep(schedule);
      const calm = schedule.cost() - schedule.lateness();
      if (calm < this.least) {
        this.least = calm;
        this.calmest = new BestPlan();
        this.calmest.keep(schedule);
      }
    }
    schedule.undoTo(0);
  }
}
