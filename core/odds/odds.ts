/** Many futures of a plan, counted: how likely each date holds, when a unit is likely ready, which evening overruns, and what it hangs on. */
import type { Course } from './course';
import { Player } from './play';
import type { Risks } from './risks';

export interface UnitOdds {
  readonly id: string;
  /** share of the futures in which it is ready by its date */
  readonly inTime: number;
  /** minutes by which it is ready in 1, 5 and 9 of ten futures; Infinity: not within the plan’s time */
  readonly readyBy: readonly [number, number, number];
  /** what its day hangs on, the most first */
  readonly drivers: readonly Driver[];
}

/** What happens in a future, counted. */
const EVENTS = ['pace', 'lost', 'absent', 'again', 'mended', 'short'] as const;

/** What moves a day: a product’s drying, a kind of work, evenings lost, a helper away, sandwiches begun again, mending, products run out. */
export interface Driver {
  readonly kind: 'product' | 'work' | (typeof EVENTS)[number];
  /** which product or work, as the risks count them; 0 for the others */
  readonly of: number;
  /** share of what is explained, 0 to 1 */
  readonly share: number;
}

export interface Odds {
  readonly futures: number;
  /** share of the futures in which every date holds */
  readonly all: number;
  readonly units: readonly UnitOdds[];
  /** by session: share of the futures in which something planned for it is left over */
  readonly overruns: readonly number[];
  /** by supply: share of the futures in which it runs out unforeseen */
  readonly ranOut: readonly number[];
}

/** Less of what is explained is not worth a word. */
const LEAST_SHARE = 0.08;

export class Oddsmaker {
  private readonly player: Player;
  private readonly ready: number[][];
  private readonly overruns: Float64Array;
  private readonly ranOut: Float64Array;
  private all = 0;
  private futures = 0;
  /** by driver: sums of it and its square; by unit as well: with its day */
  private readonly x: Float64Array;
  private readonly xx: Float64Array;
  private readonly y: Float64Array;
  private readonly yy: Float64Array;
  private readonly xy: readonly Float64Array[];
  private readonly latest: number;

  /**
   * @param now minute from which on anything is open
   * @param seed the same futures for the same seed, whatever the plan
   */
  constructor(
    private readonly course: Course,
    private readonly risks: Risks,
    private readonly now: number,
    seed: number,
  ) {
    this.player = new Player(course, risks, seed);
    this.ready = course.units.map(() => []);
    this.overruns = new Float64Array(course.sessions.length / 2);
    const drivers = risks.products.length + risks.works.length + EVENTS.length;
    this.ranOut = new Float64Array(risks.supplies.length);
    this.x = new Float64Array(drivers);
    this.xx = new Float64Array(drivers);
    this.y = new Float64Array(course.units.length);
    this.yy = new Float64Array(course.units.length);
    this.xy = course.units.map(() => new Float64Array(drivers));
    this.latest = Math.max(1, course.sessions.at(-1) ?? 0) + 1440;
  }

  /** Plays so many futures more, and counts them all. */
  more(count: number): Odds {
    for (let k = 0; k < count; k++) this.play();
    return this.count();
  }

  /** Plays one future more. */
  play(): void {
    const { course } = this;
    const outcome = this.player.play(this.futures++, this.now);
    let allHold = true;
    const drawn = [...outcome.products, ...outcome.works, ...EVENTS.map((e) => outcome[e])];
    drawn.forEach((d, j) => {
      this.x[j]! += d;
      this.xx[j]! += d * d;
    });
    course.units.forEach((u, i) => {
      const ready = outcome.ready[i]!;
      this.ready[i]!.push(ready);
      if (ready > u.due) allHold = false;
      const day = Math.min(ready, this.latest);
      this.y[i]! += day;
      this.yy[i]! += day * day;
      const xy = this.xy[i]!;
      for (let j = 0; j < drawn.length; j++) xy[j]! += drawn[j]! * day;
    });
    outcome.overrun.forEach((o, s) => (this.overruns[s]! += o));
    outcome.ranOut.forEach((o, s) => (this.ranOut[s]! += o));
    if (allHold) this.all++;
  }

  /** All that were played so far. */
  count(): Odds {
    const n = Math.max(1, this.futures);
    return {
      futures: this.futures,
      all: this.all / n,
      units: this.course.units.map((u, i): UnitOdds => {
        const sorted = Float64Array.from(this.ready[i]!).sort();
        const at = (share: number): number =>
          sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Infinity;
        return {
          id: u.id,
          inTime: this.ready[i]!.filter((r) => r <= u.due).length / n,
          readyBy: [at(0.1), at(0.5), at(0.9)],
          drivers: this.driversOf(i, n),
        };
      }),
      overruns: [...this.overruns].map((o) => o / n),
      ranOut: [...this.ranOut].map((o) => o / n),
    };
  }

  /** The squared correlation of each draw with the unit’s day, as a share of all of them. */
  private driversOf(unit: number, n: number): Driver[] {
    const { products, works } = this.risks;
    const spread = this.yy[unit]! / n - (this.y[unit]! / n) ** 2;
    if (!(spread > 1e-6)) return [];
    const squared = Array.from(this.x, (x, j) => {
      const own = this.xx[j]! / n - (x / n) ** 2;
      const both = this.xy[unit]![j]! / n - (x / n) * (this.y[unit]! / n);
      // What would make it ready sooner by being worse is chance, not a cause.
      return own > 1e-12 && both > 0 ? (both * both) / own / spread : 0;
    });
    // Of so many futures a correlation of this size is chance.
    const noise = 4 / n;
    const sum = squared.reduce((a, b) => a + (b > noise ? b : 0), 0);
    if (sum <= 0) return [];
    const named = (j: number): Pick<Driver, 'kind' | 'of'> => {
      if (j < products.length) return { kind: 'product', of: j };
      if (j < products.length + works.length) return { kind: 'work', of: j - products.length };
      return { kind: EVENTS[j - products.length - works.length]!, of: 0 };
    };
    return squared
      .map((r, j) => ({ ...named(j), share: r > noise ? r / sum : 0 }))
      .filter((d) => d.share >= LEAST_SHARE)
      .sort((a, b) => b.share - a.share);
  }
}
