/** What one try has taken out of a plan: with all that must come along, in the order in which it is to go back, and what makes room for it. */
import { followerOn, mendAfter } from '../place/setups';
import { arrange } from '../place/arrange';
import { mostPatient } from './mostPatient';
import { MOST_OUT, spanOf, type TakenOut } from './moves';
import type { Loose } from '../place/putBack';
import type { Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';
import type { OperationIndex } from '../model/units';

/** Key of what goes back after all others. */
const LAST = 1e12;

export class Pulled implements TakenOut {
  private readonly key: Float64Array;
  private readonly isOut: Uint8Array;
  private out: number[] = [];
  /** where strands stood that have been taken out, and which they are */
  private readonly was: { readonly from: Float64Array; readonly to: Float64Array };
  private readonly isMoved: Uint8Array;
  /** does it go back strand by strand, or all side by side? */
  isWhole = true;

  constructor(
    private readonly schedule: Schedule,
    private readonly structure: Structure,
  ) {
    const { count } = schedule.model;
    const { length } = structure.strands;
    this.key = new Float64Array(count);
    this.isOut = new Uint8Array(count);
    this.was = { from: new Float64Array(length), to: new Float64Array(length) };
    this.isMoved = new Uint8Array(length);
  }

  get size(): number {
    return this.out.length;
  }

  /** @param key smaller comes back first */
  take(i: OperationIndex, key: number): void {
    this.key[i] = key;
    this.add(i);
  }

  /** Nothing is out any more. */
  startOver(): void {
    for (const i of this.out) this.isOut[i] = 0;
    this.isMoved.fill(0);
    this.out = [];
  }

  /**
   * Removes from the plan what was taken, and windows that would be torn, joints that follow, setups that lose their place: all of it comes out too.
   *
   * @param removed so many of what is out have been removed before
   * @returns false when too much would have to come out
   */
  removeAll(removed = 0): boolean {
    const { schedule, out, isOut } = this;
    for (let done = removed; ;) {
      this.takeAlong(done);
      if (out.length > 2 * MOST_OUT) return false;
      const begin = done;
      const starts: number[] = [];
      for (; done < out.length; done++) {
        starts.push(schedule.start[out[done]!]!);
        schedule.remove(out[done]!);
      }
      for (let k = begin; k < done; k++) {
        const i = out[k]!;
        if (mendAfter(schedule, i, starts[k - begin]!)) continue;
        const after = followerOn(schedule, i, starts[k - begin]!);
        if (!isOut[after]) this.take(after, schedule.start[after]!);
      }
      if (done === out.length) return true;
    }
  }

  /** What has been taken out since there were `begin` operations out, ready to be put back. */
  looseFrom(begin: number): Loose {
    const { strandOf, rank } = this.structure;
    const list = this.out.slice(begin);
    const order = arrange(
      this.schedule.model,
      list.filter((i) => strandOf[i]! >= 0),
      this.key,
    );
    const joints = list.filter((i) => strandOf[i]! < 0).sort((a, b) => rank[a]! - rank[b]!);
    return { groups: this.isWhole ? this.byStrand(order) : [order], joints };
  }

  /**
   * A strand found no place: one that can wait longer makes room for it and comes back after all others.
   *
   * @param s the strand; −1: a joint, for which none makes room
   * @returns what came out; null where none can wait
   */
  eject(s: number, random: Random): Loose | null {
    const { schedule, was, isMoved, isOut, out } = this;
    const { strands } = this.structure;
    if (s < 0) return null;
    const room = { from: was.from[s]!, length: was.to[s]! - was.from[s]!, due: strands[s]!.due };
    const other = mostPatient(schedule, strands, room, isMoved, random);
    if (other < 0) return null;
    // What is back in its place may have to come out again.
    for (const i of out) if (schedule.isPlaced(i)) isOut[i] = 0;
    const begin = out.length;
    strands[other]!.operations.forEach((i, k) => this.take(i, k));
    return this.removeAll(begin) ? this.looseFrom(begin) : null;
  }

  /** From the `from`th on: what a window ties to it, and the joints that wait for it. */
  private takeAlong(from: number): void {
    const { out, isOut, key } = this;
    const { lagsOut, lagsIn, isFixed } = this.schedule.model;
    const { strandOf } = this.structure;
    for (let k = from; k < out.length; k++) {
      const i = out[k]!;
      for (const lag of lagsOut[i]!) {
        if (lag.max !== Infinity && !isOut[lag.to]) this.take(lag.to, key[i]!);
        else if (strandOf[lag.to]! < 0 && !isOut[lag.to] && !isFixed[lag.to]) this.take(lag.to, LAST);
      }
      for (const lag of lagsIn[i]!)
        if (lag.max !== Infinity && !isOut[lag.from]) this.take(lag.from, key[i]!);
    }
  }

  private add(i: OperationIndex): void {
    if (this.isOut[i] || this.schedule.model.isFixed[i]) return;
    this.isOut[i] = 1;
    this.out.push(i);
    this.remember(this.structure.strandOf[i]!);
  }

  /** Notes where a strand stands before the first of it goes: `eject` asks for it later. */
  private remember(s: number): void {
    if (s < 0 || this.isMoved[s]) return;
    this.isMoved[s] = 1;
    const [from, to] = spanOf(this.schedule, this.structure.strands[s]!);
    this.was.from[s] = from;
    this.was.to[s] = to;
  }

  /** Splits an order where one strand ends and the next begins. */
  private byStrand(order: readonly number[]): number[][] {
    const groups: number[][] = [];
    let last = -1;
    for (const i of order) {
      const s = this.structure.strandOf[i]!;
      if (s !== last) groups.push([]);
      groups[groups.length - 1]!.push(i);
      last = s;
    }
    return groups;
  }
}
