/** What the user has said of single steps: the session that they begin in, or sessions that they do not. */
import type { Problem } from '#core/kernel';
import { minutesSince, originOf, type BenchSession, type Muster, type Pinned, between } from '#core/muster';
import type { StepRef } from './stepRef';

/** What pins make of one operation. */
export interface Pinning {
  /** it begins within these minutes, and ends there too unless it is longer and can be put down */
  readonly within: BenchSession | null;
  /** calendars of which it may use every minute but one session's */
  readonly shunned: readonly string[];
}

export interface Pins {
  /** by operation id */
  readonly of: ReadonlyMap<string, Pinning>;
  readonly calendars: NonNullable<Problem['calendars']>;
  readonly resources: NonNullable<Problem['resources']>;
}

/** A step as pins name it. */
export function pinned({ piece, layer, round }: Pick<StepRef, 'piece' | 'layer' | 'round'>): Pinned {
  return { piece: piece.id, layer: layer.id, round };
}

/** What shunning calls its calendars and resources. */
export const SHUNNED = 'not-';

/**
 * @param idOf the operation of a pinned step
 * @param now minute from which is planned: what is said of sessions under way or gone no longer binds
 */
export function pinsOf(
  muster: Muster,
  sessions: readonly BenchSession[],
  horizon: number,
  now: number,
  idOf: (pin: Pinned) => string,
): Pins {
  const origin = originOf(muster);
  const of = new Map<string, Pinning>();
  const shunned = new Map<string, BenchSession>();
  for (const pin of muster.pins ?? []) {
    const at = minutesSince(origin, pin.session);
    const index = sessions.findIndex((s) => s.start <= at && at < s.end);
    const session = sessions[index];
    if (!session || session.start < now) continue;
    const id = idOf(pin);
    const known = of.get(id) ?? { within: null, shunned: [] };
    if (pin.is === 'in') of.set(id, { ...known, within: session });
    else {
      const name = `${SHUNNED}${index}`;
      shunned.set(name, session);
      of.set(id, { ...known, shunned: [...known.shunned, name] });
    }
  }
  return {
    of,
    calendars: [...shunned].map(([id, { start, end }]) => ({ id, open: between([[start, end]], horizon) })),
    // Room for all hands at once: what counts is when it is open.
    resources: [...shunned.keys()].map((id) => ({
      id,
      capacity: Math.max(1, muster.bench.people.length),
      calendar: id,
    })),
  };
}
