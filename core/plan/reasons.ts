/** The kernel's reasons in painter's words: why a step is then and not sooner, what it holds up. */
import { unfitness } from '#core/climate';
import { causeOf, explainer, isCause, type Cause, type Reason, type Solution } from '#core/kernel';
import { airAt } from '#core/muster';
import { linksOf } from '#core/recipe';
import type { Compiled } from './compile';
import { needOf } from './compilePiece';
import { operationId } from './stepRef';
import type { Plan, PlanStep } from './present';
import { SKILLED } from './hands';
import { AIRBRUSH } from './tools';
import { alwaysOpen, isLane, OUTDOORS, wordsOf } from './naming';
import { SHUNNED } from './pins';
import { clockTime, dayName, duration, isSameDay, listed, moment } from './words';

/** A reason in words, and where it leads: to the step that is meant, or to the air of the bench. */
export interface ReasonWords {
  readonly text: string;
  readonly step: string | null;
  readonly leadsToAir?: boolean;
}

export interface Why {
  /** in the order in which they push the start back */
  readonly reasons: readonly ReasonWords[];
  /** what waits for this step */
  readonly holdsUp: readonly string[];
}

/**
 * Why a late unit is late: the chain of what binds, from its table date back to the start, each in words.
 * @param binding causes of which it is known that taking them away would help: only these are told, where any is known
 */
export function lateBecause(
  compiled: Compiled,
  solution: Solution,
  plan: Plan,
  unit: string,
  binding: readonly Cause[] = [],
): readonly ReasonWords[] {
  const ready = compiled.problem.units?.find((u) => u.id === unit)?.ready;
  if (ready === undefined) return [];
  const helps = (reason: Reason): boolean => {
    const cause = causeOf(compiled.problem, reason);
    return cause !== null && binding.some((b) => isCause(b, cause));
  };
  const links = explainer(compiled.problem, solution)
    .chain(ready, binding.length > 0 ? helps : undefined)
    .filter(({ reason }) => binding.length === 0 || helps(reason))
    .flatMap(({ operation, reason }) => {
      const step = plan.steps.get(operation);
      if (!step) return [];
      const words = inWords(reason, step, plan, compiled);
      return [
        {
          ...words,
          text: `${label(plan, operation)}, ${moment(plan.origin, step.start)}: ${words.text}`,
          step: operation,
        },
      ];
    });
  return [...restWords(plan, unit), ...links];
}

/** When a unit is done and dry before it is ready: it rests until it may be packed or handled. */
function restWords(plan: Plan, unit: string): ReasonWords[] {
  const own = [...plan.steps.values()].filter((s) => s.unit.id === unit);
  const dry = Math.max(0, ...own.map((s) => Math.max(s.end, s.tide.dryAt)));
  const ready = plan.units.find((u) => u.id === unit)?.ready ?? 0;
  const isShipped = own.some((s) => s.piece.use === 'shipped' && !s.piece.isPackedSoft);
  if (ready <= Math.ceil(dry)) return [];
  return [
    {
      text: `All of it is dry ${moment(plan.origin, dry)}; it ${isShipped ? 'hardens through before it is packed' : 'hardens before it may be handled'}, until ${moment(plan.origin, ready)}.`,
      step: null,
    },
  ];
}

/** What it would be to be without a cause, for a sentence: “… it would be ready 3 h sooner”. */
export function causeWords(cause: Cause): string {
  switch (cause.kind) {
    case 'capacity':
      return wordsOf(cause.resource).plenty;
    case 'hours':
      return alwaysOpen(cause.calendar);
    case 'wait':
      return cause.clock === null
        ? 'without the plain waits'
        : (DRYING_WORDS[cause.clock] ?? 'without drying');
    case 'earliest':
      return 'with everything ready for its first layer at once';
    case 'window':
      return 'without windows that close';
  }
}

const DRYING_WORDS: Readonly<Record<string, string>> = {
  water: 'if waterborne layers dried at once (cool moving air and dry air help)',
  solvent: 'if enamels and lacquers dried at once (warmth helps, acrylics instead do)',
  oxidation: 'if oils dried at once (a fast-drying medium helps, acrylics instead do)',
};

/** Answers "why then, and not sooner?" for the steps of one plan. */
export function whyOf(compiled: Compiled, solution: Solution, plan: Plan): (id: string) => Why {
  const kernel = explainer(compiled.problem, solution);
  return (id) => {
    const step = plan.steps.get(id)!;
    return {
      reasons: [
        ...pinnedWords(compiled, plan, id),
        ...kernel.explain(id).map((r) => inWords(r, step, plan, compiled)),
      ],
      holdsUp: holdsUp(step, plan),
    };
  };
}

function pinnedWords(compiled: Compiled, plan: Plan, id: string): ReasonWords[] {
  const within = compiled.pins.get(id)?.within;
  return within
    ? [{ text: `It is pinned to the session of ${dayName(plan.origin, within.start)}.`, step: null }]
    : [];
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

function inWords(reason: Reason, step: PlanStep, plan: Plan, compiled: Compiled): ReasonWords {
  const until = when(plan, step, reason.until);
  const names = reason.operations.map((id) => layerLabel(step, plan, id));
  const other = reason.operations[0] ?? null;
  const said = (text: string): ReasonWords => ({ text, step: other });
  switch (reason.kind) {
    case 'earliest':
      return said(`Nothing begins before ${until}: that is where the plan, or the unit, starts.`);
    case 'drying': {
      const before = other === null ? undefined : plan.steps.get(other);
      if (!before) return said(`All its parts are done and dry at ${until}.`);
      const wait = reason.until - before.end;
      return said(
        wait <= 0
          ? `It comes after ${names[0]}, done at ${until}.`
          : `${names[0]} may be gone over from ${until}: ${duration(wait)} in this bench’s air.`,
      );
    }
    case 'closed':
    case 'short':
      return shutWords(reason, step, until, compiled, plan);
    case 'busy':
      return said(busyWords(reason, names, until, compiled));
    case 'window':
      return said(
        `Its window would close before ${listed(names)} could start; both stand together from ${until}.`,
      );
    case 'full':
      return said(`${wordsOf(reason.resource ?? 'rack').taken} until ${until}.`);
    case 'pinned':
      return said('It is already done, and stays as it is.');
    case 'run':
      return said(
        `It waits so that ${listed(names)} and it are done in one go; sooner it would mean taking up the same work once more.`,
      );
    case 'free':
      return said(
        'Nothing keeps it from starting sooner; here it costs no table date, and saves a change or leaves the last minutes of an evening free.',
      );
  }
}

function busyWords(reason: Reason, names: readonly string[], until: string, compiled: Compiled): string {
  const away = reason.operations.flatMap((id) => compiled.absences.get(id) ?? []);
  const others = names.filter((_, k) => !compiled.absences.has(reason.operations[k]!));
  const taken = wordsOf(reason.resource ?? 'hands').taken;
  const parts = [
    ...(others.length > 0 || away.length === 0
      ? [`${taken} until ${until}${others.length > 0 ? ` with ${listed(others)}` : ''}`]
      : []),
    ...(away.length > 0
      ? [`${listed(away)} ${new Set(away).size === 1 ? 'is' : 'are'} away until ${until}`]
      : []),
  ];
  return `${parts.join('; ')}.`;
}

/** The bench is shut, or too little of the session is left, or the air is unfit: whichever it is. */
function shutWords(
  reason: Reason,
  step: PlanStep,
  until: string,
  compiled: Compiled,
  plan: Plan,
): ReasonWords {
  const need = needOf(step.layer);
  if (reason.resource?.startsWith(SHUNNED))
    return { text: `You have said: not in that session; so not before ${until}.`, step: null };
  if (reason.resource === `fit-${need}`) {
    const why = unfitness(need, airAt(compiled.spells, reason.from)) ?? 'not fit for long enough';
    return { text: `The air is unfit until ${until}: ${why}.`, step: null, leadsToAir: true };
  }
  if (reason.resource === OUTDOORS)
    return { text: `It is for outdoors: no daylight until ${until}.`, step: null, leadsToAir: true };
  const isLit = plan.sessions.some((s) => s.start <= reason.from && reason.from < s.end);
  if (reason.kind === 'closed' && isLit && isLane(reason.resource))
    return { text: `${step.doer?.who ?? 'Who does it'} is not there until ${until}.`, step: null };
  if (reason.resource === SKILLED)
    return { text: `Nobody who may do it is there until ${until}.`, step: null };
  if (reason.resource?.startsWith(AIRBRUSH))
    return { text: `Quiet hours: no compressor until ${until}.`, step: null };
  if (reason.kind === 'short')
    return {
      text: `Too little of the session is left for its ${duration(step.layer.pausable ? 1 : step.end - step.start)}; the next opens at ${until}.`,
      step: null,
    };
  return { text: `The bench is shut until ${until}.`, step: null };
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
