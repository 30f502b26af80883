/** Brings operations into an order in which each can be inserted after all it waits for. */
import type { Model } from '../model/model';
import type { OperationIndex } from '../model/units';

/**
 * A topological order of a set of operations, smallest key first among those that are free. What a window ties to the
 * operation just taken comes directly after it, so that a coupled group stays together.
 * @param key one number for every operation of the model
 */
export function arrange(model: Model, operations: readonly number[], key: Float64Array): number[] {
  const waiting = new Map<number, number>();
  for (const i of operations) waiting.set(i, 0);
  for (const i of operations)
    for (const lag of model.lagsOut[i]!) {
      const n = waiting.get(lag.to);
      if (n !== undefined) waiting.set(lag.to, n + 1);
    }
  const heap = new KeyHeap(key);
  for (const i of operations) if (waiting.get(i) === 0) heap.push(i);
  const result: number[] = [];
  const tied: number[] = [];
  for (;;) {
    const i = tied.length > 0 ? tied.pop()! : heap.pop();
    if (i === undefined) return result;
    result.push(i);
    for (const lag of model.lagsOut[i]!) {
      const n = waiting.get(lag.to);
      if (n === undefined) continue;
      waiting.set(lag.to, n - 1);
      if (n > 1) continue;
      if (isWithinWindow(model, lag.to, waiting)) tied.push(lag.to);
      else heap.push(lag.to);
    }
  }
}

/** Does a window that one of the set has opened close on this operation? */
function isWithinWindow(model: Model, i: OperationIndex, set: ReadonlyMap<number, number>): boolean {
  for (const lag of model.lagsIn[i]!) if (lag.isWindow && set.has(lag.from)) return true;
  return false;
}

/** A binary heap of operations by key, ties by index. */
class KeyHeap {
  private readonly items: number[] = [];

  constructor(private readonly key: Float64Array) {}

  private isBefore(a: OperationIndex, b: OperationIndex): boolean {
    const ka = this.key[a]!;
    const kb = this.key[b]!;
    return ka < kb || (ka === kb && a < b);
  }

  push(i: OperationIndex): void {
    const { items } = this;
    let k = items.length;
    items.push(i);
    while (k > 0) {
      const parent = (k - 1) >> 1;
      if (!this.isBefore(i, items[parent]!)) break;
      items[k] = items[parent]!;
      k = parent;
    }
    items[k] = i;
  }

  pop(): number | undefined {
    const { items } = this;
    const top = items[0];
    const last = items.pop();
    if (top === undefined || last === undefined || items.length === 0) return top;
    let k = 0;
    for (;;) {
      let child = 2 * k + 1;
      if (child >= items.length) break;
      if (child + 1 < items.length && this.isBefore(items[child + 1]!, items[child]!)) child++;
      if (!this.isBefore(items[child]!, last)) break;
      items[k] = items[child]!;
      k = child;
    }
    items[k] = last;
    return top;
  }
}
