/** Ways out when a table date is in danger: single changes of the muster, each to be planned and weighed. */
import type { Muster } from '#core/muster';
import { withoutEffect } from './ways/effects';
import { first } from './ways/first';
import { extraSession, helper, longerSessions } from './ways/hours';
import { lowerLevel, packedSoft, secondWave } from './ways/less';
import { acrylicWashes, dryShelf, movingAir, topcoatWithinTheHour } from './ways/quicker';
import { spareBottle } from './ways/spares';
import type { Offer, WayOut } from './ways/way';

export { optionalLayers } from './ways/effects';
export type { WayOut } from './ways/way';

/** In the order in which they are shown. */
const OFFERS: readonly Offer[] = [
  longerSessions,
  extraSession,
  helper,
  lowerLevel,
  withoutEffect,
  packedSoft,
  secondWave,
  acrylicWashes,
  movingAir,
  dryShelf,
  topcoatWithinTheHour,
  spareBottle,
  first,
];

/**
 * @param late ids of the units that are late or in danger, the worst first
 * @param from minute from which on help is needed
 * @param spares products that may run out before anybody sees it coming, the likeliest first
 */
export function waysOut(
  muster: Muster,
  late: readonly string[],
  from: number,
  spares: readonly string[] = [],
): WayOut[] {
  const worst = muster.units.find((u) => u.id === late[0]);
  return worst ? OFFERS.flatMap((offer) => offer({ muster, worst, from, spares })) : [];
}

/** Ways out two at a time, of different kinds: what one alone does not bring, both may. */
export function inPairs(ways: readonly WayOut[]): WayOut[] {
  const kind = (w: WayOut): string => w.id.split('-')[0]!;
  return ways.flatMap((a, k) =>
    ways
      .slice(k + 1)
      .filter((b) => kind(a) !== kind(b))
      .map((b) => ({
        id: `${a.id}+${b.id}`,
        label: `${a.label} + ${b.label}`,
        costs: `${a.costs}, and ${b.costs}`,
        apply: (m: Muster) => b.apply(a.apply(m)),
      })),
  );
}
