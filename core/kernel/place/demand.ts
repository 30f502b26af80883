/** What operations take of the resources, laid out flat for the schedule. */
import type { Model } from '../model/model';
import type { Share } from './shares';

/** What each operation takes, as flat lists: those of operation `i` stand at [at[i], at[i + 1]). */
export interface Demand {
  readonly useAt: Int32Array;
  readonly useResource: Int32Array;
  readonly useAmount: Int32Array;
  /** the most that others may take beside it */
  readonly useLimit: Int32Array;
  readonly holdAt: Int32Array;
  readonly holdResource: Int32Array;
  readonly holdAmount: Int32Array;
  readonly holdFrom: Int32Array;
  readonly holdTo: Int32Array;
  /** 1: its times cost something by themselves (due dates, soft closings) */
  readonly isPriced: Uint8Array;
}

export function demandOf(model: Model, shares: readonly (Share | null)[]): Demand {
  const isSequenced = sequencedTools(model);
  const uses = model.binding.map((list) => list.filter((u) => !isSequenced[u.resource]));
  const flat = <T>(lists: readonly (readonly T[])[], value: (item: T) => number): Int32Array =>
    Int32Array.from(lists.flatMap((list) => list.map(value)));
  const at = (lists: readonly (readonly unknown[])[]): Int32Array => {
    const result = new Int32Array(lists.length + 1);
    lists.forEach((list, i) => (result[i + 1] = result[i]! + list.length));
    return result;
  };
  const isSoft = (lag: { prefer: number }): boolean => lag.prefer !== Infinity;
  return {
    useAt: at(uses),
    useResource: flat(uses, (u) => u.resource),
    useAmount: flat(uses, (u) => u.amount),
    useLimit: flat(uses, (u) => model.capacity[u.resource]! - u.amount),
    holdAt: at(model.holdsOf),
    holdResource: flat(model.holdsOf, (h) => h.resource),
    holdAmount: flat(model.holdsOf, (h) => h.amount),
    holdFrom: flat(model.holdsOf, (h) => h.from),
    holdTo: flat(model.holdsOf, (h) => h.to),
    isPriced: Uint8Array.from(model.ids, (_, i) =>
      shares[i] !== null ||
      model.duesOf[i]!.length > 0 ||
      model.lagsIn[i]!.some(isSoft) ||
      model.lagsOut[i]!.some(isSoft)
        ? 1
        : 0,
    ),
  };
}

/** Tools on which the sequence alone says what is free: one place, no holds, no history. */
function sequencedTools(model: Model): readonly boolean[] {
  const isHeld = new Set(model.holds.map((h) => h.resource));
  const hasHistory = new Set<number>();
  model.uses.forEach((list, i) => {
    if (model.isFixed[i]) for (const u of list) hasHistory.add(u.resource);
  });
  return model.tools.map(
    (tool, r) => tool !== null && model.capacity[r] === 1 && !isHeld.has(r) && !hasHistory.has(r),
  );
}

/** The sum of all amounts on each resource. */
export function mostTaken(model: Model): number[] {
  const most = model.resourceIds.map(() => 0);
  for (const list of model.uses) for (const use of list) most[use.resource]! += use.amount;
  for (const hold of model.holds) most[hold.resource]! += hold.amount;
  return most;
}
