/** Masks as they fall in a plan: what of which pieces is covered, from when to when. */
import type { Layer, Recipe } from '#core/muster';
import { masksOf, zonesOf, type Mask } from '#core/recipe';
import type { Plan, PlanStep } from './present';

/** One mask of a recipe on the pieces of a unit that follow it. */
export interface Covered {
  readonly recipe: Recipe;
  readonly mask: Mask;
  /** names of the zones that are covered whole; empty: parts of what it names */
  readonly zones: readonly string[];
  /** layers that go over it, and so not on what it covers */
  readonly over: readonly Layer[];
  readonly pieces: readonly {
    readonly id: string;
    readonly name: string;
    /** minute at which it is put on */
    readonly from: number;
    /** … and at which it is taken off; null: never */
    readonly to: number | null;
    /** drying minutes of the last paint over it when it comes off, as the plan falls; null: nothing goes over it */
    readonly age: number | null;
  }[];
}

/** Every mask of a unit's recipes, bottom to top, with when each piece has it. */
export function coveredIn(plan: Plan, unit: string): Covered[] {
  return coveredOf([...plan.steps.values()].filter((s) => s.unit.id === unit));
}

/** … of steps that are all of one unit */
export function coveredOf(all: readonly PlanStep[]): Covered[] {
  const byPiece = new Map<string, PlanStep[]>();
  for (const s of all) {
    const own = byPiece.get(s.piece.id);
    if (own) own.push(s);
    else byPiece.set(s.piece.id, [s]);
  }
  const found = new Map<string, Covered & { pieces: Covered['pieces'][number][] }>();
  for (const steps of byPiece.values()) {
    const { recipe, piece } = steps[0]!;
    const of = (layer: Layer | undefined): PlanStep | undefined =>
      steps.filter((s) => s.layer.id === layer?.id).at(-1);
    for (const mask of masksOf(recipe)) {
      const on = of(mask.layer);
      if (!on) continue;
      const over = recipe.layers
        .slice(mask.from + 1, mask.to ?? mask.from + 1)
        .filter((l) => l.task === undefined);
      const off = mask.to === null ? undefined : of(recipe.layers[mask.to]);
      const last = Math.max(...over.map((l) => of(l)?.end ?? -Infinity));
      const key = `${recipe.id} ${mask.layer.id}`;
      const known = found.get(key) ?? {
        recipe,
        mask,
        zones: mask.zones.map((z) => recipe.zones.find((x) => x.id === z)?.name ?? z),
        over,
        pieces: [],
      };
      known.pieces.push({
        id: piece.id,
        name: piece.name,
        from: on.start,
        to: off?.start ?? null,
        age: off && Number.isFinite(last) ? off.start - last : null,
      });
      found.set(key, known);
    }
  }
  return [...found.values()];
}

/** Names of the zones that a layer over a mask does go on. */
export function goesOn(recipe: Recipe, layer: Layer): readonly string[] {
  return zonesOf(recipe, layer).flatMap((z) => recipe.zones.find((x) => x.id === z)?.name ?? []);
}
