/** Many futures of a plan, counted: how likely each date holds, when a unit is likely ready, which evening overruns, and what it hangs on. */
import type { Course } from './course';
import { Player } from './play';
import type { Risks } from './risks';
import { addTally, countIn, emptyTally, EVENTS, type Tally } from './tally';

export interface UnitOdds {
  readonly id: string;
  /** share of the futures in which it is ready by its date */
  readonly inTime: number;
  /** minutes by which it is ready in 1, 5 and 9 of ten futures; Infinity: not within the plan’s time */
  readonly readyBy: readonly [number, number, number];
  /** what its day hangs on, the most first */
  readonly drivers: readonly Driver[];
}

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
  private readonly tally: Tally;
  /** the first future that nobody plays yet */
  private next = 0;

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
    this.tally = emptyTally(course, risks);
  }

  /** Plays so many futures more, and counts them all. */
  more(count: number): Odds {
    for (let k = 0; k < count; k++) this.play();
    return this.count();
  }

  /** Plays one future more. */
  play(): void {
    this.countIn(this.tally, this.next++);
  }

  /** Leaves the next so many futures to somebody else. @returns the first of them */
  leave(count: number): number {
    const from = this.next;
    this.next += count;
    return from;
  }

  /** So many futures from one on, played and counted by themselves: for whoever has left them to this one. */
  played(from: number, count: number): Tally {
    const tally = emptyTally(this.course, this.risks);
    for (let k = from; k < from + count; k++) this.countIn(tally, k);
    return tally;
  }

  /** What was left to somebody else has been played. */
  take(tally: Tally): void {
    addTally(this.tally, tally);
  }

  /** All that were played so far. */
  count(): Odds {
    const { tally } = this;
    const n = Math.max(1, tally.futures);
    return {
      futures: tally.futures,
      all: tally.all / n,
      units: this.course.units.map((u, i): UnitOdds => {
        const sorted = Float64Array.from(tally.ready[i]!).sort();
        const at = (share: number): number =>
          sorted[Math.min(sorted.length - 1, Math.floor(share * sorted.length))] ?? Infinity;
        return {
          id: u.id,
          inTime: tally.ready[i]!.filter((r) => r <= u.due).length / n,
          readyBy: [at(0.1), at(0.5), at(0.9)],
          drivers: this.driversOf(i, n),
        };
      }),
      overruns: [...tally.overruns].map((o) => o / n),
      ranOut: [...tally.ranOut].map((o) => o / n),
    };
  }

  private countIn(tally: Tally, future: number): void {
    countIn(tally, this.player.play(future, this.now), this.course);
  }

  /** The squared correlation of each draw with the unit’s day, as a share of all of them. */
  private driversOf(unit: number, n: number): Driver[] {
    const { products, works } = this.risks;
    const { x, xx, xy, y, yy } = this.tally;
    const spread = yy[unit]! / n - (y[unit]! / n) ** 2;
    if (!(spread > 1e-6)) return [];
    const squared = Array.from(x, (sum, j) => {
      const own = xx[j]! / n - (sum / n) ** 2;
      const both = xy[unit]![j]! / n - (sum / n) * (y[unit]! / n);
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
