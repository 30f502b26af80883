/**
 * What a plan wishes for, in this order: every date kept, a margin before each date, few changes of task and of tool, earlier finishing.
 * The weights are in minutes of changing over, and what they do to the demo stands in docs/decisions/0009-wishes.md.
 */
import type { ClockPoints } from '#core/climate';
import type { Problem, ProblemLag, ProblemOperation } from '#core/kernel';
import type { BenchSession, Wish } from '#core/muster';

interface Weights {
  /** of taking up another task */
  readonly runs: number;
  /** of each weighted minute until a unit is done */
  readonly completion: number;
  /** of the first session of margin, the second and the third (0: not wished for); more is worth nothing: nobody needs a unit two weeks early */
  readonly margins: readonly [number, number, number];
}

const WEIGHTS: Readonly<Record<Wish, Weights>> = {
  early: { runs: 3, completion: 0.05, margins: [300, 80, 40] },
  balanced: { runs: 12, completion: 0.001, margins: [300, 40, 20] },
  quiet: { runs: 14, completion: 0.0001, margins: [0, 0, 0] },
};

/** A minute late costs so much that no margin, run or change is worth one. */
const TARDINESS = 100;
/** A minute past the better-by of a window. */
const OVERRUN = 0.5;
/** Clocks must rise: so little passes between two sessions. */
const HAIR = 1e-3;

export function objectiveOf(wish: Wish): Problem['objective'] {
  const { runs, completion } = WEIGHTS[wish];
  return { tardiness: TARDINESS, setup: 1, overrun: OVERRUN, runs, completion, makespan: 0 };
}

/** The moment at which margins begin to be counted: a milestone at minute 0. */
const BEGIN = 'begin';

export interface Margins {
  readonly clocks: NonNullable<Problem['clocks']>;
  readonly operations: readonly ProblemOperation[];
  readonly lags: readonly ProblemLag[];
  readonly fixed: NonNullable<Problem['fixed']>;
}

/**
 * Margins as the kernel understands them: clocks that advance by as much in every session, and soft closings on them one, two and three
 * sessions before each date.
 * @param dues by the id of the milestone at which a unit is ready
 */
export function marginsOf(
  wish: Wish,
  sessions: readonly BenchSession[],
  dues: readonly { readonly ready: string; readonly due: number }[],
): Margins {
  const clocks = WEIGHTS[wish].margins.flatMap((minutes, k) =>
    minutes === 0
      ? []
      : [
          {
            id: `margin-${k + 1}`,
            worth: minutes / OVERRUN,
            points: sessionClock(sessions, minutes / OVERRUN),
          },
        ],
  );
  const lags = dues.flatMap(({ ready, due }) => {
    const whole = sessions.filter((s) => s.end <= due).length;
    return clocks.flatMap(({ id, worth }, k): ProblemLag[] => {
      const before = whole - (k + 1);
      return before < 0
        ? []
        : [{ from: BEGIN, to: ready, min: 0, prefer: before * worth + (before + 1) * HAIR, clock: id }];
    });
  });
  if (lags.length === 0) return { clocks: [], operations: [], lags: [], fixed: [] };
  return {
    clocks: clocks.map(({ id, points }) => ({ id, points })),
    operations: [{ id: BEGIN, minutes: 0 }],
    lags,
    fixed: [{ id: BEGIN, start: 0, end: 0 }],
  };
}

/** `worth` ticks in every session, a hair in every gap before one. */
function sessionClock(sessions: readonly BenchSession[], worth: number): ClockPoints {
  const points: [number, number][] = [[0, 0]];
  let ticks = 0;
  let minute = 0;
  for (const { start, end } of sessions) {
    if (start > 0) points.push([start, (ticks += HAIR)]);
    points.push([end, (ticks += worth)]);
    minute = end;
  }
  points.push([minute + 1, ticks + HAIR]);
  return points;
}
