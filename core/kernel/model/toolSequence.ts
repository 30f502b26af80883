/** The operations on a tool in the order in which they start (starting alike: in which they end; ending alike: of the problem). */
import type { Minute, OperationIndex } from './units';
export class ToolSequence {
  private readonly operations: Int32Array;
  private readonly starts: Int32Array;
  private readonly ends: Int32Array;
  private count = 0;

  /** @param most how many there can be at a time */
  constructor(most: number) {
    this.operations = new Int32Array(most);
    this.starts = new Int32Array(most);
    this.ends = new Int32Array(most);
  }

  get length(): number {
    return this.count;
  }

  /** The operation at a place, -1 before the first and behind the last. */
  at(k: number): OperationIndex {
    return k >= 0 && k < this.count ? this.operations[k]! : -1;
  }

  /** All of them, in order. */
  list(): number[] {
    return [...this.operations.subarray(0, this.count)];
  }

  /** Place of the first operation that starts (or, starting alike, ends) at or after. */
  position(start: Minute, end: Minute): number {
    const { starts, ends } = this;
    let low = 0;
    let high = this.count;
    while (low < high) {
      const mid = (low + high) >> 1;
      const s = starts[mid]!;
      if (s > start || (s === start && ends[mid]! >= end)) high = mid;
      else low = mid + 1;
    }
    return low;
  }

  /** @returns its place */
  add(i: OperationIndex, start: Minute, end: Minute): number {
    const { operations, starts, ends, count } = this;
    let k = this.position(start, end);
    // History may run side by side: what began and ended together stands in the order of the problem, as for the judge.
    while (k < count && starts[k] === start && ends[k] === end && operations[k]! < i) k++;
    operations.copyWithin(k + 1, k, count);
    starts.copyWithin(k + 1, k, count);
    ends.copyWithin(k + 1, k, count);
    operations[k] = i;
    starts[k] = start;
    ends[k] = end;
    this.count = count + 1;
    return k;
  }

  /** @param start where it started @returns the place that it had */
  remove(i: OperationIndex, start: Minute): number {
    const { operations, starts, ends, count } = this;
    let k = this.position(start, -1);
    while (operations[k] !== i) k++;
    operations.copyWithin(k, k + 1, count);
    starts.copyWithin(k, k + 1, count);
    ends.copyWithin(k, k + 1, count);
    this.count = count - 1;
    return k;
  }
}
