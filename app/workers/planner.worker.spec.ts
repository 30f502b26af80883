/** The planning worker, spoken to as the page does: it reports, answers a cancel, plans on when a window was lost, weighs ways out. */
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest';
import { validateSolution } from '#core/kernel';
import { originOf, dateTimeAfter, type Muster } from '#core/muster';
import { compile, worstLateness } from '#core/plan';
import type { LogEntry } from '#core/session';
import { smallMuster } from '../../core/plan/testing';
import type { FromPlanner, ToPlanner } from './protocol';

type Hears = (event: { data: ToPlanner }) => void;
let hear: Hears;
let said: FromPlanner[] = [];
const muster = smallMuster();

const order = (run: number, part: Partial<ToPlanner & { kind: 'plan' }> = {}): ToPlanner => ({
  kind: 'plan',
  run,
  muster,
  seconds: 0.4,
  seed: 1,
  previous: null,
  stability: 0,
  log: [],
  now: null,
  ...part,
});
const say = (message: ToPlanner): void => hear({ data: message });
const end = async (run: number): Promise<FromPlanner & { kind: 'done' }> => {
  await vi.waitFor(() => expect(said.some((m) => m.kind === 'done' && m.run === run)).toBe(true), {
    timeout: 30_000,
  });
  return said.find((m): m is FromPlanner & { kind: 'done' } => m.kind === 'done' && m.run === run)!;
};

beforeAll(async () => {
  vi.stubGlobal('addEventListener', (_: string, listener: Hears) => (hear = listener));
  vi.stubGlobal('postMessage', (message: FromPlanner) => said.push(message));
  await import('./planner.worker');
});
afterAll(() => vi.unstubAllGlobals());
beforeEach(() => (said = []));

describe('the planning worker', () => {
  it('tells better plans and how far it is, and at the end the best, which passes the judge', async () => {
    say(order(1));
    const { solution, isMissed, naiveLateMinutes } = await end(1);
    const { problem } = compile(muster);
    expect(validateSolution(problem, solution).violations).toEqual([]);
    expect([isMissed, naiveLateMinutes]).toEqual([false, expect.any(Number)]);
    const better = said.flatMap((m) => (m.kind === 'better' ? [m.solution.cost!.total] : []));
    expect(better.length).toBeGreaterThan(0);
    expect([...better].sort((a, b) => b - a)).toEqual(better);
    expect(solution.cost!.total).toBeLessThanOrEqual(better.at(-1)!);
    const shares = said.flatMap((m) => (m.kind === 'progress' ? [m.share] : []));
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.every((s) => s >= 0 && s <= 1)).toBe(true);
  });

  it('falls silent when it is told to stop, and is free for the next order', async () => {
    say(order(2, { seconds: 3600, muster: busy() }));
    await vi.waitFor(() => expect(said.some((m) => m.kind === 'better')).toBe(true), { timeout: 20_000 });
    say({ kind: 'cancel', run: 2 });
    await new Promise((resolve) => setTimeout(resolve, 100));
    said = [];
    say(order(3));
    await end(3);
    expect(said.filter((m) => m.run === 2)).toEqual([]);
  });

  it('leaves the older of two orders', async () => {
    say(order(4, { seconds: 3600, muster: busy() }));
    say(order(5));
    await end(5);
    expect(said.some((m) => m.run === 4 && m.kind === 'done')).toBe(false);
  });

  it('says what is wrong with a muster that is none, instead of dying', async () => {
    say(order(6, { muster: { ...muster, recipes: [] } }));
    await vi.waitFor(() => expect(said.some((m) => m.kind === 'failed')).toBe(true));
    expect(said.find((m) => m.kind === 'failed')!.message.length).toBeGreaterThan(5);
  });

  it('proves a muster impossible and names the window', async () => {
    const shut = smallMuster();
    // An evening of ten minutes has no room for what must follow within the hour.
    shut.bench.weekly = shut.bench.weekly.map((w) => ({ ...w, to: '19:10' }));
    say(order(7, { muster: shut }));
    const { solution } = await end(7);
    expect(solution.status).toBe('infeasible');
    expect(solution.conflict!.operations.length).toBeGreaterThan(0);
  });

  it('plans on, and says so, when a window that was open has been missed', async () => {
    const origin = originOf(muster);
    const evening = 19 * 60;
    // The medium went on two days ago; its window of an hour is long shut.
    const log: LogEntry[] = ['prime', 'medium'].map((id, k) => ({
      id: `e${k}`,
      at: dateTimeAfter(origin, evening + 5 + 80 * k),
      kind: 'done',
      step: `p1.${id}`,
      minutes: 5,
    }));
    say(order(8, { log, now: dateTimeAfter(origin, 2 * 1440 + evening) }));
    const { solution, isMissed, naiveLateMinutes } = await end(8);
    expect(isMissed).toBe(true);
    expect(naiveLateMinutes).toBeNull();
    expect(solution.cost).not.toBeNull();
    for (const e of log)
      if ('step' in e)
        expect(solution.operations.find((o) => o.id === e.step)!.end).toBe(
          evening + (e.id === 'e0' ? 5 : 85),
        );
  });

  it('weighs each way out by what it would come to, the last marked', async () => {
    const soon = smallMuster();
    soon.units[0]!.table = '2027-03-01T20:00';
    const later = smallMuster();
    say({
      kind: 'weigh',
      run: 9,
      musters: [
        { id: 'as it is', muster: soon },
        { id: 'later', muster: later },
      ],
      previous: null,
      log: [],
      now: null,
    });
    await vi.waitFor(() => expect(said.some((m) => m.kind === 'weighed' && m.isLast)).toBe(true), {
      timeout: 30_000,
    });
    const weighed = said.filter((m): m is FromPlanner & { kind: 'weighed' } => m.kind === 'weighed');
    expect(weighed.map((w) => [w.id, w.isLast])).toEqual([
      ['as it is', false],
      ['later', true],
    ]);
    expect(weighed[0]!.lateMinutes).toBeGreaterThan(0);
    expect(weighed[1]!.lateMinutes).toBe(0);
  });
});

describe('lateness told by the worker', () => {
  it('is that of the unit that is latest', async () => {
    say(order(10));
    const { solution } = await end(10);
    const { problem } = compile(muster);
    const ends = problem.units!.map((u) => solution.operations.find((o) => o.id === u.ready)!.end - u.due);
    expect(worstLateness(problem, solution)).toBe(Math.max(0, ...ends));
  });
});

/** Too many pieces to be proved optimal in the time of a test. */
function busy(): Muster {
  const one = smallMuster();
  const [unit] = one.units;
  return {
    ...one,
    units: [
      {
        ...unit!,
        pieces: Array.from({ length: 20 }, (_, k) => ({
          ...unit!.pieces[0]!,
          id: `p${k}`,
          name: `Ferry ${k}`,
        })),
        table: '2027-04-05T12:00',
      },
    ],
  };
}
