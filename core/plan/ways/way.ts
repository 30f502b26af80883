import type { Muster, Unit } from '#core/muster';

/** A single change of the muster that may save a date. */
export interface WayOut {
  readonly id: string;
  readonly label: string;
  /** what it costs besides minutes of hands, in words */
  readonly costs: string;
  readonly apply: (muster: Muster) => Muster;
}

/** Who needs help. */
export interface Need {
  readonly muster: Muster;
  /** the unit that is late, or nearest to it */
  readonly worst: Unit;
  /** minute from which on help is needed */
  readonly from: number;
  /** products that may run out before anybody sees it coming, the likeliest first */
  readonly spares: readonly string[];
}

/** What there is to change of one kind; empty: nothing. */
export type Offer = (need: Need) => readonly WayOut[];
