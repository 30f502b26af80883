/** The sheets of markings of a muster given out to the pieces of a unit, by what is on hand and what the log has put on. */
import { storesOf, type Marking, type Muster, type Unit } from '#core/muster';
import { allot, markedPieces, type Allotment, type Allotted } from '#core/variety';
import type { Plan } from '#core/plan';
import { endedSteps, type LogEntry } from '#core/log';

/**
 * Every sheet that serves the unit, with what its pieces get. A sheet for all units is given out in the order of their dates.
 * @param plan null: there is none yet, and nothing counts as put on
 */
export function allotments(
  muster: Muster,
  unit: Unit,
  plan: Plan | null,
  log: readonly LogEntry[],
): Allotment[] {
  const decals = recipesWithMarkings(muster);
  const own = new Set(unit.pieces.map((p) => p.id));
  return storesOf(muster)
    .markings.filter((m) => m.unit === null || m.unit === unit.id)
    .map((m) => {
      const units =
        m.unit === null ? [...muster.units].sort((a, b) => a.table.localeCompare(b.table)) : [unit];
      const before = markedBefore(m, plan, log);
      const pieces = units.flatMap((u) => markedPieces(u, decals)).filter((p) => !before.has(p.id));
      const all = allot(m, pieces, m.left);
      return { ...all, pieces: all.pieces.filter((p) => own.has(p.piece.id)) };
    });
}

/** Ids of the recipes that have a step for markings. */
export function recipesWithMarkings(muster: Muster): ReadonlySet<string> {
  return new Set(muster.recipes.filter((r) => r.layers.some((l) => l.task === 'decal')).map((r) => r.id));
}

/** Pieces that had theirs before the sheet was counted. */
function markedBefore({ leftAt }: Marking, plan: Plan | null, log: readonly LogEntry[]): ReadonlySet<string> {
  if (!plan || leftAt === undefined) return new Set();
  return new Set(
    [...endedSteps(log)].flatMap(([id, e]) => {
      const step = plan.steps.get(id);
      return step?.layer.task === 'decal' && e.at < leftAt ? [step.piece.id] : [];
    }),
  );
}

/** “number 7 · left, right (1 fewer than wanted)” */
export function allottedWords({ number, sides, count, wanted }: Allotted): string {
  const parts = [
    number === null ? '' : `number ${number}`,
    sides.length > 0 ? sides.join(', ') : count > 0 ? `${count} of the sheet` : '',
  ].filter((w) => w !== '');
  const without = wanted - count;
  return `${parts.join(' · ') || 'none'}${without > 0 ? ` (${without} fewer than wanted)` : ''}`;
}
