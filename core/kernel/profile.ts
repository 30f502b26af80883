/**
 * How much of a resource is taken at every minute. Minutes are kept in chunks, each with its own sum and
 * maximum, so that a hold of several days costs little more than a step of several minutes.
 */
const BITS = 6;
const CHUNK = 1 << BITS;

export class Profile {
  private readonly minutes: Int32Array;
  /** added to every minute of the chunk */
  private readonly whole: Int32Array;
  /** highest of `minutes` in the chunk, `whole` not included */
  private readonly highest: Int32Array;

  constructor(horizon: number) {
    const chunks = (horizon >> BITS) + 2;
    this.minutes = new Int32Array(chunks << BITS);
    this.whole = new Int32Array(chunks);
    this.highest = new Int32Array(chunks);
  }

  /** Takes `amount` (negative: gives back) in [from, to). */
  add(from: number, to: number, amount: number): void {
    if (from >= to) return;
    const first = from >> BITS;
    const last = (to - 1) >> BITS;
    for (let c = first; c <= last; c++) {
      const a = Math.max(from, c << BITS);
      const b = Math.min(to, (c + 1) << BITS);
      if (b - a === CHUNK) {
        this.whole[c]! += amount;
        continue;
      }
      const { minutes } = this;
      for (let t = a; t < b; t++) minutes[t]! += amount;
      const begin = c << BITS;
      let high = minutes[begin]!;
      for (let t = begin + 1; t < begin + CHUNK; t++) if (minutes[t]! > high) high = minutes[t]!;
      this.highest[c] = high;
    }
  }

  /** Latest minute in [from, to) at which more than `limit` is taken, or -1. */
  lastAbove(from: number, to: number, limit: number): number {
    if (from >= to) return -1;
    const first = from >> BITS;
    for (let c = (to - 1) >> BITS; c >= first; c--) {
      const left = limit - this.whole[c]!;
      if (this.highest[c]! <= left) continue;
      const a = Math.max(from, c << BITS);
      for (let t = Math.min(to, (c + 1) << BITS) - 1; t >= a; t--) if (this.minutes[t]! > left) return t;
    }
    return -1;
  }

  /** Earliest minute in [from, to) at which more than `limit` is taken, or -1. */
  firstAbove(from: number, to: number, limit: number): number {
    if (from >= to) return -1;
    const last = (to - 1) >> BITS;
    for (let c = from >> BITS; c <= last; c++) {
      const left = limit - this.whole[c]!;
      if (this.highest[c]! <= left) continue;
      const b = Math.min(to, (c + 1) << BITS);
      for (let t = Math.max(from, c << BITS); t < b; t++) if (this.minutes[t]! > left) return t;
    }
    return -1;
  }
}
