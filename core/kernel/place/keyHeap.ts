import type { OperationIndex } from '../model/units';

/** Where those wait that are free. */
export interface Queue {
  push(i: OperationIndex): void;
  /** The next; undefined: none waits */
  pop(): OperationIndex | undefined;
}

/** A binary heap of operations by key, ties by index. */
export class KeyHeap implements Queue {
  private readonly items: number[] = [];

  constructor(private readonly key: Float64Array) {}

  private isBefore(a: OperationIndex, b: OperationIndex): boolean {
    const ka = this.key[a]!;
    const kb = this.key[b]!;
    return ka < kb || (ka === kb && a < b);
  }

  /** The first; undefined: it is empty */
  get top(): OperationIndex | undefined {
    return this.items[0];
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
