/** What a unit's recipes go by, each with its picture as far as the log has one. */
import type { Muster, Recipe, Reference, Unit } from '#core/muster';
import { standing, type LogEntry } from '#core/log';

export interface ReferenceShown {
  readonly reference: Reference;
  readonly recipe: Recipe;
  /** its newest picture as a data address; null: there is none */
  readonly picture: string | null;
}

export function referencesOf(recipes: readonly Recipe[], log: readonly LogEntry[]): ReferenceShown[] {
  const pictures = new Map<string, string>();
  for (const e of standing(log))
    if (e.kind === 'picture' && e.reference !== undefined) pictures.set(e.reference, e.data);
  return recipes.flatMap((recipe) =>
    (recipe.references ?? []).map((reference) => ({
      reference,
      recipe,
      picture: pictures.get(reference.id) ?? null,
    })),
  );
}

/** The recipes that pieces of a unit follow. */
export function recipesOf(muster: Muster, unit: Unit): Recipe[] {
  const ids = new Set(unit.pieces.map((p) => p.recipe));
  return muster.recipes.filter((r) => ids.has(r.id));
}

/** “Barge at the quay, 1934: rust below the waterline”. */
export function referenceWords({ name, year, shows }: Reference): string {
  return `${name}${year ? `, ${year}` : ''}${shows ? `: ${shows}` : ''}`;
}
