/**
 * What a try of the search takes out late, when units stand where they should: pieces of strands and single operations, that come back at
 * other moments or in another order, so that set-ups and minutes are saved though no unit changes places with another.
 */
import { sharesResource } from '../model/model';
import type { TakenOut } from './neighbourhoods';
import { pick, type Random } from '../model/random';
import type { Schedule } from '../place/schedule';
import type { Structure } from '../place/structure';

export const FINE_MOVES = ['piece', 'row', 'shift'] as const;
export type FineMove = (typeof FINE_MOVES)[number];

export interface FineMoves {
  /** Chooses what is taken out. */
  choose(move: FineMove): FineChoice;
}

export interface FineChoice {
  /** it comes back strand by strand, or else all side by side */
  readonly isWhole: boolean;
  /** minutes by which the first of what comes back is held back */
  readonly delay: number;
}

/** An operation goes to another moment within so many minutes: of the same session, or of sessions around it. */
const NEAR = 150;
const FAR = 3000;

export function fineMoves(
  schedule: Schedule,
  { strands }: Structure,
  random: Random,
  out: TakenOut,
): FineMoves {
  const { model } = schedule;

  function choose(move: FineMove): FineChoice {
    const seed = pick(random, strands.length);
    switch (move) {
      case 'piece':
        return takePiece(seed);
      case 'row':
        return takeRow(seed);
      case 'shift':
        return takeShift(seed);
    }
  }

  /** Some operations of a strand, one after the other, and such of up to two others that are done at about the same time. */
  function takePiece(seed: number): FineChoice {
    const { operations } = strands[seed]!;
    const at = pick(random, operations.length);
    const first = operations[at]!;
    const moment = schedule.start[first]!;
    const many = 1 + pick(random, 6);
    const isFirst = random() < 0.5;
    takeFrom(seed, at, many, isFirst ? 0 : 1e6);
    for (let n = pick(random, 3); n > 0; n--) {
      const other = pick(random, strands.length);
      const then = strands[other]!.operations.findIndex((i) => schedule.start[i]! >= moment);
      if (other !== seed && then >= 0)
        takeFrom(other, Math.max(0, then - pick(random, 3)), 1 + pick(random, 4), 1e5 * n);
    }
    if (!isFirst || random() < 0.5) return { isWhole: true, delay: 0 };
    const room = schedule.end[operations[operations.length - 1]!]! - schedule.startLow(first);
    // Little more often than much.
    return { isWhole: true, delay: Math.floor(Math.max(0, room) * random() ** 3) };
  }

  function takeFrom(strand: number, at: number, many: number, key: number): void {
    strands[strand]!.operations.slice(at, at + many).forEach((i, k) => {
      out.take(i, key + k);
    });
  }

  /** Some operations that follow one another on a tool: they come back in any order. */
  function takeRow(seed: number): FineChoice {
    const tools = schedule.sequences.filter((q) => q.length > 1);
    const sequence = tools[pick(random, tools.length)];
    if (!sequence) return takePiece(seed);
    const at = pick(random, sequence.length);
    const end = Math.min(sequence.length, at + 2 + pick(random, 5));
    for (let k = at; k < end; k++) out.take(sequence.at(k), random());
    return { isWhole: false, delay: 0 };
  }

  /** An operation goes to another moment; what is done there by the same hands or tools comes back after it. */
  function takeShift(seed: number): FineChoice {
    const { operations } = strands[seed]!;
    const i = operations[pick(random, operations.length)]!;
    const start = schedule.start[i]!;
    const minutes = schedule.end[i]! - start;
    const reach = random() < 0.5 ? NEAR : FAR;
    const low = Math.max(schedule.startLow(i), start - reach);
    const high = Math.min(schedule.endHigh(i) - minutes, start + reach);
    if (high < low) return takePiece(seed);
    const from = low + pick(random, high - low + 1);
    out.take(i, 0);
    for (let k = 0; k < model.count; k++)
      if (
        k !== i &&
        schedule.start[k]! < from + minutes &&
        schedule.end[k]! > from &&
        model.minutes[k]! > 0 &&
        sharesResource(model, k, i)
      )
        out.take(k, 1 + random());
    return { isWhole: false, delay: from - schedule.startLow(i) };
  }

  return { choose };
}
