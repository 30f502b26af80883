/** First plans: strands placed one after the other by a rule; what found no place is moved to the front and tried again. */
import { insert, PROMPT } from './insert';
import { pick, type Random } from './random';
import type { Schedule } from './schedule';
import type { Strand, Structure } from './structure';

export type Rule = (strand: Strand) => number;

/** Priority rules, smallest first. */
export const RULES: readonly Rule[] = [
  /** earliest due date (Jackson 1955) */
  (s) => s.due,
  /** latest start that still meets the due date */
  (s) => s.latestStart,
  /** weighted shortest work first (Smith 1956) */
  (s) => (s.work + 1) / Math.max(1e-6, s.weight),
];

const ATTEMPTS = 25;

/**
 * Fills an empty schedule.
 * @returns whether every operation has its place; if not, the schedule is as it was
 */
export function construct(schedule: Schedule, structure: Structure, rule: Rule, random: Random): boolean {
  const key = structure.strands.map(rule);
  const order = structure.strands.map((_, s) => s).sort((a, b) => key[a]! - key[b]!);
  for (let attempt = 0; attempt < ATTEMPTS; attempt++) {
    const begin = schedule.mark();
    const failed = order.findIndex((s) => insert(schedule, structure.strands[s]!.operations, PROMPT) >= 0);
    if (failed < 0 && insert(schedule, structure.milestones) < 0) return true;
    schedule.undoTo(begin);
    if (failed < 0) return false;
    const [strand] = order.splice(failed, 1);
    order.splice(attempt < 10 ? 0 : pick(random, failed + 1), 0, strand!);
  }
  return false;
}
