import type { PlanStep } from '#core/plan';
import type { ShelfRow } from './shelf';
import type { Surprise } from './surprises';

/**
 * The whole minute after `now` at which next something matters: the run in hand begins or ends, a surprise comes up,
 * or something on the shelf opens, is dry, or has just shut. Minutes since the plan's origin; null: nothing comes up.
 */
export function comingUp(
  now: number,
  run: readonly Pick<PlanStep, 'start' | 'end'>[],
  shelf: readonly Pick<ShelfRow, 'moment' | 'lead'>[],
  surprises: readonly Pick<Surprise, 'at'>[],
): number | null {
  const reached = [
    ...run.slice(0, 1).map((s) => s.start),
    ...run.slice(-1).map((s) => s.end),
    ...surprises.map((s) => s.at),
    ...shelf.flatMap((row) => [row.moment, row.lead.dryAt]),
  ].map(Math.ceil);
  // At its last moment a window is not shut yet.
  const past = shelf.flatMap(({ lead }) => (lead.gate ? [Math.floor(lead.gate.closes) + 1] : []));
  const next = Math.min(...[...reached, ...past].filter((m) => m > now));
  return Number.isFinite(next) ? next : null;
}
