/**
 * When each place of each resource becomes free or, looking back from the end of a session, is needed again. The arithmetic of list
 * scheduling (Graham 1966): times alone, no plan by the minute. The times of one resource stand side by side, in rising order.
 */
import type { Model } from '../model/model';
import type { Minute, OperationIndex } from '../model/units';

export interface Places {
  /** of all resources together: the length of a table of times */
  readonly count: number;
  /** When all that an operation uses is free. @param at where the table begins in `times` */
  freeFor(times: Int32Array, at: number, i: OperationIndex): number;
  /** By when an operation must have ended so that all it uses is given back in time. */
  neededAfter(times: Int32Array, at: number, i: OperationIndex): number;
  /** Takes the places that are free first until `end`. */
  takeUntil(times: Int32Array, i: OperationIndex, end: Minute): void;
  /** Takes the places that are needed last from `start` on. */
  takeFrom(times: Int32Array, i: OperationIndex, start: Minute): void;
  /** Do two tables fit together when an operation lies between them: every other place free before it is needed? */
  fit(free: Int32Array, needed: Int32Array, at: number, i: OperationIndex): boolean;
}

export function placesOf(model: Model): Places {
  const useAt = new Int32Array(model.count + 1);
  model.binding.forEach((uses, j) => (useAt[j + 1] = useAt[j]! + uses.length));
  const useAmount = Int32Array.from(model.binding.flatMap((uses) => uses.map((u) => u.amount)));
  const useResource = Int32Array.from(model.binding.flatMap((uses) => uses.map((u) => u.resource)));
  const isUsed = new Set(useResource);
  let count = 0;
  const first = model.capacity.map((capacity, r) => {
    const at = count;
    if (isUsed.has(r)) count += capacity;
    return at;
  });
  const useFirst = useResource.map((r) => first[r]!);
  const useLast = useResource.map((r) => first[r]! + model.capacity[r]! - 1);

  return {
    count,
    freeFor(times, at, i) {
      let from = 0;
      for (let u = useAt[i]!; u < useAt[i + 1]!; u++)
        from = Math.max(from, times[at + useFirst[u]! + useAmount[u]! - 1]!);
      return from;
    },
    neededAfter(times, at, i) {
      let to = Infinity;
      for (let u = useAt[i]!; u < useAt[i + 1]!; u++)
        to = Math.min(to, times[at + useLast[u]! - useAmount[u]! + 1]!);
      return to;
    },
    takeUntil(times, i, end) {
      for (let u = useAt[i]!; u < useAt[i + 1]!; u++) {
        const low = useFirst[u]!;
        const high = useLast[u]!;
        for (let n = useAmount[u]!; n > 0 && times[low]! < end; n--) {
          let q = low;
          for (; q < high && times[q + 1]! < end; q++) times[q] = times[q + 1]!;
          times[q] = end;
        }
      }
    },
    takeFrom(times, i, start) {
      for (let u = useAt[i]!; u < useAt[i + 1]!; u++) {
        const low = useFirst[u]!;
        const high = useLast[u]!;
        for (let n = useAmount[u]!; n > 0 && times[high]! > start; n--) {
          let q = high;
          for (; q > low && times[q - 1]! > start; q--) times[q] = times[q - 1]!;
          times[q] = start;
        }
      }
    },
    fit(free, needed, at, i) {
      for (let u = useAt[i]!; u < useAt[i + 1]!; u++)
        for (let q = useFirst[u]!; q + useAmount[u]! <= useLast[u]!; q++)
          if (free[at + q + useAmount[u]!]! > needed[at + q]!) return false;
      return true;
    },
  };
}
