import { minutesSince, MOST_DAYS, originOf, sessionsOf, type Muster } from '#core/muster';
import { plannedMinutes } from '#core/recipe';

/** Days beyond the last table date in which a late plan may still be finished. */
export const GRACE_DAYS = 35;
/** What a plan leaves idle at the worst, beside what it takes: a first plan of a crowded bench is found with so much room, seldom with less. */
const ROOM = 2.5;
const DAYS_OF_WEEK = 7;

/** How many days from the muster's beginning the plan may look ahead: more than usual where there is more work than the usual days hold. */
export function horizonDays(muster: Muster, graceDays = GRACE_DAYS): number {
  const origin = originOf(muster);
  const last = Math.max(0, ...muster.units.map((u) => minutesSince(origin, u.table)));
  const days = Math.ceil(last / 1440) + graceDays;
  return Math.max(days, Math.min(MOST_DAYS, daysFor(muster, days)));
}

/** Minutes of hands that all pieces take by their recipes, and days for which their places on the rack are taken, about. */
export function loadOf(muster: Muster): { readonly minutes: number; readonly rackDays: number } {
  const recipes = new Map(muster.recipes.map((r) => [r.id, r]));
  let [minutes, rackDays] = [0, 0];
  for (const piece of muster.units.flatMap((u) => u.pieces)) {
    const layers = recipes.get(piece.recipe ?? '')?.layers ?? [];
    for (const l of layers) {
      minutes += plannedMinutes(l, piece.count);
      // A layer waits for the evening after as often as not.
      rackDays += piece.places * (0.5 + l.dryMinutes / 1440);
    }
  }
  return { minutes, rackDays };
}

/** Minutes of hands that the bench has in so many days, if nobody stays away. */
export function handMinutes(muster: Muster, days: number): number {
  const people = Math.max(1, muster.bench.people.length);
  return people * sessionsOf(muster, days).reduce((sum, s) => sum + s.end - s.start, 0);
}

/** Days in which all of it finds its place with room to spare; `usual` where these do. */
function daysFor(muster: Muster, usual: number): number {
  const { minutes, rackDays } = loadOf(muster);
  const rack = muster.bench.rackPlaces > 0 ? (ROOM * rackDays) / muster.bench.rackPlaces : 0;
  let days = Math.max(usual, Math.ceil(rack));
  while (days < MOST_DAYS && handMinutes(muster, days) < ROOM * minutes) days += DAYS_OF_WEEK * 5;
  return days;
}
