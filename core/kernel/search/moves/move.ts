/** What a move of the search is: it takes something out of a full plan, and says how that is to come back. */
import type { Random } from '../../model/random';
import type { Schedule } from '../../place/schedule';
import type { Strand, Structure } from '../../place/structure';
import type { Minute, OperationIndex } from '../../model/units';

/** Where what is chosen goes. */
export interface TakenOut {
  readonly size: number;
  /** @param key smaller comes back first */
  take(operation: OperationIndex, key: number): void;
}

export interface Span {
  readonly from: Minute;
  readonly to: Minute;
}

/** What every move stands on. */
export interface Ground {
  readonly schedule: Schedule;
  readonly structure: Structure;
  /** spans of time in which work is done */
  readonly sessions: readonly Span[];
  readonly random: Random;
  readonly out: TakenOut;
}

/** How what was taken out comes back. */
export interface Choice {
  /** strand by strand, or else all side by side */
  readonly isWhole: boolean;
  /** minutes by which the first of it is held back; fine moves only */
  readonly delay?: number;
}

export interface Move {
  readonly name: string;
  /** what it is for, in a line */
  readonly purpose: string;
  /** tried all the time, or only late in a search, when units stand where they should */
  readonly stage: 'coarse' | 'fine';
  /** Is there anything for it to do in such a plan? */
  isFor(schedule: Schedule): boolean;
  /** Made ready for one plan in the making: each call takes something out. */
  on(ground: Ground): () => Choice;
}

/** At most about so many operations are out of the plan at a time. */
export const MOST_OUT = 90;

/** When a strand begins and ends. */
export function spanOf(schedule: Schedule, strand: Strand): [number, number] {
  const list = strand.operations;
  return [schedule.start[list[0]!]!, schedule.end[list[list.length - 1]!]!];
}

export const ALWAYS = (): boolean => true;
