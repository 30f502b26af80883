/** The best plan that a search has found so far. */
import type { Schedule } from '../place/schedule';

export interface Snapshot {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
  readonly cost: number;
}

export class BestPlan {
  /** null: none yet */
  plan: Snapshot | null = null;

  /** Keeps a plan if it is the best. @returns whether it is */
  keep(found: Schedule): boolean {
    const cost = found.cost();
    if (!this.isBetter(cost)) return false;
    const { start, end, setup } = found;
    this.plan = { start: start.slice(), end: end.slice(), setup: setup.slice(), cost };
    return true;
  }

  /** The same for one found elsewhere. */
  take(found: Snapshot): boolean {
    if (!this.isBetter(found.cost)) return false;
    this.plan = found;
    return true;
  }

  /** Lays it out on a schedule, whatever stood there. @throws Error when there is none */
  layOut(schedule: Schedule): void {
    const { plan } = this;
    if (plan === null) throw new Error('There is no plan to lay out yet.');
    schedule.clear();
    for (let i = 0; i < plan.start.length; i++)
      if (!schedule.isPlaced(i)) schedule.assign(i, plan.start[i]!, plan.end[i]!, plan.setup[i]!);
    schedule.commit();
  }

  private isBetter(cost: number): boolean {
    return this.plan === null || cost < this.plan.cost - 1e-12;
  }
}
