/** A plan in which nobody is late, and the strands that wait outside of it. */
import { followerOn, mendAfter } from '../place/setups';
import { insert, PROMPT, type Manner } from '../place/insert';
import type { Bounds } from '../prove/propagate';
import { pullLate } from '../place/pullLate';
import { Schedule, UNPLACED } from '../place/schedule';
import type { Structure } from '../place/structure';

/** It begins again when so many times as many wait outside as did in the best plan, and a few. */
const GROWTH = 4;
const A_FEW = 45;

interface Kept {
  readonly pool: readonly number[];
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
}

export class Outside {
  /** in which nothing can be late */
  readonly schedule: Schedule;
  readonly isOut: Uint8Array;
  private pool: number[];
  /** the plan with the fewest outside */
  private home: Kept;

  /** @param full a full plan, in which some are late; @param timely bounds within which nobody is late */
  constructor(
    full: Schedule,
    private readonly structure: Structure,
    timely: Bounds,
  ) {
    this.schedule = new Schedule(full.model, timely, full.calm);
    this.isOut = new Uint8Array(structure.strands.length);
    const late: number[] = [];
    structure.strands.forEach(({ operations }, s) => {
      for (const i of operations) this.schedule.assign(i, full.start[i]!, full.end[i]!, full.setup[i]!);
      if (operations.some((i) => full.end[i]! > timely.endHigh[i]! || full.start[i]! > timely.startHigh[i]!))
        late.push(s);
    });
    this.pool = this.takeOut(late);
    this.schedule.commit();
    this.home = this.asItIs();
  }

  /** The strands that wait. */
  get waiting(): readonly number[] {
    return this.pool;
  }

  /** Those wait from now on, too. */
  wait(strands: readonly number[]): void {
    this.pool.push(...strands);
  }

  /** The one that waits at a place of the list no longer does. */
  next(at: number): number {
    return this.pool.splice(at, 1)[0]!;
  }

  /** Takes strands out, with those whose set-ups lose their place. @returns all that came out */
  takeOut(list: readonly number[]): number[] {
    const { schedule, structure, isOut } = this;
    const out = [...list];
    for (const s of out) isOut[s] = 1;
    // The list grows as it is gone through.
    for (const next of out) {
      const { operations } = structure.strands[next]!;
      const starts = operations.map((i) => schedule.start[i]!);
      for (const i of operations) schedule.remove(i);
      operations.forEach((i, n) => {
        if (mendAfter(schedule, i, starts[n]!)) return;
        const s = structure.strandOf[followerOn(schedule, i, starts[n]!)]!;
        if (s < 0 || isOut[s]) return;
        isOut[s] = 1;
        out.push(s);
      });
    }
    return out;
  }

  /** @returns whether the strand found a place within its date; if not, nothing is changed */
  bringIn(s: number, manner: Manner): boolean {
    const { operations } = this.structure.strands[s]!;
    if (insert(this.schedule, operations, manner) >= 0) return false;
    pullLate(this.schedule, operations, this.structure.blockOf);
    this.isOut[s] = 0;
    return true;
  }

  /** Would the strand find a place if others came out? @returns all that would come out; null: it would not */
  wouldFit(s: number, others: readonly number[]): number[] | null {
    const mark = this.schedule.mark();
    const out = this.takeOut(others);
    const fits = insert(this.schedule, this.structure.strands[s]!.operations) < 0;
    this.backTo(mark, out);
    return fits ? out : null;
  }

  /** The plan as it was at a mark, since when these came out. */
  backTo(mark: number, out: readonly number[]): void {
    this.schedule.undoTo(mark);
    for (const s of out) this.isOut[s] = 0;
  }

  /** Goes on from the plan with the fewest outside when too many have come out since. */
  comeHome(): void {
    const { schedule, isOut } = this;
    if (this.pool.length < this.home.pool.length) this.home = this.asItIs();
    const { pool, start, end, setup } = this.home;
    if (this.pool.length <= GROWTH * pool.length + A_FEW) return;
    for (let i = 0; i < start.length; i++)
      if (schedule.start[i] !== start[i] && schedule.isPlaced(i)) schedule.remove(i);
    for (let i = 0; i < start.length; i++)
      if (start[i] !== UNPLACED) schedule.assign(i, start[i]!, end[i]!, setup[i]!);
    isOut.fill(0);
    this.pool = [...pool];
    for (const s of pool) isOut[s] = 1;
    schedule.commit();
  }

  /** Places the milestones, too. @returns whether the plan is full */
  finish(): boolean {
    return insert(this.schedule, this.structure.milestones, PROMPT) < 0;
  }

  private asItIs(): Kept {
    const { start, end, setup } = this.schedule;
    return { pool: [...this.pool], start: start.slice(), end: end.slice(), setup: setup.slice() };
  }
}
