/**
 * Nobody plans an evening to its last minute: what goes on longer than thought then finds room in its own session or the next, and
 * does not push a little out of every session that follows (docs/decisions/0019-reserve.md).
 */
import type { Problem } from '#core/kernel';

/** So much of a session is kept free … */
const SHARE = 1 / 7;
/** … and no more than so many minutes of it (common practice, no source). */
const MOST = 25;
/** Of a shorter session nothing is kept free. */
const SHORT = 60;
/** With fewer steps nothing pushes anything far; with more the first plan takes long enough. */
const FEW = 40;
const MANY = 3000;

/**
 * The problem with a part of each session kept free: of those that begin from a minute on, and never so much that what is longest would not
 * fit any more.
 * @param from minutes; what is under way is used to its end
 * @returns the problem itself where nothing is to be kept free
 */
export function withReserve(problem: Problem, from: number): Problem {
  const steps = problem.operations.filter((o) => o.minutes > 0);
  const sessions = problem.calendars?.find((c) => c.id === 'sessions')?.open ?? [];
  if (steps.length < FEW || steps.length > MANY) return problem;
  const setup = (problem.resources ?? []).reduce((most, r) => Math.max(most, r.setup?.minutes ?? 0), 0);
  const longest = steps.reduce((most, o) => (o.pausable ? most : Math.max(most, o.minutes)), 0) + setup;
  const ends = new Map<number, number>();
  for (const [a, b] of sessions)
    if (a >= from && b - a >= SHORT) {
      const kept = Math.min(MOST, Math.floor((b - a) * SHARE));
      ends.set(b, Math.max(b - kept, Math.min(b, a + longest)));
    }
  if (ends.size === 0) return problem;
  return {
    ...problem,
    calendars: problem.calendars!.map((c) => ({
      ...c,
      open: c.open.map(([a, b]): [number, number] => [a, Math.max(a + 1, ends.get(b) ?? b)]),
    })),
  };
}
