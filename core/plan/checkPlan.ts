/** Craft rules that depend on the hours a plan really leaves: handbook section 6 (common practice, no source). */
import { ticksAt } from '#core/climate';
import { linksOf } from '#core/recipe';
import { type Compiled } from './compile';
import { operationId } from './stepRef';
import type { Plan, PlanStep } from './present';
import { duration } from './words';

export interface PlanFinding {
  readonly rule: string;
  readonly severity: 'warning' | 'advice';
  readonly step: string;
  readonly text: string;
  readonly cure: string;
}

/** Drying minutes a gloss or satin coat needs under a solvent wash, and better. */
const SEAL_MINUTES = 240;
const SEAL_BETTER = 720;
/** A mask should be off before paint has hardened. */
const MASK_MINUTES = 1440;

/** What the times of the plan make of the layers, step by step. */
export function checkPlan(plan: Plan, compiled: Compiled): PlanFinding[] {
  const findings: PlanFinding[] = [];
  for (const step of plan.steps.values()) {
    if (step.round !== step.rounds) continue;
    for (const link of linksOf(step.recipe)) {
      if (link.from !== step.layerIndex) continue;
      const next = plan.steps.get(operationId(step.piece, step.recipe.layers[link.to]!));
      if (next) findings.push(...between(step, next, compiled));
    }
  }
  return findings;
}

function between(step: PlanStep, next: PlanStep, compiled: Compiled): PlanFinding[] {
  const points = step.clock === null ? undefined : compiled.clocks.get(step.clock);
  const dried = points ? ticksAt(points, next.start) - ticksAt(points, step.end) : next.start - step.end;
  const isWash = next.layer.family === 'enamel' || next.layer.family === 'oil';
  if (step.layer.family === 'varnish' && isWash && dried < SEAL_BETTER)
    return [
      {
        rule: dried < SEAL_MINUTES ? 'seal-too-young' : 'seal-not-overnight',
        severity: dried < SEAL_MINUTES ? 'warning' : 'advice',
        step: next.id,
        text: `“${step.layer.name}” has dried for ${duration(Math.round(dried))} when the solvent goes on.`,
        cure:
          dried < SEAL_MINUTES
            ? 'Let it dry 4 h: raise the drying of that layer.'
            : 'That is enough; overnight is safer.',
      },
    ];
  if (step.layer.task === 'mask' && next.layer.task !== 'unmask' && next.start - step.end > MASK_MINUTES)
    return [
      {
        rule: 'mask-left-on',
        severity: 'warning',
        step: step.id,
        text: `The mask lies ${duration(next.start - step.end)} before “${next.layer.name}” goes on.`,
        cure: 'Mask in the session in which you spray: set a window after it.',
      },
    ];
  return [];
}
