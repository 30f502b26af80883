/**
 * How much of a resource is taken at every minute. Minutes are kept in chunks, each with its own sum and an upper bound
 * of its minutes, so that a hold of several days costs little more than a step of several minutes.
 */
import type { Minute } from './units';
const BITS = 6;
const CHUNK = 1 << BITS;

export class Profile {
  private readonly minutes: Int16Array | Int32Array;
  /** added to every minute of the chunk */
  private readonly whole: Int32Array;
  /** no minute of the chunk is higher, `whole` not included */
  private readonly ceiling: Int32Array;
  /** 1: something was given back since, so that the ceiling may be too high; it is looked up again when it matters */
  private readonly isLoose: Uint8Array;

  /** @param most the most that can ever be taken at a time: small numbers are kept in half the room */
  constructor(horizon: Minute, most: number) {
    const chunks = (horizon >> BITS) + 2;
    this.minutes = most < 0x7fff ? new Int16Array(chunks << BITS) : new Int32Array(chunks << BITS);
    this.whole = new Int32Array(chunks);
    this.ceiling = new Int32Array(chunks);
    this.isLoose = new Uint8Array(chunks);
  }

  /** Takes `amount` (negative: gives back) in [from, to). */
  add(from: Minute, to: Minute, amount: number): void {
    if (from >= to) return;
    const first = from >> BITS;
    const last = (to - 1) >> BITS;
    if (first === last) return this.addWithin(first, from, to, amount);
    const { whole } = this;
    let c = first;
    if ((from & (CHUNK - 1)) !== 0) this.addWithin(c++, from, (first + 1) << BITS, amount);
    const end = (to & (CHUNK - 1)) === 0 ? last + 1 : last;
    for (; c < end; c++) whole[c]! += amount;
    if (end === last) this.addWithin(last, last << BITS, to, amount);
  }

  private addWithin(chunk: number, from: Minute, to: Minute, amount: number): void {
    const { minutes } = this;
    if (amount < 0) {
      for (let t = from; t < to; t++) minutes[t]! += amount;
      this.isLoose[chunk] = 1;
      return;
    }
    let most = this.ceiling[chunk]!;
    for (let t = from; t < to; t++) {
      const v = minutes[t]! + amount;
      minutes[t] = v;
      if (v > most) most = v;
    }
    this.ceiling[chunk] = most;
  }

  /** Is some minute of the chunk above `left` (`whole` not included)? */
  private isAbove(chunk: number, left: number): boolean {
    if (this.ceiling[chunk]! <= left) return false;
    if (this.isLoose[chunk] === 0) return true;
    const { minutes } = this;
    const begin = chunk << BITS;
    let most = minutes[begin]!;
    for (let t = begin + 1; t < begin + CHUNK; t++) if (minutes[t]! > most) most = minutes[t]!;
    this.ceiling[chunk] = most;
    this.isLoose[chunk] = 0;
    return most > left;
  }

  /** Latest minute in [from, to) at which more than `limit` is taken, or -1. */
  lastAbove(from: Minute, to: Minute, limit: number): Minute {
    if (from >= to) return -1;
    const { minutes, whole } = this;
    const first = from >> BITS;
    for (let c = (to - 1) >> BITS; c >= first; c--) {
      const left = limit - whole[c]!;
      if (this.ceiling[c]! <= left || !this.isAbove(c, left)) continue;
      const a = Math.max(from, c << BITS);
      for (let t = Math.min(to, (c + 1) << BITS) - 1; t >= a; t--) if (minutes[t]! > left) return t;
    }
    return -1;
  }

  /** Earliest minute in [from, to) at which more than `limit` is taken, or -1. */
  firstAbove(from: Minute, to: Minute, limit: number): Minute {
    if (from >= to) return -1;
    const { minutes, whole } = this;
    const last = (to - 1) >> BITS;
    for (let c = from >> BITS; c <= last; c++) {
      const left = limit - whole[c]!;
      if (this.ceiling[c]! <= left || !this.isAbove(c, left)) continue;
      const b = Math.min(to, (c + 1) << BITS);
      for (let t = Math.max(from, c << BITS); t < b; t++) if (minutes[t]! > left) return t;
    }
    return -1;
  }
}
