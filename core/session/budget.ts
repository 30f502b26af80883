/** Hours that a unit may cost: spent, still planned, over, and what could be left off. */
import type { Muster, Unit } from '#core/muster';
import { handsOnMinutes, optionalLayers, type Plan } from '#core/plan';
import { endedSteps, standing, type LogEntry } from '#core/log';

export interface Budget {
  readonly budgetMinutes: number;
  /** hands-on, as logged */
  readonly spentMinutes: number;
  /** hands-on and getting ready, of what is not done yet */
  readonly plannedMinutes: number;
  /** 0 when within the budget */
  readonly overMinutes: number;
  /** effects that could be left off while it is over, what saves most first, with the hands-on minutes that each saves */
  readonly drops: readonly { readonly layer: string; readonly recipe: string; readonly minutes: number }[];
}

/** So many effects to leave off are named. */
const NAMED = 4;

/** @returns null where the unit has no budget */
export function budgetOf(muster: Muster, unit: Unit, plan: Plan, log: readonly LogEntry[]): Budget | null {
  if (unit.budgetHours === undefined) return null;
  const isOwn = (step: string): boolean => unit.pieces.some((p) => step.startsWith(`${p.id}.`));
  const ended = endedSteps(log);
  const spentMinutes = standing(log).reduce(
    (sum, e) => sum + (e.kind === 'done' && isOwn(e.step) ? e.minutes : 0),
    0,
  );
  const open = [...plan.steps.values()].filter((s) => s.unit.id === unit.id && !ended.has(s.id));
  const plannedMinutes = open.reduce((sum, s) => sum + handsOnMinutes(plan, s) + s.setup, 0);
  const budgetMinutes = unit.budgetHours * 60;
  const overMinutes = Math.max(0, spentMinutes + plannedMinutes - budgetMinutes);
  const drops =
    overMinutes === 0
      ? []
      : optionalLayers(muster, unit)
          .map(({ recipe, layer }) => ({
            layer: layer.name,
            recipe: recipe.name,
            minutes: open
              .filter((s) => s.layer.id === layer.id && s.recipe.id === recipe.id)
              .reduce((sum, s) => sum + handsOnMinutes(plan, s), 0),
          }))
          .filter((d) => d.minutes > 0)
          .sort((a, b) => b.minutes - a.minutes)
          .slice(0, NAMED);
  return { budgetMinutes, spentMinutes, plannedMinutes, overMinutes, drops };
}
