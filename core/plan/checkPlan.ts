/** Craft rules that depend on the hours a plan really leaves (common practice, no source). */
import { ticksAt } from '#core/climate';
import { familyOf } from '#core/materials';
import type { Layer, Muster } from '#core/muster';
import {
  isFor,
  isPaint,
  isSolvent,
  layerFix,
  linksOf,
  maskingOf,
  onRecipe,
  type Finding,
  type Fix,
  type RuleId,
} from '#core/recipe';
import { type Compiled } from './compile';
import { operationId } from './stepRef';
import type { Plan, PlanStep } from './present';
import { duration } from './words';

/** A finding over a step of the plan. */
export interface PlanFinding extends Pick<Finding, 'rule' | 'text' | 'cure'> {
  readonly severity: Exclude<Finding['severity'], 'error'>;
  readonly step: string;
  /** what to set on which layer: data, since plans are made by a worker */
  readonly sets?: {
    readonly recipe: string;
    readonly layer: string;
    readonly label: string;
    readonly to: Partial<Layer>;
  };
}

/** The cure of a finding over the plan, to be taken by one press; null where there is none, or its layer is gone. */
export function planFix(muster: Muster, { sets }: PlanFinding): Fix | null {
  const layer =
    sets && muster.recipes.find((r) => r.id === sets.recipe)?.layers.find((l) => l.id === sets.layer);
  return sets && layer ? onRecipe(sets.recipe, layerFix(sets.label, layer, sets.to)) : null;
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
  if (isFor('seal')(step.layer) && isSolvent(next.layer) && dried < SEAL_BETTER)
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
        sets: sets(step, dried < SEAL_MINUTES ? SEAL_MINUTES : SEAL_BETTER),
      },
    ];
  const stage = stageUnder(step, next);
  if (stage !== null && dried < stage.minutes)
    return [
      {
        rule: stage.rule,
        severity: 'warning',
        step: next.id,
        text: `“${step.layer.name}” has dried for ${duration(Math.round(dried))} when ${stage.what}; it bears that after ${duration(stage.minutes)}.`,
        cure: `Let it dry ${duration(stage.minutes)}: raise the drying of that layer.`,
        sets: sets(step, stage.minutes),
      },
    ];
  if (maskingOf(step.layer)?.isCut && next.layer.task !== 'unmask' && next.start - step.end > MASK_MINUTES)
    return [
      {
        rule: 'mask-left-on',
        severity: 'warning',
        step: step.id,
        text: `The mask lies ${duration(next.start - step.end)} before “${next.layer.name}” goes on.`,
        cure: 'Mask in the session in which you spray: set a window after it.',
        sets: {
          recipe: step.recipe.id,
          layer: step.layer.id,
          label: 'Spray within 3 h of masking',
          to: { window: { opensMinutes: null, closesMinutes: 180, preferMinutes: null, through: null } },
        },
      },
    ];
  return [];
}

function sets(step: PlanStep, dryMinutes: number): NonNullable<PlanFinding['sets']> {
  return {
    recipe: step.recipe.id,
    layer: step.layer.id,
    label: `Let it dry ${duration(dryMinutes)}`,
    to: { dryMinutes },
  };
}

/** What the layer beneath must have dried for before this one; null where its own drying is enough. */
function stageUnder(
  step: PlanStep,
  next: PlanStep,
): { readonly rule: RuleId; readonly what: string; readonly minutes: number } | null {
  const { tape, solvent } = familyOf(step.layer.family).stages;
  if (maskingOf(next.layer)?.sticks && tape !== null && isPaint(step.layer))
    return { rule: 'tape-on-young', what: 'the tape goes on', minutes: tape };
  const isSolventOn = isSolvent(next.layer) && next.layer.task !== 'wipe' && !isSolvent(step.layer);
  if (isSolventOn && solvent !== null && !isFor('seal')(step.layer) && isPaint(step.layer))
    return { rule: 'solvent-on-young', what: 'the solvent goes on', minutes: solvent };
  return null;
}
