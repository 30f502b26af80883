/** What guides the search where a unit has many parts. */
import type { DryingClock } from '../model/dryingClock';
import type { Model } from '../model/model';
import type { Minute, OperationIndex, Ticks } from '../model/units';

/** The share of a unit's cost that one of several parts is charged, by the end of its last operation. */
export interface Share {
  readonly due: Minute;
  /** cost of a minute after `due` */
  readonly late: number;
  /** cost of every minute */
  readonly soon: number;
  /** what closes softly behind a fixed moment, such as a margin before a date */
  readonly wishes: readonly Wish[];
}

export interface Wish {
  readonly clock: DryingClock;
  /** ticks of the clock from which each further one costs `rate` */
  readonly ticks: Ticks;
  readonly rate: number;
  /** minutes between the part's end and what closes */
  readonly gap: number;
}

const SHARED = 0.5;

export function sharesOf(model: Model): (Share | null)[] {
  const shares: (Share | null)[] = model.ids.map(() => null);
  for (const due of model.dues) {
    const parts = partsOf(model, due.ready);
    if (parts.size < 2) continue;
    const share = SHARED / parts.size;
    for (const [i, gap] of parts)
      shares[i] = {
        due: due.due - gap,
        late: share * due.weight * model.weights.tardiness,
        soon: share * due.weight * model.weights.completion,
        wishes: wishesOf(model, due.ready, gap, share),
      };
  }
  return shares;
}

/** What a milestone waits for, through milestones, with the least minutes between. */
function partsOf(model: Model, milestone: number): ReadonlyMap<number, number> {
  const parts = new Map<number, number>();
  const collect = (i: OperationIndex, gap: number): void => {
    for (const { from, min } of model.lagsIn[i]!) {
      if (model.isFixed[from]) continue;
      if (model.minutes[from] === 0) collect(from, gap + min);
      else parts.set(from, Math.max(parts.get(from) ?? 0, gap + min));
    }
  };
  if (model.minutes[milestone] === 0) collect(milestone, 0);
  return parts;
}

function wishesOf(model: Model, ready: OperationIndex, gap: number, share: number): Wish[] {
  return model.lagsIn[ready]!.flatMap(({ from, prefer, clock }) =>
    prefer === Infinity || clock === null || !model.isFixed[from]
      ? []
      : [
          {
            clock,
            ticks: clock[model.fixedEnd[from]!]! + prefer,
            rate: share * model.weights.overrun,
            gap,
          },
        ],
  );
}

/** What the share comes to when its part ends at `end`. */
export function shareAt({ due, late, soon, wishes }: Share, end: Minute): number {
  let cost = late * Math.max(0, end - due) + soon * end;
  for (const { clock, ticks, rate, gap } of wishes) {
    const at = clock[Math.min(clock.length - 1, Math.ceil(end + gap))]!;
    if (at > ticks) cost += rate * (at - ticks);
  }
  return cost;
}
