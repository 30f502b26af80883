/** What the pilot of a recipe has shown: approved, it is frozen as it is; changed, the others wait until it is right. */
import { doneId, type StepRef } from '#core/plan';
import { effectiveRecipe, hands } from '#core/recipe';
import type { Muster, Recipe } from '#core/muster';
import { standing, type EntryOf, type LogEntry } from '#core/log';

export interface PilotState {
  readonly verdict: 'approved' | 'changed';
  /** name of the pilot, and the step on which the last verdict was given */
  readonly pilot: string;
  readonly step: string;
  readonly at: string;
  /** pieces of the recipe besides the pilot */
  readonly others: number;
}

/** The verdicts that stand, by the pilot that they were given on: its last. */
export function verdictsOf(
  log: readonly LogEntry[],
  pieceOf: (step: string) => { readonly id: string } | undefined,
): ReadonlyMap<string, EntryOf<'verdict'>> {
  const verdicts = new Map<string, EntryOf<'verdict'>>();
  for (const e of standing(log)) {
    const piece = e.kind === 'verdict' ? pieceOf(e.step) : undefined;
    if (e.kind === 'verdict' && piece) verdicts.set(piece.id, e);
  }
  return verdicts;
}

/** What the pilot of a recipe has shown; null where it has none, or nobody has judged it. */
export function pilotState(muster: Muster, log: readonly LogEntry[], recipe: string): PilotState | null {
  const users = muster.units.flatMap((u) => u.pieces).filter((p) => p.recipe === recipe);
  const pilots = users.filter((p) => p.isPilot);
  const verdicts = verdictsOf(log, (step) => pilots.find((p) => step.startsWith(`${p.id}.`)));
  const [last] = [...verdicts].sort(([, a], [, b]) => b.at.localeCompare(a.at));
  const pilot = pilots.find((p) => p.id === last?.[0]);
  return last && pilot
    ? {
        verdict: last[1].verdict,
        pilot: pilot.name,
        step: last[1].step,
        at: last[1].at,
        others: users.filter((p) => !p.isPilot).length,
      }
    : null;
}

/** Minutes of hands that a changed recipe adds (less than 0: saves) on the pieces that are not the pilot. */
export function addedMinutes(muster: Muster, before: Recipe, now: Recipe): number {
  const work = (recipe: Recipe): number =>
    muster.units
      .flatMap((u) => u.pieces.map((piece) => ({ piece, level: u.level })))
      .filter(({ piece }) => piece.recipe === now.id && !piece.isPilot)
      .reduce(
        (sum, { piece, level }) =>
          sum +
          piece.count * effectiveRecipe(recipe, piece, level).layers.reduce((all, l) => all + hands(l), 0),
        0,
      );
  return Math.round(work(now) - work(before));
}

/** The finished pilots that are approved, by what stands for it in the problem: the recipe that each has shown. */
export function approvals(
  steps: ReadonlyMap<string, StepRef>,
  log: readonly LogEntry[],
): ReadonlyMap<string, string | null> {
  const pieces = new Map([...steps.values()].map((s) => [s.piece.id, s.piece]));
  const verdicts = verdictsOf(log, (step) => steps.get(step)?.piece);
  return new Map(
    [...verdicts].flatMap(([id, e]) => {
      const piece = pieces.get(id);
      return piece?.isPilot && e.verdict === 'approved' ? [[doneId(piece), piece.recipe] as const] : [];
    }),
  );
}

/** A pilot that has been begun, as it can be judged at the bench. */
export interface Judged {
  readonly piece: string;
  readonly name: string;
  readonly recipe: Recipe;
  /** the step that was done on it last, by its id, and the layer that it was */
  readonly step: string;
  readonly layer: string;
  readonly verdict: 'approved' | 'changed' | null;
}

/** The pilots of a plan on which something has been done; the verdict is given on the step that was done last. */
export function pilotsBegun(steps: ReadonlyMap<string, StepRef>, log: readonly LogEntry[]): Judged[] {
  const verdicts = verdictsOf(log, (step) => steps.get(step)?.piece);
  const begun = new Map<string, Judged>();
  for (const e of standing(log)) {
    const of = e.kind === 'done' ? steps.get(e.step) : undefined;
    if (e.kind !== 'done' || !of?.piece.isPilot) continue;
    begun.set(of.piece.id, {
      piece: of.piece.id,
      name: of.piece.name,
      recipe: of.recipe,
      step: e.step,
      layer: of.layer.id,
      verdict: verdicts.get(of.piece.id)?.verdict ?? null,
    });
  }
  return [...begun.values()];
}
