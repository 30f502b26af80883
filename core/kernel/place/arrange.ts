/** Brings operations into an order in which each can be inserted after all it waits for. */
import type { Model } from '../model/model';
import type { OperationIndex } from '../model/units';
import { KeyHeap, type Queue } from './keyHeap';

/**
 * A topological order of a set of operations, smallest key first among those that are free. What a window ties to the
 * operation just taken comes directly after it, so that a coupled group stays together.
 * @param key one number for every operation of the model
 * @param free where those wait that are free: by default by their keys alone
 */
export function arrange(
  model: Model,
  operations: readonly number[],
  key: Float64Array,
  free: Queue = new KeyHeap(key),
): number[] {
  const waiting = new Map<number, number>();
  for (const i of operations) waiting.set(i, 0);
  for (const i of operations)
    for (const lag of model.lagsOut[i]!) {
      const n = waiting.get(lag.to);
      if (n !== undefined) waiting.set(lag.to, n + 1);
    }
  for (const i of operations) if (waiting.get(i) === 0) free.push(i);
  const result: number[] = [];
  const tied: number[] = [];
  for (;;) {
    const i = tied.length > 0 ? tied.pop()! : free.pop();
    if (i === undefined) return result;
    result.push(i);
    for (const lag of model.lagsOut[i]!) {
      const n = waiting.get(lag.to);
      if (n === undefined) continue;
      waiting.set(lag.to, n - 1);
      if (n > 1) continue;
      if (isWithinWindow(model, lag.to, waiting)) tied.push(lag.to);
      else free.push(lag.to);
    }
  }
}

/** Does a window that one of the set has opened close on this operation? */
function isWithinWindow(model: Model, i: OperationIndex, set: ReadonlyMap<number, number>): boolean {
  for (const lag of model.lagsIn[i]!) if (lag.isWindow && set.has(lag.from)) return true;
  return false;
}
