import { minutesSince, originOf, type Muster } from '#core/muster';

/** Days beyond the last table date in which a late plan may still be finished. */
export const GRACE_DAYS = 35;

/** How many days from the muster's beginning the plan may look ahead. */
export function horizonDays(muster: Muster, graceDays = GRACE_DAYS): number {
  const origin = originOf(muster);
  const last = Math.max(0, ...muster.units.map((u) => minutesSince(origin, u.table)));
  return Math.ceil(last / 1440) + graceDays;
}
