/** The planning desk, spoken to as the page does: it reports, answers a stop, plans on when a window was lost, explains what it solved. */
import { describe, expect, it, vi } from 'vitest';
import { validateSolution } from '#core/kernel';
import { instantAfter, originOf, type Muster } from '#core/muster';
import { worstLateness } from '#core/plan';
import type { LogEntry } from '#core/log';
import type { Forecast } from '#core/odds';
import { pose } from '#core/session';
import { layer, smallMuster } from '../../core/plan/testing';
import { PlanningDesk, type Comes, type News, type Order, type Outcome } from './planningDesk';

const muster = smallMuster();
const order = (part: Partial<Order> = {}): Order => ({
  muster,
  seconds: 0.4,
  seed: 1,
  previous: null,
  stability: 0,
  log: [],
  now: null,
  ...part,
});
const silent = (): void => undefined;
async function planned(
  desk: PlanningDesk,
  part: Partial<Order> = {},
): Promise<Outcome & { kind: 'planned' }> {
  const outcome = await desk.plan(order(part), silent);
  if (outcome.kind !== 'planned') throw new Error(outcome.kind);
  return outcome;
}

describe('the planning desk', () => {
  it('compares with one unit after another only where that is soon told', async () => {
    const [unit] = muster.units;
    const [piece] = unit!.pieces;
    const pieces = Array.from({ length: 800 }, (_, k) => ({
      ...piece!,
      id: `p${k}`,
      name: `Piece ${k}`,
      joins: null,
    }));
    const pile = { ...muster, units: [{ ...unit!, pieces }] };
    const { solved, naiveLateMinutes } = await planned(new PlanningDesk(), { muster: pile, seconds: 3 });
    expect(solved.plan.steps.size).toBeGreaterThan(3000);
    expect(naiveLateMinutes).toBeNull();
  }, 60_000);

  it('tells better plans and how far it is, and at the end the best, which passes the judge', async () => {
    const news: News[] = [];
    const outcome = await new PlanningDesk().plan(order(), (n) => news.push(n));
    if (outcome.kind !== 'planned') throw new Error(outcome.kind);
    const { solved, isMissed, naiveLateMinutes } = outcome;
    expect(validateSolution(pose(muster, [], null).problem, solved.solution).violations).toEqual([]);
    // What a page has no use for does not travel.
    expect(Object.keys(solved)).not.toContain('problem');
    expect([isMissed, naiveLateMinutes]).toEqual([false, expect.any(Number)]);
    const better = news.flatMap((n) => (n.kind === 'better' ? [n.solved.plan.cost] : []));
    expect(better.length).toBeGreaterThan(0);
    expect([...better].sort((a, b) => b - a)).toEqual(better);
    expect(solved.plan.cost).toBeLessThanOrEqual(better.at(-1)!);
    const shares = news.flatMap((n) => (n.kind === 'progress' ? [n.share] : []));
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
    expect(shares.every((s) => s >= 0 && s <= 1)).toBe(true);
  });

  it('ends early, where it may, once nothing has to leave its session', async () => {
    const { solved } = await planned(new PlanningDesk());
    const again: Partial<Order> = { previous: solved.solution, stability: 24, seconds: 3 };
    const farthest = async (part: Partial<Order>): Promise<number> => {
      let share = 0;
      await new PlanningDesk().plan(order({ ...again, ...part }), (n) => {
        if (n.kind === 'progress') share = n.share;
      });
      return share;
    };
    expect(await farthest({ endsCalm: true })).toBeLessThan(0.7);
    expect(await farthest({})).toBeGreaterThan(0.7);
  });

  it('makes its plan true with all hours of a session, at whichever look at the clock the time is suddenly over', async () => {
    // Nobody is late, and much may be paused: a part of each session is kept free until the search is nearly over.
    const own = smallMuster([
      layer('prime'),
      layer('details', { minutes: 45, pausable: true }),
      layer('base'),
      layer('lines', { minutes: 45, pausable: true }),
      layer('seal'),
    ]);
    const [unit] = own.units;
    const pieces = Array.from({ length: 9 }, (_, k) => ({
      ...unit!.pieces[0]!,
      id: `p${k}`,
      name: `Ferry ${k}`,
    }));
    const muster = { ...own, units: [{ ...unit!, table: '2027-05-01T12:00', pieces }] };
    const { problem } = pose(muster, [], null);
    for (let last = 100; last < 110; last++) {
      let looks = 0;
      const slow = new PlanningDesk(() => (++looks < last ? looks * 25 : 60_000 + looks * 100));
      const { solved } = await planned(slow, { muster, seconds: 8 });
      const { violations } = validateSolution(problem, solved.solution);
      expect(violations.filter((v) => v.rule !== 8)).toEqual([]);
    }
  });

  it('leaves when it is told to stop, says nothing more, and is free for the next order', async () => {
    const desk = new PlanningDesk();
    const news: News[] = [];
    const long = desk.plan(order({ seconds: 3600, muster: busy() }), (n) => news.push(n));
    await vi.waitFor(() => expect(news.some((n) => n.kind === 'better')).toBe(true), { timeout: 20_000 });
    desk.stop();
    expect(await long).toEqual({ kind: 'left' });
    const told = news.length;
    await planned(desk);
    expect(news).toHaveLength(told);
  });

  it('gives the hands of several people names, keeps them for the plan that is shown again, and counts runs for each', async () => {
    const team: Muster = {
      ...muster,
      bench: {
        ...muster.bench,
        people: [
          { id: 'a', name: 'Ada' },
          { id: 'b', name: 'Bo', may: 'careful' },
        ],
      },
    };
    const { solved } = await planned(new PlanningDesk(), { muster: team, seconds: 1 });
    const names = new Map([...solved.doers!].map(([id, { who }]) => [id, who]));
    expect([...names.keys()].sort()).toEqual([...solved.plan.steps.keys()].sort());
    expect(solved.plan.runs).toBeGreaterThan(0);
    for (const s of solved.plan.steps.values())
      expect(s.doer).toEqual({ who: names.get(s.id), handovers: [] });
    const posing = { muster: team, log: [], now: null };
    const again = new PlanningDesk().show(posing, solved.solution, false, names)!;
    expect(again.plan).toEqual(solved.plan);
  });

  it('leaves the older of two orders', async () => {
    const desk = new PlanningDesk();
    const [older, newer] = await Promise.all([
      desk.plan(order({ seconds: 3600, muster: busy() }), silent),
      desk.plan(order(), silent),
    ]);
    expect([older.kind, newer.kind]).toEqual(['left', 'planned']);
  });

  it('fails in words for a muster that is none', async () => {
    await expect(
      new PlanningDesk().plan(order({ muster: { ...muster, recipes: [] } }), silent),
    ).rejects.toThrow();
  });

  it('proves a muster impossible and says why with names and dates', async () => {
    const shut = smallMuster();
    // An evening of ten minutes has no room for what must follow within the hour.
    shut.bench.weekly = shut.bench.weekly.map((w) => ({ ...w, to: '19:10' }));
    const outcome = await new PlanningDesk().plan(order({ muster: shut }), silent);
    expect(outcome.kind).toBe('impossible');
    expect(outcome.kind === 'impossible' && outcome.why).toMatch(/Ferry/);
  });
});

describe('what was solved', () => {
  // The medium went on two days ago; its window of an hour is long shut.
  const origin = originOf(muster);
  const evening = 19 * 60;
  const missed: LogEntry[] = ['prime', 'medium'].map((id, k) => ({
    id: `e${k}`,
    at: instantAfter(origin, evening + 5 + 80 * k),
    kind: 'done',
    step: `p1.${id}`,
    minutes: 5,
  }));
  const now = instantAfter(origin, 2 * 1440 + evening);

  it('goes on, and says so, when a window that was open has been missed', async () => {
    const { solved, isMissed, naiveLateMinutes } = await planned(new PlanningDesk(), { log: missed, now });
    expect([isMissed, naiveLateMinutes]).toEqual([true, null]);
    for (const e of missed)
      if ('step' in e)
        expect(solved.solution.operations.find((o) => o.id === e.step)!.end).toBe(
          evening + (e.id === 'e0' ? 5 : 85),
        );
  });

  it('is explained from the problem with its history: what is done is pinned, a rework has its reasons, nothing is before now', async () => {
    const desk = new PlanningDesk();
    const log: LogEntry[] = [
      missed[0]!,
      {
        id: 'r',
        at: missed[0]!.at,
        kind: 'rework',
        step: 'p1.prime',
        trouble: 'Dusty',
        cure: 'sand',
        minutes: 9,
        dryMinutes: 30,
      },
    ];
    const { solved } = await planned(desk, { log, now });
    expect([...solved.plan.steps.keys()]).toContain('p1.prime!r');
    for (const [id, step] of solved.plan.steps) {
      const why = desk.explain(id)!;
      expect(why.reasons.length, id).toBeGreaterThan(0);
      if (id === 'p1.prime') expect(why.reasons[0]!.text).toMatch(/already done/);
      else expect(step.start, id).toBeGreaterThanOrEqual(2 * 1440 + evening);
    }
    expect(desk.explain('p1.prime!r')!.reasons.length).toBeGreaterThan(0);
    expect(desk.explain('nobody')).toBeNull();
  });

  it('is shown again from what was kept, the same in every part', async () => {
    const { solved, isMissed } = await planned(new PlanningDesk(), { log: missed, now });
    const desk = new PlanningDesk();
    const again = desk.show({ muster, log: missed, now }, solved.solution, isMissed)!;
    expect(again.plan).toEqual(solved.plan);
    expect(again.least).toEqual(solved.least);
    expect(again.cautions).toEqual(solved.cautions);
    expect(desk.explain('p2.top')).not.toBeNull();
    const other = {
      ...muster,
      recipes: [{ ...muster.recipes[0]!, layers: [...muster.recipes[0]!.layers, layer('new')] }],
    };
    expect(desk.show({ muster: other, log: [], now: null }, solved.solution, false)).toBeNull();
  });

  it('can be sent from a worker to a page', async () => {
    const { solved } = await planned(new PlanningDesk());
    expect(structuredClone(solved)).toEqual(solved);
  });
});

describe('ways out', () => {
  it('are weighed each by what it would come to', async () => {
    const soon = smallMuster();
    soon.units[0]!.table = '2027-03-01T20:00';
    const told: Comes[] = [];
    await new PlanningDesk().weigh(
      { muster: soon, log: [], now: null },
      [
        { id: 'as it is', muster: soon },
        { id: 'later', muster },
      ],
      null,
      (comes) => told.push(comes),
    );
    expect(told.map((c) => c.id)).toEqual(['as it is', 'later']);
    const [asItIs, later] = told;
    expect(asItIs!.lateMinutes).toBeGreaterThan(0);
    expect(later!.lateMinutes).toBe(0);
    // Nothing is certain to be late or in time but by the odds, which the later date raises.
    expect(asItIs!.allHold).toBe(0);
    expect(later!.allHold).toBeGreaterThan(0.5);
  });
});

describe('the last minutes of a session', () => {
  /** Pieces that take ten minutes each, of which a session of two hours holds twelve; with a part of it kept free, ten. Due after four. */
  const brushed = (pieces: number, wish?: 'early'): Muster => {
    const one = smallMuster([layer('dots', { minutes: 10, dryMinutes: 0 })]);
    const [unit] = one.units;
    return {
      ...one,
      bench: { ...one.bench, rackPlaces: 60, ...(wish ? { wish } : {}) },
      units: [
        {
          ...unit!,
          pieces: Array.from({ length: pieces }, (_, k) => ({
            ...unit!.pieces[0]!,
            id: `p${k}`,
            name: `Buoy ${k}`,
          })),
        },
      ],
    };
  };
  const bySession = async (muster: Muster): Promise<{ late: number; steps: readonly number[] }> => {
    const { solved } = await planned(new PlanningDesk(), { muster, seconds: 5 });
    expect(validateSolution(pose(muster, [], null).problem, solved.solution).violations).toEqual([]);
    return { late: solved.plan.lateMinutes, steps: solved.plan.sessions.map((s) => s.steps.length) };
  };

  it('are kept free where no date asks for them', async () => {
    const { late, steps } = await bySession(brushed(40));
    expect(late).toBe(0);
    expect(Math.max(...steps)).toBe(10);
  });

  it('are used where a date would be missed without them', async () => {
    const { late, steps } = await bySession(brushed(44));
    expect(late).toBe(0);
    expect(Math.max(...steps)).toBeGreaterThan(10);
  });

  it('are used by who wants to be done early', async () => {
    const { steps } = await bySession(brushed(40, 'early'));
    expect(steps[0]).toBe(12);
  });
});

describe('the odds', () => {
  it('are told at once and then narrow to as many futures as were asked for, and no more', async () => {
    const desk = new PlanningDesk();
    const { solved, isMissed } = await planned(desk, { muster });
    const told: number[] = [];
    const posing = { muster, log: [], now: null };
    await desk.odds(posing, solved.solution, isMissed, 37, (t) => told.push(t.forecast.futures));
    expect(told[0]).toBeLessThanOrEqual(37);
    expect(told[told.length - 1]).toBe(37);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
  });

  it('are the same when another desk plays some of the futures', async () => {
    const desk = new PlanningDesk();
    const { solved, isMissed } = await planned(desk, { muster });
    const posing = { muster, log: [], now: null };
    const alone: Forecast[] = [];
    await desk.odds(posing, solved.solution, isMissed, 60, (t) => alone.push(t.forecast));
    const second = new PlanningDesk();
    expect(() => second.played(0, 1)).toThrow('no plan');
    expect(second.helpWith(posing, solved.solution, isMissed)).toBe(true);
    const helper = { played: async (from: number, futures: number) => second.played(from, futures) };
    const both: Forecast[] = [];
    await desk.odds(posing, solved.solution, isMissed, 60, (t) => both.push(t.forecast), new Map(), helper);
    expect(both.at(-1)!.all).toBe(alone.at(-1)!.all);
    expect(both.at(-1)!.units.map((u) => u.inTime)).toEqual(alone.at(-1)!.units.map((u) => u.inTime));
    expect(second.helpWith({ ...posing, muster: busy() }, solved.solution, false)).toBe(false);
  });

  it('are of the plan that was asked about, and none where it is of another muster', async () => {
    const desk = new PlanningDesk();
    const { solved } = await planned(desk, { muster });
    const told: number[] = [];
    const other = { muster: busy(), log: [], now: null };
    await desk.odds(other, solved.solution, false, 20, (t) => told.push(t.forecast.futures));
    expect(told).toEqual([]);
  });
});

describe('why a unit is late', () => {
  /** Two slow layers on one piece: hands are idle, drying is all. */
  const slow = (): Muster => ({
    ...smallMuster([
      layer('first', { family: 'oil', dryMinutes: 2 * 1440 }),
      layer('second', { family: 'oil', dryMinutes: 2 * 1440 }),
    ]),
  });

  it('names what would make a difference with what it would gain, and what would not', async () => {
    const desk = new PlanningDesk();
    const { solved, isMissed } = await planned(desk, { muster: slow() });
    expect(worstLateness(pose(slow(), [], null).problem, solved.solution)).toBeGreaterThan(0);
    const shares: number[] = [];
    const posing = { muster: slow(), log: [], now: null };
    const chains = (await desk.explainLate(posing, solved.solution, isMissed, (s) => shares.push(s)))!;
    const [chain] = chains;
    expect(chains.map((c) => c.name)).toEqual(['Ferries']);
    expect(chain!.gains[0]!.text).toMatch(/oils dried at once/);
    expect(chain!.gains[0]!.minutes).toBe(chain!.lateMinutes);
    expect(chain!.lateMinutes).toBeGreaterThan(60);
    expect(chain!.idle).toContain('with as many hands as one could wish');
    expect(chain!.links.length).toBeGreaterThan(0);
    expect(chain!.links.every((l) => !/Hands are busy/.test(l.text))).toBe(true);
    expect(shares.every((s) => s > 0 && s <= 1)).toBe(true);
  });

  it('has a chain for every late unit', async () => {
    const one = slow();
    const two = {
      ...one,
      units: [
        ...one.units,
        {
          ...one.units[0]!,
          id: 'u2',
          name: 'Barges',
          pieces: one.units[0]!.pieces.map((p) => ({ ...p, id: `b${p.id}` })),
        },
      ],
    };
    const desk = new PlanningDesk();
    const { solved } = await planned(desk, { muster: two });
    const chains = (await desk.explainLate(
      { muster: two, log: [], now: null },
      solved.solution,
      false,
      silent,
    ))!;
    expect(chains.map((c) => c.name).sort()).toEqual(['Barges', 'Ferries']);
    expect(pose(two, [], null).problem.units).toHaveLength(2);
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
