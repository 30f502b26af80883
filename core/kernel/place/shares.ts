/** What guides the search where a unit has many parts. */
import type { Model } from '../model/model';

/** The share of a unit's cost that one of several parts is charged, by the end of its last operation. */
export interface Share {
  readonly due: number;
  /** cost of a minute after `due` */
  readonly late: number;
  /** cost of every minute */
  readonly soon: number;
}

const SHARED = 0.5;

export function sharesOf(model: Model): (Share | null)[] {
  const shares: (Share | null)[] = model.ids.map(() => null);
  for (const due of model.dues) {
    const parts = new Map<number, number>();
    const collect = (i: number, gap: number): void => {
      for (const lag of model.lagsIn[i]!)
        if (model.minutes[lag.from] === 0 && !model.isFixed[lag.from]) collect(lag.from, gap + lag.min);
        else parts.set(lag.from, Math.max(parts.get(lag.from) ?? 0, gap + lag.min));
    };
    if (model.minutes[due.ready] === 0) collect(due.ready, 0);
    if (parts.size < 2) continue;
    const part = (SHARED * due.weight) / parts.size;
    for (const [i, gap] of parts)
      shares[i] = {
        due: due.due - gap,
        late: part * model.weights.tardiness,
        soon: part * model.weights.completion,
      };
  }
  return shares;
}
