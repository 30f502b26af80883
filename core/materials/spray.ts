/** Nozzle and pressure for a product and a method: common practice, no source; the product's label comes first. */
import { familyOf, type FamilyId } from './families';
import type { MethodId } from './methods';
import { barToPsi, psiToBar } from './units';

export interface SprayGuide {
  readonly nozzleMm: number;
  readonly psi: number;
  readonly bar: number;
}

/** The layer's own nozzle and pressure where it has any; null for what is not sprayed by airbrush. */
export function sprayGuide(
  family: FamilyId,
  method: MethodId,
  {
    nozzleMm,
    pressureBar,
  }: { readonly nozzleMm?: number | undefined; readonly pressureBar?: number | undefined } = {},
): SprayGuide | null {
  if (method !== 'airbrush') return null;
  const psi = pressureBar === undefined ? familyOf(family).psi : Math.round(barToPsi(pressureBar));
  return {
    nozzleMm: nozzleMm ?? familyOf(family).nozzleMm,
    psi,
    bar: Math.round((pressureBar ?? psiToBar(psi)) * 10) / 10,
  };
}

/** `0.4 mm nozzle, 20 psi (1.4 bar)` */
export function sprayWords({ nozzleMm, psi, bar }: SprayGuide): string {
  return `${nozzleMm} mm nozzle, ${psi} psi (${bar} bar)`;
}
