/** One painter with her bench: a tab on a browser in memory, the services of the evening in it, a clock of her own, and her luck. */
import { seededRandom, type Random } from '#core/kernel';
import { minutesUntil, instantAfter, instantOf } from '#core/muster';
import { quickDesk } from '../../app/data/testing/quickDesk';
import { emptyBrowser, openTab, type TestTab } from '../../app/data/testing/services';
import { atTheBench, planSettled, type TestBench } from '../../app/tonight/testing/bench';
import { campaignMuster } from './campaignMuster';

/** Nobody presses “search longer” more often than that. */
const MOST_SEARCHES = 3;

export class Life {
  private constructor(
    readonly random: Random,
    public tab: TestTab,
    public bench: TestBench,
  ) {}

  static async begin(seed: number, mostSteps: number): Promise<Life> {
    emptyBrowser();
    const random = seededRandom(seed);
    const muster = campaignMuster(random, mostSteps);
    const tab = await Life.openTab(new Date(`${muster.startsOn}:00Z`));
    await tab.store.add(muster, 'A campaign');
    const life = new Life(random, tab, atTheBench(tab));
    await life.rest();
    return life;
  }

  /** A tab of this browser, with its planner at work. */
  static async openTab(time: Date): Promise<TestTab> {
    const tab = await openTab(time, {
      zone: 'Europe/Vienna',
      openDesk: quickDesk(),
      planningPauseMs: 0,
      wantsDemo: false,
    });
    // Planning begins when it is first asked for.
    void tab.planner;
    return tab;
  }

  /** All is written, read by other tabs, and planned. Where no plan was found in the time she lets it search for longer, as it says. */
  async rest(): Promise<void> {
    const { planner, store } = this.tab;
    await planSettled(this.tab);
    for (let k = 0; k < MOST_SEARCHES && planner.state() === 'failed'; k++) {
      planner.searchLonger();
      await planSettled(this.tab);
    }
    await store.settled();
  }

  /** Closes the tab, whatever it was at, and opens it again. */
  async reload(): Promise<void> {
    const { time } = this.tab;
    this.tab.close();
    this.tab = await Life.openTab(time);
    this.bench = atTheBench(this.tab);
    await this.rest();
  }

  pass(minutes: number): void {
    this.tab.time = new Date(this.tab.time.getTime() + Math.round(minutes * 60_000));
  }

  /** The present minute of the plan; 0 without one. */
  get minute(): number {
    const plan = this.bench.evening.plan();
    return plan ? minutesUntil(plan.origin, instantOf(this.tab.time)) : 0;
  }

  /** Time passes until that minute of the plan; never back. */
  passUntil(minute: number): void {
    const plan = this.bench.evening.plan();
    if (!plan || minute <= this.minute) return;
    this.tab.time = new Date(instantAfter(plan.origin, Math.ceil(minute)));
  }

  close(): void {
    this.tab.close();
  }
}
