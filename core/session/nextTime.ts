/** What somebody wanted to do otherwise the next time: told when that layer is in hand again. */
import type { Layer } from '#core/muster';
import { standing, type LogEntry } from '#core/log';

export interface NextTime {
  readonly id: string;
  readonly at: string;
  readonly text: string;
  /** the piece on which it was found out; empty where it was on none */
  readonly piece: string;
}

/** The notes for a layer, the newest first: of whatever recipe, as long as it is called so and mixed so. */
export function nextTimeNotes(log: readonly LogEntry[], layer: Layer): NextTime[] {
  return standing(log)
    .flatMap((e): NextTime[] => {
      const isIt =
        e.kind === 'noted' &&
        e.isForNextTime === true &&
        e.note !== undefined &&
        e.about?.layer === layer.name &&
        e.about.mixture === layer.mixture;
      return isIt ? [{ id: e.id, at: e.at, text: e.note!, piece: e.about!.piece }] : [];
    })
    .reverse();
}
