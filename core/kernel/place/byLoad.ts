/** Goes on with the load in hand while there is anything for it that does not press much less than all else. */
import type { Model } from '../model/model';
import type { Minute, OperationIndex } from '../model/units';
import { KeyHeap, type Queue } from './keyHeap';

/** What no load is taken up for. */
const NO_LOAD = -1;

export class ByLoad implements Queue {
  private readonly piles = new Map<number, KeyHeap>();
  private inHand = NO_LOAD;

  /**
   * @param key by operation, in minutes: what presses most has the least
   * @param patience so many minutes less may press what goes on with the load in hand
   */
  constructor(
    private readonly model: Pick<Model, 'runsOn' | 'family'>,
    private readonly key: Float64Array,
    private readonly patience: Minute,
  ) {}

  push(i: OperationIndex): void {
    const load = this.loadOf(i);
    let pile = this.piles.get(load);
    if (!pile) this.piles.set(load, (pile = new KeyHeap(this.key)));
    pile.push(i);
  }

  pop(): OperationIndex | undefined {
    const own = this.inHand === NO_LOAD ? undefined : this.piles.get(this.inHand);
    const pressing = this.pressing();
    const goesOn = this.least(own) <= this.least(pressing) + this.patience;
    const next = (own && goesOn ? own : pressing)?.pop();
    if (next === undefined) return undefined;
    const load = this.loadOf(next);
    if (load !== NO_LOAD) this.inHand = load;
    return next;
  }

  /** The pile with what presses most. */
  private pressing(): KeyHeap | undefined {
    let best: KeyHeap | undefined;
    for (const pile of this.piles.values()) if (this.least(pile) < this.least(best)) best = pile;
    return best;
  }

  private least(pile: KeyHeap | undefined): number {
    const top = pile?.top;
    return top === undefined ? Infinity : this.key[top]!;
  }

  private loadOf(i: OperationIndex): number {
    return this.model.runsOn[i]!.length > 0 ? this.model.family[i]! : NO_LOAD;
  }
}
