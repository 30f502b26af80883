/**
 * Exact search for small problems: depth first over the decisions that make a plan. For a given order on every tool (and
 * whether the tool is still loaded or clean again) and a given order of whatever competes for a place, all rules have the form
 * "no sooner than a rising function of other times", so that there is one earliest plan, found by repetition to a fixpoint. What
 * it costs bounds every plan that shares the decisions. Soft closings, which reward being late, are decided by lowering
 * their overrun step by step.
 */
import { ticksBetween } from '../../model/dryingClock';
import type { Lag, Model } from '../../model/model';
import type { Bounds } from '../propagate';
import { waysOutOfClash } from './clash';
import { leastCost } from './cost';
import { atItsEarliest } from './earliest';
import { arc, groundOf, undecided, type Ground, type Node } from './node';
import { nextInRuns, nextOnTool } from './orders';

export interface Times {
  readonly start: Int32Array;
  readonly end: Int32Array;
  readonly setup: Int32Array;
}

const EQUAL = 1e-7;
const SOFTER = 1e-3;

/** A node at its earliest times, and what it costs at least. */
interface Open {
  readonly node: Node;
  readonly cost: number;
}

export class ExactSearch {
  private readonly ground: Ground;
  private readonly soft: readonly Lag[];
  private readonly stack: Open[] = [];
  private limit = Infinity;
  private found: (Times & { readonly cost: number }) | null = null;
  private looked = 0;

  /** @param order a topological order of the operations */
  constructor(model: Model, bounds: Bounds, order: Int32Array) {
    this.ground = groundOf(model, bounds, order);
    this.soft = model.lags.filter((l) => l.prefer !== Infinity);
    this.stack.push(...this.settled([undecided(this.ground)]));
  }

  /** Looks at up to so many nodes. */
  step(nodes: number): void {
    for (let k = 0; k < nodes && this.stack.length > 0; k++) {
      this.looked++;
      const open = this.stack.pop()!;
      if (!this.isWorthwhile(open.cost)) continue;
      const children = this.settled(this.branch(open)).filter((n) => this.isWorthwhile(n.cost));
      children.sort((a, b) => b.cost - a.cost);
      this.stack.push(...children);
    }
  }

  /** Nothing is left to try: `best` is optimal, or there is no plan (cheaper than the given limit). */
  get isComplete(): boolean {
    return this.stack.length === 0;
  }

  get best(): (Times & { readonly cost: number }) | null {
    return this.found;
  }

  get nodes(): number {
    return this.looked;
  }

  /** A plan found elsewhere: nothing dearer is looked for. */
  lowerLimit(cost: number): void {
    this.limit = Math.min(this.limit, cost);
  }

  private isWorthwhile(cost: number): boolean {
    const { limit } = this;
    return limit === Infinity || cost < limit - EQUAL * Math.max(1, Math.abs(limit));
  }

  /** Those of some drafts that keep the bounds, at their earliest times. */
  private settled(drafts: readonly Node[]): Open[] {
    return drafts.flatMap((draft) => {
      const node = atItsEarliest(this.ground, draft);
      return node === null ? [] : [{ node, cost: leastCost(this.ground, node) }];
    });
  }

  /** The next decisions that a node leaves open; none at a plan, which is kept. */
  private branch({ node, cost }: Open): Node[] {
    const { ground } = this;
    const tool = ground.onTool.findIndex((list, r) => node.sequences[r]!.length < list.length);
    if (tool >= 0) return nextOnTool(ground, node, tool);
    const resource = ground.onRuns.findIndex((list, r) => node.rows[r]!.length < list.length);
    if (resource >= 0) return nextInRuns(ground, node, resource);
    return waysOutOfClash(ground.model, node) ?? this.finish(node, cost);
  }

  /** A plan: kept if it is the best. Soft closings that run over are tried tighter. */
  private finish(node: Node, cost: number): Node[] {
    const { weights } = this.ground.model;
    let real = cost;
    let looser: Lag | null = null;
    let most = 0;
    for (const lag of this.soft) {
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
    if (this.isWorthwhile(real)) {
      this.limit = real;
      this.found = { start: node.start, end: node.end, setup: node.setup, cost: real };
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
    return [
      { ...node, arcs: arc(node.arcs, window) },
      { ...node, overrun: accepted },
    ];
  }
}
