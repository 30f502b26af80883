/**
 * A search for the dates alone: strands that would be late wait outside, one after the other goes in within its date, and what stands in
 * its way and has been little trouble so far comes out for it (ejection with penalties; Nagata & Bräysy 2009). It ends when all are in.
 */
import { followerOn, mendAfter } from '../place/setups';
import { gapCloser } from '../place/closeGaps';
import { insert, PROMPT, type Manner } from '../place/insert';
import type { Bounds } from '../prove/propagate';
import { pullLate } from '../place/pullLate';
import { sharesResource } from '../model/model';
import { pick, type Random } from '../model/random';
import { Schedule, UNPLACED } from '../place/schedule';
import type { Structure } from '../place/structure';

export interface Dates {
  /** Brings one strand in, whatever must come out for it. @returns whether all are in: the schedule is full and nobody late */
  step(): boolean;
  /** the plan */
  readonly schedule: Schedule;
  /** strands that wait outside */
  readonly waiting: number;
}

/** So many ways to make room are tried for a strand that finds none. */
const TRIES = 20;
/** At most so many strands make room at a time: few at first, more for what has found no place so many times. */
const FEW = 3;
const MORE_AFTER = 6;
const MOST_OUT = 10;
/** What stands in the way is looked for among so many at most. */
const MOST_LOOKED_AT = 400;
const LONG_TROUBLE = 8;
/** So many come out at most where nothing less helps. */
const MOST_FORCED = 40;
/** So often the plan is shaken where nothing helps; what goes in anew begins up to a day later. */
const SHAKES = 10;
const DAY = 1440;
/** A minute of hands or tools in the way counts as so many on a rack that holds one alone. */
const WORK = 6;
/** How soon what is in the way is chosen by that alone, and not by how long it could wait. */
const TROUBLED = 3;
/** It begins again when so many times as many wait outside as did in the best plan, and a few. */
const GROWTH = 4;
const A_FEW = 45;

/** @param full a full plan, in which some are late; @param timely bounds within which nobody is late */
export function dates(full: Schedule, structure: Structure, timely: Bounds, random: Random): Dates {
  const { model } = full;
  /** in which nothing can be late */
  const schedule = new Schedule(model, timely, full.calm);
  const { strands } = structure;
  /** how often a strand has found no place */
  const trouble = new Float64Array(strands.length).fill(1);
  const isOut = new Uint8Array(strands.length);
  const closeGaps = gapCloser(schedule);
  const holding = strands.map((s) => s.operations.some((i) => model.holdsOf[i]!.length > 0));
  let pool: number[] = [];
  begin();
  let home = asItIs();

  function begin(): void {
    const late: number[] = [];
    strands.forEach(({ operations }, s) => {
      for (const i of operations) schedule.assign(i, full.start[i]!, full.end[i]!, full.setup[i]!);
      if (operations.some((i) => full.end[i]! > timely.endHigh[i]! || full.start[i]! > timely.startHigh[i]!))
        late.push(s);
    });
    pool = takeOut(late);
    schedule.commit();
  }

  /** Takes strands out, with those whose set-ups lose their place. @returns all that came out */
  function takeOut(list: readonly number[]): number[] {
    const out = [...list];
    for (const s of out) isOut[s] = 1;
    // The list grows as it is gone through.
    for (const next of out) {
      const { operations } = strands[next]!;
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

  function asItIs() {
    const { start, end, setup } = schedule;
    return { pool: [...pool], start: start.slice(), end: end.slice(), setup: setup.slice() };
  }

  /** Goes on from the plan with the fewest outside when too many have come out since. */
  function comeHome(): void {
    if (pool.length < home.pool.length) home = asItIs();
    if (pool.length <= GROWTH * home.pool.length + A_FEW) return;
    for (let i = 0; i < model.count; i++)
      if (schedule.start[i] !== home.start[i] && schedule.isPlaced(i)) schedule.remove(i);
    for (let i = 0; i < model.count; i++)
      if (home.start[i] !== UNPLACED) schedule.assign(i, home.start[i]!, home.end[i]!, home.setup[i]!);
    isOut.fill(0);
    pool = [...home.pool];
    for (const s of pool) isOut[s] = 1;
    schedule.commit();
  }

  function step(): boolean {
    if (pool.length === 0) return finish();
    comeHome();
    // The one that has been the most trouble, with some luck.
    let at = 0;
    let most = -1;
    pool.forEach((s, k) => {
      const score = trouble[s]! * random();
      if (score > most) {
        most = score;
        at = k;
      }
    });
    const s = pool.splice(at, 1)[0]!;
    if (isBack(s) || bringIn(s, PROMPT) || bringIn(s, { ...PROMPT, closeGaps })) {
      schedule.commit();
      return pool.length === 0 && finish();
    }
    trouble[s]!++;
    makeRoom(s);
    return false;
  }

  /** Brings a strand in where it stood in the plan to keep close to, if there is one and it goes. */
  function isBack(s: number): boolean {
    return schedule.calm !== null && bringIn(s, { ...PROMPT, isHomeward: true });
  }

  function bringIn(s: number, manner: Manner): boolean {
    const { operations } = strands[s]!;
    if (insert(schedule, operations, manner) >= 0) return false;
    pullLate(schedule, operations, structure.blockOf);
    isOut[s] = 0;
    return true;
  }

  /** Tries what could come out for a strand, and takes what has been the least trouble. */
  function makeRoom(s: number): void {
    const others = inTheWay(s, random() < TROUBLED / (1 + trouble[s]!));
    const most = Math.min(MOST_OUT, FEW + Math.floor(trouble[s]! / MORE_AFTER));
    let best: number[] | null = null;
    let least = Infinity;
    for (let n = 0; n < TRIES && others.length > 0 && least >= trouble[s]!; n++) {
      const chosen = draw(others, 1 + Math.min(pick(random, most), pick(random, most)));
      const mark = schedule.mark();
      const out = takeOut(chosen);
      const isIn = insert(schedule, strands[s]!.operations) < 0;
      schedule.undoTo(mark);
      for (const k of out) isOut[k] = 0;
      const price = isIn ? out.reduce((sum, k) => sum + trouble[k]!, 0) : Infinity;
      if (price >= least) continue;
      least = price;
      best = chosen;
    }
    if (best === null) {
      // Where a plan is to be kept close to, not before much else was tried.
      if ((schedule.calm !== null && trouble[s]! < LONG_TROUBLE) || !forceIn(s, others)) {
        pool.push(s);
        shake();
      }
    } else {
      pool.push(...takeOut(best));
      bringIn(s, PROMPT);
    }
    schedule.commit();
  }

  /** One after the other comes out until the strand goes in. @returns whether it did; if not, nothing is changed */
  function forceIn(s: number, others: { s: number; much: number }[]): boolean {
    const mark = schedule.mark();
    const out: number[] = [];
    for (let n = 0; n < MOST_FORCED && out.length < others.length; n++) {
      const next = draw(
        others.filter((o) => !isOut[o.s]),
        1,
      );
      if (next.length === 0) break;
      out.push(...takeOut(next));
      if (!bringIn(s, PROMPT)) continue;
      pool.push(...out);
      return true;
    }
    schedule.undoTo(mark);
    for (const k of out) isOut[k] = 0;
    return false;
  }

  /** Minutes that a strand could still be later. */
  function inHand(s: number): number {
    const { operations } = strands[s]!;
    const last = operations[operations.length - 1]!;
    return Math.max(1, timely.endHigh[last]! - schedule.end[last]!);
  }

  /** Strands that stand where this one could, by what they take up there and, if asked, by how long they can wait. */
  function inTheWay(s: number, isPatient: boolean): { s: number; much: number }[] {
    const { operations } = strands[s]!;
    const found: { s: number; much: number }[] = [];
    const looks = Math.min(strands.length, MOST_LOOKED_AT);
    const offset = pick(random, strands.length);
    for (let n = 0; n < looks; n++) {
      const other = (offset + n) % strands.length;
      if (isOut[other] || other === s) continue;
      let much = 0;
      for (const k of strands[other]!.operations) {
        if (model.isFixed[k]) continue;
        const a = schedule.start[k]! - schedule.setup[k]!;
        const b = schedule.end[k]!;
        for (const i of operations) {
          if (model.minutes[k]! > 0 && model.minutes[i]! > 0) {
            const overlap = Math.min(b, timely.endHigh[i]!) - Math.max(a, timely.startLow[i]!);
            if (overlap > 0 && sharesResource(model, k, i)) much += WORK * overlap;
          }
        }
        if (holding[s])
          for (const hold of model.holdsOf[k]!) {
            if (hold.from !== k) continue;
            for (const i of operations)
              for (const own of model.holdsOf[i]!) {
                if (own.from !== i || own.resource !== hold.resource) continue;
                const overlap =
                  Math.min(schedule.start[hold.to]!, timely.startHigh[own.to]!) -
                  Math.max(b, timely.endLow[i]!);
                if (overlap > 0) much += (overlap * hold.amount) / model.capacity[hold.resource]!;
              }
          }
      }
      if (much > 0) found.push({ s: other, much: Math.sqrt(much) * (isPatient ? inHand(other) : 1) });
    }
    return found;
  }

  function draw(others: { s: number; much: number }[], many: number): number[] {
    const chosen: number[] = [];
    for (let n = 0; n < many; n++) {
      let best = -1;
      let most = -1;
      for (const { s, much } of others) {
        if (chosen.includes(s)) continue;
        const score = (much * random()) / trouble[s]!;
        if (score > most) {
          most = score;
          best = s;
        }
      }
      if (best >= 0) chosen.push(best);
    }
    return chosen;
  }

  /** Some strands go in anew in another order, so that the next looks at another plan. */
  function shake(): void {
    for (let n = 0; n < SHAKES; n++) {
      const mark = schedule.mark();
      const chosen = new Set<number>();
      for (let k = 0; k < FEW; k++) {
        const s = pick(random, strands.length);
        if (!isOut[s]) chosen.add(s);
      }
      const out = takeOut([...chosen]);
      const luck = new Map(out.map((s) => [s, random()]));
      const order = [...out].sort((a, b) => luck.get(a)! - luck.get(b)!);
      const manner = (): Manner => ({ ...PROMPT, delay: random() < 0.5 ? 0 : pick(random, DAY) });
      if (order.every((s) => bringIn(s, manner()))) continue;
      schedule.undoTo(mark);
      for (const s of out) isOut[s] = 0;
    }
  }

  function finish(): boolean {
    return insert(schedule, structure.milestones, PROMPT) < 0;
  }

  return {
    step,
    schedule,
    get waiting() {
      return pool.length;
    },
  };
}
