/** Who does what, where several work: the plan counts hands, and here they get names. */
import { presenceOf, type Muster } from '#core/muster';
import { abilityOf, mayDo } from './hands';
import { loadOf } from './load';
import type { StepRef } from './stepRef';

export interface Working extends StepRef {
  readonly id: string;
  readonly start: number;
  readonly end: number;
  readonly setup: number;
}

/** Somebody takes a step over while it is under way: hands are counted, and the other is wanted for what only they may do. */
export interface Handover {
  readonly at: number;
  readonly to: string;
}

export interface Doer {
  /** name of the one who begins it */
  readonly who: string;
  readonly handovers: readonly Handover[];
}

interface Hand {
  readonly name: string;
  readonly isSkilled: boolean;
  readonly isThere: (from: number, to: number) => boolean;
  /** the step in hand, until its end */
  busy: Working | null;
  load: string | null;
}

/**
 * Names for every step: whoever has the same load in hand goes on with it; what a helper may do a helper does, so that the others are free
 * for the rest; and where only a helper is free for what a helper may not do, the helper takes over what another is at.
 * @param steps by start @returns empty where one person works
 */
export function whoDoes(muster: Muster, steps: readonly Working[], days: number): ReadonlyMap<string, Doer> {
  const doers = new Map<string, { who: string; handovers: Handover[] }>();
  const { people } = muster.bench;
  if (people.length < 2) return doers;
  const hands = people.map((person): Hand => {
    const present = presenceOf(muster, person, days);
    return {
      name: person.name,
      isSkilled: abilityOf(person) === 'all',
      isThere: (from, to) => present.some((s) => s.start < to && from < s.end),
      busy: null,
      load: null,
    };
  });
  for (const step of steps) {
    const from = step.start - step.setup;
    for (const hand of hands) if (hand.busy && hand.busy.end <= from) hand.busy = null;
    const free = hands.filter((h) => h.busy === null && h.isThere(from, step.end));
    const able = free.filter((h) => h.isSkilled || mayDo('careful', step.layer));
    const load = loadOf(step.layer);
    const chosen =
      able.find((h) => h.load === load) ??
      able.find((h) => !h.isSkilled) ??
      able[0] ??
      relieved(step, from, free) ??
      hands[0]!;
    chosen.busy = step;
    chosen.load = load;
    doers.set(step.id, { who: chosen.name, handovers: [] });
  }
  return doers;

  /** One who may do the step, whose own work a free helper takes over. */
  function relieved(step: Working, from: number, free: readonly Hand[]): Hand | undefined {
    const [helper] = free;
    const other = hands.find(
      (h) => h.isSkilled && h.busy !== null && mayDo('careful', h.busy.layer) && h.isThere(from, step.end),
    );
    if (!helper || !other?.busy) return undefined;
    doers.get(other.busy.id)?.handovers.push({ at: from, to: helper.name });
    helper.busy = other.busy;
    helper.load = other.load;
    return other;
  }
}
