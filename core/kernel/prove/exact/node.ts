/** A node of the exact search: the decisions made so far, and the earliest times that go with them. */
import type { DryingClock } from '../../model/dryingClock';
import type { Hold, Lag, Model } from '../../model/model';
import type { OperationIndex } from '../../model/units';
import type { Bounds } from '../propagate';

/** "A point of `to` is no sooner than a point of `from` plus a gap" (or, with a lag, than its window allows). */
export interface Arc {
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

export interface Node {
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
}

/** What all nodes of a search stand on. */
export interface Ground {
  readonly model: Model;
  readonly bounds: Bounds;
  /** a topological order */
  readonly order: Int32Array;
  /** by tool: what it works on */
  readonly onTool: readonly (readonly number[])[];
  /** by resource whose runs count: what uses it; in which order the same is gone on with is a decision, too */
  readonly onRuns: readonly (readonly number[])[];
}

export function groundOf(model: Model, bounds: Bounds, order: Int32Array): Ground {
  const onTool = model.tools.map((tool, r): number[] =>
    tool === null ? [] : [...order].filter((i) => model.tool[i] === r && model.minutes[i]! > 0),
  );
  const isCounted = (r: number): boolean =>
    model.weights.runs > 0 && model.runsOn.some((on) => on.includes(r));
  const onRuns = Array.from(model.capacity, (_, r): number[] =>
    isCounted(r) ? [...order].filter((i) => model.runsOn[i]!.includes(r)) : [],
  );
  return { model, bounds, order, onTool, onRuns };
}

/** Nothing is decided yet. */
export function undecided({ model, bounds }: Ground): Node {
  return {
    start: bounds.startLow.slice(),
    end: bounds.endLow.slice(),
    setup: new Int32Array(model.count),
    arcs: null,
    sequences: model.tools.map(() => []),
    isSequenced: new Uint8Array(model.count),
    rows: model.tools.map(() => []),
    runs: 0,
    overrun: new Map(),
  };
}

/** One more decision in front of others. */
export function arc(
  next: Arc | null,
  parts: { to: OperationIndex; from: OperationIndex; gap: number } & Partial<Arc>,
): Arc {
  return { toEnd: false, fromEnd: true, clock: null, isWindow: false, session: -1, ...parts, next };
}

/** The node in which nothing is held: what begins the hold ends only when what ends it has begun. */
export function without(node: Node, { from, to }: Hold): Node {
  return { ...node, arcs: arc(node.arcs, { to: from, toEnd: true, from: to, fromEnd: false, gap: 0 }) };
}
