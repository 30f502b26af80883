/**
 * A plan for odds: evenly spread margins are worth less than margins where the risk is. What each further session before a unit’s date is
 * worth is the share of the futures of a first plan in which just that session would have been wanting; the search then goes on for it.
 */
import type { Problem } from '#core/kernel';
import type { Course } from './course';
import { Player } from './play';
import type { Risks } from './risks';

/** A margin reaches so many sessions at the most. */
const MOST = 8;
/** The soft closings of margins are told by these names, and so are the odds’. */
const MARGIN = /^margin-/;
const BEGIN = 'begin';
/** Clocks must rise: so little passes between two sessions. */
const HAIR = 1e-3;
/** What a session of margin can be worth, in minutes of changing over: few clocks serve all units. */
const CLASSES = [5, 10, 20, 40, 80, 160, 320, 640] as const;

/**
 * By unit: the share of the futures in which it is ready so many sessions later than planned, one, two, three …
 * @param now minute from which on anything is open
 */
export function* delays(
  course: Course,
  risks: Risks,
  now: number,
  futures: number,
  seed: number,
): Generator<void, readonly Float64Array[]> {
  const player = new Player(course, risks, seed);
  const { sessions } = course;
  const before = (minute: number): number => {
    let n = 0;
    for (let k = 1; k < sessions.length; k += 2) if (sessions[k]! < minute) n++;
    return n;
  };
  const planned = course.units.map((u) => before(course.end[u.ready]!));
  const counts = course.units.map(() => new Float64Array(MOST));
  const inTime = course.units.map(() => 0);
  for (let f = 0; f < futures; f++) {
    const { ready } = player.play(f, now);
    course.units.forEach(({ due }, u) => {
      if (ready[u]! <= due) inTime[u]! += 1 / futures;
      const late = Number.isFinite(ready[u]!) ? before(ready[u]!) - planned[u]! : MOST + 1;
      if (late >= 1 && late <= MOST) counts[u]![late - 1]! += 1 / futures;
    });
    yield;
  }
  // What adds most to the odds that all of them hold: the logarithm’s slope.
  return counts.map((c, u) => c.map((share) => share / Math.max(0.1, inTime[u]!)));
}

/**
 * The problem with its margins as the odds want them.
 * @param shares by unit in the problem’s order, as `delays` tells them
 * @param worth minutes of changing over that all of a unit’s odds are worth
 * @param first what the first session before a date is worth at the least
 */
export function withOddsMargins(
  problem: Problem,
  shares: readonly Float64Array[],
  worth: number,
  first: number,
): Problem {
  const sessions = problem.calendars?.find((c) => c.id === 'sessions')?.open ?? [];
  const overrun = problem.objective.overrun ?? 0;
  if (overrun <= 0 || sessions.length === 0) return problem;
  const used = new Set<number>();
  const margins = (problem.units ?? []).flatMap((unit, u) => {
    const whole = sessions.filter(([, end]) => end <= unit.due).length;
    return Array.from(shares[u] ?? [], (share, k) => {
      const minutes = Math.max(k === 0 ? first : 0, share * worth);
      const size = CLASSES.findLast((c) => c <= minutes);
      const before = whole - (k + 1);
      if (size === undefined || before < 0) return null;
      used.add(size);
      const ticks = size / overrun;
      return {
        from: BEGIN,
        to: unit.ready,
        min: 0,
        prefer: before * ticks + (before + 1) * HAIR,
        clock: `margin-${size}-min`,
      };
    }).filter((l) => l !== null);
  });
  const isBegun = problem.operations.some((o) => o.id === BEGIN);
  return {
    ...problem,
    clocks: [
      ...(problem.clocks ?? []).filter((c) => !MARGIN.test(c.id)),
      ...[...used].map((size) => ({
        id: `margin-${size}-min`,
        points: sessionClock(sessions, size / overrun),
      })),
    ],
    operations: isBegun ? problem.operations : [...problem.operations, { id: BEGIN, minutes: 0 }],
    lags: [...(problem.lags ?? []).filter((l) => !MARGIN.test(l.clock ?? '')), ...margins],
    fixed: isBegun ? (problem.fixed ?? []) : [...(problem.fixed ?? []), { id: BEGIN, start: 0, end: 0 }],
  };
}

/** So many ticks in every session, a hair in every gap before one. */
function sessionClock(sessions: readonly (readonly [number, number])[], ticks: number): [number, number][] {
  const points: [number, number][] = [[0, 0]];
  let sum = 0;
  let minute = 0;
  for (const [start, end] of sessions) {
    if (start > 0) points.push([start, (sum += HAIR)]);
    points.push([end, (sum += ticks)]);
    minute = end;
  }
  points.push([minute + 1, sum + HAIR]);
  return points;
}
