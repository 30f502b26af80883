/**
 * A plan in the making. Every change goes through `assign`, which keeps resources, tool sequences and cost
 * true and writes a journal, so that any number of changes can be taken back exactly (`undoTo`).
 */
import { earliestAfter, earliestBefore, latestAfter, latestBefore, ticksBetween } from '../model/dryingClock';
import type { Hold, Model } from '../model/model';
import { Profile } from '../model/profile';
import type { Calm } from './calm';
import type { Bounds } from '../prove/propagate';
import { reachOf, type Reach } from './reach';
import { demandOf, mostTaken, type Demand } from './demand';
import { runCount, type RunCount } from './runCount';
import { shareAt, sharesOf, type Share } from './shares';
import { ToolSequence } from '../model/toolSequence';
import type { Minute, OperationIndex } from '../model/units';

export const UNPLACED = -1;

export interface Slot {
  start: Minute;
  end: Minute;
  setup: number;
}

export class Schedule {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
  /** operations on each tool by start */
  readonly sequences: readonly ToolSequence[];
  /** how far holds reach whose end has no place yet */
  readonly reach: Reach;
  /** how much of each resource is taken, by the minute */
  readonly profiles: readonly Profile[];
  private readonly journal: number[] = [];
  private tardiness = 0;
  private completion = 0;
  private setups = 0;
  private overrun = 0;
  /** what the single parts of joined units would cost: see `Share` */
  private partial = 0;
  /** null where runs cost nothing */
  readonly runs: RunCount | null;
  private readonly shares: readonly (Share | null)[];
  readonly demand: Demand;
  /** operations that have left their old session */
  private moved = 0;
  private changed = 0;

  constructor(
    readonly model: Model,
    readonly bounds: Bounds,
    readonly calm: Calm | null = null,
  ) {
    this.start = new Int32Array(model.count).fill(UNPLACED);
    this.end = new Int32Array(model.count).fill(UNPLACED);
    this.setup = new Int32Array(model.count);
    this.shares = sharesOf(model);
    this.runs = runCount(model);
    this.reach = reachOf(model);
    this.demand = demandOf(model, this.shares);
    const most = mostTaken(model);
    this.profiles = model.resourceIds.map((_, r) => new Profile(model.horizon, most[r]!));
    const onTool = model.resourceIds.map(() => 0);
    for (const tool of model.tool) if (tool >= 0) onTool[tool]!++;
    this.sequences = onTool.map((most) => new ToolSequence(most));
    for (let i = 0; i < model.count; i++)
      if (model.isFixed[i]) this.assign(i, model.fixedStart[i]!, model.fixedEnd[i]!, 0);
    this.journal.length = 0;
  }

  isPlaced(i: OperationIndex): boolean {
    return this.start[i] !== UNPLACED;
  }

  /** Total cost of what is placed. Costs a scan only where the makespan counts. */
  cost(): number {
    const { weights } = this.model;
    let total =
      weights.tardiness * this.tardiness +
      weights.setup * this.setups +
      weights.overrun * this.overrun +
      weights.completion * this.completion;
    if (this.runs !== null) total += weights.runs * this.runs.count;
    if (this.calm !== null) total += this.calm.price * this.moved;
    if (weights.makespan > 0) total += weights.makespan * this.makespan();
    return total;
  }

  /**
   * What guides the search beside the cost: a unit of many parts is late by its latest part alone, so that bringing home the
   * others would not show. Each part is charged a share of what its own end would make the unit cost.
   */
  guidance(): number {
    return this.partial;
  }

  /** The part of the cost that lateness makes. */
  lateness(): number {
    return this.model.weights.tardiness * this.tardiness;
  }

  makespan(): number {
    let last = 0;
    for (const e of this.end) if (e > last) last = e;
    return last;
  }

  /** Changes made so far, those taken back among them: how much work has been done. */
  get changes(): number {
    return this.changed;
  }

  /** A point in the journal to come back to. */
  mark(): number {
    return this.journal.length;
  }

  /** Takes back every change since `mark`, the last first. */
  undoTo(mark: number): void {
    const { journal } = this;
    while (journal.length > mark) {
      const setup = journal.pop()!;
      const end = journal.pop()!;
      const start = journal.pop()!;
      const i = journal.pop()!;
      this.write(i, start, end, setup);
    }
  }

  /** Takes out all that is not history. */
  clear(): void {
    for (let i = 0; i < this.model.count; i++) if (!this.model.isFixed[i] && this.isPlaced(i)) this.remove(i);
    this.commit();
  }

  /** Forgets the journal: the changes so far stay. */
  commit(): void {
    this.journal.length = 0;
  }

  /** Operations whose times differ from what they were at `mark` (each once, in no order). */
  touchedSince(mark: number): Set<number> {
    const touched = new Set<number>();
    for (let k = mark; k < this.journal.length; k += 4) touched.add(this.journal[k]!);
    return touched;
  }

  /** Places, moves or (with `UNPLACED`) removes an operation, as told, without asking whether it fits. */
  assign(i: OperationIndex, start: Minute, end: Minute, setup: number): void {
    this.changed++;
    this.journal.push(i, this.start[i]!, this.end[i]!, this.setup[i]!);
    this.write(i, start, end, setup);
  }

  remove(i: OperationIndex): void {
    this.assign(i, UNPLACED, UNPLACED, 0);
  }

  private write(i: OperationIndex, start: Minute, end: Minute, setup: number): void {
    if (start === this.start[i] && end === this.end[i]) return this.writeSetup(i, setup);
    if (this.start[i] !== UNPLACED) this.account(i, -1);
    this.start[i] = start;
    this.end[i] = end;
    this.setup[i] = setup;
    if (start !== UNPLACED) this.account(i, 1);
  }

  /** Makes a set-up as long as told, unseen by the journal: whoever looks puts it back. */
  writeSetup(i: OperationIndex, setup: number): void {
    const before = this.setup[i]!;
    if (setup === before) return;
    const { useAt, useResource, useAmount } = this.demand;
    const from = this.start[i]! - Math.max(setup, before);
    const to = this.start[i]! - Math.min(setup, before);
    for (let u = useAt[i]!; u < useAt[i + 1]!; u++)
      this.profiles[useResource[u]!]!.add(from, to, setup > before ? useAmount[u]! : -useAmount[u]!);
    this.setups += setup - before;
    this.setup[i] = setup;
  }

  /** Adds (sign 1) or takes away (sign -1) all that the placed operation `i` occupies and costs. */
  private account(i: OperationIndex, sign: 1 | -1): void {
    const { demand, profiles } = this;
    const start = this.start[i]!;
    const end = this.end[i]!;
    const setup = this.setup[i]!;
    const { useAt, useResource, useAmount, holdAt, holdResource, holdAmount, holdFrom, holdTo } = demand;
    for (let u = useAt[i]!; u < useAt[i + 1]!; u++)
      profiles[useResource[u]!]!.add(start - setup, end, sign * useAmount[u]!);
    for (let h = holdAt[i]!; h < holdAt[i + 1]!; h++) {
      const from = this.end[holdFrom[h]!]!;
      const to = this.start[holdTo[h]!]!;
      if (from !== UNPLACED && to !== UNPLACED)
        profiles[holdResource[h]!]!.add(from, to, sign * holdAmount[h]!);
    }
    this.setups += sign * setup;
    if (demand.isPriced[i] !== 0) this.price(i, sign);
    if (this.hasLeft(i)) this.moved += sign;
    this.runs?.account(i, start, end, sign);
    const tool = this.model.tool[i]!;
    if (tool < 0) return;
    if (sign > 0) this.sequences[tool]!.add(i, start, end);
    else this.sequences[tool]!.remove(i, start);
  }

  /** What the times of `i` cost by themselves and towards its placed neighbours. */
  private price(i: OperationIndex, sign: 1 | -1): void {
    const { model } = this;
    const end = this.end[i]!;
    for (const lag of model.lagsOut[i]!)
      if (lag.prefer !== Infinity) this.accountOverrun(lag.from, lag.to, lag, sign);
    for (const lag of model.lagsIn[i]!)
      if (lag.prefer !== Infinity && lag.from !== i) this.accountOverrun(lag.from, lag.to, lag, sign);
    for (const due of model.duesOf[i]!) {
      this.tardiness += sign * due.weight * Math.max(0, end - due.due);
      this.completion += sign * due.weight * end;
    }
    const share = this.shares[i];
    if (share) this.partial += sign * shareAt(share, end);
  }

  private accountOverrun(
    from: OperationIndex,
    to: OperationIndex,
    lag: { clock: Float64Array | null; prefer: number },
    sign: number,
  ): void {
    this.overrun += sign * this.overrunAlong(from, to, lag);
  }

  private overrunAlong(
    from: OperationIndex,
    to: OperationIndex,
    lag: { clock: Float64Array | null; prefer: number },
  ): number {
    if (this.end[from] === UNPLACED || this.start[to] === UNPLACED) return 0;
    return Math.max(0, ticksBetween(lag.clock, this.end[from]!, this.start[to]!) - lag.prefer);
  }

  /** By how much what should have closed before a placed operation is passed. */
  overrunOf(i: OperationIndex): number {
    let sum = 0;
    for (const lag of this.model.lagsIn[i]!)
      if (lag.prefer !== Infinity) sum += this.overrunAlong(lag.from, i, lag);
    return sum;
  }

  /** Has a placed operation left the session it had in the plan to keep close to? */
  hasLeft(i: OperationIndex): boolean {
    const { calm } = this;
    return calm !== null && calm.session[i]! >= 0 && calm.sessionAt(this.start[i]!) !== calm.session[i];
  }

  /** Operations that take time and start in [from, to), by the beginning of their set-ups. */
  startingIn(from: Minute, to: Minute): number[] {
    const { start, end, setup } = this;
    const list: number[] = [];
    for (let i = 0; i < start.length; i++)
      if (start[i]! >= from && start[i]! < to && end[i]! > start[i]!) list.push(i);
    return list.sort(
      (a, b) => start[a]! - setup[a]! - start[b]! + setup[b]! || start[a]! - start[b]! || a - b,
    );
  }

  /** Earliest start that the placed neighbours and the static bounds allow. */
  startLow(i: OperationIndex): Minute {
    const { model } = this;
    let low = this.bounds.startLow[i]!;
    for (const lag of model.lagsIn[i]!)
      if (this.isPlaced(lag.from))
        low = Math.max(low, earliestAfter(lag.clock, this.end[lag.from]!, lag.min));
    return low;
  }

  /** Earliest end that the placed followers' windows allow. */
  endLow(i: OperationIndex): Minute {
    let low = 0;
    for (const lag of this.model.lagsOut[i]!)
      if (lag.max !== Infinity && this.isPlaced(lag.to))
        low = Math.max(low, earliestBefore(lag.clock, this.start[lag.to]!, lag.max));
    return low;
  }

  /** Latest end that the placed followers and the static bounds allow. */
  endHigh(i: OperationIndex): Minute {
    let high = this.bounds.endHigh[i]!;
    for (const lag of this.model.lagsOut[i]!)
      if (this.isPlaced(lag.to)) high = Math.min(high, latestBefore(lag.clock, this.start[lag.to]!, lag.min));
    return high;
  }

  /** Latest start that the windows of placed predecessors and the static bounds allow. */
  startHigh(i: OperationIndex): Minute {
    let high = this.bounds.startHigh[i]!;
    for (const lag of this.model.lagsIn[i]!)
      if (lag.max !== Infinity && this.isPlaced(lag.from))
        high = Math.min(high, latestAfter(lag.clock, this.end[lag.from]!, lag.max));
    return high;
  }

  /** Latest minute at which a hold that ends with (or, placed last, begins with) `i` finds no room, or -1. */
  holdBlockedAt(hold: Hold, from: Minute, to: Minute): number {
    return this.profiles[hold.resource]!.lastAbove(
      from,
      to,
      this.model.capacity[hold.resource]! - hold.amount,
    );
  }

  holdBlockedFrom(hold: Hold, from: Minute, to: Minute): number {
    return this.profiles[hold.resource]!.firstAbove(
      from,
      to,
      this.model.capacity[hold.resource]! - hold.amount,
    );
  }
}
