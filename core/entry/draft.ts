/** What was typed or pasted, understood: units and pieces that do not stand in a muster yet. */
import {
  numberedNames,
  withSuffix,
  type LocalDateTime,
  type NewId,
  type Piece,
  type Recipe,
  type SizeClass,
} from '#core/muster';
import type { Muster, Unit } from '#core/muster';

export interface PieceDraft {
  readonly name: string;
  /** figures on the tray; 1 for a single piece */
  readonly figures: number;
  /** id of a recipe of the muster or of the library; null: to be chosen */
  readonly recipe: string | null;
  readonly size?: SizeClass;
  /** glued to the first piece of its unit, late */
  readonly isLate?: boolean;
}

export interface UnitDraft {
  readonly name: string;
  /** null: to be chosen */
  readonly table: LocalDateTime | null;
  readonly readyFrom?: LocalDateTime;
  /** of 5 */
  readonly importance?: number;
  readonly pieces: readonly PieceDraft[];
}

/** A recipe as it is called. */
export type Named = Pick<Recipe, 'id' | 'name'>;

const IMPORTANCE = 3;
/** What gluing takes where nothing else is said, in minutes; common practice, no source. */
export const GLUE = { minutes: 4, dryMinutes: 60 };

/**
 * The muster with the drafts as units: a draft named like a unit that is there brings its pieces to it, and recipes that only the library
 * has come along, once.
 * @param library recipes that drafts may name besides the muster's own
 * @param table for drafts without a date
 */
export function withDrafts(
  muster: Muster,
  drafts: readonly UnitDraft[],
  library: readonly Recipe[],
  table: LocalDateTime,
  newId: NewId,
): Muster {
  const recipes = new Map(muster.recipes.map((r) => [r.id, r]));
  for (const { recipe } of drafts.flatMap((d) => d.pieces)) {
    const found = recipe !== null && !recipes.has(recipe) && library.find((r) => r.id === recipe);
    if (found) recipes.set(found.id, found);
  }
  const units = new Map(muster.units.map((u) => [u.name.toLowerCase(), u]));
  for (const draft of drafts) {
    const key = draft.name.toLowerCase();
    const known = units.get(key);
    const pieces = piecesOf(draft.pieces, known, (id) => (id === null ? undefined : recipes.get(id)), newId);
    units.set(
      key,
      known ? { ...known, pieces: [...known.pieces, ...pieces] } : unitOf(draft, pieces, table, newId),
    );
  }
  return { ...muster, recipes: [...recipes.values()], units: [...units.values()] };
}

function unitOf(draft: UnitDraft, pieces: Piece[], table: LocalDateTime, newId: NewId): Unit {
  return {
    id: newId(),
    name: withSuffix(draft.name, ''),
    table: draft.table ?? table,
    readyFrom: draft.readyFrom ?? null,
    importance: draft.importance ?? IMPORTANCE,
    pieces,
  };
}

/** Pieces for a unit; names that it has already are numbered on, late ones are glued to its first. */
export function piecesOf(
  drafts: readonly PieceDraft[],
  known: Unit | undefined,
  recipeOf: (id: string | null) => Recipe | undefined,
  newId: NewId,
): Piece[] {
  const ids = drafts.map(() => newId());
  const there = known?.pieces ?? [];
  const host = there[0] ?? { id: ids[0]!, recipe: drafts[0]?.recipe ?? null };
  const layers = recipeOf(host.recipe)?.layers ?? [];
  // Glued late: before the last coat of its host goes over both.
  const seam = layers[layers.length - 1];
  const taken = new Set(there.map((p) => p.name));
  return drafts.map((p, k) => {
    const name = taken.has(p.name) ? numberedNames(p.name, 1, [...taken])[0]! : withSuffix(p.name, '');
    taken.add(name);
    return {
      id: ids[k]!,
      name,
      recipe: p.recipe,
      count: p.figures,
      places: 1,
      joins: p.isLate && host.id !== ids[k] && seam ? { piece: host.id, layer: seam.id, glue: GLUE } : null,
      ...(p.size ? { size: { class: p.size } } : {}),
    };
  });
}
