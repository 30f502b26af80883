/**
 * A search for the dates alone: strands that would be late wait outside, one after the other goes in within its date, and what stands in
 * its way and has been little trouble so far comes out for it (ejection with penalties; Nagata & Bräysy 2009). It ends when all are in.
 */
import { gapCloser, type CloseGaps } from '../place/closeGaps';
import { PROMPT, type Manner } from '../place/insert';
import type { Bounds } from '../prove/propagate';
import { pick, type Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Strand, Structure } from '../place/structure';
import { muchInTheWay } from './inTheWay';
import { Outside } from './outside';

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
/** How soon what is in the way is chosen by that alone, and not by how long it could wait. */
const TROUBLED = 3;

/** A strand in the way of another, and how much. */
interface Blocker {
  readonly s: number;
  readonly much: number;
}

export class Dates {
  private readonly outside: Outside;
  private readonly strands: readonly Strand[];
  /** how often a strand has found no place */
  private readonly trouble: Float64Array;
  private readonly closeGaps: CloseGaps;

  /** @param full a full plan, in which some are late; @param timely bounds within which nobody is late */
  constructor(
    full: Schedule,
    structure: Structure,
    private readonly timely: Bounds,
    private readonly random: Random,
  ) {
    this.outside = new Outside(full, structure, timely);
    this.strands = structure.strands;
    this.trouble = new Float64Array(structure.strands.length).fill(1);
    this.closeGaps = gapCloser(this.schedule);
  }

  /** the plan */
  get schedule(): Schedule {
    return this.outside.schedule;
  }

  /** strands that wait outside */
  get waiting(): number {
    return this.outside.waiting.length;
  }

  /** Brings one strand in, whatever must come out for it. @returns whether all are in: the schedule is full and nobody late */
  step(): boolean {
    const { outside } = this;
    if (this.waiting === 0) return outside.finish();
    outside.comeHome();
    const s = outside.next(this.mostTroubled());
    if (
      this.isBack(s) ||
      outside.bringIn(s, PROMPT) ||
      outside.bringIn(s, { ...PROMPT, closeGaps: this.closeGaps })
    ) {
      this.schedule.commit();
      return this.waiting === 0 && outside.finish();
    }
    this.trouble[s]!++;
    this.makeRoom(s);
    return false;
  }

  /** Place in the list of the one that has been the most trouble, with some luck. */
  private mostTroubled(): number {
    let at = 0;
    let most = -1;
    this.outside.waiting.forEach((s, k) => {
      const score = this.trouble[s]! * this.random();
      if (score > most) {
        most = score;
        at = k;
      }
    });
    return at;
  }

  /** Brings a strand in where it stood in the plan to keep close to, if there is one and it goes. */
  private isBack(s: number): boolean {
    return this.schedule.calm !== null && this.outside.bringIn(s, { ...PROMPT, isHomeward: true });
  }

  /** Tries what could come out for a strand, and takes what has been the least trouble. */
  private makeRoom(s: number): void {
    const { outside, random, trouble, schedule } = this;
    const others = this.inTheWay(s, random() < TROUBLED / (1 + trouble[s]!));
    const most = Math.min(MOST_OUT, FEW + Math.floor(trouble[s]! / MORE_AFTER));
    let best: number[] | null = null;
    let least = Infinity;
    for (let n = 0; n < TRIES && others.length > 0 && least >= trouble[s]!; n++) {
      const chosen = this.draw(others, 1 + Math.min(pick(random, most), pick(random, most)));
      const out = outside.wouldFit(s, chosen);
      const price = out?.reduce((sum, k) => sum + trouble[k]!, 0) ?? Infinity;
      if (price >= least) continue;
      least = price;
      best = chosen;
    }
    if (best !== null) {
      outside.wait(outside.takeOut(best));
      outside.bringIn(s, PROMPT);
    } else if ((schedule.calm !== null && trouble[s]! < LONG_TROUBLE) || !this.forceIn(s, others)) {
      // Where a plan is to be kept close to, none is forced in before much else was tried.
      outside.wait([s]);
      this.shake();
    }
    schedule.commit();
  }

  /** One after the other comes out until the strand goes in. @returns whether it did; if not, nothing is changed */
  private forceIn(s: number, others: readonly Blocker[]): boolean {
    const { outside } = this;
    const mark = this.schedule.mark();
    const out: number[] = [];
    for (let n = 0; n < MOST_FORCED && out.length < others.length; n++) {
      const left = others.filter((o) => !outside.isOut[o.s]);
      const next = this.draw(left, 1);
      if (next.length === 0) break;
      out.push(...outside.takeOut(next));
      if (!outside.bringIn(s, PROMPT)) continue;
      outside.wait(out);
      return true;
    }
    outside.backTo(mark, out);
    return false;
  }

  /** Minutes that a strand could still be later. */
  private inHand(s: number): number {
    const { operations } = this.strands[s]!;
    const last = operations[operations.length - 1]!;
    return Math.max(1, this.timely.endHigh[last]! - this.schedule.end[last]!);
  }

  /** Strands that stand where this one could, by what they take up there and, if asked, by how long they can wait. */
  private inTheWay(s: number, isPatient: boolean): Blocker[] {
    const { strands, outside } = this;
    const found: Blocker[] = [];
    const looks = Math.min(strands.length, MOST_LOOKED_AT);
    const offset = pick(this.random, strands.length);
    for (let n = 0; n < looks; n++) {
      const other = (offset + n) % strands.length;
      if (outside.isOut[other] || other === s) continue;
      const much = muchInTheWay(this.schedule, this.timely, strands[other]!, strands[s]!);
      if (much > 0) found.push({ s: other, much: Math.sqrt(much) * (isPatient ? this.inHand(other) : 1) });
    }
    return found;
  }

  /** So many of them: what is much in the way and was little trouble, with luck. */
  private draw(others: readonly Blocker[], many: number): number[] {
    const chosen: number[] = [];
    for (let n = 0; n < many; n++) {
      let best = -1;
      let most = -1;
      for (const { s, much } of others) {
        if (chosen.includes(s)) continue;
        const score = (much * this.random()) / this.trouble[s]!;
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
  private shake(): void {
    const { outside, random, schedule } = this;
    for (let n = 0; n < SHAKES; n++) {
      const mark = schedule.mark();
      const chosen = new Set<number>();
      for (let k = 0; k < FEW; k++) {
        const s = pick(random, this.strands.length);
        if (!outside.isOut[s]) chosen.add(s);
      }
      const out = outside.takeOut([...chosen]);
      const luck = new Map(out.map((s) => [s, random()]));
      const order = [...out].sort((a, b) => luck.get(a)! - luck.get(b)!);
      const manner = (): Manner => ({ ...PROMPT, delay: random() < 0.5 ? 0 : pick(random, DAY) });
      if (order.every((s) => outside.bringIn(s, manner()))) continue;
      outside.backTo(mark, out);
    }
  }
}
