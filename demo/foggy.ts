/** Some units of the demo with the simulated forecast over its first three days: fog on Wednesday evening. For drives and tests. */
import { simulatedAir } from '#core/climate';
import { daysBetween, instantAfter, mended, originOf, type LocalDate, type Muster } from '#core/muster';
import { fenMuster } from './fen';

const SEED = 7;
const HOURS = 72;
const FIRST_MINUTE = 18 * 60;

/** @param monday first day of the plan @param units ids of the units to keep */
export function foggyMuster(monday: LocalDate, units: readonly string[]): Muster {
  const fen = fenMuster(monday);
  const epoch = daysBetween('1970-01-01', monday) * 1440;
  const readings = Array.from({ length: HOURS }, (_, h) => ({
    at: instantAfter(originOf(fen), FIRST_MINUTE + h * 60),
    ...simulatedAir(SEED, epoch + FIRST_MINUTE + h * 60),
  }));
  return mended(fen, {
    ...fen,
    units: fen.units.filter((u) => units.includes(u.id)),
    bench: { ...fen.bench, readings },
  }).muster;
}
