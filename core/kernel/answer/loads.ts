/** Where runs count: everything in anew load by load, each time in another way. */
import type { Model } from '../model/model';
import { pick, type Random } from '../model/random';
import type { Calm } from '../place/calm';
import { gapCloser } from '../place/closeGaps';
import { PROMPT } from '../place/insert';
import { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';
import type { Bounds } from '../prove/propagate';
import type { Snapshot } from './bestPlan';
import { byLoad } from './repair';

const DAY = 1440;
/** So many ways, up to this share of the search; the first in any case. */
const MOST = 100;
const UNTIL = 0.15;
/** What goes on with a load may press so many minutes less than all else. */
const GOES_ON = 8 * DAY;
/** Minutes that an operation may wait to save a run. */
const WAITS = [0, 0, 60, 240, 1500, 4000] as const;
/** Share of the ways that follow the best plan instead of what presses most; minutes of luck in either, at the most. */
const BY_PLAN = 0.6;
const LUCK = 4 * DAY;

export class Loads {
  private tried = 0;

  /** @param chance its own, so that the rest of a search is the same with and without */
  constructor(
    private readonly model: Model,
    private readonly bounds: Bounds,
    private readonly structure: Structure,
    private readonly chance: Random,
    private readonly calm: Calm | null,
  ) {}

  /** @param progress share of the search gone by */
  mayGoOn(progress: number): boolean {
    return this.tried === 0 || (this.tried < MOST && progress <= UNTIL);
  }

  /**
   * @param plan the best so far
   * @param within bounds within which nobody is late, where there are such
   * @returns a full plan; null where something found no place that way
   */
  next(plan: Snapshot | null, within: Bounds): Schedule | null {
    const anew = new Schedule(this.model, this.bounds, this.calm);
    const isFirst = this.tried++ === 0;
    const isWhole = isFirst
      ? byLoad(anew, this.structure, Float64Array.from(within.startHigh), GOES_ON, { ...PROMPT, within })
      : this.byLuck(anew, plan, within);
    return isWhole ? anew : null;
  }

  private byLuck(anew: Schedule, plan: Snapshot | null, within: Bounds): boolean {
    const { chance } = this;
    const by = plan !== null && chance() < BY_PLAN ? plan.start : within.startHigh;
    const luck = chance() < 0.3 ? 0 : LUCK * chance() * chance();
    const key = Float64Array.from(by, (minute) => minute + luck * (chance() - 0.5));
    return byLoad(anew, this.structure, key, GOES_ON * chance(), {
      patience: WAITS[pick(chance, WAITS.length)]!,
      haste: chance() < 0.5 ? 0 : 0.05 * chance(),
      delay: 0,
      within,
      closeGaps: chance() < 0.2 ? gapCloser(anew) : null,
    });
  }
}
