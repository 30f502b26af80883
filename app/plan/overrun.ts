import type { Forecast } from '#core/odds';
import type { PlanSession } from '#core/plan';

/** How often a session overruns, 0 to 1. The odds speak of all hours, the plan of the sessions that it uses. */
export function overrunOf(
  { overruns, begins }: Pick<Forecast, 'overruns' | 'begins'>,
  { start, end }: Pick<PlanSession, 'start' | 'end'>,
): number {
  return overruns[begins.findIndex((b) => b >= start && b < end)] ?? 0;
}
