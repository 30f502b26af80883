/** What a run is, whenever it is done: a load taken up once, with the mix for everything that it goes on. */
import { amountOf, cupsFor, type CupPlan } from '#core/amounts';
import { AmountError, cautionsFor, methodOf, sprayGuide, type SprayGuide } from '#core/materials';
import { mixOf, type Layer } from '#core/muster';
import { isSeal, lastChances, plainName, takenBackOf } from '#core/recipe';
import { strengthWords } from './strengths';
import type { PlanStep } from './present';
import type { Handover } from './who';
import { listed } from './words';

export interface RunFacts {
  readonly verb: string;
  /** what it is called: the names of its layers */
  readonly name: string;
  /** do its layers go by more than one name? */
  readonly hasNames: boolean;
  /** the first of its layers: all are put on alike */
  readonly layer: Layer;
  /** names of the units that it is for */
  readonly units: readonly string[];
  /** which pieces have it stronger or weaker than the recipe, in words; empty: none */
  readonly strengths: string;
  /** names of the zones that it goes on; empty: all over */
  readonly zones: readonly string[];
  /** fewest and most coats */
  readonly coats: readonly [number, number];
  /** what the layers say besides, each once */
  readonly notes: readonly string[];
  /** what to mix for all of it; null where nothing is mixed */
  readonly mix: RunMix | null;
  readonly spray: SprayGuide | null;
  readonly cautions: readonly string[];
  /** what it is put on with, each once; empty: not said */
  readonly applicators: readonly string[];
  /** when and by what to judge it, in words */
  readonly judge: readonly string[];
  /** how it can be taken back and how long, and what no longer can be once it is on, in words */
  readonly takenBack: readonly string[];
  /** what to look over before a point of no return (first chip, glue, last coat), by unit */
  readonly lookOver: readonly { readonly unit: string; readonly details: readonly string[] }[];
  /** who does it, where several work, and who takes it over when */
  readonly who: string | null;
  readonly handovers: readonly Handover[];
  /** by name, where the bench has several airbrushes */
  readonly tool: string | null;
}

/** So much of the mixture for all pieces of the run, by the cup. */
export interface RunMix extends CupPlan {
  /** false: one pot, no cups */
  readonly isByCup: boolean;
  readonly from: string;
}

/** “Spray Grey primer”: what is to be done, in one line. Work by hand, and what begins with its verb already, has its name alone. */
export function deedWords({ task, method }: Pick<Layer, 'task' | 'method'>, name: string): string {
  const { verb } = methodOf(method);
  if (task === 'decal') return `Put on ${name}`;
  return method === 'hand' || name.toLowerCase().startsWith(verb.toLowerCase()) ? name : `${verb} ${name}`;
}

/** @param run steps that go on alike, at least one */
export function factsOfRun(run: readonly PlanStep[], cupMl = CUP_ML): RunFacts {
  const { layer } = run[0]!;
  const names = unique(run.map((s) => plainName(s.piece, s.layer)));
  const coats = run.map((s) => s.layer.coats);
  return {
    verb: methodOf(layer.method).verb,
    name: listed(names),
    hasNames: names.length > 1,
    layer,
    strengths: strengthWords(run.map((s) => ({ piece: s.piece, layer: s.layer.id }))),
    units: unique(run.map((s) => s.unit.name)),
    zones: unique(
      run.flatMap((s) => s.layer.zones.map((z) => s.recipe.zones.find((x) => x.id === z)?.name ?? z)),
    ),
    coats: [Math.min(...coats), Math.max(...coats)],
    notes: unique([
      ...(layer.wetWith === undefined
        ? []
        : [
            `Two cups, not one: “${layer.mixture || layer.name}” and “${layer.wetWith}”, run into each other wet.`,
          ]),
      ...run.map((s) => s.layer.note.trim()).filter((note) => note !== ''),
    ]),
    mix: mixFor(run, cupMl),
    spray: sprayGuide(layer.family, layer.method, layer),
    cautions: cautionsFor(layer),
    applicators: unique(run.flatMap((s) => s.layer.applicator ?? [])),
    judge: unique(run.flatMap(judgeWords)),
    takenBack: unique(run.flatMap(takenBackWords)),
    lookOver: lookOverOf(run),
    who: run[0]!.doer?.who ?? null,
    handovers: run.flatMap((s) => s.doer?.handovers ?? []),
    tool: run[0]!.tool,
  };
}

/** What is looked at before it can no longer be changed: common practice, no source. */
const NO_RETURN = {
  lift: ['the coat even and without bare spots', 'a trial on one edge that will not be seen'],
  glue: ['all behind it painted and free of dust', 'both faces of the joint bare', 'the fit, dry'],
  seal: ['no hair, dust or finger mark', 'markings flat', 'nothing left to paint beneath it'],
} as const;

/** Before the first chip, before glue, and before the last coat of a piece nothing of it should be forgotten. */
function lookOverOf(run: readonly PlanStep[]): RunFacts['lookOver'] {
  const units = new Map<string, { unit: string; details: Set<string> }>();
  for (const step of run) {
    const seals = isLastSeal(step);
    const point = step.layer.task === 'lift' || step.layer.task === 'glue' ? step.layer.task : null;
    const isLast = step.layerIndex === step.recipe.layers.length - 1;
    const details = [
      ...(isLast || seals ? (step.unit.details ?? []).map((d) => d.name) : []),
      ...(point ? NO_RETURN[point] : seals ? NO_RETURN.seal : []),
    ];
    if (details.length === 0) continue;
    const of = units.get(step.unit.id) ?? { unit: step.unit.name, details: new Set() };
    for (const d of details) of.details.add(d);
    units.set(step.unit.id, of);
  }
  return [...units.values()].map(({ unit, details }) => ({ unit, details: [...details] }));
}

/** No varnish comes after it. */
function isLastSeal({ recipe, layerIndex }: PlanStep): boolean {
  const last = recipe.layers.findLastIndex((l) => isSeal(l));
  return last === layerIndex;
}

function judgeWords({ recipe, layer }: PlanStep): string[] {
  const from = recipe.layers.find((l) => l.id === layer.judgeFrom);
  return [
    ...(from ? [`Looks wrong on purpose: judge it only after “${from.name}”.`] : []),
    ...(layer.judgeBy ? [`Judge it: ${layer.judgeBy}.`] : []),
  ];
}

function takenBackWords({ recipe, layer }: PlanStep): string[] {
  const back = takenBackOf(recipe, layer);
  return [
    ...(back
      ? [`Can be taken back: ${back.by}${back.until ? `; from “${back.until.name}” on no more` : ''}.`]
      : []),
    ...lastChances(recipe, layer).map(
      ({ layer: l, by }) =>
        `Last chance for “${l.name}”: from here on it can no longer be taken back (${by}).`,
    ),
  ];
}

function unique(list: readonly string[]): string[] {
  return [...new Set(list)];
}

/** What a cup holds where the bench does not say: cups hold 2 to 9 ml (common practice, no source). */
export const CUP_ML = 7;

function mixFor(run: readonly PlanStep[], cupMl: number): RunMix | null {
  const first = run[0]!;
  const amounts = run.map((s) => amountOf(s.recipe, s.layer, s.piece));
  const ml = amounts.reduce((sum, a, k) => sum + a.ml / run[k]!.rounds, 0);
  if (ml === 0) return null;
  try {
    // Only an airbrush has a cup; anything else is mixed in one pot.
    const pot = first.layer.method === 'airbrush' ? cupMl : ml;
    const cups = cupsFor(mixOf(first.layer), ml, pot);
    const kept = amounts.reduce((sum, a, k) => sum + a.keptMl / run[k]!.rounds, 0);
    return {
      ...cups,
      leftMl: cups.leftMl + kept,
      isByCup: first.layer.method === 'airbrush',
      from:
        amounts[0]!.from +
        (run.length > 1 ? `, and ${run.length - 1} more ${run.length === 2 ? 'piece' : 'pieces'}` : ''),
    };
  } catch (error) {
    if (error instanceof AmountError) return null;
    throw error;
  }
}
