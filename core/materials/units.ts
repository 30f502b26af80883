/**
 * Units of volume and pressure. Exact by definition: 1 US fl oz = 29.5735295625 ml (NIST SP 811, appendix B), 1 psi =
 * 6.894757293168 kPa (the same), 1 bar = 100 kPa. A drop of about 0.05 ml is common practice, no source.
 */
export const ML_PER: Readonly<Record<VolumeUnit, number>> = {
  ml: 1,
  l: 1000,
  'fl oz': 29.573_529_562_5,
  drop: 0.05,
};
export const VOLUME_UNITS = ['ml', 'l', 'fl oz', 'drop'] as const;
export type VolumeUnit = (typeof VOLUME_UNITS)[number];

const KPA_PER_PSI = 6.894_757_293_168;
const KPA_PER_BAR = 100;

/** Thrown for amounts that make no sense; the message says what and what to do. */
export class AmountError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'AmountError';
  }
}

/**
 * Millilitres of so many of a unit.
 * @throws AmountError for an unknown unit, a negative or absurd volume (above 100 l)
 */
export function toMillilitres(value: number, unit: string): number {
  const known = VOLUME_UNITS.find((u) => u === unit.trim().toLowerCase());
  if (!known) throw new AmountError(`“${unit}” is no unit of volume here; use ${VOLUME_UNITS.join(', ')}.`);
  const ml = value * ML_PER[known];
  if (!Number.isFinite(ml) || ml < 0)
    throw new AmountError(`${value} ${unit}: a volume is a number of 0 or more.`);
  if (ml > 100_000) throw new AmountError(`${value} ${unit} is more than 100 l; is the unit right?`);
  return ml;
}

export function psiToKpa(psi: number): number {
  return psi * KPA_PER_PSI;
}

export function psiToBar(psi: number): number {
  return psiToKpa(psi) / KPA_PER_BAR;
}

export function barToPsi(bar: number): number {
  return (bar * KPA_PER_BAR) / KPA_PER_PSI;
}

/** Whole drops that are at least so many millilitres. */
export function dropsOf(millilitres: number): number {
  return Math.ceil(millilitres / ML_PER.drop - 1e-9);
}
