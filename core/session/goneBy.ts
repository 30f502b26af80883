/** Evenings that are over while steps planned for them are not done: nobody came, or nobody ticked off. */
import type { Ended } from '#core/log';
import type { Plan } from '#core/plan';

export interface GoneBy {
  /** minute at which the first of them began */
  readonly first: number;
  readonly sessions: number;
  /** planned for them, and neither done nor left off */
  readonly steps: number;
}

/** So many minutes after its end nobody is at the bench any more. */
const LINGERS = 60;

/** @returns null where nothing is left over from a session that is over */
export function goneBy(plan: Plan, ended: Ended, minute: number): GoneBy | null {
  const left = plan.sessions
    .filter((s) => s.end + LINGERS <= minute)
    .map(({ start, steps }) => ({ start, steps: steps.filter((s) => !ended.has(s.id)).length }))
    .filter(({ steps }) => steps > 0);
  return left.length === 0
    ? null
    : {
        first: left[0]!.start,
        sessions: left.length,
        steps: left.reduce((sum, { steps }) => sum + steps, 0),
      };
}
