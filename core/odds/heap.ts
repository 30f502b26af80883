/** The least key first; of equal keys the one that was put in first does not matter. */
export class Heap {
  private readonly keys: number[] = [];
  private readonly values: number[] = [];

  get size(): number {
    return this.keys.length;
  }

  /** Infinity when there is nothing in it. */
  get least(): number {
    return this.keys.length > 0 ? this.keys[0]! : Infinity;
  }

  /** The value with the least key; undefined when there is none. */
  get first(): number | undefined {
    return this.values[0];
  }

  put(key: number, value: number): void {
    const { keys, values } = this;
    let k = keys.length;
    keys.push(key);
    values.push(value);
    while (k > 0) {
      const up = (k - 1) >> 1;
      if (keys[up]! <= key) break;
      keys[k] = keys[up]!;
      values[k] = values[up]!;
      k = up;
    }
    keys[k] = key;
    values[k] = value;
  }

  /** The value with the least key. @throws Error when there is none */
  take(): number {
    const { keys, values } = this;
    const value = values[0];
    const key = keys.pop();
    const last = values.pop();
    if (value === undefined || key === undefined || last === undefined) throw new Error('The heap is empty.');
    if (keys.length === 0) return value;
    let k = 0;
    for (;;) {
      let down = 2 * k + 1;
      if (down >= keys.length) break;
      if (down + 1 < keys.length && keys[down + 1]! < keys[down]!) down++;
      if (keys[down]! >= key) break;
      keys[k] = keys[down]!;
      values[k] = values[down]!;
      k = down;
    }
    keys[k] = key;
    values[k] = last;
    return value;
  }

  clear(): void {
    this.keys.length = 0;
    this.values.length = 0;
  }
}
