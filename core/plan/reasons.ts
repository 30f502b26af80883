/** The kernel's reasons in painter's words: why a step is then and not sooner, what it holds up, why there is no plan. */
import { explainer, type Conflict, type Reason, type Solution } from '#core/kernel';
import { originOf, type Muster } from '#core/muster';
import { linksOf } from '#core/recipe';
import { operationId, readyId, type Compiled } from './compile';
import type { Plan, PlanStep } from './present';
import { clockTime, dayName, duration, isSameDay, listed, moment } from './words';

export interface Why {
  /** in the order in which they push the start back */
  readonly reasons: readonly { readonly text: string; readonly step: string | null }[];
  /** what waits for this step */
  readonly holdsUp: readonly string[];
}

/** Why a late unit is late: the chain of what binds, from its table date back to the start, each in words. */
export function lateBecause(
  compiled: Compiled,
  solution: Solution,
  plan: Plan,
  unit: string,
): readonly { readonly text: string; readonly step: string | null }[] {
  const ready = compiled.problem.units?.find((u) => u.id === unit)?.ready;
  if (ready === undefined) return [];
  return explainer(compiled.problem, solution)
    .chain(ready)
    .flatMap(({ operation, reason }) => {
      const step = plan.steps.get(operation);
      if (!step) return [];
      return [
        {
          text: `${label(plan, operation)}, ${moment(plan.origin, step.start)}: ${inWords(reason, step, plan)}`,
          step: operation,
        },
      ];
    });
}

/** Answers "why then, and not sooner?" for the steps of one plan. */
export function whyOf(compiled: Compiled, solution: Solution, plan: Plan): (id: string) => Why {
  const kernel = explainer(compiled.problem, solution);
  return (id) => {
    const step = plan.steps.get(id)!;
    return {
      reasons: kernel
        .explain(id)
        .map((r) => ({ text: inWords(r, step, plan), step: r.operations[0] ?? null })),
      holdsUp: holdsUp(step, plan),
    };
  };
}

function label(plan: Plan, id: string): string {
  const step = plan.steps.get(id);
  return step ? `“${step.layer.name}” on ${step.piece.name}` : 'a part of the unit';
}

function layerLabel(step: PlanStep, plan: Plan, id: string): string {
  const other = plan.steps.get(id);
  return other?.piece.id === step.piece.id ? `“${other.layer.name}”` : label(plan, id);
}

function when(plan: Plan, step: PlanStep, minute: number): string {
  return isSameDay(plan.origin, minute, step.start)
    ? clockTime(plan.origin, minute)
    : moment(plan.origin, minute);
}

function inWords(reason: Reason, step: PlanStep, plan: Plan): string {
  const until = when(plan, step, reason.until);
  const names = reason.operations.map((id) => layerLabel(step, plan, id));
  switch (reason.kind) {
    case 'earliest':
      return `Nothing begins before ${until}: that is where the plan, or the unit, starts.`;
    case 'drying': {
      const before = plan.steps.get(reason.operations[0]!);
      if (!before) return `All its parts are done and dry at ${until}.`;
      const wait = reason.until - before.end;
      return wait <= 0
        ? `It comes after ${names[0]}, done at ${until}.`
        : `${names[0]} may be gone over from ${until}: ${duration(wait)} in this bench’s air.`;
    }
    case 'closed':
      return `The bench is shut, too little of the session is left, or the air is unfit, until ${until}.`;
    case 'busy':
      return names.length > 0
        ? `${reason.resource === 'airbrush' ? 'The airbrush and hands are' : 'Hands are'} busy until ${until} with ${listed(names)}.`
        : `Hands are busy until ${until}.`;
    case 'window':
      return `Its window would close before ${listed(names)} could start; both stand together from ${until}.`;
    case 'full':
      return `The rack is full until ${until}.`;
    case 'pinned':
      return `It is pinned to ${until}, or already done.`;
    case 'free':
      return 'Nothing keeps it from starting sooner; here it costs no table date and may save a colour change.';
  }
}

function holdsUp(step: PlanStep, plan: Plan): string[] {
  const lines: string[] = [];
  for (const link of linksOf(step.recipe)) {
    if (link.from !== step.layerIndex) continue;
    const next = plan.steps.get(operationId(step.piece, step.recipe.layers[link.to]!));
    if (next) lines.push(`“${next.layer.name}”, ${when(plan, step, next.start)}`);
  }
  const unit = plan.units.find((u) => u.id === step.unit.id);
  if (lines.length === 0 && unit) lines.push(`${unit.name} being ready, ${moment(plan.origin, unit.ready)}`);
  if (step.gate?.closes != null)
    lines.push(`Past ${when(plan, step, step.gate.closes)} the window has shut and the layer is lost.`);
  else if (step.gate?.prefer != null)
    lines.push(`Past ${when(plan, step, step.gate.prefer)} each minute costs rubbing and result.`);
  return lines;
}

/** Why there is no plan: the kernel's words with layers and dates for its ids and minutes. */
export function conflictInWords(conflict: Conflict, compiled: Compiled, muster: Muster): string {
  const names = new Map<string, string>();
  for (const [id, s] of compiled.steps) names.set(id, `${s.layer.name} on ${s.piece.name} (${s.unit.name})`);
  for (const unit of muster.units) {
    names.set(readyId(unit), `${unit.name} ready`);
    for (const piece of unit.pieces) names.set(`${piece.id}.done`, `${piece.name} done`);
  }
  const origin = originOf(muster);
  const ids = [...names.keys()]
    .filter((id) => conflict.message.includes(id))
    .sort((a, b) => b.length - a.length);
  const worded = ids.reduce((text, id) => text.split(id).join(names.get(id)!), conflict.message);
  return worded.replace(
    /minute (\d+)/g,
    (_, m: string) => `${dayName(origin, Number(m))} ${clockTime(origin, Number(m))}`,
  );
}
