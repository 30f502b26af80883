/** Calm: leaving everything in the session it was planned for. */
import type { Solution } from '../document/document';
import type { Model } from '../model/model';
import { intervalAfter } from '../model/openHours';
import type { Minute } from '../model/units';

/** Where the operations were, so that leaving one's session can cost something. */
export interface Calm {
  /** old session of each operation, -1 when it had none */
  readonly session: Int32Array;
  /** old start of each operation, -1 when it had none */
  readonly start: Int32Array;
  /** what an operation costs that begins in another session */
  readonly price: number;
  sessionAt(start: Minute): number;
}

/** @param stability cost of every operation that changes its session */
export function calmOf(model: Model, previous: Solution, stability: number): Calm {
  const sessionAt = sessionsOf(model);
  const old = new Map(previous.operations.map((o) => [o.id, o.start]));
  return {
    session: Int32Array.from(model.ids, (id, i) =>
      old.has(id) && !model.isFixed[i] && model.minutes[i]! > 0 ? sessionAt(old.get(id)!) : -1,
    ),
    start: Int32Array.from(model.ids, (id, i) => (model.isFixed[i] ? -1 : (old.get(id) ?? -1))),
    price: stability,
    sessionAt,
  };
}

/** The number of the session in which a minute lies: by the calendar that most operations know, else by days. */
export function sessionsOf(model: Model): (t: Minute) => number {
  const open = model.open.find((o) => o !== null);
  return open ? (t) => intervalAfter(open, t) : (t) => Math.floor(t / 1440);
}
