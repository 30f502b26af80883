/** Why there is no plan: a kind with ids and minutes. Words are made where names and dates are known (core/plan). */

/** A single change after which there would be a plan. */
export type Lift =
  | { readonly kind: 'capacity'; readonly resource: string }
  | { readonly kind: 'hours'; readonly calendar: string }
  | { readonly kind: 'window'; readonly from: string; readonly to: string };

export type Conflict =
  /** operations that wait for each other in a circle */
  | { readonly kind: 'cycle'; readonly operations: readonly string[] }
  /** one that takes `minutes` at one go, where the longest session has `longest` (0: all it uses is never open together) */
  | {
      readonly kind: 'calendar';
      readonly operations: readonly string[];
      readonly minutes: number;
      readonly longest: number;
    }
  /** one for whose `minutes` nothing is open between its earliest start and its latest end */
  | {
      readonly kind: 'span';
      readonly operations: readonly string[];
      readonly minutes: number;
      readonly earliest: number;
      readonly latest: number;
    }
  /** changing over the tool from the first to the second takes longer than the window between them is open */
  | {
      readonly kind: 'setup';
      readonly operations: readonly [string, string];
      readonly closes: number;
      readonly needs: number;
    }
  /** what has been done leaves no time for the first of these */
  | { readonly kind: 'history'; readonly operations: readonly string[] }
  /** `to` must start at most `closes` minutes or ticks after `from`, and no session allows it */
  | {
      readonly kind: 'window';
      readonly operations: readonly string[];
      readonly from: string;
      readonly to: string;
      readonly closes: number;
    }
  /** the first of these can't start before `soonest`, which is too late for what must follow */
  | { readonly kind: 'deadline'; readonly operations: readonly string[]; readonly soonest: number }
  /** these need more of a resource at the same time than there is */
  | {
      readonly kind: 'capacity';
      readonly operations: readonly string[];
      readonly resource: string;
      readonly needs: number;
      readonly has: number;
    }
  /** every order of these was tried */
  | { readonly kind: 'search'; readonly operations: readonly string[]; readonly lifts: readonly Lift[] };

export type ConflictKind = Conflict['kind'];
