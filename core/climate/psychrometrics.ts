/**
 * Air and water. Magnus form over water with the coefficients 6.112 hPa, 17.62, 243.12 °C: WMO Guide to Instruments and
 * Methods of Observation (WMO-No. 8), annex 4.B, after Sonntag (1990); −45 to 60 °C.
 */
const HPA_AT_ZERO = 6.112;
const SLOPE = 17.62;
const SHIFT_CELSIUS = 243.12;

/** Saturation vapour pressure over water in hPa. */
export function saturationHpa(celsius: number): number {
  return HPA_AT_ZERO * Math.exp((SLOPE * celsius) / (SHIFT_CELSIUS + celsius));
}

/** Vapour pressure deficit in hPa: what the air can still take up. */
export function vapourPressureDeficitHpa(celsius: number, humidityPercent: number): number {
  return saturationHpa(celsius) * (1 - humidityPercent / 100);
}

/** Dew point in °C, the same Magnus form turned round. `humidityPercent` above 0. */
export function dewPointCelsius(celsius: number, humidityPercent: number): number {
  const x = Math.log(humidityPercent / 100) + (SLOPE * celsius) / (SHIFT_CELSIUS + celsius);
  return (SHIFT_CELSIUS * x) / (SLOPE - x);
}
