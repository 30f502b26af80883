/**
 * Values dealt to pieces so that neighbours differ: a colouring of a graph in several traits at once, every value used about equally and
 * no more minutes than there are. Small ones are settled by trying everything, large ones by a seeded search.
 */
import { seededRandom } from '#core/kernel';

export interface AssignTask {
  readonly pieces: number;
  /** by trait how many values it has */
  readonly values: readonly number[];
  /** pairs of pieces that stand side by side */
  readonly neighbours: readonly (readonly [number, number])[];
  /** traits in which such a pair is to differ */
  readonly apart: number;
  /** by piece what it has already, by trait; null: it is dealt */
  readonly fixed: readonly (readonly number[] | null)[];
  /** minutes that a value takes, by trait and value */
  readonly minutes: readonly (readonly number[])[];
  /** that all pieces may take together */
  readonly mostMinutes: number;
}

export interface Assigned {
  /** by piece its value of each trait */
  readonly of: readonly (readonly number[])[];
  /** pairs that differ in too few traits */
  readonly alike: readonly (readonly [number, number])[];
  /** minutes beyond what all may take */
  readonly over: number;
  /** sum over traits and values of (uses − fair share)² */
  readonly unevenness: number;
  /** no other deal is better: nobody too alike, then minutes, then evenness */
  readonly isBest: boolean;
}

/** Nobody alike comes before minutes, and those before evenness. */
const ALIKE = 1e9;
const OVER = 1e4;
/** Nodes that are tried before the search by chance takes over. */
const MOST_NODES = 60_000;

/** @param seed the same gives the same deal; another one, another among those that are as good */
export function assign(task: AssignTask, seed: number): Assigned {
  const deal = new Deal(task);
  const least = deal.least();
  const random = seededRandom(seed);
  const free = task.fixed.flatMap((f, k) => (f === null ? [k] : []));
  deal.fill(free, random);
  if (free.length > 0 && deal.cost() > least) searched(deal, free, random, least);
  const isProved = deal.cost() <= least + 1e-9;
  const isBest = isProved || tried(deal, free, least);
  return { of: deal.of.map((v) => [...v]), ...deal.judged(), isBest };
}

/** A deal under way: what changes with a value is counted as it changes. */
class Deal {
  readonly of: number[][];
  private readonly uses: number[][];
  private readonly beside: number[][];
  private minutes = 0;
  private lacking = 0;
  private uneven = 0;

  constructor(readonly task: AssignTask) {
    this.of = task.fixed.map((f) => (f ? [...f] : task.values.map(() => 0)));
    this.beside = Array.from({ length: task.pieces }, () => []);
    for (const [a, b] of task.neighbours) {
      this.beside[a]!.push(b);
      this.beside[b]!.push(a);
    }
    this.uses = task.values.map((n) => Array.from({ length: n }, () => 0));
    this.of.forEach((values) =>
      values.forEach((v, t) => {
        this.uses[t]![v]!++;
        this.minutes += task.minutes[t]![v]!;
      }),
    );
    this.lacking = this.task.neighbours.reduce((sum, [a, b]) => sum + this.lack(a, b), 0);
    this.uneven = this.unevenness();
  }

  /** Traits that a pair lacks. A trait more than there are can't be asked for. */
  private lack(a: number, b: number): number {
    let differ = 0;
    for (let t = 0; t < this.task.values.length; t++) if (this.of[a]![t] !== this.of[b]![t]) differ++;
    return Math.max(0, this.task.apart - differ);
  }

  /** Traits that a piece lacks towards those of its neighbours that count. */
  lackOf(piece: number, counts: (other: number) => boolean): number {
    return this.beside[piece]!.reduce((sum, b) => (counts(b) ? sum + this.lack(piece, b) : sum), 0);
  }

  private unevenness(): number {
    return this.uses.reduce((sum, uses) => sum + spread(uses, this.task.pieces), 0);
  }

  get over(): number {
    return Math.max(0, this.minutes - this.task.mostMinutes);
  }

  cost(): number {
    return this.lacking * ALIKE + this.over * OVER + this.uneven;
  }

  /** What the search by chance walks on: the same wishes, close enough together that it can pass over a worse deal. */
  energy(): number {
    return this.lacking * 12 + Math.min(50, this.over) + this.uneven;
  }

  /** No deal costs less: every trait as even as whole pieces let it be. */
  least(): number {
    return this.task.values.reduce((sum, n, t) => {
      const uses = Array.from({ length: n }, () => 0);
      let free = 0;
      this.task.fixed.forEach((f) => (f ? uses[f[t]!]!++ : free++));
      for (; free > 0; free--) uses[uses.indexOf(Math.min(...uses))]!++;
      return sum + spread(uses, this.task.pieces);
    }, 0);
  }

  set(piece: number, trait: number, value: number): void {
    const was = this.of[piece]![trait]!;
    if (was === value) return;
    const uses = this.uses[trait]!;
    for (const b of this.beside[piece]!) this.lacking -= this.lack(piece, b);
    this.of[piece]![trait] = value;
    for (const b of this.beside[piece]!) this.lacking += this.lack(piece, b);
    // (u − 1 − s)² − (u − s)² of the one, (u + 1 − s)² − (u − s)² of the other.
    this.uneven += 2 * (uses[value]! - uses[was]! + 1);
    uses[was]!--;
    uses[value]!++;
    this.minutes += this.task.minutes[trait]![value]! - this.task.minutes[trait]![was]!;
  }

  /** A first deal: piece by piece, each trait at the value that is used least, chance deciding among equals. */
  fill(free: readonly number[], random: () => number): void {
    this.task.values.forEach((n, t) => {
      const order = shuffled(free, random);
      const uses = Array.from({ length: n }, () => 0);
      this.task.fixed.forEach((f) => f && uses[f[t]!]!++);
      for (const piece of order) {
        const fewest = Math.min(...uses);
        const open = uses.flatMap((u, v) => (u === fewest ? [v] : []));
        const value = open[Math.floor(random() * open.length)]!;
        uses[value]!++;
        this.set(piece, t, value);
      }
    });
  }

  judged(): Omit<Assigned, 'of' | 'isBest'> {
    return {
      alike: this.task.neighbours.filter(([a, b]) => this.lack(a, b) > 0),
      over: this.over,
      unevenness: this.unevenness(),
    };
  }

  take(of: readonly (readonly number[])[]): void {
    of.forEach((values, k) => values.forEach((v, t) => this.set(k, t, v)));
  }
}

function spread(uses: readonly number[], pieces: number): number {
  return uses.reduce((sum, u) => sum + (u - pieces / uses.length) ** 2, 0);
}

function shuffled<T>(list: readonly T[], random: () => number): T[] {
  const out = [...list];
  for (let k = out.length - 1; k > 0; k--) {
    const j = Math.floor(random() * (k + 1));
    [out[k], out[j]] = [out[j]!, out[k]!];
  }
  return out;
}

/** Tries for each free trait of a piece, and at the most. */
const TRIES = 1000;
const MOST_TRIES = 400_000;
const HOT = 6;
const COLD = 0.15;

/** Values given anew or swapped between two pieces, worse deals passed over less and less; the best one met is taken. */
function searched(deal: Deal, free: readonly number[], random: () => number, least: number): void {
  const { values } = deal.task;
  const tries = Math.min(MOST_TRIES, TRIES * free.length * values.length);
  let best = deal.of.map((v) => [...v]);
  let bestCost = deal.cost();
  const any = (n: number): number => Math.floor(random() * n);
  for (let k = 0; k < tries && bestCost > least + 1e-9; k++) {
    const heat = HOT * (COLD / HOT) ** (k / tries);
    const before = deal.energy();
    const trait = any(values.length);
    const a = free[any(free.length)]!;
    const b = free[any(free.length)]!;
    const [va, vb] = [deal.of[a]![trait]!, deal.of[b]![trait]!];
    const isSwap = va !== vb && random() < 0.6;
    if (isSwap) {
      deal.set(a, trait, vb);
      deal.set(b, trait, va);
    } else deal.set(a, trait, any(values[trait]!));
    const rise = deal.energy() - before;
    if (rise > 0 && random() >= Math.exp(-rise / heat)) {
      deal.set(a, trait, va);
      if (isSwap) deal.set(b, trait, vb);
    } else if (deal.cost() < bestCost - 1e-9) {
      bestCost = deal.cost();
      best = deal.of.map((v) => [...v]);
    }
  }
  deal.take(best);
}

/**
 * Every deal of the free pieces, piece by piece, as far as it could still be better than the one in hand, which it betters where it can.
 * @returns whether all were tried
 */
function tried(deal: Deal, free: readonly number[], least: number): boolean {
  const { task } = deal;
  const ways = task.values.reduce((product, n) => product * n, 1);
  if (free.length * Math.log(ways) > Math.log(1e12)) return false;
  let best = deal.of.map((v) => [...v]);
  let bestCost = deal.cost();
  let nodes = 0;
  const at = new Set(task.fixed.flatMap((f, k) => (f ? [k] : [])));
  const trying = new Deal(task);
  const go = (k: number, lacking: number): boolean => {
    if (bestCost <= least + 1e-9) return true;
    if (++nodes > MOST_NODES) return false;
    if (k === free.length) {
      const cost = trying.cost();
      if (cost < bestCost - 1e-9) {
        bestCost = cost;
        best = trying.of.map((v) => [...v]);
      }
      return true;
    }
    const piece = free[k]!;
    at.add(piece);
    let isWhole = true;
    for (let way = 0; way < ways && isWhole; way++) {
      let rest = way;
      task.values.forEach((n, t) => {
        trying.set(piece, t, rest % n);
        rest = Math.floor(rest / n);
      });
      const more = lacking + lackAt(trying, piece, at);
      if (more * ALIKE + least < bestCost - 1e-9) isWhole = go(k + 1, more);
    }
    at.delete(piece);
    return isWhole;
  };
  const isWhole = go(0, lackAmong(trying, at));
  deal.take(best);
  return isWhole;
}

function lackAt(deal: Deal, piece: number, at: ReadonlySet<number>): number {
  return deal.lackOf(piece, (other) => other !== piece && at.has(other));
}

function lackAmong(deal: Deal, at: ReadonlySet<number>): number {
  let sum = 0;
  for (const piece of at) sum += deal.lackOf(piece, (other) => other < piece && at.has(other));
  return sum;
}
