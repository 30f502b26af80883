/** What a run is, whenever it is done: a load taken up once, with the mix for everything that it goes on. */
import { amountOf, cupsFor, mixOf, type CupPlan } from '#core/amounts';
import { AmountError, cautionsFor, methodOf, sprayGuide, type SprayGuide } from '#core/materials';
import type { Layer } from '#core/muster';
import { plainName, strengthOn } from '#core/recipe';
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
  /** what to look over before a last coat, by unit: what is easily forgotten on it */
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
    strengths: strengthsOf(run),
    units: unique(run.map((s) => s.unit.name)),
    zones: unique(
      run.flatMap((s) => s.layer.zones.map((z) => s.recipe.zones.find((x) => x.id === z)?.name ?? z)),
    ),
    coats: [Math.min(...coats), Math.max(...coats)],
    notes: unique(run.map((s) => s.layer.note.trim()).filter((note) => note !== '')),
    mix: mixFor(run, cupMl),
    spray: sprayGuide(layer.family, layer.method, layer),
    cautions: cautionsFor(layer),
    lookOver: lookOverOf(run),
    who: run[0]!.doer?.who ?? null,
    handovers: run.flatMap((s) => s.doer?.handovers ?? []),
    tool: run[0]!.tool,
  };
}

const STRENGTH_WORDS = { heavy: 'heavy on', trace: 'a trace on' } as const;

/** “heavy on Ferry 3, 7; a trace on Ferry 1, 4”: pieces of one name by their numbers. */
function strengthsOf(run: readonly PlanStep[]): string {
  return (['heavy', 'trace'] as const)
    .flatMap((is) => {
      const names = run.filter((s) => strengthOn(s.piece, s.layer.id) === is).map((s) => s.piece.name);
      return names.length > 0 ? [`${STRENGTH_WORDS[is]} ${numbered(names)}`] : [];
    })
    .join('; ');
}

function numbered(names: readonly string[]): string {
  const stems = new Map<string, string[]>();
  for (const name of names) {
    const [, stem = name, number = ''] = /^(.*\S)\s+(\d+)$/.exec(name) ?? [];
    stems.set(stem, [...(stems.get(stem) ?? []), number]);
  }
  return [...stems].map(([stem, numbers]) => `${stem} ${numbers.join(', ')}`.trim()).join(', ');
}

/** Before the last coat of a piece nothing of it should be forgotten beneath. */
function lookOverOf(run: readonly PlanStep[]): RunFacts['lookOver'] {
  const units = new Map(
    run
      .filter((s) => s.layerIndex === s.recipe.layers.length - 1 && (s.unit.details?.length ?? 0) > 0)
      .map((s) => [s.unit.id, s.unit]),
  );
  return [...units.values()].map((u) => ({ unit: u.name, details: (u.details ?? []).map((d) => d.name) }));
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
    return {
      ...cups,
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
