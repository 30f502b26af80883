import { describe, expect, it } from 'vitest';
import { solveProblem, validateSolution, type Problem } from '#core/kernel';
import { fenMuster } from '../../demo/fen';
import { compile } from './compile';
import { withReserve } from './reserve';
import { smallMuster } from './testing';

const { problem } = compile(fenMuster('2027-03-01'));
const sessionsOf = (p: Problem): readonly (readonly [number, number])[] =>
  p.calendars!.find((c) => c.id === 'sessions')!.open;

describe('a reserve', () => {
  it('is a seventh of each session, at most 25 minutes, for all that ends with it', () => {
    const reserved = withReserve(problem, 0);
    sessionsOf(problem).forEach(([a, b], k) => {
      const kept = Math.min(25, Math.floor((b - a) / 7));
      expect(sessionsOf(reserved)[k]).toEqual([a, b - kept]);
    });
    for (const [c, calendar] of reserved.calendars!.entries())
      calendar.open.forEach(([, b], k) => expect(b).toBeLessThanOrEqual(problem.calendars![c]!.open[k]![1]));
  });

  it('leaves a session that is under way, and those before, as they are', () => {
    const [, second, third] = sessionsOf(problem);
    const reserved = sessionsOf(withReserve(problem, second![0] + 30));
    expect(reserved[1]).toEqual(second);
    expect(reserved[2]![1]).toBeLessThan(third![1]);
  });

  it('leaves room for the longest step, and what it takes to set up for it', () => {
    const [[a, b]] = sessionsOf(problem) as [readonly [number, number]];
    const setup = Math.max(...problem.resources!.map((r) => r.setup?.minutes ?? 0));
    const long = b - a - setup - 5;
    const [first, ...rest] = problem.operations.filter((o) => o.minutes > 0 && !o.pausable);
    const longer: Problem = {
      ...problem,
      operations: problem.operations.map((o) => (o.id === first!.id ? { ...o, minutes: long } : o)),
    };
    expect(rest.length).toBeGreaterThan(0);
    expect(sessionsOf(withReserve(longer, 0))[0]).toEqual([a, b - 5]);
  });

  it('is none of a short session, and none where there are few steps or thousands', () => {
    const small = compile(smallMuster()).problem;
    expect(withReserve(small, 0)).toBe(small);
    expect(withReserve(problem, Infinity)).toBe(problem);
    const many = { ...problem, operations: Array.from({ length: 9 }, () => problem.operations).flat() };
    expect(withReserve(many, 0)).toBe(many);
    const short: Problem = {
      ...problem,
      calendars: problem.calendars!.map((c) => ({ ...c, open: c.open.map(([a]) => [a, a + 45]) })),
    };
    expect(withReserve(short, 0)).toBe(short);
  });

  it('asks for no more than a plan that is one with all hours too, but for what may pause', () => {
    const steady: Problem = {
      ...problem,
      operations: problem.operations.map(({ pausable, ...o }) => (void pausable, o)),
    };
    const plan = solveProblem(withReserve(steady, 0), { iterations: 10 });
    const real = validateSolution(steady, plan).violations.filter((v) => v.rule !== 8);
    expect(real).toEqual([]);
  });
});
