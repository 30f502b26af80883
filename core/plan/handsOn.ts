/** How long somebody works on a step: the nights through which it is put down do not count. */
import type { Plan, PlanStep } from './present';

/**
 * @param plan where its sessions lie; a step that may not be put down is worked on from its beginning to its end
 * @returns minutes of hands; at least 1 where it takes any time at all
 */
export function handsOnMinutes(
  { sessions }: Pick<Plan, 'sessions'>,
  { layer, start, end }: PlanStep,
): number {
  if (!layer.pausable) return end - start;
  const inside = sessions.reduce(
    (sum, s) => sum + Math.max(0, Math.min(end, s.end) - Math.max(start, s.start)),
    0,
  );
  // A step logged outside every session was still worked on, but for one long day at most.
  return inside > 0 || end === start ? inside : Math.min(end - start, OUTSIDE_MINUTES);
}

/** Longer than that nobody is at one step outside of the hours of the bench. */
const OUTSIDE_MINUTES = 720;
