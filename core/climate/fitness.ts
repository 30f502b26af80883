/** Air in which a layer must not go on: too damp, too cold, too near the dew point. */
import { dewPointCelsius } from './psychrometrics';
import type { Air } from './rates';

/** What a layer asks of the air: spray cans and lacquers more than other paint; work and pens nothing. */
export type Need = 'lacquer' | 'paint' | 'none';

/** Blush above it, for spray cans and lacquers (common practice, no source). */
const DAMP_PERCENT = 85;
/** A surface must be this much warmer than the dew point: ISO 8502-4. */
const DEW_CELSIUS = 3;
/** Waterborne films do not knit and lacquers do not level below it; from memory of product sheets. */
const COLD_CELSIUS = 10;

/**
 * Why a layer must not go on in this air, in words; null when it may. The surface is taken to be as warm as the air.
 */
export function unfitness(need: Need, air: Air): string | null {
  if (need === 'none') return null;
  if (air.celsius < COLD_CELSIUS) return `too cold: ${air.celsius.toFixed(0)} °C, below ${COLD_CELSIUS} °C`;
  if (need === 'lacquer' && air.humidityPercent > DAMP_PERCENT)
    return `too damp for lacquer or spray can: ${air.humidityPercent.toFixed(0)} %, above ${DAMP_PERCENT} %`;
  const above = air.celsius - dewPointCelsius(air.celsius, air.humidityPercent);
  if (above < DEW_CELSIUS)
    return `only ${above.toFixed(1)} °C above the dew point, less than ${DEW_CELSIUS} °C (ISO 8502-4)`;
  return null;
}
