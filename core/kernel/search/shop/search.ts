/**
 * Job shops: the plan is the order on every machine, and swapping neighbours on a critical path is all that can help (tabu search over the
 * ends of critical blocks, Nowicki & Smutnicki 1996; the estimate of a swap after Taillard 1994).
 */
import type { Times } from '../../prove/exact';
import type { Model } from '../../model/model';
import { pick, type Random } from '../../model/random';
import { MachineOrders, type Pair } from './orders';

/** swaps without gain until a descent has run dry: for each operation, and at most */
const STALE_EACH = 30;
const STALE_MOST = 3000;
/** swaps for which an order just given up stays forbidden, at least */
const TENURE = 8;
const ELITE = 5;

export class ShopSearch {
  private readonly orders: MachineOrders;
  private readonly tabu: Int32Array;
  private readonly stale: number;
  private turn = 0;
  private lastGain = 0;
  /** the best orders of different descents, to come back to */
  private readonly elite: { readonly length: number; readonly order: Int32Array }[] = [];
  private local: { readonly length: number; readonly order: Int32Array };
  private found: Times & { readonly cost: number };

  /** @param begin start of every operation in a plan to begin from, minutes */
  constructor(
    private readonly model: Model,
    begin: Int32Array,
    private readonly random: Random,
  ) {
    const { count } = model;
    this.orders = new MachineOrders(model, begin);
    this.tabu = new Int32Array(count * count);
    this.stale = Math.min(STALE_MOST, 100 + STALE_EACH * count);
    this.found = this.plan();
    this.local = this.here();
  }

  get best(): Times & { readonly cost: number } {
    return this.found;
  }

  /** @returns whether the best plan has become shorter */
  step(swaps: number): boolean {
    let isBetter = false;
    for (let k = 0; k < swaps; k++) {
      this.turn++;
      if (this.turn - this.lastGain > this.stale) this.restart();
      else this.move();
      if (this.orders.length >= this.local.length) continue;
      this.local = this.here();
      this.lastGain = this.turn;
      if (this.cost() >= this.found.cost) continue;
      this.found = this.plan();
      isBetter = true;
    }
    return isBetter;
  }

  private move(): void {
    const { orders, random, tabu, turn, model } = this;
    const path = orders.criticalPath(random);
    let chosen: Pair | null = null;
    let least = Infinity;
    for (const pair of orders.pairsOn(path)) {
      const e = orders.estimate(pair) + random() * 0.5;
      const isTabu =
        tabu[pair[1] * model.count + pair[0]]! > turn && e >= this.found.cost / model.weights.makespan;
      if (!isTabu && e < least) {
        least = e;
        chosen = pair;
      }
    }
    if (chosen === null) {
      // From some orders the ends of blocks lead nowhere new; all pairs of critical paths reach the best (van Laarhoven et al. 1992).
      const pairs = orders.pairsOn(path, true);
      chosen = pairs[pick(random, pairs.length)] ?? null;
    }
    if (chosen === null) return;
    tabu[chosen[0] * model.count + chosen[1]] = turn + TENURE + pick(random, TENURE);
    orders.swap(chosen);
  }

  /** A descent has run dry: on from one of the best orders, shaken, or from a new one. */
  private restart(): void {
    const { elite, orders, random } = this;
    elite.push(this.local);
    elite.sort((a, b) => a.length - b.length);
    if (elite.length > ELITE) elite.length = ELITE;
    this.tabu.fill(0);
    if (random() < 0.3) orders.shuffle(random);
    else {
      orders.restore(elite[pick(random, elite.length)]!.order);
      for (let k = 4 + pick(random, 16); k > 0; k--) {
        const pairs = orders.pairsOn(orders.criticalPath(random));
        const one = pairs[pick(random, pairs.length)];
        if (!one) break;
        orders.swap(one);
      }
    }
    this.local = this.here();
    this.lastGain = this.turn;
  }

  private here(): { readonly length: number; readonly order: Int32Array } {
    return { length: this.orders.length, order: this.orders.kept() };
  }

  private cost(): number {
    return this.model.weights.makespan * this.orders.length;
  }

  private plan(): Times & { readonly cost: number } {
    const { head } = this.orders;
    return {
      start: head.slice(),
      end: head.map((h, i) => h + this.model.minutes[i]!),
      setup: new Int32Array(this.model.count),
      cost: this.cost(),
    };
  }
}
