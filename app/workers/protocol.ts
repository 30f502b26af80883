/** What the page and the planning worker say to each other. */
import type { Solution } from '#core/kernel';
import type { Muster } from '#core/muster';
import type { LogEntry } from '#core/session';

export type ToPlanner =
  | {
      readonly kind: 'plan';
      readonly run: number;
      readonly muster: Muster;
      readonly seconds: number;
      readonly seed: number;
      /** the plan before the change, to mend and to keep close to */
      readonly previous: Solution | null;
      /** cost of every step that leaves its session of the plan before */
      readonly stability: number;
      /** what has happened so far, and the local time it is */
      readonly log: readonly LogEntry[];
      readonly now: string | null;
    }
  | {
      /** weigh single changes that might bring late units home */
      readonly kind: 'weigh';
      readonly run: number;
      readonly musters: readonly { readonly id: string; readonly muster: Muster }[];
      readonly previous: Solution | null;
      readonly log: readonly LogEntry[];
      readonly now: string | null;
    }
  | { readonly kind: 'cancel'; readonly run: number };

export type FromPlanner =
  | {
      readonly kind: 'weighed';
      readonly run: number;
      readonly id: string;
      /** lateness of the worst unit then, minutes; null: no plan was found */
      readonly lateMinutes: number | null;
      readonly isLast: boolean;
    }
  | { readonly kind: 'progress'; readonly run: number; readonly share: number; readonly tried: number }
  | { readonly kind: 'better'; readonly run: number; readonly solution: Solution }
  | {
      readonly kind: 'done';
      readonly run: number;
      readonly solution: Solution;
      /** lateness of one unit after another; null where that finds no end */
      readonly naiveLateMinutes: number | null;
      /** a window that was open can no longer be met; the plan goes on without it */
      readonly isMissed: boolean;
    }
  | { readonly kind: 'failed'; readonly run: number; readonly message: string };
