/**
 * First plans: strands placed one after the other in an order of priority. What found no place is moved to the front and
 * tried again; what came late gets more priority in the next round (squeaky-wheel optimisation, Joslin & Clements 1999).
 */
import { insert } from '../place/insert';
import type { Model } from '../model/model';
import { pullLate } from '../place/pullLate';
import { pick, type Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Strand, Structure } from '../place/structure';

type Rule = (strand: Strand) => number;

/** Priority rules, smallest first. */
const RULES: readonly Rule[] = [
  /** earliest due date (Jackson 1955) */
  (s) => s.due,
  /** latest start that still meets the due date */
  (s) => s.latestStart,
  /** weighted shortest work first (Smith 1956) */
  (s) => (s.work + 1) / Math.max(1e-6, s.weight),
];

const ATTEMPTS = 25;
/** Rounds in which the late gain priority, at most. */
const ROUNDS = 16;
/** Minutes of priority that a late strand gains beside its lateness. */
const NUDGE = 200;

export interface Builder {
  /** More plans to come. */
  readonly isBusy: boolean;
  /** A plan by each rule was built or found impossible: what comes now learns from them. */
  readonly hasTriedRules: boolean;
  /** Every rule has been tried, and none has found a plan: there may be none within this horizon. */
  readonly isStumped: boolean;
  /** Fills the schedule, which is empty or as the last call left it. @returns whether every operation found its place */
  build(): boolean;
}

export function builder(schedule: Schedule, structure: Structure, random: Random): Builder {
  const { model } = schedule;
  const { strands } = structure;
  const begin = schedule.mark();
  const following = strands.map((strand) => milestonesAfter(model, structure, strand));
  /** the strands in the schedule, in the order in which they went in, and where the journal stood after each */
  const placed: number[] = [];
  const marks: number[] = [];
  let round = 0;
  let key: number[] = [];
  let isLate = true;
  let bestCost = Infinity;
  let bestKey: number[] | null = null;

  function build(): boolean {
    if (round < RULES.length) key = strands.map(RULES[round]!);
    else if (bestKey === null) key = strands.map(() => random());
    else if (round === RULES.length) key = [...bestKey];
    round++;
    const isFull = fill();
    if (isFull) learn();
    return isFull;
  }

  function fill(): boolean {
    const order = strands.map((_, s) => s).sort((a, b) => key[a]! - key[b]!);
    for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
      const failed = placeAll(order);
      if (failed < 0) return true;
      if (failed === order.length) return false;
      const [strand] = order.splice(failed, 1);
      order.splice(attempt < 10 ? 0 : pick(random, failed + 1), 0, strand!);
    }
    return false;
  }

  /** @returns -1, or the place in the order of the strand (at the end: of the milestones) that found no place */
  function placeAll(order: readonly number[]): number {
    let k = 0;
    // What begins like the last plan stays as it is.
    while (k < placed.length && placed[k] === order[k]) k++;
    placed.length = marks.length = k;
    schedule.undoTo(k > 0 ? marks[k - 1]! : begin);
    for (; k < order.length; k++) {
      if (!place(order[k]!)) return k;
      placed.push(order[k]!);
      marks.push(schedule.mark());
    }
    const rest = structure.milestones.filter((i) => !schedule.isPlaced(i));
    return rest.length === 0 || insert(schedule, rest) < 0 ? -1 : order.length;
  }

  /** A strand, and the milestones for which it was the last to wait for. */
  function place(s: number): boolean {
    const { operations } = strands[s]!;
    if (insert(schedule, operations) >= 0) return false;
    for (const i of following[s]!)
      if (model.lagsIn[i]!.every((lag) => schedule.isPlaced(lag.from)) && insert(schedule, [i]) >= 0)
        return false;
    pullLate(schedule, operations, structure.blockOf);
    return true;
  }

  function learn(): void {
    const cost = schedule.cost();
    isLate = model.dues.some((d) => schedule.end[d.ready]! > d.due);
    const ends = strands.map((s) => Math.max(...s.operations.map((i) => schedule.end[i]!)));
    const last = model.dues.map(() => 0);
    strands.forEach((s, k) => s.units.forEach((u) => (last[u] = Math.max(last[u]!, ends[k]!))));
    const next = strands.map((s, k) => {
      let most = 0;
      for (const u of s.units) {
        const due = model.dues[u]!;
        most = Math.max(most, ends[k]! + schedule.end[due.ready]! - last[u]! - due.due);
      }
      return key[k]! - (most > 0 ? most + NUDGE : 0);
    });
    // The rule by weight has no minutes as key: its lateness teaches nothing.
    if (round <= RULES.length && (round === RULES.length || cost >= bestCost)) return;
    bestCost = cost;
    bestKey = next;
    key = next;
  }

  return {
    get isBusy() {
      return round < RULES.length || bestKey === null || (isLate && round < RULES.length + ROUNDS);
    },
    get hasTriedRules() {
      return round >= RULES.length;
    },
    get isStumped() {
      return bestKey === null && round >= RULES.length;
    },
    build,
  };
}

/** Milestones that a strand leads to, in topological order. */
function milestonesAfter(model: Model, structure: Structure, strand: Strand): number[] {
  const found = new Set<number>();
  const todo = [...strand.operations];
  while (todo.length > 0)
    for (const { to } of model.lagsOut[todo.pop()!]!) {
      if (structure.strandOf[to]! >= 0 || model.isFixed[to] || found.has(to)) continue;
      found.add(to);
      todo.push(to);
    }
  return [...found].sort((a, b) => structure.rank[a]! - structure.rank[b]!);
}
