/**
 * One future of a plan, played as the bench is really run: steps in the plan's order, waiting where paint is not dry; once the bench is
 * behind, the load in hand is finished and then what presses most for its date taken up, whenever the plan had it; a session that ends leaves the rest for the next; a
 * window that was missed is begun again. Nobody knows beforehand what a future brings: whether a step still fits is judged by its planned
 * minutes.
 */
import { plannedAfter } from './air';
import { CLEAN, pair, type Course, type Lag, type Tool } from './course';
import { Heap } from './heap';
import { firstAfter, fits, sessionOf, shutsAt } from './hours';
import { Luck } from './luck';
import { amountOf, DATE, LOAD, PLANNED, Racks, SHUTS } from './racks';
import { MOST_AGAIN, type Risks, type Twist } from './risks';

const HAIR = 1e-6;
/** So many of the steps that are ready are tried before one waits: nobody looks through all of a rack. */
const TRIED = 40;
/** Once the bench is behind, drying is reckoned with so much longer before a window is opened. */
const CAUTION = 1.25;
/** For a window that would shut over night one stays so many minutes longer. */
const STAYS = 20;
/**
 * Once the bench is behind, what goes on with the load in hand comes before what must begin first for its date, as long as it has to begin itself so
 * many minutes after that at most: a run is finished, not dropped for one piece (decision 15).
 */
const GOES_ON = 3 * 1440;
/** What does not fit now is looked at again after so many minutes. */
const GLANCE = 15;
/** Where an operation is: something before it is open · it may be begun · begun or over · not looked at until hours or resources allow it. */
const OPEN = 0;
const READY = 1;
const BEGUN = 2;
const AWAY = 3;

/** What a future has come to; its arrays are used again by the next. */
export interface Outcome {
  /** when each unit is ready; Infinity: not within the plan's time */
  readonly ready: Float64Array;
  /** sessions of which something was left undone */
  readonly overrun: Uint8Array;
  /** evenings that were lost or cut, or that a helper stayed away from, sandwiches begun again, pieces mended, products that ran out */
  /** how slow the hands were: the logarithm of their factor */
  pace: number;
  lost: number;
  absent: number;
  again: number;
  mended: number;
  short: number;
  /** by supply: it ran out */
  readonly ranOut: Uint8Array;
  /** what was drawn of each product and kind of work: the logarithm of its factor */
  readonly products: Float64Array;
  readonly works: Float64Array;
}

export class Player {
  private readonly n: number;
  private readonly begin: Float64Array;
  private readonly done: Uint8Array;
  private readonly at: Float64Array;
  private readonly dryLate: Float64Array;
  private readonly pending: Int32Array;
  private readonly readyAt: Float64Array;
  private readonly closesAt: Float64Array;
  private readonly closedBy: (Lag | null)[];
  private readonly queued: Uint8Array;
  private readonly rank: Int32Array;
  /** what every step takes: hands, where one person works */
  private readonly common: readonly number[];
  private readonly longestSetup: Float64Array;
  private readonly free: Float64Array;
  private readonly toolFamily: Int32Array;
  private readonly toolEnd: Float64Array;
  private readonly racks: Racks;
  private readonly waiting = new Heap();
  private readonly ends = new Heap();
  private readonly luck: Luck;
  /** by supply: what is left, and when more is there */
  private readonly left: Float64Array;
  private readonly boughtBy: Float64Array;
  /** another does it, since the helper whose it is stays away */
  private readonly isTakenOver: Uint8Array;
  /** by operation: its tool, −1 for none; and whether a window begins with it */
  private readonly toolOf: Int32Array;
  private readonly beginsWindow: Uint8Array;
  /** by operation: another may do it */
  private readonly anyones: Uint8Array;
  /** by operation: its hours are the sessions, as drawn, and nothing else */
  private readonly keepsSessions: Uint8Array;
  /** by operation: what goes into a window may stay a little longer, and what may pause goes on tomorrow */
  private readonly isFlexible: Uint8Array;
  private readonly usesInstead: (readonly number[] | undefined)[];
  private readonly again = new Map<Lag, readonly number[]>();
  private readonly times = new Map<Lag, number>();
  /** what does not fit into this evening any more, and when the next begins */
  private readonly tomorrow: number[] = [];
  private tomorrowAt = Infinity;
  /** all work is done while somebody is at the bench */
  private readonly isBenchWork: boolean;
  /** the moment at which somebody looks round, and the minutes that are left of the evening then */
  private glance = 0;
  private tonight = 0;
  private readonly tried: number[] = [];
  /** by which key each was taken */
  private readonly by: number[] = [];
  /** what could not be begun since somebody else has what it takes */
  private readonly lacking: number[] = [];
  private readonly asPlanned: readonly number[] = [PLANNED];
  private readonly asPresses: number[] = [];
  /** minutes of hands that windows ask for that are running */
  private running = 0;
  readonly outcome: Outcome;

  constructor(
    private readonly course: Course,
    private readonly risks: Risks,
    seed: number,
    /** what draws the futures; another stands for another truth */
    luck = new Luck(course, risks, seed),
  ) {
    const n = course.ids.length;
    this.n = n;
    this.begin = Float64Array.from(course.start, (s, i) => s - course.setup[i]!);
    this.done = new Uint8Array(n);
    this.at = new Float64Array(n);
    this.dryLate = new Float64Array(n);
    this.pending = new Int32Array(n);
    this.readyAt = new Float64Array(n);
    this.closesAt = new Float64Array(n);
    this.closedBy = Array<Lag | null>(n).fill(null);
    this.queued = new Uint8Array(n);
    this.rank = new Int32Array(n);
    course.order.forEach((i, k) => (this.rank[i] = k));
    this.toolOf = Int32Array.from(
      course.uses,
      (uses) => uses.find((r, k) => k % 2 === 0 && course.tools[r]) ?? -1,
    );
    this.beginsWindow = Uint8Array.from(course.after, (lags) =>
      lags.some((l) => l.max !== Infinity) ? 1 : 0,
    );
    this.longestSetup = Float64Array.from(course.uses, (uses) =>
      uses.reduce((most, r, k) => (k % 2 === 0 ? Math.max(most, longest(course.tools[r]!)) : most), 0),
    );
    this.common = Array.from(course.capacity.keys()).filter((r) =>
      course.order.every((i) => course.minutes[i] === 0 || amountOf(course.uses[i]!, r) > 0),
    );
    this.isBenchWork = course.order.every(
      (i) => course.minutes[i] === 0 || course.uses[i]!.some((r, k) => k % 2 === 0 && course.open[r]),
    );
    this.free = new Float64Array(course.capacity.length);
    this.luck = luck;
    this.anyones = Uint8Array.from(course.uses, (uses) => (this.isAnyones(uses) ? 1 : 0));
    this.isFlexible = Uint8Array.from(course.before, (lags, i) =>
      course.isPausable[i] === 1 || lags.some((l) => l.max !== Infinity) ? 1 : 0,
    );
    this.racks = new Racks(
      course,
      this.free,
      (i) => this.anyones[i] === 1,
      (i) => course.family[i]!,
      (i) => (this.isFlexible[i] ? '' : `${course.minutes[i]} ${this.toolOf[i]}`),
    );
    this.keepsSessions = this.byKeepingSessions();
    this.toolFamily = new Int32Array(course.capacity.length);
    this.toolEnd = new Float64Array(course.capacity.length);
    this.left = new Float64Array(risks.supplies.length);
    this.boughtBy = new Float64Array(risks.supplies.length);
    this.isTakenOver = new Uint8Array(n);
    this.usesInstead = Array<readonly number[] | undefined>(n).fill(undefined);
    this.outcome = {
      ready: new Float64Array(course.units.length),
      overrun: new Uint8Array(course.sessions.length / 2),
      pace: 0,
      lost: 0,
      absent: 0,
      again: 0,
      mended: 0,
      short: 0,
      ranOut: new Uint8Array(risks.supplies.length),
      products: this.luck.products,
      works: this.luck.works,
    };
  }

  /** @param now minute from which on anything is open */
  play(future: number, now: number, twist: Twist = {}): Outcome {
    const { luck, outcome } = this;
    luck.draw(future, now, twist);
    outcome.pace = luck.pace;
    outcome.lost = luck.lost;
    outcome.absent = luck.absent;
    outcome.again = 0;
    outcome.mended = 0;
    outcome.short = 0;
    outcome.ranOut.fill(0);
    this.prepare(twist);
    let t = now;
    let early = 0;
    let first = 0;
    const { order } = this.course;
    for (let guard = 0; guard < 60 * this.n + 1000; guard++) {
      // What has come to its end lets go of what it held.
      while (this.ends.least <= t) early = this.finish(this.ends.take(), t, early);
      this.arrive(t);
      while (first < order.length && (this.done[order[first]!]! || this.isUnderWay(order[first]!))) first++;
      if (first >= order.length && this.ends.size === 0 && this.waiting.size === 0) break;
      const behind = first < order.length && this.begin[order[first]!]! < t;
      const wake = this.startWhatCan(t, behind, early);
      const next = Math.min(this.ends.least, this.waiting.least, wake);
      if (!(next > t) && this.ends.least <= t) continue;
      if (!Number.isFinite(next)) break;
      t = Math.max(next, t + (next > t ? 0 : 1));
    }
    this.judge();
    return this.outcome;
  }

  /** When an operation came to its end in the future played last. */
  endOf(i: number): number {
    return this.at[i]!;
  }

  /** The sessions that nobody came to in the future played last. */
  lostSessions(): (readonly [number, number])[] {
    const { sessions } = this.course;
    return [...this.luck.isLost].flatMap((lost, k) =>
      lost ? [[sessions[2 * k]!, sessions[2 * k + 1]!] as const] : [],
    );
  }

  private isUnderWay(i: number): boolean {
    return this.queued[i] === BEGUN;
  }

  private prepare({ later }: Twist): void {
    const { course, n } = this;
    this.racks.clear();
    this.waiting.clear();
    this.ends.clear();
    this.times.clear();
    this.tomorrow.length = 0;
    this.tomorrowAt = Infinity;
    this.free.set(course.capacity);
    this.toolFamily.fill(CLEAN);
    this.toolEnd.fill(-Infinity);
    this.done.fill(0);
    this.queued.fill(OPEN);
    this.dryLate.fill(0);
    this.closesAt.fill(Infinity);
    this.running = 0;
    this.closedBy.fill(null);
    for (let i = 0; i < n; i++) {
      this.pending[i] = course.before[i]!.length;
      this.readyAt[i] = later?.of[i] ? Math.max(course.earliest[i]!, later.minute) : course.earliest[i]!;
    }
    this.isTakenOver.fill(0);
    this.risks.supplies.forEach((s, k) => {
      this.left[k] = s.ml;
      this.boughtBy[k] = s.boughtBy;
    });
    // History keeps its times, and what it holds.
    for (let i = 0; i < n; i++)
      if (course.isFixed[i]) {
        this.done[i] = 1;
        this.at[i] = course.end[i]!;
        this.queued[i] = BEGUN;
      }
    for (let i = 0; i < n; i++)
      if (this.done[i]) {
        this.hold(course.takes[i]!, 1);
        this.hold(course.lets[i]!, -1);
        this.useTool(i, course.end[i]!);
        this.handOn(i);
      }
    for (let i = 0; i < n; i++) if (this.pending[i] === 0) this.queue(i);
  }

  private hold(list: readonly number[], sign: 1 | -1): void {
    for (let k = 0; k < list.length; k += 2) this.free[list[k]!]! -= sign * list[k + 1]!;
  }

  private useTool(i: number, end: number): void {
    const { uses, tools, family, minutes } = this.course;
    if (!minutes[i]) return;
    for (let k = 0; k < uses[i]!.length; k += 2) {
      const r = uses[i]![k]!;
      if (!tools[r] || end < this.toolEnd[r]!) continue;
      this.toolFamily[r] = family[i]!;
      this.toolEnd[r] = end;
    }
  }

  /** What waited for an operation knows now from when on it may go on, and until when. */
  private handOn(i: number): void {
    for (const lag of this.course.after[i]!) {
      const to = lag.to;
      if (this.done[to]) continue;
      this.pending[to]!--;
      const factor = this.drying(i, lag);
      const from = this.at[i]! + this.dryLate[i]!;
      const opens = Math.ceil(this.luck.air.after(lag.clock, from, lag.min * factor) - HAIR);
      if (opens > this.readyAt[to]!) this.readyAt[to] = opens;
      if (lag.max !== Infinity && (this.times.get(lag) ?? 0) < MOST_AGAIN) {
        const closes = Math.floor(this.luck.air.after(lag.clock, this.at[i]!, lag.max * factor) + HAIR);
        if (closes < this.closesAt[to]!) {
          if (this.closesAt[to] === Infinity) this.running += this.course.minutes[to]!;
          this.closesAt[to] = closes;
          this.closedBy[to] = lag;
        }
      }
    }
  }

  /** The factor on the drying of a coat in this future. */
  private drying(i: number, lag: Lag): number {
    const product = this.risks.product[i]!;
    return lag.clock < 0 || product < 0 ? 1 : this.luck.drying(product, this.at[i]!);
  }

  private queue(i: number): void {
    if (this.queued[i] !== OPEN) return;
    if (this.course.minutes[i] === 0) return this.passes(i);
    this.queued[i] = READY;
    // The wait ends with the work, not with the set-up before it.
    this.waiting.put(this.readyAt[i]! - this.longestSetup[i]!, i);
  }

  /** What takes no time has its moment as soon as that is known; what it holds changes hands when the moment comes. */
  private passes(i: number): void {
    this.queued[i] = BEGUN;
    this.done[i] = 1;
    this.at[i] = this.readyAt[i]!;
    this.ends.put(this.at[i]!, i);
    this.handOn(i);
    this.queueNext(i);
  }

  private queueNext(i: number): void {
    for (const lag of this.course.after[i]!) if (this.pending[lag.to] === 0) this.queue(lag.to);
  }

  /** What may be gone over by now, or as soon as its tool is set up. */
  private arrive(t: number): void {
    while (this.waiting.least <= t) {
      const i = this.waiting.take();
      if (this.queued[i] === AWAY) this.queued[i] = READY;
      if (this.isReady(i)) this.lay(i);
    }
    if (t < this.tomorrowAt) return;
    this.tomorrowAt = Infinity;
    for (const i of this.tomorrow)
      if (this.queued[i] === AWAY) {
        this.queued[i] = READY;
        if (this.isReady(i)) this.lay(i);
      }
    this.tomorrow.length = 0;
  }

  private lay(i: number): void {
    const { racks, course } = this;
    racks.lay(i, PLANNED, this.rank[i]!);
    racks.put(i, DATE, course.latest[i]!);
    if (this.closesAt[i]! < Infinity) racks.put(i, SHUTS, this.closesAt[i]!);
  }

  private putAway(i: number): void {
    this.queued[i] = AWAY;
    this.racks.away(i);
  }

  /** @returns the moment at which something that could not be started may be tried again */
  private startWhatCan(t: number, behind: boolean, early: number): number {
    if (this.areHandsFull()) return Infinity;
    const tonight = this.leftTonight(t);
    if (tonight <= 0) return this.nextOpening(t);
    const { tried, by, lacking, racks } = this;
    tried.length = 0;
    lacking.length = 0;
    by.length = 0;
    let wake = Infinity;
    this.glance = t;
    this.tonight = tonight;
    racks.look(this.ends.size === 0, this.isLongEnough);
    const keys = behind ? this.whatPresses(t) : this.asPlanned;
    let k = 0;
    while (tried.length < TRIED) {
      const i = racks.take(keys[k]!);
      if (i < 0) {
        if (++k === keys.length) break;
        continue;
      }
      if (!this.isReady(i)) continue;
      const release = this.begin[i]! - early;
      if (!behind && release > t) {
        tried.push(i);
        by.push(keys[k]!);
        if (release < wake) wake = release;
        break;
      }
      if (this.course.minutes[i]! > tonight && !this.course.isPausable[i] && this.closesAt[i] === Infinity) {
        this.putAway(i);
        this.tomorrow.push(i);
        continue;
      }
      this.seeWhoDoes(i, t, behind);
      const bought = this.boughtFor(i, t);
      if (bought > t) {
        this.putAway(i);
        this.waiting.put(bought, i);
        continue;
      }
      // The racks have seen to it, but not to who does it.
      if (this.anyones[i] === 1 && this.isTaken(i)) {
        this.putAway(i);
        lacking.push(i);
        continue;
      }
      const setup = this.setupAt(i, t);
      if (t + setup < this.readyAt[i]!) {
        tried.push(i);
        by.push(keys[k]!);
        wake = Math.min(wake, this.readyAt[i]! - setup);
        continue;
      }
      if (t + setup > this.closesAt[i]! && this.beginAgain(i, t)) continue;
      const when = behind && this.isTooMany(i) ? this.nextSession(t) : this.whenFits(i, t, behind);
      if (when > t) {
        // Too little of the evening is left, or its window would shut over night: one does not look at it again with every step.
        this.putAway(i);
        const glance = t + GLANCE;
        this.waiting.put(glance < when && glance < this.sessionEnd(t) ? glance : when, i);
        continue;
      }
      this.start(i, t);
      if (this.areHandsFull()) break;
      if (this.course.lets[i]!.length > 0) racks.look(false, this.isLongEnough);
      else racks.narrow();
    }
    for (let nth = 0; nth < tried.length; nth++)
      racks.put(tried[nth]!, by[nth]!, this.keyOf(tried[nth]!, by[nth]!));
    for (const i of lacking) {
      this.queued[i] = READY;
      this.lay(i);
    }
    if (this.tomorrow.length > 0 || racks.leavesSome) this.tomorrowAt = this.nextOpening(this.sessionEnd(t));
    return Math.min(wake, this.tomorrowAt);
  }

  /** Once the bench is behind: what would shut, what goes on with the load in hand, what must begin first for its date. */
  private whatPresses(t: number): readonly number[] {
    const { tools } = this.course;
    const { racks, asPresses } = this;
    asPresses.length = 0;
    asPresses.push(SHUTS);
    const presses = racks.least(DATE);
    for (let r = 0; r < tools.length; r++) {
      const tool = tools[r];
      const load = this.toolFamily[r]!;
      // Nothing goes on with a tool that somebody has in hand.
      if (!tool || load === CLEAN || this.free[r]! <= 0 || t - this.toolEnd[r]! > tool.idle) continue;
      if (racks.least(LOAD + load) <= presses + GOES_ON) asPresses.push(LOAD + load);
    }
    asPresses.push(DATE);
    return asPresses;
  }

  /** Is enough left of the evening for it? */
  private readonly isLongEnough = (i: number): boolean =>
    this.isFlexible[i] === 1 ||
    this.longestSetup[i]! + this.course.minutes[i]! <= this.tonight ||
    this.setupAt(i, this.glance) + this.course.minutes[i]! <= this.tonight;

  private keyOf(i: number, kind: number): number {
    return kind === PLANNED ? this.rank[i]! : kind === SHUTS ? this.closesAt[i]! : this.course.latest[i]!;
  }

  private isReady(i: number): boolean {
    return this.queued[i] === READY && !this.done[i] && this.pending[i] === 0;
  }

  /** Nothing goes without hands: until they are free nobody looks round. */
  private areHandsFull(): boolean {
    for (const r of this.common) if (this.free[r]! <= 0) return true;
    return false;
  }

  /** Would its window, with those that are running, ask for more hands than there is time in it? */
  private isTooMany(i: number): boolean {
    if (this.beginsWindow[i] === 0) return false;
    let window = Infinity;
    let follows = 0;
    for (const lag of this.course.after[i]!)
      if (lag.max !== Infinity && !this.done[lag.to]) {
        window = Math.min(window, lag.max - lag.min);
        follows = Math.max(follows, this.course.minutes[lag.to]!);
      }
    return window < Infinity && this.running + follows > window;
  }

  /** What an operation uses: its own hands, or those that stand in for them. */
  private usesOf(i: number): readonly number[] {
    return this.isTakenOver[i] ? this.usesInstead[i]! : this.course.uses[i]!;
  }

  /** A helper who stays away tonight leaves what is theirs to another; once the bench is behind, so does one whose hours are not now. */
  private seeWhoDoes(i: number, t: number, behind: boolean): void {
    if (this.risks.helpers.length === 0) return;
    const { away, instead } = this.luck;
    const uses = this.course.uses[i]!;
    this.isTakenOver[i] = 0;
    for (let k = 0; k < uses.length; k += 2) {
      const hands = uses[k]!;
      const hours = away[hands];
      if (!hours || instead[hands]! < 0) continue;
      // Tonight, or on their next evening.
      const open = this.course.open[hands]!;
      const next = firstAfter(open, t);
      const isElsewhere = behind && !(open[2 * next]! <= t);
      if (!hours[next] && !isElsewhere) continue;
      this.usesInstead[i] ??= uses.map((u, l) => (l % 2 === 0 && u === hands ? instead[hands]! : u));
      this.isTakenOver[i] = 1;
    }
  }

  /** When all of what an operation takes is on the shelf: at once, or when it has been bought. */
  private boughtFor(i: number, t: number): number {
    const takes = this.risks.supplyUse[i]!;
    let when = t;
    for (let k = 0; k < takes.length; k += 2) {
      const s = takes[k]!;
      if (takes[k + 1]! * this.luck.usage[s]! <= this.left[s]! + HAIR) continue;
      if (this.boughtBy[s] === Infinity) {
        this.boughtBy[s] = t + this.risks.restock;
        this.outcome.short++;
        this.outcome.ranOut[s] = 1;
      }
      if (this.boughtBy[s]! <= t) this.left[s] = Infinity;
      else when = Math.max(when, this.boughtBy[s]!);
    }
    return when;
  }

  /** May others do what a helper is to do? */
  private isAnyones(uses: readonly number[]): boolean {
    return uses.some((r, k) => k % 2 === 0 && this.luck.away[r] && this.luck.instead[r]! >= 0);
  }

  /** Of what whatever it uses is open in all sessions, and in nothing but these. */
  private byKeepingSessions(): Uint8Array {
    const { open, sessions, uses } = this.course;
    const hours = sessions.join();
    const keeps = open.map((o, r) => (o === null ? null : !this.luck.away[r] && o.join() === hours));
    return Uint8Array.from(uses, (list) => {
      const bound = list.flatMap((r, k) => (k % 2 === 0 && keeps[r] !== null ? [keeps[r]] : []));
      return bound.length > 0 && bound.every(Boolean) ? 1 : 0;
    });
  }

  /** Is anything taken that it would need? */
  private isTaken(i: number): boolean {
    const { free } = this;
    const uses = this.usesOf(i);
    const lets = this.course.lets[i]!;
    for (let k = 0; k < uses.length; k += 2)
      if (free[uses[k]!]! + amountOf(lets, uses[k]!) < uses[k + 1]!) return true;
    // Where nothing is under way nothing is going to let go: then it goes on all the same.
    if (this.ends.size === 0) return false;
    const takes = this.course.takes[i]!;
    for (let k = 0; k < takes.length; k += 2) {
      const left = free[takes[k]!]! + amountOf(lets, takes[k]!) - amountOf(uses, takes[k]!);
      if (left < takes[k + 1]!) return true;
    }
    return false;
  }

  /** Minutes of set-up that its tool needs now. */
  private setupAt(i: number, t: number): number {
    const r = this.toolOf[i]!;
    const tool = r < 0 ? null : this.course.tools[r];
    if (!tool) return 0;
    const to = this.course.family[i]!;
    // Idleness is measured to where the set-up would begin.
    const isIdle = !Number.isFinite(this.toolEnd[r]) || t - this.toolEnd[r]! > tool.idle;
    const state = isIdle ? CLEAN : this.toolFamily[r]!;
    return state === to ? 0 : (tool.between.get(pair(state, to)) ?? tool.minutes);
  }

  /** From when on it fits into the hours that are open, and its window into somebody's: `t` itself, or later. */
  private whenFits(i: number, t: number, behind: boolean): number {
    const stays = this.closesAt[i] === Infinity ? 0 : STAYS;
    const need = this.course.isPausable[i]
      ? 1
      : Math.max(1, this.setupAt(i, t) + this.course.minutes[i]! - stays);
    let at = t;
    for (let turn = 0; turn < 64; turn++) {
      at = this.hoursFor(i, at, need);
      if (!Number.isFinite(at) || !this.isDoomed(i, at, behind)) return at;
      at = this.nextSession(at);
    }
    return Infinity;
  }

  /** From when on so many minutes of an operation fit into the hours of all that it uses. */
  private hoursFor(i: number, t: number, need: number): number {
    const { course, luck } = this;
    if (this.keepsSessions[i]) return fits(course.sessions, luck.until, luck.isLost, t, need);
    const uses = this.usesOf(i);
    let at = t;
    for (let turn = 0; turn < 64; turn++) {
      const before = at;
      let isBound = false;
      for (let k = 0; k < uses.length; k += 2) {
        const open = course.open[uses[k]!];
        if (!open) continue;
        isBound = true;
        at = fits(open, null, this.luck.away[uses[k]!], at, need);
      }
      if (isBound) at = fits(course.sessions, this.luck.until, this.luck.isLost, at, need);
      if (at === before || !Number.isFinite(at)) return at;
    }
    return Infinity;
  }

  /** When the session ends in which a minute lies; the minute itself where none is open. */
  private sessionEnd(t: number): number {
    return shutsAt(this.course.sessions, this.luck.until, this.luck.isLost, t);
  }

  /** Minutes until nobody is at the bench any more. */
  private leftTonight(t: number): number {
    return this.isBenchWork ? this.sessionEnd(t) - t : Infinity;
  }

  /** When somebody is at the bench again. */
  private nextOpening(t: number): number {
    return fits(this.course.sessions, this.luck.until, this.luck.isLost, t, 1);
  }

  private nextSession(t: number): number {
    const { sessions } = this.course;
    for (let k = firstAfter(sessions, t); 2 * k < sessions.length; k++)
      if (sessions[2 * k]! > t && !this.luck.isLost[k]) return sessions[2 * k]!;
    return Infinity;
  }

  /** Would its window open and shut while nobody is at the bench, as far as can be seen now? */
  private isDoomed(i: number, t: number, behind: boolean): boolean {
    if (this.beginsWindow[i] === 0) return false;
    const { course } = this;
    for (const lag of course.after[i]!) {
      if (lag.max === Infinity || this.done[lag.to] || (this.times.get(lag) ?? 0) >= MOST_AGAIN) continue;
      const end = t + this.setupAt(i, t) + course.minutes[i]!;
      const clock = course.clocks[lag.clock];
      // Who is behind anyway begins no sandwich that only just comes out.
      const dries = behind ? lag.min * CAUTION : lag.min;
      const opens = clock ? plannedAfter(clock, end, dries) : end + dries;
      const closes = clock ? plannedAfter(clock, end, lag.max) : end + lag.max;
      // What has to go into the window must fit into the evening as well, with those that run already.
      const hands = course.isPausable[lag.to] ? 1 : course.minutes[lag.to]!;
      if (!this.isMet(opens, closes, hands)) return true;
    }
    return false;
  }

  /** Is there a session in which so many minutes can be worked from when a window opens, or begun before it shuts? */
  private isMet(opens: number, closes: number, minutes: number): boolean {
    const { sessions } = this.course;
    for (let k = 2 * firstAfter(sessions, opens); k < sessions.length && sessions[k]! <= closes; k += 2)
      if (sessions[k + 1]! >= Math.max(opens, sessions[k]!) + minutes) return true;
    return false;
  }

  private start(i: number, t: number): void {
    const { course, risks, outcome, luck } = this;
    const setup = this.setupAt(i, t);
    let minutes = luck.minutes(i, t);
    if (luck.isMended(i)) {
      outcome.mended++;
      minutes += Math.round(risks.mendMinutes[i]!);
      this.dryLate[i] = Math.round(risks.mendDrying[i]!);
    }
    const takes = risks.supplyUse[i]!;
    for (let k = 0; k < takes.length; k += 2) this.left[takes[k]!]! -= takes[k + 1]! * luck.usage[takes[k]!]!;
    const end = course.isPausable[i] ? this.workedBy(i, t + setup, minutes) : t + setup + minutes;
    this.begins(i);
    this.hold(this.usesOf(i), 1);
    this.at[i] = end;
    this.useTool(i, end);
    this.ends.put(end, i);
  }

  /** When so many open minutes have been worked. */
  private workedBy(i: number, from: number, minutes: number): number {
    let left = minutes;
    let at = from;
    for (let guard = 0; guard < 1000 && left > 0; guard++) {
      const until = this.openUntil(i, at);
      if (until > at) {
        const worked = Math.min(left, until - at);
        left -= worked;
        at += worked;
        continue;
      }
      const next = this.whenOpen(i, at);
      if (!Number.isFinite(next)) return at + left;
      at = next;
    }
    return at;
  }

  private openUntil(i: number, t: number): number {
    const uses = this.usesOf(i);
    let until = Infinity;
    let isBound = false;
    for (let k = 0; k < uses.length; k += 2) {
      const open = this.course.open[uses[k]!];
      if (!open) continue;
      isBound = true;
      until = Math.min(until, shutsAt(open, null, this.luck.away[uses[k]!], t));
    }
    return isBound
      ? Math.min(until, shutsAt(this.course.sessions, this.luck.until, this.luck.isLost, t))
      : until;
  }

  private whenOpen(i: number, t: number): number {
    const uses = this.usesOf(i);
    let at = t;
    for (let turn = 0; turn < 64; turn++) {
      const before = at;
      for (let k = 0; k < uses.length; k += 2) {
        const open = this.course.open[uses[k]!];
        if (open) at = fits(open, null, this.luck.away[uses[k]!], at, 1);
      }
      at = fits(this.course.sessions, this.luck.until, this.luck.isLost, at, 1);
      if (at === before || !Number.isFinite(at)) return at;
    }
    return Infinity;
  }

  private begins(i: number): void {
    this.queued[i] = BEGUN;
    this.racks.away(i);
    this.noWindow(i);
    this.hold(this.course.lets[i]!, -1);
  }

  private noWindow(i: number): void {
    if (this.closesAt[i] !== Infinity) this.running -= this.course.minutes[i]!;
    this.closesAt[i] = Infinity;
    this.closedBy[i] = null;
  }

  /** @returns how much sooner than planned the hands are free */
  private finish(i: number, t: number, early: number): number {
    if (this.course.minutes[i] === 0) {
      this.hold(this.course.lets[i]!, -1);
      this.hold(this.course.takes[i]!, 1);
      return early;
    }
    this.hold(this.usesOf(i), -1);
    this.hold(this.course.takes[i]!, 1);
    this.done[i] = 1;
    this.handOn(i);
    this.queueNext(i);
    return Math.max(0, this.course.end[i]! - t);
  }

  /** The window beneath an operation was missed: what it was to go on is done again. @returns false where it is left as it is */
  private beginAgain(i: number, t: number): boolean {
    const lag = this.closedBy[i];
    const times = lag ? (this.times.get(lag) ?? 0) : MOST_AGAIN;
    this.noWindow(i);
    if (!lag || times >= MOST_AGAIN || this.course.isFixed[lag.from]) return false;
    this.times.set(lag, times + 1);
    this.outcome.again++;
    const chain = this.chainOf(lag);
    const inChain = new Set(chain);
    for (const x of chain) {
      if (!this.done[x]) {
        if (this.queued[x] !== BEGUN) this.queued[x] = OPEN;
        this.racks.away(x);
        continue;
      }
      this.done[x] = 0;
      this.queued[x] = OPEN;
      this.noWindow(x);
      for (const next of this.course.after[x]!)
        if (!this.done[next.to] || inChain.has(next.to)) this.pending[next.to]!++;
    }
    this.queued[i] = OPEN;
    this.racks.away(i);
    for (const x of chain) {
      this.pending[x] = this.course.before[x]!.reduce((open, l) => open + (this.done[l.from] ? 0 : 1), 0);
      this.readyAt[x] = t;
    }
    this.pending[i] = this.course.before[i]!.reduce((open, l) => open + (this.done[l.from] ? 0 : 1), 0);
    for (const x of chain) if (this.pending[x] === 0) this.queue(x);
    return true;
  }

  /** What stands between the beginning of a window and what had to be in it: the coats that are put on again. */
  private chainOf(lag: Lag): readonly number[] {
    const known = this.again.get(lag);
    if (known) return known;
    const reaches = new Map<number, boolean>();
    const isWithin = (x: number, depth: number): boolean => {
      if (x === lag.to) return true;
      const found = reaches.get(x);
      if (found !== undefined || depth > 24) return found ?? false;
      reaches.set(x, false);
      const does = this.course.after[x]!.some((l) => isWithin(l.to, depth + 1));
      reaches.set(x, does);
      return does;
    };
    isWithin(lag.from, 0);
    const chain = [...reaches].flatMap(([x, does]) => (does && this.course.isFixed[x] === 0 ? [x] : []));
    this.again.set(lag, chain);
    return chain;
  }

  private judge(): void {
    const { course, outcome } = this;
    course.units.forEach((u, k) => (outcome.ready[k] = this.done[u.ready] ? this.at[u.ready]! : Infinity));
    outcome.overrun.fill(0);
    for (const i of course.order) {
      if (course.minutes[i] === 0) continue;
      const k = sessionOf(course.sessions, course.start[i]!);
      if (k < 0) continue;
      const end = course.sessions[2 * k + 1]!;
      if (!this.done[i] || this.at[i]! > Math.max(end, course.end[i]!) + HAIR) outcome.overrun[k] = 1;
    }
  }
}

function longest(tool: Tool | null): number {
  return tool ? Math.max(tool.minutes, ...tool.between.values()) : 0;
}
