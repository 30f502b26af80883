import type { Recipe } from '#core/muster';

/** Asked for at every step of a plan; zones never change in place. */
const KNOWN = new WeakMap<Recipe['zones'], ReadonlyMap<string, number>>();

/** By zone its share of the surface, all of them together 1: as said in percent; those of which nothing is said share the rest alike. */
export function zoneShares(zones: Recipe['zones']): ReadonlyMap<string, number> {
  const known = KNOWN.get(zones);
  if (known) return known;
  const said = zones.reduce((sum, z) => sum + (z.percent ?? 0), 0);
  const silent = zones.filter((z) => z.percent === undefined).length;
  const rest = silent === 0 ? 0 : Math.max(0, 100 - said) / silent;
  const whole = Math.max(said + rest * silent, 1e-9);
  const shares = new Map(zones.map((z) => [z.id, (z.percent ?? rest) / whole]));
  KNOWN.set(zones, shares);
  return shares;
}
