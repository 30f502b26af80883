/** When a picture is worth taking: what it shows will never be seen again, or is what the others go by. */
import type { PlanStep } from '#core/plan';

/** @param run what is in hand @returns why a picture is due now, in words; null where it is not */
export function pictureDue(run: readonly PlanStep[]): string | null {
  const names = (of: (s: PlanStep) => boolean): string | null => {
    const found = run.filter(of).map((s) => s.piece.name);
    if (found.length === 0) return null;
    return found.length > 2 ? `${found.length} pieces` : found.join(' and ');
  };
  const asked = names((s) => s.layer.isPictured === true && s.round === s.rounds);
  if (asked) return `${asked}: the recipe wants one of “${run[0]!.layer.name}”.`;
  const pilot = names((s) => s.piece.isPilot === true);
  if (pilot) return `${pilot}: what the others go by.`;
  const last = names((s) => s.layerIndex === s.recipe.layers.length - 1 && s.round === s.rounds);
  if (last) return `${last}: finished with this coat.`;
  const level = names((s) => s.layer.level !== undefined && s.round === s.rounds);
  return level ? `${level}: a finish level is reached.` : null;
}
