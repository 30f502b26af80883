/** More pieces for a unit that is there: "4 more", "5 oars", "mast, oars, roof late". */
import { numberedNames, type NewId, type Recipe, type Unit } from '#core/muster';
import { piecesOf, type PieceDraft } from './draft';
import { readLine, type Known } from './line';

export interface More {
  readonly unit: Unit;
  readonly added: number;
  readonly unclear: readonly string[];
  /** why nothing was added; null where something was */
  readonly fault: string | null;
}

/** @param recipes of the muster; what the text does not say is taken from the last piece of the unit */
export function withMore(
  unit: Unit,
  text: string,
  recipes: readonly Recipe[],
  known: Omit<Known, 'recipes'>,
  newId: NewId,
): More {
  const last = unit.pieces[unit.pieces.length - 1];
  const count = /^(\d+)\s+more$/i.exec(text.trim() || '1 more')?.[1];
  // A part may be called as a recipe is: here only parts are named.
  const line = count ? `${count} pieces` : text.includes(',') ? `${unit.name}: ${text}` : text;
  const { draft, unclear, fault } = readLine(line, { ...known, recipes: [] });
  if (fault) return { unit, added: 0, unclear, fault };
  const names =
    count && last
      ? numberedNames(
          last.name,
          draft.pieces.length,
          unit.pieces.map((p) => p.name),
        )
      : [];
  const drafts = draft.pieces.map((p, k): PieceDraft => ({
    ...p,
    name: names[k] ?? p.name,
    recipe: last?.recipe ?? recipes[0]?.id ?? null,
    figures: count ? (last?.count ?? 1) : p.figures,
    ...(last?.size && !p.size ? { size: last.size.class } : {}),
  }));
  const pieces = piecesOf(drafts, unit, (id) => recipes.find((r) => r.id === id), newId);
  return {
    unit: { ...unit, pieces: [...unit.pieces, ...pieces] },
    added: pieces.length,
    unclear,
    fault: null,
  };
}
