/** Which strand can best wait: the one to take out when another finds no place in time. */
import { pick, type Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Strand } from '../place/structure';
import type { Minute } from '../model/units';

/** Where the strand that finds no place stood, how many minutes it takes, and when it is due. */
export interface Room {
  readonly from: Minute;
  readonly length: number;
  readonly due: Minute;
}

/** Of very many strands a sample. */
const MOST_LOOKED_AT = 60;
/** Share of its length that a strand needs at least, behind where another began, before it is due, to take its place. */
export const NEEDED = 0.7;

/**
 * @param isOut 1 for every strand that has moved already
 * @returns a strand that stands behind `room.from`, early enough to be of use, with time in hand: much of it for its weight, with
 *   some luck; or -1
 */
export function mostPatient(
  schedule: Schedule,
  strands: readonly Strand[],
  room: Room,
  isOut: Uint8Array,
  random: Random,
): number {
  let best = -1;
  let most = 0;
  const offset = pick(random, strands.length);
  for (let n = Math.min(strands.length, MOST_LOOKED_AT); n > 0; n--) {
    const s = (offset + n) % strands.length;
    if (isOut[s]) continue;
    const { operations, due, weight } = strands[s]!;
    const from = schedule.start[operations[0]!]!;
    if (from <= room.from || from > room.due - NEEDED * room.length) continue;
    const inHand = due - schedule.end[operations[operations.length - 1]!]!;
    if (inHand <= 0) continue;
    const score = (inHand * random()) / Math.max(1e-6, weight);
    if (score <= most) continue;
    most = score;
    best = s;
  }
  return best;
}
