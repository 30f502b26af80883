/** How fast drying goes in this air, as a multiple of the rate at 21 °C and 50 % relative humidity. */
import type { Drying } from '#core/materials';
import { vapourPressureDeficitHpa } from './psychrometrics';

export interface Air {
  readonly celsius: number;
  readonly humidityPercent: number;
}

export const REFERENCE: Air = { celsius: 21, humidityPercent: 50 };

/** Enthalpy of vaporisation of a white-spirit cut, J/mol: from memory of handbook values for C9–C11 alkanes, ±10 %. */
const SPIRIT_J_PER_MOL = 45_000;
const GAS_J_PER_MOL_K = 8.314_462_618;
const KELVIN = 273.15;
/** Drying never quite stands still; a clock has to rise. */
const LEAST = 0.02;

/**
 * Rate of drying, 1 at the reference air.
 * - water: vapour pressure deficit (evaporation)
 * - solvent: vapour pressure of the thinner (Clausius–Clapeyron)
 * - oxidation: doubling every 10 °C (common practice, no source)
 */
export function dryingRate(drying: Drying, air: Air): number {
  switch (drying) {
    case 'water': {
      const here = vapourPressureDeficitHpa(air.celsius, air.humidityPercent);
      return Math.max(LEAST, here / vapourPressureDeficitHpa(REFERENCE.celsius, REFERENCE.humidityPercent));
    }
    case 'solvent': {
      const inverse = 1 / (air.celsius + KELVIN) - 1 / (REFERENCE.celsius + KELVIN);
      return Math.max(LEAST, Math.exp((-SPIRIT_J_PER_MOL / GAS_J_PER_MOL_K) * inverse));
    }
    case 'oxidation':
      return Math.max(LEAST, 2 ** ((air.celsius - REFERENCE.celsius) / 10));
    case 'none':
      return 1;
  }
}
