/** What is reckoned with while one session is looked at: arrays that are made once and filled anew each time. */
import type { Bounds } from '../prove/propagate';
import { placesOf, type Places } from './places';
import type { Schedule } from './schedule';
import type { Minute } from '../model/units';

/** What wants in, and where. */
export interface Session {
  readonly wanted: number;
  /** minutes at which the session opens and closes */
  readonly opens: Minute;
  readonly closes: Minute;
  readonly within: Bounds;
  /** what takes time in it, by where set-ups begin */
  readonly list: readonly number[];
  /** those at [first, last) of the list may shift */
  readonly first: number;
  readonly last: number;
}

export interface Sitting {
  readonly schedule: Schedule;
  readonly places: Places;
  session: Session;
  /** all in the session take the only place of one resource, one after the other: then order by start and by end are the same */
  inLine: boolean;
  /** By place in the list: the soonest and latest start, and the start to aim at. */
  readonly soonest: number[];
  readonly latest: number[];
  readonly target: number[];
  /** where an operation stands in the list, or -1 */
  readonly at: Int32Array;
  /** when each place is free, or needed, as the reckoning goes on */
  readonly times: Int32Array;
  readonly standing: Int32Array;
  /** before each that may shift: when places become free if all before went sooner, and as they stand; when they are needed again */
  readonly freeWhenPacked: Int32Array;
  readonly freeAsItStands: Int32Array;
  readonly neededAgain: Int32Array;
}

/** @param mostMoved the most operations that may ever shift at a time */
export function sittingOver(schedule: Schedule, mostMoved: number): Sitting {
  const places = placesOf(schedule.model);
  const rows = (mostMoved + 1) * places.count;
  return {
    schedule,
    places,
    session: { wanted: -1, opens: 0, closes: 0, within: schedule.bounds, list: [], first: 0, last: 0 },
    inLine: true,
    soonest: [],
    latest: [],
    target: [],
    at: new Int32Array(schedule.model.count).fill(-1),
    times: new Int32Array(places.count),
    standing: new Int32Array(places.count),
    freeWhenPacked: new Int32Array(rows),
    freeAsItStands: new Int32Array(rows),
    neededAgain: new Int32Array(rows),
  };
}

/** Where the places before the k-th of the list stand in the arrays of rows. */
export function rowOf({ session, places }: Sitting, k: number): number {
  return (k - session.first) * places.count;
}

/** May the p-th of the list shift? */
export function canShift({ session, schedule }: Sitting, p: number): boolean {
  const j = session.list[p]!;
  return (
    p >= session.first &&
    p < session.last &&
    schedule.model.isFixed[j] === 0 &&
    schedule.end[j]! <= session.closes
  );
}
