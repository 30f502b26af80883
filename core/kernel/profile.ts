/**
 * How much of a resource is taken at every minute. Minutes are kept in chunks, each with its own sum and
 * maximum, so that a hold of several days costs little more than a step of several minutes.
 */
const BITS = 6;
const CHUNK = 1 << BITS;

export class Profile {
  private readonly minutes: Int16Array | Int32Array;
  /** added to every minute of the chunk */
  private readonly whole: Int32Array;
  /** highest of `minutes` in the chunk, `whole` not included */
  private readonly highest: Int32Array;

  /** @param most the most that can ever be taken at a time: small numbers are kept in half the room */
  constructor(horizon: number, most: number) {
    const chunks = (horizon >> BITS) + 2;
    this.minutes = most < 0x7fff ? new Int16Array(chunks << BITS) : new Int32Array(chunks << BITS);
    this.whole = new Int32Array(chunks);
    this.highest = new Int32Array(chunks);
  }

  /** Takes `amount` (negative: gives back) in [from, to). */
  add(from: number, to: number, amount: number): void {
    if (from >= to) return;
    const first = from >> BITS;
    const last = (to - 1) >> BITS;
    if (first === last) return this.addWithin(first, from, to, amount);
    let c = first;
    if ((from & (CHUNK - 1)) !== 0) this.addWithin(c++, from, (first + 1) << BITS, amount);
    const whole = (to & (CHUNK - 1)) === 0 ? last + 1 : last;
    for (; c < whole; c++) this.whole[c]! += amount;
    if (whole === last) this.addWithin(last, last << BITS, to, amount);
  }

  private addWithin(chunk: number, from: number, to: number, amount: number): void {
    const { minutes } = this;
    const high = this.highest[chunk]!;
    if (amount > 0) {
      let most = high;
      for (let t = from; t < to; t++) {
        const v = (minutes[t]! += amount);
        if (v > most) most = v;
      }
      this.highest[chunk] = most;
      return;
    }
    let wasHighest = false;
    for (let t = from; t < to; t++) {
      const v = minutes[t]!;
      if (v === high) wasHighest = true;
      minutes[t] = v + amount;
    }
    if (!wasHighest) return;
    const begin = chunk << BITS;
    let most = minutes[begin]!;
    for (let t = begin + 1; t < begin + CHUNK && most < high; t++) if (minutes[t]! > most) most = minutes[t]!;
    this.highest[chunk] = most;
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
