/**
 * First plans: strands placed one after the other in an order of priority. What found no place is moved to the front and
 * tried again; what came late gets more priority in the next round (squeaky-wheel optimisation, Joslin & Clements 1999).
 */
import { PROMPT } from './insert';
import { putBack } from './putBack';
import { pick, type Random } from './random';
import type { Schedule } from './schedule';
import type { Strand, Structure } from './structure';

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
  /** Fills the empty schedule. @returns whether every operation found its place; if not, the schedule is empty again */
  build(): boolean;
}

export function builder(schedule: Schedule, structure: Structure, random: Random): Builder {
  const { model } = schedule;
  const { strands } = structure;
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
    const isFull = fill(schedule, structure, key, random);
    if (isFull) learn();
    return isFull;
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
    build,
  };
}

function fill(schedule: Schedule, structure: Structure, key: readonly number[], random: Random): boolean {
  const order = structure.strands.map((_, s) => s).sort((a, b) => key[a]! - key[b]!);
  for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
    const begin = schedule.mark();
    const groups = order.map((s) => structure.strands[s]!.operations);
    const failed = putBack(schedule, structure, { groups, joints: structure.milestones }, { manner: PROMPT });
    if (failed < 0) return true;
    schedule.undoTo(begin);
    if (failed === groups.length) return false;
    const [strand] = order.splice(failed, 1);
    order.splice(attempt < 10 ? 0 : pick(random, failed + 1), 0, strand!);
  }
  return false;
}
