/** The order on every machine of a job shop, the longest paths that go with it, and what swapping two neighbours would do to them. */
import type { Model } from '../../model/model';
import { pick, type Random } from '../../model/random';
import type { OperationIndex } from '../../model/units';

/** Two that stand one after the other on a machine. */
export type Pair = readonly [first: OperationIndex, second: OperationIndex];

interface Step {
  readonly i: OperationIndex;
  readonly gap: number;
}

export class MachineOrders {
  private readonly n: number;
  private readonly minutes: Int32Array;
  private readonly before: readonly (readonly Step[])[];
  private readonly after: readonly (readonly Step[])[];
  private readonly machines: readonly number[][];
  /** by operation: its neighbours on the machine; −1: none */
  private readonly prior: Int32Array;
  private readonly next: Int32Array;
  private readonly order: Int32Array;
  private readonly waiting: Int32Array;
  /** a job comes back to a machine where it was before */
  private readonly comesBack: boolean;
  /** longest path before each operation begins, and after it ends */
  readonly head: Int32Array;
  readonly tail: Int32Array;
  /** the last end, minutes */
  length: number;

  /** @param begin start of every operation in a plan to begin from, minutes */
  constructor(model: Model, begin: Int32Array) {
    const n = model.count;
    this.n = n;
    this.minutes = model.minutes;
    this.before = model.lagsIn.map((lags) => lags.map((l) => ({ i: l.from, gap: l.min })));
    this.after = model.lagsOut.map((lags) => lags.map((l) => ({ i: l.to, gap: l.min })));
    this.machines = [...model.capacity.keys()].map((r) =>
      [...model.minutes.keys()].filter((i) => model.uses[i]!.some((u) => u.resource === r)),
    );
    const machineOf = (i: OperationIndex): number => model.uses[i]![0]?.resource ?? -1;
    this.comesBack = model.lags.some((l) => machineOf(l.from) >= 0 && machineOf(l.from) === machineOf(l.to));
    this.prior = new Int32Array(n).fill(-1);
    this.next = new Int32Array(n).fill(-1);
    this.order = new Int32Array(n);
    this.waiting = new Int32Array(n);
    this.head = new Int32Array(n);
    this.tail = new Int32Array(n);
    this.sequence(begin);
    this.length = this.evaluate();
  }

  /** The orders, to come back to. */
  kept(): Int32Array {
    return this.prior.slice();
  }

  /** Goes back to orders that were kept. */
  restore(kept: Int32Array): void {
    this.prior.set(kept);
    this.next.fill(-1);
    this.prior.forEach((b, i) => {
      if (b >= 0) this.next[b] = i;
    });
    this.length = this.evaluate();
  }

  /** Any order that goes with the lags: operations drawn one by one from those that are free. */
  shuffle(random: Random): void {
    const key = new Int32Array(this.n);
    const left = this.before.map((list) => list.length);
    const free = [...left.keys()].filter((i) => left[i] === 0);
    for (let k = 0; free.length > 0; k++) {
      const at = pick(random, free.length);
      const i = free[at]!;
      free[at] = free[free.length - 1]!;
      free.pop();
      key[i] = k;
      for (const a of this.after[i]!) {
        left[a.i]!--;
        if (left[a.i] === 0) free.push(a.i);
      }
    }
    this.sequence(key);
    this.length = this.evaluate();
  }

  /** A critical path, at forks by chance. */
  criticalPath(random: Random): number[] {
    const { head, tail, minutes, next, length } = this;
    const isCritical = (i: OperationIndex): boolean => head[i]! + minutes[i]! + (tail[i] ?? 0) === length;
    const starts = [...this.order].filter((i) => head[i] === 0 && isCritical(i));
    const path: number[] = [];
    let i: OperationIndex | undefined = starts[pick(random, starts.length)];
    while (i !== undefined) {
      path.push(i);
      const here: number = i;
      const end = head[here]! + minutes[here]!;
      const follows = this.after[here]!.filter((a) => head[a.i] === end + a.gap && isCritical(a.i)).map(
        (a) => a.i,
      );
      const m = next[here]!;
      if (m >= 0 && head[m] === end && isCritical(m)) follows.push(m);
      i = follows[pick(random, follows.length)];
    }
    return path;
  }

  /** First and last pairs of the blocks of one machine on the path; or every pair. */
  pairsOn(path: readonly number[], isEvery = this.comesBack): Pair[] {
    const pairs: Pair[] = [];
    for (let from = 0; from < path.length;) {
      let to = from;
      while (to + 1 < path.length && this.next[path[to]!] === path[to + 1]) to++;
      // Where a job comes back to its machine, its own pair can stand at the end of a block: then every pair may help.
      if (isEvery) for (let k = from; k < to; k++) pairs.push([path[k]!, path[k + 1]!]);
      else if (to > from) {
        if (from > 0) pairs.push([path[from]!, path[from + 1]!]);
        if (to < path.length - 1 && (to - from > 1 || from === 0)) pairs.push([path[to - 1]!, path[to]!]);
      }
      from = to + 1;
    }
    return pairs;
  }

  /** About the length after two neighbours were swapped: the longest path through either (Taillard 1994). */
  estimate([a, b]: Pair): number {
    const { head, tail, minutes } = this;
    const headB = this.headOf(b, this.prior[a]!);
    let headA = headB + minutes[b]!;
    for (const x of this.before[a]!) headA = Math.max(headA, head[x.i]! + minutes[x.i]! + x.gap);
    const tailA = this.tailOf(a, this.next[b]!);
    let tailB = tailA + minutes[a]!;
    for (const x of this.after[b]!) tailB = Math.max(tailB, tail[x.i]! + minutes[x.i]! + x.gap);
    return Math.max(headB + minutes[b]! + tailB, headA + minutes[a]! + tailA);
  }

  /** Swaps neighbours, unless one of them must come first for other reasons. */
  swap([a, b]: Pair): void {
    this.exchange(a, b);
    const now = this.evaluate();
    if (now >= 0) this.length = now;
    else {
      this.exchange(b, a);
      this.length = this.evaluate();
    }
  }

  private sequence(key: ArrayLike<number>): void {
    for (const list of this.machines) {
      list.sort((a, b) => key[a]! - key[b]!);
      list.forEach((i, k) => {
        this.prior[i] = list[k - 1] ?? -1;
        this.next[i] = list[k + 1] ?? -1;
      });
    }
  }

  private exchange(a: OperationIndex, b: OperationIndex): void {
    const { prior, next } = this;
    const x = prior[a]!;
    const y = next[b]!;
    if (x >= 0) next[x] = b;
    if (y >= 0) prior[y] = a;
    prior[b] = x;
    next[b] = a;
    prior[a] = b;
    next[a] = y;
  }

  /** @param prior what comes before it on the machine; −1: nothing */
  private headOf(i: OperationIndex, prior: OperationIndex): number {
    const { head, minutes } = this;
    let h = prior < 0 ? 0 : head[prior]! + minutes[prior]!;
    for (const b of this.before[i]!) h = Math.max(h, head[b.i]! + minutes[b.i]! + b.gap);
    return h;
  }

  private tailOf(i: OperationIndex, next: OperationIndex): number {
    const { tail, minutes } = this;
    let t = next < 0 ? 0 : tail[next]! + minutes[next]!;
    for (const a of this.after[i]!) t = Math.max(t, tail[a.i]! + minutes[a.i]! + a.gap);
    return t;
  }

  /** Heads and tails by longest paths. @returns the last end; -1 when the orders make a circle */
  private evaluate(): number {
    const { n, before, after, prior, next, order, waiting, head, tail, minutes } = this;
    let count = 0;
    for (let i = 0; i < n; i++) {
      waiting[i] = before[i]!.length + (prior[i]! < 0 ? 0 : 1);
      if (waiting[i] === 0) order[count++] = i;
    }
    let last = 0;
    for (let k = 0; k < count; k++) {
      const i = order[k]!;
      head[i] = this.headOf(i, prior[i]!);
      last = Math.max(last, head[i]! + minutes[i]!);
      for (const a of after[i]!) {
        waiting[a.i]!--;
        if (waiting[a.i] === 0) order[count++] = a.i;
      }
      const m = next[i]!;
      if (m < 0) continue;
      waiting[m]!--;
      if (waiting[m] === 0) order[count++] = m;
    }
    if (count < n) return -1;
    for (let k = n - 1; k >= 0; k--) tail[order[k]!] = this.tailOf(order[k]!, next[order[k]!]!);
    return last;
  }
}
