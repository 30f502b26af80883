/**
 * A plan in the making. Every change goes through `assign`, which keeps resources, tool sequences and cost
 * true and writes a journal, so that any number of changes can be taken back exactly (`undoTo`).
 */
import { earliestAfter, earliestBefore, latestAfter, latestBefore, ticksBetween } from '../model/dryingClock';
import { change, type Hold, type Model, type Tool } from '../model/model';
import { NEVER, nextFit, nextOpen, pausableEnd, pausableStart, previousFit } from '../model/openHours';
import { Profile } from '../model/profile';
import type { Calm } from './calm';
import type { Bounds } from '../prove/propagate';
import { reachOf, type Reach } from './reach';
import { runCount, type RunCount } from './runCount';
import { ToolSequence } from '../model/toolSequence';

export const UNPLACED = -1;

export interface Slot {
  start: number;
  end: number;
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
  private readonly profiles: readonly Profile[];
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
  private readonly demand: Demand;
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

  isPlaced(i: number): boolean {
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
  assign(i: number, start: number, end: number, setup: number): void {
    this.changed++;
    this.journal.push(i, this.start[i]!, this.end[i]!, this.setup[i]!);
    this.write(i, start, end, setup);
  }

  remove(i: number): void {
    this.assign(i, UNPLACED, UNPLACED, 0);
  }

  private write(i: number, start: number, end: number, setup: number): void {
    if (start === this.start[i] && end === this.end[i]) return this.writeSetup(i, setup);
    if (this.start[i] !== UNPLACED) this.account(i, -1);
    this.start[i] = start;
    this.end[i] = end;
    this.setup[i] = setup;
    if (start !== UNPLACED) this.account(i, 1);
  }

  private writeSetup(i: number, setup: number): void {
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
  private account(i: number, sign: 1 | -1): void {
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
  private price(i: number, sign: 1 | -1): void {
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
    if (share) this.partial += sign * (share.late * Math.max(0, end - share.due) + share.soon * end);
  }

  private accountOverrun(
    from: number,
    to: number,
    lag: { clock: Float64Array | null; prefer: number },
    sign: number,
  ): void {
    if (this.end[from] === UNPLACED || this.start[to] === UNPLACED) return;
    this.overrun +=
      sign * Math.max(0, ticksBetween(lag.clock, this.end[from]!, this.start[to]!) - lag.prefer);
  }

  /** Has a placed operation left the session it had in the plan to keep close to? */
  hasLeft(i: number): boolean {
    const { calm } = this;
    return calm !== null && calm.session[i]! >= 0 && calm.sessionAt(this.start[i]!) !== calm.session[i];
  }

  /** Operations that take time and start in [from, to), by the beginning of their set-ups. */
  startingIn(from: number, to: number): number[] {
    const { start, end, setup } = this;
    const list: number[] = [];
    for (let i = 0; i < start.length; i++)
      if (start[i]! >= from && start[i]! < to && end[i]! > start[i]!) list.push(i);
    return list.sort(
      (a, b) => start[a]! - setup[a]! - start[b]! + setup[b]! || start[a]! - start[b]! || a - b,
    );
  }

  /** Earliest start that the placed neighbours and the static bounds allow. */
  startLow(i: number): number {
    const { model } = this;
    let low = this.bounds.startLow[i]!;
    for (const lag of model.lagsIn[i]!)
      if (this.isPlaced(lag.from))
        low = Math.max(low, earliestAfter(lag.clock, this.end[lag.from]!, lag.min));
    return low;
  }

  /** Earliest end that the placed followers' windows allow. */
  endLow(i: number): number {
    let low = 0;
    for (const lag of this.model.lagsOut[i]!)
      if (lag.max !== Infinity && this.isPlaced(lag.to))
        low = Math.max(low, earliestBefore(lag.clock, this.start[lag.to]!, lag.max));
    return low;
  }

  /** Latest end that the placed followers and the static bounds allow. */
  endHigh(i: number): number {
    let high = this.bounds.endHigh[i]!;
    for (const lag of this.model.lagsOut[i]!)
      if (this.isPlaced(lag.to)) high = Math.min(high, latestBefore(lag.clock, this.start[lag.to]!, lag.min));
    return high;
  }

  /** Latest start that the windows of placed predecessors and the static bounds allow. */
  startHigh(i: number): number {
    let high = this.bounds.startHigh[i]!;
    for (const lag of this.model.lagsIn[i]!)
      if (lag.max !== Infinity && this.isPlaced(lag.from))
        high = Math.min(high, latestAfter(lag.clock, this.end[lag.from]!, lag.max));
    return high;
  }

  /** Latest minute at which a hold that ends with (or, placed last, begins with) `i` finds no room, or -1. */
  holdBlockedAt(hold: Hold, from: number, to: number): number {
    return this.profiles[hold.resource]!.lastAbove(
      from,
      to,
      this.model.capacity[hold.resource]! - hold.amount,
    );
  }

  holdBlockedFrom(hold: Hold, from: number, to: number): number {
    return this.profiles[hold.resource]!.firstAbove(
      from,
      to,
      this.model.capacity[hold.resource]! - hold.amount,
    );
  }

  /** Latest minute of [from, to) in which a resource of `i` has no room for it, or -1. */
  private blockedAt(i: number, from: number, to: number): number {
    const { useAt, useResource, useLimit } = this.demand;
    let last = -1;
    for (let u = useAt[i]!; u < useAt[i + 1]!; u++) {
      const at = this.profiles[useResource[u]!]!.lastAbove(from, to, useLimit[u]!);
      if (at > last) last = at;
    }
    return last;
  }

  /** Earliest slot in [low, high] with a given setup, neighbours on the tool not asked. */
  private scan(i: number, low: number, high: number, endHigh: number, setup: number): Slot | null {
    const { model } = this;
    const minutes = model.minutes[i]!;
    const open = model.open[i]!;
    let t = Math.max(low, setup);
    for (;;) {
      if (t > high) return null;
      let start = t;
      let end = t;
      if (minutes > 0) {
        if (model.pausable[i]) {
          start = nextOpen(open, t, setup);
          end = start >= NEVER ? NEVER : pausableEnd(open, start, minutes);
        } else {
          start = nextFit(open, t, setup, minutes);
          end = start + minutes;
        }
      }
      if (start > high || end > endHigh) return null;
      const blocked = this.blockedAt(i, start - setup, end);
      if (blocked < 0) return { start, end, setup };
      t = blocked + 1 + setup;
    }
  }

  /**
   * Earliest slot of an unplaced operation in [low, high], ending by `endHigh`, with every setup (its own and that of
   * the next on the tool) in its place; null if there is none. With `patience`, among the slots that start up to
   * so many minutes later the one with the least `haste * start + setup minutes`, a run that it begins or splits counted as
   * the minutes of set-up that cost as much.
   */
  findSlot(i: number, low: number, high: number, endHigh: number, patience = 0, haste = 1): Slot | null {
    const counted = patience > 0 && this.runs !== null ? this.model.runsOn[i]![0] : undefined;
    if (counted !== undefined) return this.findInRuns(i, counted, low, high, endHigh, patience, haste);
    return this.findOnTool(i, low, high, endHigh, patience, haste);
  }

  /** `findSlot` with a look at every gap on a resource whose runs count, and at every session in it that would go on with a run. */
  private findInRuns(
    i: number,
    resource: number,
    low: number,
    high: number,
    endHigh: number,
    patience: number,
    haste: number,
  ): Slot | null {
    const { model } = this;
    const runs = this.runs!;
    const sequence = runs.on(resource)!;
    const minutes = model.minutes[i]!;
    const price = model.weights.runs / Math.max(1e-9, model.weights.setup);
    low = nextFit(model.open[i]!, low, 0, model.pausable[i] ? 1 : minutes);
    let best: Slot | null = null;
    let bestScore = Infinity;
    let limit = high;
    const look = (from: number, to: number, before: number, after: number): void => {
      const slot = this.findOnTool(i, from, Math.min(limit, to - minutes), Math.min(endHigh, to), 0, 1);
      if (slot === null) return;
      if (best === null) limit = Math.min(high, slot.start + patience);
      const score =
        haste * slot.start +
        slot.setup +
        this.changeBehind(i, slot) +
        price * runs.added(resource, i, slot.start, before, after);
      if (score >= bestScore) return;
      bestScore = score;
      best = slot;
    };
    for (let k = sequence.position(low, NEVER); k <= sequence.length; k++) {
      const before = sequence.at(k - 1);
      const after = sequence.at(k);
      const from = Math.max(low, before >= 0 ? this.end[before]! : 0);
      if (from > limit) break;
      const to = after >= 0 ? this.start[after]! : NEVER;
      if (to - from < minutes) continue;
      look(from, to, before, after);
      if (after < 0 || model.family[after] !== model.family[i]) continue;
      // The gap may reach over a night: in the morning the next run can be begun sooner.
      const session = runs.sessionOf(resource, after);
      const opens = session < 0 ? 0 : (model.openOn[resource]?.from[session] ?? 0);
      if (opens > from) look(opens, to, before, after);
    }
    return best;
  }

  /** How much the set-up behind an operation on its tool changes when it takes a slot. */
  private changeBehind(i: number, slot: Slot): number {
    const resource = this.model.tool[i]!;
    const tool = resource < 0 ? null : this.model.tools[resource]!;
    if (!tool) return 0;
    const sequence = this.sequences[resource]!;
    return this.followerChange(tool, i, slot.end, sequence.at(sequence.position(slot.start, slot.end)));
  }

  private findOnTool(
    i: number,
    low: number,
    high: number,
    endHigh: number,
    patience: number,
    haste: number,
  ): Slot | null {
    const resource = this.model.tool[i]!;
    if (resource < 0 || this.model.minutes[i] === 0) return this.scan(i, low, high, endHigh, 0);
    const { model } = this;
    const minutes = model.minutes[i]!;
    // Most often the bench is closed when a layer has dried.
    low = nextFit(model.open[i]!, low, 0, model.pausable[i] ? 1 : minutes);
    const tool = model.tools[resource]!;
    const sequence = this.sequences[resource]!;
    let best: Slot | null = null;
    let bestScore = Infinity;
    let limit = high;
    for (let k = sequence.position(low, NEVER); k <= sequence.length; k++) {
      const before = sequence.at(k - 1);
      const after = sequence.at(k);
      const from = before >= 0 ? this.end[before]! : 0;
      if (from > limit) break;
      if (after >= 0 && this.start[after]! - Math.max(from, low) < minutes) continue;
      const slot = this.findInGap(i, tool, before, after, low, limit, endHigh);
      if (slot === null) continue;
      if (patience === 0) return slot;
      if (best === null) limit = Math.min(high, slot.start + patience);
      const score = haste * slot.start + slot.setup + this.followerChange(tool, i, slot.end, after);
      if (score < bestScore) {
        bestScore = score;
        best = slot;
      }
    }
    return best;
  }

  /**
   * Earliest slot of an operation just taken out that begins in [low, where it was), between the same neighbours on its tool, all
   * set-ups as long as they were; null if there is none.
   */
  soonerSlot(i: number, low: number, was: Slot): Slot | null {
    const { start, end: endHigh, setup } = was;
    const { model } = this;
    const resource = model.tool[i]!;
    const tool = resource < 0 || model.minutes[i] === 0 ? null : model.tools[resource];
    if (!tool) return this.scan(i, low, start - 1, endHigh, setup);
    const sequence = this.sequences[resource]!;
    const k = sequence.position(start, UNPLACED);
    const before = sequence.at(k - 1);
    const after = sequence.at(k);
    // The next stays loaded only while it follows soon enough.
    const isLoaded =
      after >= 0 && !model.isFixed[after] && this.start[after]! - this.setup[after]! - endHigh <= tool.idle;
    let from = before < 0 ? low : Math.max(low, this.end[before]! + setup);
    if (isLoaded && tool.idle !== Infinity)
      from = Math.max(from, this.start[after]! - this.setup[after]! - tool.idle - (endHigh - start));
    const slot = this.scan(i, from, start - 1, endHigh, setup);
    if (slot === null) return null;
    const right =
      before < 0
        ? change(tool, 0, model.family[i]!)
        : this.setupFor(tool, model.family[before]!, this.end[before]!, i, slot.start);
    if (right !== setup) return null;
    return this.followerChange(tool, i, slot.end, after) === 0 ? slot : null;
  }

  /**
   * Earliest slot in [low, high] of an operation just taken out, between the neighbours that it had on its tool when it started at
   * `was`; null if there is none.
   */
  slotBetween(i: number, was: number, low: number, high: number, endHigh: number): Slot | null {
    const resource = this.model.tool[i]!;
    const tool = resource < 0 || this.model.minutes[i] === 0 ? null : this.model.tools[resource];
    if (!tool) return this.scan(i, low, high, endHigh, 0);
    const sequence = this.sequences[resource]!;
    const k = sequence.position(was, UNPLACED);
    return this.findInGap(i, tool, sequence.at(k - 1), sequence.at(k), low, high, endHigh);
  }

  /**
   * Latest slot of an unplaced operation that starts in [low, high] and ends by `endHigh`, every setup in its place; null
   * if there is none (or none is looked for: pausable operations that need a setup).
   */
  findLateSlot(i: number, low: number, high: number, endHigh: number): Slot | null {
    const resource = this.model.tool[i]!;
    if (resource < 0 || this.model.minutes[i] === 0) return this.scanLate(i, low, high, endHigh, 0);
    const tool = this.model.tools[resource]!;
    const sequence = this.sequences[resource]!;
    for (let k = sequence.position(Math.min(high, endHigh), NEVER); k >= 0; k--) {
      const after = sequence.at(k);
      if (after >= 0 && this.start[after]! <= low) return null;
      const slot = this.findLateInGap(i, tool, sequence.at(k - 1), after, low, high, endHigh);
      if (slot !== null) return slot;
    }
    return null;
  }

  private findLateInGap(
    i: number,
    tool: Tool,
    before: number,
    after: number,
    low: number,
    high: number,
    endHigh: number,
  ): Slot | null {
    const { model } = this;
    const family = model.family[i]!;
    const clean = change(tool, 0, family);
    if (before < 0) return this.findLateBefore(i, tool, after, low, high, endHigh, clean);
    const since = this.end[before]!;
    const s = change(tool, model.family[before]!, family);
    const lastLoaded = since + s + tool.idle;
    const standing = Math.max(low, lastLoaded + 1, since + clean);
    return (
      (standing <= high ? this.findLateBefore(i, tool, after, standing, high, endHigh, clean) : null) ??
      this.findLateBefore(i, tool, after, Math.max(low, since + s), Math.min(high, lastLoaded), endHigh, s)
    );
  }

  private findLateBefore(
    i: number,
    tool: Tool,
    after: number,
    low: number,
    high: number,
    endHigh: number,
    setup: number,
  ): Slot | null {
    if (low > high) return null;
    if (after < 0) return this.scanLate(i, low, high, endHigh, setup);
    const { model } = this;
    const next = this.start[after]!;
    if (model.isFixed[after]) return this.scanLate(i, low, high, Math.min(endHigh, next), setup);
    const loaded = change(tool, model.family[i]!, model.family[after]!);
    const clean = change(tool, 0, model.family[after]!);
    const lastClean = next - loaded - tool.idle - 1;
    const slot = this.scanLateFor(i, after, loaded, low, high, Math.min(endHigh, next - loaded), setup);
    if (slot !== null && slot.end > lastClean) return slot;
    if (lastClean <= 0) return null;
    return this.scanLateFor(i, after, clean, low, high, Math.min(endHigh, lastClean, next - clean), setup);
  }

  private scanLateFor(
    i: number,
    after: number,
    afterSetup: number,
    low: number,
    high: number,
    endHigh: number,
    setup: number,
  ): Slot | null {
    if (Math.max(low, setup) + this.model.minutes[i]! > endHigh) return null;
    const was = this.setup[after]!;
    if (afterSetup > was && !this.canGrow(after, afterSetup)) return null;
    if (afterSetup < was) this.writeSetup(after, afterSetup);
    const slot = this.scanLate(i, low, high, endHigh, setup);
    if (afterSetup < was) this.writeSetup(after, was);
    return slot;
  }

  /** Latest slot in [low, high] with a given setup, neighbours on the tool not asked. */
  private scanLate(i: number, low: number, high: number, endHigh: number, setup: number): Slot | null {
    const { model } = this;
    const minutes = model.minutes[i]!;
    const open = model.open[i]!;
    const { useAt, useResource, useLimit } = this.demand;
    if (model.pausable[i] && setup > 0) return null;
    let limit = model.pausable[i] ? endHigh : Math.min(endHigh, high + minutes);
    for (;;) {
      let start: number;
      let end: number;
      if (minutes === 0) start = end = limit;
      else if (model.pausable[i]) {
        start = pausableStart(open, limit, minutes);
        if (start > high) start = previousFit(open, high + 1, 1, 0);
        end = start < 0 ? 0 : pausableEnd(open, start, minutes);
      } else {
        start = previousFit(open, limit, minutes, setup);
        end = start + minutes;
      }
      if (start < low || start - setup < 0) return null;
      let blocked = end > endHigh ? endHigh : -1;
      for (let u = useAt[i]!; u < useAt[i + 1]!; u++) {
        const at = this.profiles[useResource[u]!]!.firstAbove(start - setup, end, useLimit[u]!);
        if (at >= 0 && (blocked < 0 || at < blocked)) blocked = at;
      }
      if (blocked < 0) return { start, end, setup };
      limit = Math.min(blocked, end - 1);
      if (model.pausable[i]) high = Math.min(high, start - 1);
    }
  }

  /** How much the setup of the next operation on the tool changes when one of `i`'s family ends before it. */
  private followerChange(tool: Tool, i: number, end: number, after: number): number {
    return after < 0 || this.model.isFixed[after]
      ? 0
      : this.setupFor(tool, this.model.family[i]!, end, after, this.start[after]!) - this.setup[after]!;
  }

  /** Setup minutes of an operation that starts at `start` after a family that ended at `end` (rule 3). */
  private setupFor(tool: Tool, family: number, end: number, i: number, start: number): number {
    const s = change(tool, family, this.model.family[i]!);
    return start - s - end > tool.idle ? change(tool, 0, this.model.family[i]!) : s;
  }

  private findInGap(
    i: number,
    tool: Tool,
    before: number,
    after: number,
    low: number,
    high: number,
    endHigh: number,
  ): Slot | null {
    const { model } = this;
    const family = model.family[i]!;
    const clean = change(tool, 0, family);
    let best: Slot | null = null;
    // Standing times before: still loaded, or left so long that the tool is clean again.
    if (before < 0) {
      best = this.findBefore(i, tool, after, low, high, endHigh, clean);
    } else {
      const since = this.end[before]!;
      const s = change(tool, model.family[before]!, family);
      const lastLoaded = since + s + tool.idle;
      best = this.findBefore(
        i,
        tool,
        after,
        Math.max(low, since + s),
        Math.min(high, lastLoaded),
        endHigh,
        s,
      );
      if (best === null && lastLoaded < high)
        best = this.findBefore(
          i,
          tool,
          after,
          Math.max(low, lastLoaded + 1, since + clean),
          high,
          endHigh,
          clean,
        );
    }
    return best;
  }

  /** Earliest slot with this setup, given what it makes of the next operation's setup. */
  private findBefore(
    i: number,
    tool: Tool,
    after: number,
    low: number,
    high: number,
    endHigh: number,
    setup: number,
  ): Slot | null {
    if (low > high || low + this.model.minutes[i]! > endHigh) return null;
    if (after < 0) return this.scan(i, low, high, endHigh, setup);
    const { model } = this;
    const next = this.start[after]!;
    if (model.isFixed[after]) return this.scan(i, low, high, Math.min(endHigh, next), setup);
    const loaded = change(tool, model.family[i]!, model.family[after]!);
    const clean = change(tool, 0, model.family[after]!);
    // The next is reached clean (this one ends long before it) or loaded (this one ends shortly before it).
    const lastClean = next - loaded - tool.idle - 1;
    let best: Slot | null = null;
    if (lastClean > 0)
      best = this.scanFor(i, after, clean, low, high, 0, Math.min(endHigh, lastClean, next - clean), setup);
    if (best === null)
      best = this.scanFor(
        i,
        after,
        loaded,
        low,
        high,
        lastClean + 1,
        Math.min(endHigh, next - loaded),
        setup,
      );
    return best;
  }

  /** `scan`, with the next operation's setup as it will be, ending no sooner than `endLow`. */
  private scanFor(
    i: number,
    after: number,
    afterSetup: number,
    low: number,
    high: number,
    endLow: number,
    endHigh: number,
    setup: number,
  ): Slot | null {
    if (endHigh < endLow || Math.max(low, setup) + this.model.minutes[i]! > endHigh) return null;
    const was = this.setup[after]!;
    if (afterSetup > was && !this.canGrow(after, afterSetup)) return null;
    // A slot that leaves the longer setup in peace is the earliest; only when there is none is it worth a look what ends in it.
    const roomy = this.scanFrom(i, low, high, endLow, Math.min(endHigh, this.start[after]! - was), setup);
    if (roomy !== null || afterSetup >= was) return roomy;
    this.writeSetup(after, afterSetup);
    const slot = this.scanFrom(i, low, high, Math.max(endLow, this.start[after]! - was + 1), endHigh, setup);
    this.writeSetup(after, was);
    return slot;
  }

  /** `scan`, ending no sooner than `endLow`. */
  private scanFrom(
    i: number,
    low: number,
    high: number,
    endLow: number,
    endHigh: number,
    setup: number,
  ): Slot | null {
    let from = this.model.pausable[i] ? low : Math.max(low, endLow - this.model.minutes[i]!);
    for (;;) {
      const slot = this.scan(i, from, high, endHigh, setup);
      if (slot === null || slot.end >= endLow) return slot;
      from = slot.start + 1;
    }
  }

  /** May the setup before a placed operation become this long, where it stands? */
  private canGrow(i: number, setup: number): boolean {
    const { model } = this;
    const start = this.start[i]!;
    const from = start - setup;
    if (from < 0) return false;
    const open = model.open[i]!;
    const minutes = model.pausable[i] ? 1 : model.minutes[i]!;
    if (nextFit(open, start, setup, minutes) !== start) return false;
    return this.blockedAt(i, from, start - this.setup[i]!) < 0;
  }

  /** Places an operation in a slot from `findSlot` and lets the next on the tool take its new setup. */
  place(i: number, slot: Slot): void {
    const resource = this.model.tool[i]!;
    if (resource < 0 || this.model.minutes[i] === 0) return this.assign(i, slot.start, slot.end, slot.setup);
    const tool = this.model.tools[resource]!;
    const sequence = this.sequences[resource]!;
    const after = sequence.at(sequence.position(slot.start, slot.end));
    const growth =
      after < 0 || this.model.isFixed[after]
        ? -1
        : this.setupFor(tool, this.model.family[i]!, slot.end, after, this.start[after]!);
    if (growth >= 0) this.assign(after, this.start[after]!, this.end[after]!, growth);
    this.assign(i, slot.start, slot.end, slot.setup);
  }

  /**
   * After the removal of an operation that stood at `start`: brings the setup of the one behind it on the tool back to the rule.
   * @returns false when that has become longer than there is room for
   */
  mendAfter(removed: number, start: number): boolean {
    const resource = this.model.tool[removed]!;
    const tool = resource < 0 ? null : this.model.tools[resource];
    if (!tool) return true;
    const sequence = this.sequences[resource]!;
    const k = sequence.position(start, UNPLACED);
    return k >= sequence.length || this.mend(tool, sequence, k);
  }

  /** The operation behind a removed one on its tool, or -1. */
  followerOn(removed: number, start: number): number {
    const resource = this.model.tool[removed]!;
    if (resource < 0) return -1;
    const sequence = this.sequences[resource]!;
    return sequence.at(sequence.position(start, UNPLACED));
  }

  private mend(tool: Tool, sequence: ToolSequence, k: number): boolean {
    const i = sequence.at(k);
    if (this.model.isFixed[i]) return true;
    const before = sequence.at(k - 1);
    const right =
      before < 0
        ? change(tool, 0, this.model.family[i]!)
        : this.setupFor(tool, this.model.family[before]!, this.end[before]!, i, this.start[i]!);
    if (right === this.setup[i]) return true;
    const since = before < 0 ? 0 : this.end[before]!;
    if (right > this.setup[i]! && !(this.start[i]! - right >= since && this.canGrow(i, right))) return false;
    this.assign(i, this.start[i]!, this.end[i]!, right);
    return true;
  }
}

/** What each operation takes, as flat lists: those of operation `i` stand at [at[i], at[i + 1]). */
interface Demand {
  readonly useAt: Int32Array;
  readonly useResource: Int32Array;
  readonly useAmount: Int32Array;
  /** the most that others may take beside it */
  readonly useLimit: Int32Array;
  readonly holdAt: Int32Array;
  readonly holdResource: Int32Array;
  readonly holdAmount: Int32Array;
  readonly holdFrom: Int32Array;
  readonly holdTo: Int32Array;
  /** 1: its times cost something by themselves (due dates, soft closings) */
  readonly isPriced: Uint8Array;
}

function demandOf(model: Model, shares: readonly (Share | null)[]): Demand {
  const isSequenced = sequencedTools(model);
  const uses = model.binding.map((list) => list.filter((u) => !isSequenced[u.resource]));
  const flat = <T>(lists: readonly (readonly T[])[], value: (item: T) => number): Int32Array =>
    Int32Array.from(lists.flatMap((list) => list.map(value)));
  const at = (lists: readonly (readonly unknown[])[]): Int32Array => {
    const result = new Int32Array(lists.length + 1);
    lists.forEach((list, i) => (result[i + 1] = result[i]! + list.length));
    return result;
  };
  const isSoft = (lag: { prefer: number }): boolean => lag.prefer !== Infinity;
  return {
    useAt: at(uses),
    useResource: flat(uses, (u) => u.resource),
    useAmount: flat(uses, (u) => u.amount),
    useLimit: flat(uses, (u) => model.capacity[u.resource]! - u.amount),
    holdAt: at(model.holdsOf),
    holdResource: flat(model.holdsOf, (h) => h.resource),
    holdAmount: flat(model.holdsOf, (h) => h.amount),
    holdFrom: flat(model.holdsOf, (h) => h.from),
    holdTo: flat(model.holdsOf, (h) => h.to),
    isPriced: Uint8Array.from(model.ids, (_, i) =>
      shares[i] !== null ||
      model.duesOf[i]!.length > 0 ||
      model.lagsIn[i]!.some(isSoft) ||
      model.lagsOut[i]!.some(isSoft)
        ? 1
        : 0,
    ),
  };
}

/** Tools on which the sequence alone says what is free: one place, no holds, no history. */
function sequencedTools(model: Model): readonly boolean[] {
  const isHeld = new Set(model.holds.map((h) => h.resource));
  const hasHistory = new Set<number>();
  model.uses.forEach((list, i) => {
    if (model.isFixed[i]) for (const u of list) hasHistory.add(u.resource);
  });
  return model.tools.map(
    (tool, r) => tool !== null && model.capacity[r] === 1 && !isHeld.has(r) && !hasHistory.has(r),
  );
}

/** The sum of all amounts on each resource. */
function mostTaken(model: Model): number[] {
  const most = model.resourceIds.map(() => 0);
  for (const list of model.uses) for (const use of list) most[use.resource]! += use.amount;
  for (const hold of model.holds) most[hold.resource]! += hold.amount;
  return most;
}

/** The share of a unit's cost that one of several parts is charged, by the end of its last operation. */
interface Share {
  readonly due: number;
  /** cost of a minute after `due` */
  readonly late: number;
  /** cost of every minute */
  readonly soon: number;
}

const SHARED = 0.5;

function sharesOf(model: Model): (Share | null)[] {
  const shares: (Share | null)[] = model.ids.map(() => null);
  for (const due of model.dues) {
    const parts = new Map<number, number>();
    const collect = (i: number, gap: number): void => {
      for (const lag of model.lagsIn[i]!)
        if (model.minutes[lag.from] === 0 && !model.isFixed[lag.from]) collect(lag.from, gap + lag.min);
        else parts.set(lag.from, Math.max(parts.get(lag.from) ?? 0, gap + lag.min));
    };
    if (model.minutes[due.ready] === 0) collect(due.ready, 0);
    if (parts.size < 2) continue;
    const part = (SHARED * due.weight) / parts.size;
    for (const [i, gap] of parts)
      shares[i] = {
        due: due.due - gap,
        late: part * model.weights.tardiness,
        soon: part * model.weights.completion,
      };
  }
  return shares;
}
