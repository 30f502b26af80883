/**
 * Job shops: machines one step at a time, no calendars, windows, holds or setups, only the last end counts. For these the plan is
 * the order on every machine, and swapping neighbours on a critical path is all that can help (tabu search over the ends of
 * critical blocks, Nowicki & Smutnicki 1996; the estimate of a swap after Taillard 1994).
 */
import type { Times } from '../prove/exact';
import type { Model } from '../model/model';
import { pick, type Random } from '../model/random';
import type { OperationIndex, ResourceIndex } from '../model/units';

export interface ShopSearch {
  /** @returns whether the best plan has become shorter */
  step(swaps: number): boolean;
  readonly best: Times & { readonly cost: number };
}

/** Is the problem of this class? */
export function isShop(model: Model): boolean {
  const { weights } = model;
  return (
    weights.makespan > 0 &&
    weights.tardiness === 0 &&
    weights.completion === 0 &&
    weights.overrun === 0 &&
    model.holds.length === 0 &&
    model.lags.every((l) => l.max === Infinity && l.prefer === Infinity && l.clock === null) &&
    model.tools.every((t) => t === null) &&
    model.open.every((o) => o === null) &&
    model.isFixed.every((f) => f === 0) &&
    model.earliest.every((e) => e === 0) &&
    model.latest.every((l) => l === model.horizon) &&
    model.uses.every((list) => list.length <= 1) &&
    model.capacity.every((c, r) =>
      model.uses.every((l) => l.every((u) => u.resource !== r || 2 * u.amount > c)),
    )
  );
}

/** swaps without gain until a descent has run dry: for each operation, and at most */
const STALE_EACH = 30;
const STALE_MOST = 3000;
/** swaps for which an order just given up stays forbidden, at least */
const TENURE = 8;
const ELITE = 5;

/** @param begin start of every operation in a plan to begin from, minutes */
export function shopSearch(model: Model, begin: Int32Array, random: Random): ShopSearch {
  const n = model.count;
  const p = model.minutes;
  const before = Array.from({ length: n }, (_, i) =>
    model.lagsIn[i]!.map((l) => ({ i: l.from, gap: l.min })),
  );
  const after = Array.from({ length: n }, (_, i) => model.lagsOut[i]!.map((l) => ({ i: l.to, gap: l.min })));
  const machineBefore = new Int32Array(n).fill(-1);
  const machineAfter = new Int32Array(n).fill(-1);
  const machines = [...model.capacity.keys()].map((r) =>
    [...p.keys()].filter((i) => model.uses[i]!.some((u) => u.resource === r)),
  );
  sequence(begin);
  const machineOf = (i: OperationIndex): number => model.uses[i]![0]?.resource ?? -1;
  const comesBack = model.lags.some((l) => machineOf(l.from) >= 0 && machineOf(l.from) === machineOf(l.to));
  const head = new Int32Array(n);
  const tail = new Int32Array(n);
  const order = new Int32Array(n);
  const waiting = new Int32Array(n);
  const tabu = new Int32Array(n * n);
  const stale = Math.min(STALE_MOST, 100 + STALE_EACH * n);
  let turn = 0;
  let lastGain = 0;
  let length = evaluate();
  let best = keep();
  /** the best orders of different descents, to come back to */
  const elite: { length: number; order: Int32Array }[] = [];
  let local = { length, order: machineBefore.slice() };

  function sequence(key: ArrayLike<number>): void {
    for (const list of machines) {
      list.sort((a, b) => key[a]! - key[b]!);
      list.forEach((i, k) => {
        machineBefore[i] = list[k - 1] ?? -1;
        machineAfter[i] = list[k + 1] ?? -1;
      });
    }
  }

  /** Any order that goes with the lags: operations drawn one by one from those that are free. */
  function shuffle(): void {
    const key = new Int32Array(n);
    const left = before.map((list) => list.length);
    const free = [...p.keys()].filter((i) => left[i] === 0);
    for (let k = 0; free.length > 0; k++) {
      const at = pick(random, free.length);
      const i = free[at]!;
      free[at] = free[free.length - 1]!;
      free.pop();
      key[i] = k;
      for (const a of after[i]!) {
        left[a.i]!--;
        if (left[a.i] === 0) free.push(a.i);
      }
    }
    sequence(key);
  }

  function headOf(i: OperationIndex, machine: ResourceIndex): number {
    let h = machine < 0 ? 0 : head[machine]! + p[machine]!;
    for (const b of before[i]!) h = Math.max(h, head[b.i]! + p[b.i]! + b.gap);
    return h;
  }
  function tailOf(i: OperationIndex, machine: ResourceIndex): number {
    let t = machine < 0 ? 0 : tail[machine]! + p[machine]!;
    for (const a of after[i]!) t = Math.max(t, tail[a.i]! + p[a.i]! + a.gap);
    return t;
  }

  /** Heads and tails by longest paths. @returns the last end; -1 when the orders make a circle */
  function evaluate(): number {
    let count = 0;
    for (let i = 0; i < n; i++) {
      waiting[i] = before[i]!.length + (machineBefore[i]! < 0 ? 0 : 1);
      if (waiting[i] === 0) order[count++] = i;
    }
    let last = 0;
    for (let k = 0; k < count; k++) {
      const i = order[k]!;
      head[i] = headOf(i, machineBefore[i]!);
      last = Math.max(last, head[i]! + p[i]!);
      for (const a of after[i]!) {
        waiting[a.i]!--;
        if (waiting[a.i] === 0) order[count++] = a.i;
      }
      const m = machineAfter[i]!;
      if (m < 0) continue;
      waiting[m]!--;
      if (waiting[m] === 0) order[count++] = m;
    }
    if (count < n) return -1;
    for (let k = n - 1; k >= 0; k--) tail[order[k]!] = tailOf(order[k]!, machineAfter[order[k]!]!);
    return last;
  }

  /** A critical path, at forks by chance. */
  function criticalPath(): number[] {
    const isCritical = (i: OperationIndex): boolean => head[i]! + p[i]! + (tail[i] ?? 0) === length;
    const starts = [...order].filter((i) => head[i] === 0 && isCritical(i));
    const path: number[] = [];
    let i: OperationIndex | undefined = starts[pick(random, starts.length)];
    while (i !== undefined) {
      path.push(i);
      const here: number = i;
      const end = head[here]! + p[here]!;
      const next = after[here]!.filter((a) => head[a.i] === end + a.gap && isCritical(a.i)).map((a) => a.i);
      const m = machineAfter[here]!;
      if (m >= 0 && head[m] === end && isCritical(m)) next.push(m);
      i = next[pick(random, next.length)];
    }
    return path;
  }

  /** First and last pairs of the blocks of one machine on the path; or every pair. */
  function swapsOn(path: readonly number[], isEvery = comesBack): [number, number][] {
    const swaps: [number, number][] = [];
    for (let from = 0; from < path.length;) {
      let to = from;
      while (to + 1 < path.length && machineAfter[path[to]!] === path[to + 1]) to++;
      // Where a job comes back to its machine, its own pair can stand at the end of a block: then every pair may help.
      if (isEvery) for (let k = from; k < to; k++) swaps.push([path[k]!, path[k + 1]!]);
      else if (to > from) {
        if (from > 0) swaps.push([path[from]!, path[from + 1]!]);
        if (to < path.length - 1 && (to - from > 1 || from === 0)) swaps.push([path[to - 1]!, path[to]!]);
      }
      from = to + 1;
    }
    return swaps;
  }

  function estimate(a: OperationIndex, b: OperationIndex): number {
    const headB = headOf(b, machineBefore[a]!);
    let headA = headB + p[b]!;
    for (const x of before[a]!) headA = Math.max(headA, head[x.i]! + p[x.i]! + x.gap);
    const tailA = tailOf(a, machineAfter[b]!);
    let tailB = tailA + p[a]!;
    for (const x of after[b]!) tailB = Math.max(tailB, tail[x.i]! + p[x.i]! + x.gap);
    return Math.max(headB + p[b]! + tailB, headA + p[a]! + tailA);
  }

  function swap(a: OperationIndex, b: OperationIndex): void {
    const x = machineBefore[a]!;
    const y = machineAfter[b]!;
    if (x >= 0) machineAfter[x] = b;
    if (y >= 0) machineBefore[y] = a;
    machineBefore[b] = x;
    machineAfter[b] = a;
    machineBefore[a] = b;
    machineAfter[a] = y;
  }

  /** Swaps neighbours, unless one of them must come first for other reasons. */
  function trySwap(a: OperationIndex, b: OperationIndex): void {
    swap(a, b);
    const now = evaluate();
    if (now >= 0) length = now;
    else {
      swap(b, a);
      length = evaluate();
    }
  }

  function move(): void {
    const path = criticalPath();
    const swaps = swapsOn(path);
    let chosen: [number, number] | null = null;
    let least = Infinity;
    for (const [a, b] of swaps) {
      const e = estimate(a, b) + random() * 0.5;
      const isTabu = tabu[b * n + a]! > turn && e >= best.cost / model.weights.makespan;
      if (!isTabu && e < least) {
        least = e;
        chosen = [a, b];
      }
    }
    if (chosen === null) {
      // From some orders the ends of blocks lead nowhere new; all pairs of critical paths reach the best (van Laarhoven et al. 1992).
      const pairs = swapsOn(path, true);
      chosen = pairs[pick(random, pairs.length)] ?? null;
    }
    if (chosen === null) return;
    tabu[chosen[0] * n + chosen[1]] = turn + TENURE + pick(random, TENURE);
    trySwap(chosen[0], chosen[1]);
  }

  /** A descent has run dry: on from one of the best orders, shaken, or from a new one. */
  function restart(): void {
    elite.push(local);
    elite.sort((a, b) => a.length - b.length);
    if (elite.length > ELITE) elite.length = ELITE;
    tabu.fill(0);
    if (random() < 0.3) {
      shuffle();
      length = evaluate();
    } else {
      const { order: old } = elite[pick(random, elite.length)]!;
      machineBefore.set(old);
      machineAfter.fill(-1);
      machineBefore.forEach((b, i) => {
        if (b >= 0) machineAfter[b] = i;
      });
      length = evaluate();
      for (let k = 4 + pick(random, 16); k > 0; k--) {
        const swaps = swapsOn(criticalPath());
        const one = swaps[pick(random, swaps.length)];
        if (!one) break;
        trySwap(one[0], one[1]);
      }
    }
    local = { length, order: machineBefore.slice() };
    lastGain = turn;
  }

  function keep(): Times & { cost: number } {
    return {
      start: head.slice(),
      end: head.map((h, i) => h + p[i]!),
      setup: new Int32Array(n),
      cost: model.weights.makespan * length,
    };
  }

  return {
    step(swaps) {
      let isBetter = false;
      for (let k = 0; k < swaps; k++) {
        turn++;
        if (turn - lastGain > stale) restart();
        else move();
        if (length >= local.length) continue;
        local = { length, order: machineBefore.slice() };
        lastGain = turn;
        if (model.weights.makespan * length >= best.cost) continue;
        best = keep();
        isBetter = true;
      }
      return isBetter;
    },
    get best() {
      return best;
    },
  };
}
