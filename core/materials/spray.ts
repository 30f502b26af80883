/** Nozzle and pressure for a product and a method: common practice, no source; the product's label comes first. */
import type { FamilyId } from './families';
import type { MethodId } from './methods';
import { barToPsi, psiToBar } from './units';

export interface SprayGuide {
  readonly nozzleMm: number;
  readonly psi: number;
  readonly bar: number;
}

const NOZZLE: Partial<Record<FamilyId, number>> = {
  medium: 0.7,
  primer: 0.5,
  varnish: 0.5,
  metal: 0.4,
  ink: 0.3,
};
const PSI: Partial<Record<FamilyId, number>> = { primer: 25, varnish: 20, ink: 15, lacquer: 18 };

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
  const psi = pressureBar === undefined ? (PSI[family] ?? 20) : Math.round(barToPsi(pressureBar));
  return {
    nozzleMm: nozzleMm ?? NOZZLE[family] ?? 0.4,
    psi,
    bar: Math.round((pressureBar ?? psiToBar(psi)) * 10) / 10,
  };
}

/** `0.4 mm nozzle, 20 psi (1.4 bar)` */
export function sprayWords({ nozzleMm, psi, bar }: SprayGuide): string {
  return `${nozzleMm} mm nozzle, ${psi} psi (${bar} bar)`;
}
