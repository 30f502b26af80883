/**
 * Exact search for small problems: depth first over the decisions that make a plan. For a given order on every tool (and
 * whether the tool is still loaded or clean again) and a given order of whatever competes for a place, all rules have the form
 * "no sooner than a rising function of other times", so that there is one earliest plan, found by repetition to a fixpoint. What
 * it costs bounds every plan that shares the decisions. Soft closings, which reward being late, are decided by lowering
 * their overrun step by step.
 */
import { earliestAfter, earliestBefore, ticksBetween, type DryingClock } from '../model/dryingClock';
import { startFor } from '../model/startFor';
import { change, type Hold, type Lag, type Model } from '../model/model';
import { intervalAfter, NEVER, nextFit, nextOpen, pausableEnd } from '../model/openHours';
import type { Bounds } from './propagate';
import type { Minute, OperationIndex, ResourceIndex } from '../model/units';

export interface Times {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
}

export interface ExactSearch {
  /** Looks at up to so many nodes. */
  step(nodes: number): void;
  /** Nothing is left to try: `best` is optimal, or there is no plan (cheaper than the given limit). */
  readonly isComplete: boolean;
  readonly best: (Times & { readonly cost: number }) | null;
  readonly nodes: number;
  /** A plan found elsewhere: nothing dearer is looked for. */
  lowerLimit(cost: number): void;
}

/** "A point of `to` is no sooner than a point of `from` plus a gap" (or, with a lag, than its window allows). */
interface Arc {
  readonly to: OperationIndex;
  readonly toEnd: boolean;
  readonly from: OperationIndex;
  readonly fromEnd: boolean;
  readonly gap: number;
  readonly clock: DryingClock | null;
  readonly isWindow: boolean;
  /** the point of `to` is no sooner than the opening of the session (of this resource) in which `from` begins; -1: any other */
  readonly session: number;
  readonly next: Arc | null;
}

/** What takes up room: an operation with its setup, or a hold. */
interface Activity {
  readonly operation: OperationIndex;
  readonly hold: Hold | null;
  readonly amount: number;
  readonly from: OperationIndex;
  readonly to: OperationIndex;
}

interface Node {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
  readonly arcs: Arc | null;
  /** for each tool its sequence so far; null: not begun */
  readonly sequences: readonly (readonly number[])[];
  readonly isSequenced: Uint8Array;
  /** for each resource whose runs count the order in which it is used so far */
  readonly rows: readonly (readonly number[])[];
  /** runs that these begin */
  readonly runs: number;
  /** overrun that is taken as unavoidable, by lag */
  readonly overrun: ReadonlyMap<Lag, number>;
  readonly cost: number;
}

const EQUAL = 1e-7;
const SOFTER = 1e-3;

export function exactSearch(model: Model, bounds: Bounds, order: Int32Array): ExactSearch {
  const { count, weights } = model;
  const soft = model.lags.filter((l) => l.prefer !== Infinity);
  const onTool = model.tools.map((tool, r): number[] =>
    tool === null ? [] : [...order].filter((i) => model.tool[i] === r && model.minutes[i]! > 0),
  );
  /** in which order the same is gone on with is a decision, too: by resource whose runs count */
  const counted = model.capacity.map((_, r) =>
    weights.runs > 0 && model.runsOn.some((on) => on.includes(r)) ? 1 : 0,
  );
  const onRuns = [...counted].map((is, r): number[] =>
    is === 0 ? [] : [...order].filter((i) => model.runsOn[i]!.includes(r)),
  );
  let limit = Infinity;
  let best: (Times & { cost: number }) | null = null;
  let nodes = 0;
  const stack: Node[] = [];
  const root = settle({
    start: bounds.startLow.slice(),
    end: bounds.endLow.slice(),
    setup: new Int32Array(count),
    arcs: null,
    sequences: model.tools.map(() => []),
    isSequenced: new Uint8Array(count),
    rows: model.tools.map(() => []),
    runs: 0,
    overrun: new Map(),
    cost: 0,
  });
  if (root !== null) stack.push(root);

  function step(many: number): void {
    for (let k = 0; k < many && stack.length > 0; k++) {
      nodes++;
      const node = stack.pop()!;
      if (!isWorthwhile(node.cost)) continue;
      const children = branch(node).filter((n): n is Node => n !== null && isWorthwhile(n.cost));
      children.sort((a, b) => b.cost - a.cost);
      stack.push(...children);
    }
  }

  function isWorthwhile(cost: number): boolean {
    return limit === Infinity || cost < limit - EQUAL * Math.max(1, Math.abs(limit));
  }

  /** The next decisions that a node leaves open; none at a plan, which is kept. */
  function branch(node: Node): (Node | null)[] {
    const tool = onTool.findIndex((list, r) => node.sequences[r]!.length < list.length);
    if (tool >= 0) return appendOne(node, tool);
    const resource = onRuns.findIndex((list, r) => node.rows[r]!.length < list.length);
    if (resource >= 0) return appendToRuns(node, resource);
    const clash = firstClash(node);
    if (clash !== null)
      return clash.flatMap((x) => [
        ...clash.flatMap((y) => (x === y ? [] : [settle(before(node, x, y))])),
        ...(x.hold === null ? [] : [settle(without(node, x.hold))]),
      ]);
    return finish(node);
  }

  /** Every operation that may come next on the tool, loaded or after it stood long enough to be clean. */
  function appendOne(node: Node, r: ResourceIndex): (Node | null)[] {
    const tool = model.tools[r]!;
    const sequence = node.sequences[r]!;
    const last = sequence[sequence.length - 1];
    const rest = onTool[r]!.filter((i) => !node.isSequenced[i]);
    return rest.flatMap((i) => {
      const clean = change(tool, 0, model.family[i]!);
      const isSequenced = node.isSequenced.slice();
      isSequenced[i] = 1;
      const sequences = node.sequences.map((s, k) => (k === r ? [...s, i] : s));
      const child = (s: number, arcs: Arc | null): Node | null => {
        const setup = node.setup.slice();
        setup[i] = model.isFixed[i] ? 0 : s;
        let all = arcs;
        for (const u of rest)
          if (u !== i) all = arc(all, { to: u, from: i, gap: leastChange(tool, rest, u, i) });
        return settle({ ...node, setup, isSequenced, sequences, arcs: all });
      };
      if (last === undefined) return [child(clean, node.arcs)];
      if (model.isFixed[i]) return [child(0, arc(node.arcs, { to: i, from: last, gap: 0 }))];
      const s = change(tool, model.family[last]!, model.family[i]!);
      const loaded = arc(arc(node.arcs, { to: i, from: last, gap: s }), {
        to: last,
        toEnd: true,
        from: i,
        fromEnd: false,
        gap: -s - tool.idle,
      });
      if (tool.idle === Infinity) return [child(s, arc(node.arcs, { to: i, from: last, gap: s }))];
      const stood = arc(node.arcs, { to: i, from: last, gap: Math.max(s + tool.idle + 1, clean) });
      return [child(s, loaded), child(clean, stood)];
    });
  }

  /** Every operation that may come next where runs count: it goes on with the run of the last, or begins one. */
  function appendToRuns(node: Node, r: ResourceIndex): (Node | null)[] {
    const row = node.rows[r]!;
    const last = row[row.length - 1] ?? -1;
    // On a tool the order stands.
    const next =
      model.tools[r] === null
        ? onRuns[r]!.filter((i) => !row.includes(i))
        : [node.sequences[r]![row.length]!];
    return next.flatMap((i) => {
      if (model.isFixed[i] && last >= 0 && model.isFixed[last] && isSooner(i, last)) return [];
      const rows = node.rows.map((s, k) => (k === r ? [...s, i] : s));
      const follows =
        last < 0 || (model.isFixed[last] && model.isFixed[i])
          ? node.arcs
          : arc(node.arcs, { to: i, from: last, gap: node.setup[i]! });
      if (model.isFixed[i]) return [settle({ ...node, rows, arcs: follows })];
      const anew = settle({ ...node, rows, arcs: follows, runs: node.runs + 1 });
      if (last < 0 || model.family[last] !== model.family[i] || standsAlone(r, last)) return [anew];
      const goesOn = arc(follows, { to: last, from: i, fromEnd: false, gap: 0, session: r });
      return [settle({ ...node, rows, arcs: goesOn }), anew];
    });
  }

  function isSooner(a: number, b: number): boolean {
    return (
      model.fixedStart[a]! < model.fixedStart[b]! ||
      (model.fixedStart[a] === model.fixedStart[b] && model.fixedEnd[a]! < model.fixedEnd[b]!)
    );
  }

  /** History that ran outside every open interval. */
  function standsAlone(r: ResourceIndex, i: OperationIndex): boolean {
    return model.isFixed[i] === 1 && openingBefore(r, model.fixedStart[i]!) > model.fixedStart[i]!;
  }

  /** When the session opened in which a minute lies; later than the minute: the next session. */
  function openingBefore(r: ResourceIndex, t: Minute): number {
    const open = model.openOn[r]!;
    return open === null ? 0 : (open.from[intervalAfter(open, t)] ?? NEVER);
  }

  /** The least setup before `u` when it comes somewhere after `i`. */
  function leastChange(
    tool: NonNullable<Model['tools'][number]>,
    rest: readonly number[],
    u: number,
    i: OperationIndex,
  ): number {
    if (model.isFixed[u]) return 0;
    let least = change(tool, model.family[i]!, model.family[u]!);
    if (tool.idle !== Infinity) least = Math.min(least, change(tool, 0, model.family[u]!));
    for (const other of rest)
      if (other !== u && other !== i)
        least = Math.min(least, change(tool, model.family[other]!, model.family[u]!));
    return least;
  }

  /** Brings a node to its earliest times. @returns null when a bound is passed */
  function settle(draft: Node): Node | null {
    const start = draft.start.slice();
    const end = draft.end.slice();
    const into: (Arc[] | undefined)[] = new Array<Arc[] | undefined>(count);
    for (let a = draft.arcs; a !== null; a = a.next) (into[a.to] ??= []).push(a);
    for (let isMoving = true; isMoving;) {
      isMoving = false;
      for (let k = 0; k < count; k++) {
        const i = order[k]!;
        let low = start[i]!;
        let endLow = end[i]!;
        for (const lag of model.lagsIn[i]!)
          low = Math.max(low, earliestAfter(lag.clock, end[lag.from]!, lag.min));
        for (const lag of model.lagsOut[i]!)
          if (lag.max !== Infinity)
            endLow = Math.max(endLow, earliestBefore(lag.clock, start[lag.to]!, lag.max));
        for (const a of into[i] ?? []) {
          const point = a.fromEnd ? end[a.from]! : start[a.from]!;
          const value = a.isWindow
            ? Math.ceil(earliestBefore(a.clock, point, a.gap) - 1e-9)
            : a.session >= 0
              ? openingBefore(a.session, point)
              : point + a.gap;
          if (a.toEnd) endLow = Math.max(endLow, value);
          else low = Math.max(low, value);
        }
        if (model.isFixed[i]) {
          if (low > start[i]! || endLow > end[i]!) return null;
          continue;
        }
        const fit = earliest(i, low, endLow, draft.setup[i]!);
        if (fit === null || fit.start > bounds.startHigh[i]! || fit.end > bounds.endHigh[i]!) return null;
        if (fit.start === start[i] && fit.end === end[i]) continue;
        start[i] = fit.start;
        end[i] = fit.end;
        isMoving = true;
      }
    }
    return { ...draft, start, end, cost: costOf(start, end, draft) };
  }

  function earliest(
    i: OperationIndex,
    low: Minute,
    endLow: Minute,
    setup: number,
  ): { start: Minute; end: Minute } | null {
    const minutes = model.minutes[i]!;
    const open = model.open[i]!;
    let t = Math.max(low, startFor(model, i, endLow));
    if (minutes === 0) return { start: Math.max(t, endLow), end: Math.max(t, endLow) };
    for (;;) {
      const start = model.pausable[i] ? nextOpen(open, t, setup) : nextFit(open, t, setup, minutes);
      if (start >= NEVER) return null;
      const end = model.pausable[i] ? pausableEnd(open, start, minutes) : start + minutes;
      if (end >= endLow) return { start, end };
      t = start + 1;
    }
  }

  /** What the plan costs at least, given these earliest times. */
  function costOf(start: Int32Array, end: Int32Array, node: Node): number {
    let total = 0;
    for (const d of model.dues)
      total +=
        weights.tardiness * d.weight * Math.max(0, end[d.ready]! - d.due) +
        weights.completion * d.weight * end[d.ready]!;
    if (weights.makespan > 0) total += weights.makespan * end.reduce((a, b) => Math.max(a, b), 0);
    let setups = 0;
    model.tools.forEach((tool, r) => {
      if (tool === null) return;
      const rest = onTool[r]!.filter((i) => !node.isSequenced[i]);
      for (const i of node.sequences[r]!) setups += node.setup[i]!;
      for (const i of rest) {
        if (model.isFixed[i]) continue;
        let least = change(tool, 0, model.family[i]!);
        for (const other of onTool[r]!)
          if (other !== i) least = Math.min(least, change(tool, model.family[other]!, model.family[i]!));
        setups += least;
      }
    });
    let overrun = 0;
    for (const minutes of node.overrun.values()) overrun += minutes;
    return total + weights.setup * setups + weights.overrun * overrun + weights.runs * leastRuns(node);
  }

  /** The runs so far, and one for every family that is still to come and that nothing so far goes on with. */
  function leastRuns(node: Node): number {
    let runs = node.runs;
    onRuns.forEach((list, r) => {
      const row = node.rows[r]!;
      const rest = list.filter((i) => !row.includes(i));
      const free = new Set(rest.filter((i) => model.isFixed[i]).map((i) => model.family[i]));
      const last = row[row.length - 1];
      if (last !== undefined) free.add(model.family[last]);
      runs += new Set(rest.map((i) => model.family[i]).filter((f) => !free.has(f))).size;
    });
    return runs;
  }

  /** A smallest set of activities that together are too many for a resource at some minute; null when all fits. */
  function firstClash(node: Node): Activity[] | null {
    let first = Infinity;
    let found: Activity[] | null = null;
    for (let r = 0; r < model.capacity.length; r++) {
      const activities = activitiesOn(node, r).sort((a, b) => a.from - b.from);
      for (const at of activities) {
        if (at.from >= first) break;
        const active = activities.filter((a) => a.from <= at.from && a.to > at.from);
        let sum = active.reduce((total, a) => total + a.amount, 0);
        if (sum <= model.capacity[r]!) continue;
        active.sort((a, b) => a.amount - b.amount);
        const needed: Activity[] = [];
        for (const a of active)
          if (sum - a.amount > model.capacity[r]!) sum -= a.amount;
          else needed.push(a);
        first = at.from;
        found = needed;
        break;
      }
    }
    return found;
  }

  function activitiesOn(node: Node, r: ResourceIndex): Activity[] {
    const list: Activity[] = [];
    for (let i = 0; i < count; i++)
      for (const use of model.uses[i]!)
        if (use.resource === r)
          list.push({
            operation: i,
            hold: null,
            amount: use.amount,
            from: node.start[i]! - node.setup[i]!,
            to: node.end[i]!,
          });
    for (const hold of model.holds)
      if (hold.resource === r && hold.from !== hold.to && node.end[hold.from]! < node.start[hold.to]!)
        list.push({
          operation: -1,
          hold,
          amount: hold.amount,
          from: node.end[hold.from]!,
          to: node.start[hold.to]!,
        });
    return list.filter((a) => a.from < a.to);
  }

  /** The node in which `x` is over before `y` begins. */
  function before(node: Node, x: Activity, y: Activity): Node {
    const over = x.hold === null ? { from: x.operation, fromEnd: true } : { from: x.hold.to, fromEnd: false };
    const begin =
      y.hold === null
        ? { to: y.operation, toEnd: false, gap: node.setup[y.operation]! }
        : { to: y.hold.from, toEnd: true, gap: 0 };
    return { ...node, arcs: arc(node.arcs, { ...over, ...begin }) };
  }

  /** The node in which nothing is held: what begins the hold ends only when what ends it has begun. */
  function without(node: Node, { from, to }: Hold): Node {
    return { ...node, arcs: arc(node.arcs, { to: from, toEnd: true, from: to, fromEnd: false, gap: 0 }) };
  }

  /** A plan: kept if it is the best. Soft closings that run over are tried tighter. */
  function finish(node: Node): (Node | null)[] {
    let real = node.cost;
    let looser: Lag | null = null;
    let most = 0;
    for (const lag of soft) {
      const over = Math.max(
        0,
        ticksBetween(lag.clock, node.end[lag.from]!, node.start[lag.to]!) - lag.prefer,
      );
      const taken = node.overrun.get(lag) ?? 0;
      real += weights.overrun * Math.max(0, over - taken);
      if (over > taken + 1e-6 && (looser === null || over > most)) {
        looser = lag;
        most = over;
      }
    }
    if (isWorthwhile(real)) {
      limit = real;
      best = { start: node.start, end: node.end, setup: node.setup, cost: real };
    }
    if (looser === null) return [];
    const { from, to, clock, prefer } = looser;
    const window = {
      to: from,
      toEnd: true,
      from: to,
      fromEnd: false,
      gap: prefer + most - SOFTER,
      clock,
      isWindow: true,
    };
    const accepted = new Map(node.overrun).set(looser, most);
    return [settle({ ...node, arcs: arc(node.arcs, window) }), settle({ ...node, overrun: accepted })];
  }

  return {
    step,
    get isComplete() {
      return stack.length === 0;
    },
    get best() {
      return best;
    },
    get nodes() {
      return nodes;
    },
    lowerLimit(cost) {
      limit = Math.min(limit, cost);
    },
  };
}

function arc(
  next: Arc | null,
  parts: { to: OperationIndex; from: OperationIndex; gap: number } & Partial<Arc>,
): Arc {
  return { toEnd: false, fromEnd: true, clock: null, isWindow: false, session: -1, ...parts, next };
}
