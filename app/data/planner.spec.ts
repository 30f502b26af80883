/** The planner: what it asks of the desk and when, what it takes of the answers, and what is still there after a reload. */
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { lastValueFrom, toArray } from 'rxjs';
import { withUnit, type Muster } from '#core/muster';
import type { WayOut } from '#core/plan';
import { solveProblem } from '#core/kernel';
import { pose, solvedPlan, type Shown, type Solved } from '#core/session';
import type { News, Order, Outcome, Told } from '../workers/planningDesk';
import { PlanningDesk } from '../workers/planningDesk';
import { smallMuster } from '../../core/plan/testing';
import type { Desk, OpenDesk } from './desk';
import { emptyBrowser, openTab, type TestTab } from './testing/services';

const NOON = new Date('2027-03-01T18:30:00Z');
const soon = (check: () => void): Promise<void> => vi.waitFor(check, { timeout: 10_000, interval: 5 });

/** A desk that waits for the test to answer. */
class Puppet {
  readonly orders: Order[] = [];
  stops = 0;
  opened = 0;
  closed = 0;
  news: (news: News) => void = () => undefined;
  answer: (outcome: Outcome) => void = () => undefined;
  fail: (error: Error) => void = () => undefined;
  lose: (message: string) => void = () => undefined;
  weighed: Parameters<PlanningDesk['weigh']> | null = null;
  asked: Parameters<PlanningDesk['odds']> | null = null;
  oddsStopped = 0;
  helps: Parameters<PlanningDesk['helpWith']> | null = null;

  readonly open: OpenDesk = (onLost) => {
    this.opened++;
    this.lose = onLost;
    const real = new PlanningDesk();
    const remote = {
      plan: (order: Order, tell: (news: News) => void) => {
        this.orders.push(order);
        this.news = tell;
        return new Promise<Outcome>((resolve, reject) => {
          this.answer = resolve;
          this.fail = reject;
        });
      },
      stop: async () => void this.stops++,
      show: async (...a: Parameters<PlanningDesk['show']>) => real.show(...a),
      still: async (...a: Parameters<PlanningDesk['still']>) => real.still(...a),
      explain: async (...a: Parameters<PlanningDesk['explain']>) => real.explain(...a),
      explainLate: (...a: Parameters<PlanningDesk['explainLate']>) => real.explainLate(...a),
      weigh: async (...a: Parameters<PlanningDesk['weigh']>) => void (this.weighed = a),
      odds: (...a: Parameters<PlanningDesk['odds']>) => {
        this.asked = a;
        a[4]({ forecast: {}, given: [], margins: [], latest: [] } as unknown as Told);
        return new Promise<void>(() => undefined);
      },
      stopOdds: async () => void this.oddsStopped++,
      helpWith: async (...a: Parameters<PlanningDesk['helpWith']>) => {
        this.helps = a;
        return true;
      },
      played: (from: number, futures: number) =>
        from < 100 ? Promise.resolve({ from, futures }) : new Promise(() => undefined),
    };
    return { remote: remote as unknown as Desk['remote'], close: () => void this.closed++ };
  };
}

function solved(order: Order, iterations: number): Solved {
  const posed = pose(order.muster, order.log, order.now);
  return solvedPlan(posed, solveProblem(posed.problem, { iterations }));
}
const done = (plan: Shown): Outcome => ({
  kind: 'planned',
  solved: plan,
  naiveLateMinutes: 7,
  isMissed: false,
});

async function tabWith(puppet: Puppet): Promise<TestTab> {
  const tab = await openTab(NOON, { openDesk: puppet.open });
  await tab.store.add(smallMuster(), 'small');
  return tab;
}
const withLayerMinutes = (muster: Muster, minutes: number): Muster => ({
  ...muster,
  recipes: muster.recipes.map((r) => ({ ...r, layers: r.layers.map((l) => ({ ...l, minutes })) })),
});
/** A tab with its first plan. */
async function planned(puppet: Puppet): Promise<TestTab> {
  const tab = await tabWith(puppet);
  expect(tab.planner.state()).toMatch(/waiting|planning/);
  await soon(() => expect(puppet.orders).toHaveLength(1));
  puppet.answer(done(solved(puppet.orders[0]!, 30)));
  await soon(() => expect(tab.planner.state()).toBe('planned'));
  return tab;
}

beforeEach(emptyBrowser);

describe('a muster in hand', () => {
  it('is planned, its news shown as they come, and the plan kept for the next time', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    expect(tab.planner.plan()).toBeNull();
    await soon(() => expect(puppet.orders).toHaveLength(1));
    expect(puppet.orders[0]).toMatchObject({ previous: null, stability: 0, now: null });
    puppet.news({ kind: 'progress', share: 0.5, tried: 12 });
    expect([tab.planner.share(), tab.planner.tried()]).toEqual([0.5, 12]);
    const first = solved(puppet.orders[0]!, 4);
    puppet.news({ kind: 'better', solved: first });
    expect(tab.planner.solved()).toBe(first);
    puppet.answer(done(first));
    await soon(() => expect(tab.planner.state()).toBe('planned'));
    expect([tab.planner.naiveLateMinutes(), tab.planner.ended()]).toEqual([7, 1]);

    const again = new Puppet();
    const next = await openTab(NOON, { openDesk: again.open });
    expect(next.planner.state()).toBe('waiting');
    await soon(() => expect(next.planner.state()).toBe('planned'));
    expect(next.planner.plan()).toEqual(first.plan);
    expect(again.orders).toEqual([]);
  });

  it('that only gets another name keeps its plan: nothing is searched, and the plan says the name', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const before = tab.planner.solved()!.solution;
    tab.store.change('Renamed', (m) => withUnit(m, { ...m.units[0]!, name: 'Reed wardens' }));
    expect(tab.planner.plan()).toBeNull();
    await soon(() => expect(tab.planner.state()).toBe('planned'));
    expect(tab.planner.solved()!.solution).toEqual(before);
    expect(tab.planner.plan()!.units[0]!.name).toBe('Reed wardens');
    expect(tab.planner.moved()).toEqual([]);
    expect([puppet.orders.length, tab.planner.ended()]).toEqual([1, 2]);
    expect(await tab.planner.why([...tab.planner.plan()!.steps.keys()][0]!)).not.toBeNull();

    const again = new Puppet();
    const next = await openTab(NOON, { openDesk: again.open });
    await soon(() => expect(next.planner.state()).toBe('planned'));
    expect([next.planner.plan()!.units[0]!.name, again.orders]).toEqual(['Reed wardens', []]);
  });

  it('is planned again on a change of name while no search has ended yet', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    expect(tab.planner.solved()).toBeNull();
    await soon(() => expect(puppet.orders).toHaveLength(1));
    puppet.news({ kind: 'better', solved: solved(puppet.orders[0]!, 4) });
    tab.store.change('Renamed', (m) => withUnit(m, { ...m.units[0]!, name: 'Reed wardens' }));
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(tab.planner.state()).toBe('planning');
  });

  it('that changes is planned again, close to the plan before; a burst is one order', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const before = tab.planner.solved()!.solution;
    for (const day of [6, 7, 8])
      tab.store.change('Dated', (m) => withUnit(m, { ...m.units[0]!, table: `2027-03-0${day}T12:00` }));
    expect(tab.planner.plan()).toBeNull();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(puppet.orders[1]!.muster.units[0]!.table).toBe('2027-03-08T12:00');
    expect(puppet.orders[1]!.previous).toEqual(before);
    expect(puppet.orders[1]!.stability).toBeGreaterThan(0);
  });

  it.each<[string, (m: Muster) => Muster]>([
    ['that wishes for another kind of plan', (m) => ({ ...m, bench: { ...m.bench, wish: 'quiet' } })],
    ['that begins another day', (m) => ({ ...m, startsOn: '2027-03-02T18:00' })],
    ['that moves to another time zone', (m) => ({ ...m, bench: { ...m.bench, timeZone: 'Europe/Vienna' } })],
  ])('%s is planned from anew, far from the plan before', async (_, edit) => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    tab.store.change('Otherwise', edit);
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(puppet.orders[1]).toMatchObject({ previous: null, stability: 0, seconds: 8, seed: 1 });
  });

  it('is asked why its units are late: nothing where there is no plan, and of whom where there is one', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    expect(tab.planner.solved()).toBeNull();
    const none: unknown[] = [];
    tab.planner.lateBecause().subscribe((told) => none.push(told));
    expect(none).toEqual([]);

    tab.store.change('Dated', (m) => withUnit(m, { ...m.units[0]!, table: '2027-03-01T20:00' }));
    await soon(() => expect(puppet.orders).toHaveLength(1));
    puppet.answer(done(solved(puppet.orders[0]!, 2)));
    await soon(() => expect(tab.planner.state()).toBe('planned'));
    const told: { share: number; chains: readonly { unit: string; lateMinutes: number }[] | null }[] = [];
    await new Promise<void>((complete) =>
      tab.planner.lateBecause().subscribe({ next: (t) => told.push(t), complete }),
    );
    expect(told[0]).toEqual({ share: 0, chains: null });
    expect(told.map((t) => t.share)).toEqual([...told.map((t) => t.share)].sort((a, b) => a - b));
    const { share, chains } = told.at(-1)!;
    expect(share).toBe(1);
    expect(chains!.map((c) => [c.unit, c.lateMinutes > 0])).toEqual([['u', true]]);
    // The desk of these reasons is let go; the one that plans stays.
    expect([puppet.opened, puppet.closed]).toEqual([2, 1]);
  });

  it('with an error in it is not planned, and what was on the way is stopped', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    expect(tab.planner.state()).toMatch(/waiting|planning/);
    await soon(() => expect(puppet.orders).toHaveLength(1));
    tab.store.change('Nobody', (m) => ({ ...m, bench: { ...m.bench, people: [] } }));
    expect(tab.planner.state()).toBe('faulty');
    await soon(() => expect(puppet.stops).toBe(1));
    puppet.answer(done(solved(puppet.orders[0]!, 4)));
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect([tab.planner.state(), tab.planner.plan()]).toEqual(['faulty', null]);
  });
});

describe('searching longer', () => {
  it('never takes a worse plan, and takes a better one', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const held = tab.planner.solved()!;
    tab.planner.searchLonger();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(puppet.orders[1]).toMatchObject({ stability: 0, previous: held.solution });
    const dearer = { ...held, plan: { ...held.plan, cost: held.plan.cost + 1 } };
    puppet.news({ kind: 'better', solved: dearer });
    expect(tab.planner.solved()).toBe(held);
    puppet.answer(done(dearer));
    await soon(() => expect(tab.planner.state()).toBe('planned'));
    expect(tab.planner.solved()).toBe(held);
    tab.planner.searchLonger();
    await soon(() => expect(puppet.orders).toHaveLength(3));
    const cheaper = { ...held, plan: { ...held.plan, cost: held.plan.cost - 1 } };
    puppet.answer(done(cheaper));
    await soon(() => expect(tab.planner.solved()).toBe(cheaper));
  });

  it('can be stopped: the best so far stays', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const held = tab.planner.solved()!;
    tab.planner.searchLonger();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    tab.planner.cancel();
    expect([tab.planner.state(), puppet.stops]).toEqual(['stopped', 1]);
    puppet.answer({ kind: 'left' });
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect([tab.planner.state(), tab.planner.solved()]).toEqual(['stopped', held]);
  });
});

describe('what is weighed', () => {
  it('is the muster as it is, then each change by itself, against the plan in hand', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const way = (id: string, name: string): WayOut => ({
      id,
      costs: '',
      label: '',
      apply: (m) => ({ ...m, name }),
    });
    const told = await lastValueFrom(tab.planner.weigh([way('a', 'A'), way('b', 'B')]).pipe(toArray()));
    expect(told).toEqual([]);
    const [posing, changed, previous] = puppet.weighed!;
    expect(posing.muster).toBe(tab.store.muster());
    expect(changed.map((c) => [c.id, c.muster?.name])).toEqual([
      ['as it is', undefined],
      ['a', 'A'],
      ['b', 'B'],
    ]);
    expect(previous).toBe(tab.planner.solved()!.solution);
    // That desk is let go.
    expect([puppet.opened, puppet.closed]).toEqual([2, 1]);
  });

  it('is nothing where nothing is offered', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    expect(await lastValueFrom(tab.planner.weigh([]).pipe(toArray()))).toEqual([]);
    expect([puppet.opened, puppet.weighed]).toEqual([1, null]);
  });

  it('is what would come of it if something happened now, each by itself', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    await tab.logbook.add({ kind: 'done', step: 'p1.prime', minutes: 5 });
    const entries = [{ kind: 'done', step: 'p1.base', minutes: 4 } as const];
    await lastValueFrom(tab.planner.weighEntries([{ id: 'done', entries }]).pipe(toArray()));
    const [posing, changed] = puppet.weighed!;
    expect(posing).toMatchObject({ now: '2027-03-01T18:30:00Z' });
    expect(posing.log.map((e) => e.kind)).toEqual(['done']);
    expect(changed.map((c) => c.id)).toEqual(['as it is', 'done']);
    expect(changed[1]!.happened).toMatchObject([{ step: 'p1.base', at: '2027-03-01T18:30:00Z' }]);
  });
});

describe('the odds', () => {
  it('are asked of the desk that solved the plan, and stopped when nobody listens', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const told: unknown[] = [];
    const listening = tab.planner.odds(50).subscribe((t) => told.push(t));
    expect(puppet.opened).toBe(1);
    const [posing, solution, isMissed, futures] = puppet.asked!;
    expect(posing.muster).toBe(tab.store.muster());
    expect([solution, isMissed, futures]).toEqual([tab.planner.solved()!.solution, false, 50]);
    expect(told).toHaveLength(1);
    listening.unsubscribe();
    expect(puppet.oddsStopped).toBe(1);
  });

  it('are none without a plan of this muster', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    expect(await lastValueFrom(tab.planner.odds(50).pipe(toArray()))).toEqual([]);
    expect(puppet.asked).toBeNull();
  });

  it('of many steps and futures are played by a second desk as well; it goes when nobody listens', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const listening = tab.planner.odds(4_000_000).subscribe();
    expect(puppet.opened).toBe(2);
    expect(puppet.helps![1]).toBe(tab.planner.solved()!.solution);
    const helper = puppet.asked![6]!;
    expect(await helper.played(24, 8)).toEqual({ from: 24, futures: 8 });
    const failing = helper.played(100, 8);
    puppet.lose('out of memory');
    await expect(failing).rejects.toThrow('out of memory');
    const closed = puppet.closed;
    listening.unsubscribe();
    expect(puppet.closed).toBe(closed + 1);
  });

  it('that can no longer be had are told as such', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const failing = lastValueFrom(tab.planner.odds(50));
    puppet.lose('out of memory');
    await expect(failing).rejects.toThrow('could not be reckoned');
  });
});

describe('what the desk answers', () => {
  it.each([
    [
      'impossible',
      { kind: 'impossible', why: 'the window is shut' } as const,
      'impossible',
      'the window is shut',
    ],
    ['unknown', { kind: 'unknown' } as const, 'failed', 'No plan was found in this time'],
  ])('%s is told in words', async (_, outcome, state, words) => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    void tab.planner.state();
    await soon(() => expect(puppet.orders).toHaveLength(1));
    puppet.answer(outcome);
    await soon(() => expect(tab.planner.state()).toBe(state));
    expect(tab.planner.problem()).toContain(words);
  });

  it('nothing, because it is lost: that is told, and the next order opens another', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    void tab.planner.state();
    await soon(() => expect(puppet.orders).toHaveLength(1));
    puppet.lose('out of memory');
    await soon(() => expect(tab.planner.state()).toBe('failed'));
    expect(tab.planner.problem()).toBe('out of memory');
    tab.planner.searchLonger();
    await soon(() => expect(puppet.opened).toBe(2));
  });

  it('with an error, which is told', async () => {
    const puppet = new Puppet();
    const tab = await tabWith(puppet);
    void tab.planner.state();
    await soon(() => expect(puppet.orders).toHaveLength(1));
    puppet.fail(new Error('a rule is broken'));
    await soon(() =>
      expect([tab.planner.state(), tab.planner.problem()]).toEqual(['failed', 'a rule is broken']),
    );
  });
});

describe('after evenings on which nothing happened', () => {
  it('the rest is planned from now once that is asked for, and so is every change after it, also in a tab opened anew', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    tab.planner.replan();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(puppet.orders[1]).toMatchObject({ now: '2027-03-01T18:30:00Z', log: [] });
    puppet.answer(done(solved(puppet.orders[1]!, 20)));
    await soon(() => expect(tab.planner.state()).toBe('planned'));

    const again = new Puppet();
    const next = await openTab(NOON, { openDesk: again.open });
    await soon(() => expect(next.planner.state()).toBe('planned'));
    expect(again.orders).toEqual([]);
    next.store.change('Slower', (m) => withLayerMinutes(m, 30));
    await soon(() => expect(again.orders).toHaveLength(1));
    expect(again.orders[0]).toMatchObject({ now: '2027-03-01T18:30:00Z', log: [] });
  });
});

describe('after something happened at the bench', () => {
  it('the rest is planned from now, with the log, keeping calm; a reload shows that plan as it was solved', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    await tab.logbook.add({ kind: 'done', step: 'p1.prime', minutes: 5 });
    tab.planner.replan();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    const [, order] = puppet.orders;
    expect(order).toMatchObject({ now: '2027-03-01T18:30:00Z' });
    expect(order!.log.map((e) => e.kind)).toEqual(['done']);
    expect(order!.stability).toBeGreaterThan(puppet.orders[0]!.stability);
    const after = solved(order!, 20);
    puppet.answer(done(after));
    await soon(() => expect(tab.planner.solved()).toBe(after));
    expect(await tab.planner.why('p1.prime')).toBeNull();

    const again = new Puppet();
    const next = await openTab(new Date('2027-03-01T20:00:00Z'), { openDesk: again.open });
    void next.planner.state();
    await soon(() => expect(next.planner.state()).toBe('planned'));
    expect(next.planner.solved()!.plan).toEqual(after.plan);
    expect((await next.planner.why('p1.prime'))!.reasons[0]!.text).toMatch(/already done/);
    expect(again.orders).toEqual([]);
  });

  it('in a rehearsal it is planned as well, nothing of that is kept, and after it the plan is what it was', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    const before = tab.planner.solved()!.solution;
    tab.clock.rehearse(NOON);
    await tab.logbook.add({ kind: 'done', step: 'p1.prime', minutes: 5 });
    tab.planner.replan();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(puppet.orders[1]).toMatchObject({ endsCalm: true, seconds: 6 });
    puppet.answer(done(solved(puppet.orders[1]!, 10)));
    await soon(() => expect(tab.planner.solved()!.solution).not.toBe(before));
    tab.clock.backToReal();
    await soon(() =>
      expect([tab.planner.state(), tab.planner.solved()?.solution]).toEqual(['planned', before]),
    );
    expect(puppet.orders).toHaveLength(2);
  });

  it('a stop comes to nothing where nothing is searched', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    tab.planner.cancel();
    expect([tab.planner.state(), puppet.stops]).toEqual(['planned', 0]);
  });

  it('nothing is searched in a muster with an error', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    tab.store.change('Nobody', (m) => ({ ...m, bench: { ...m.bench, people: [] } }));
    tab.planner.replan();
    tab.planner.searchLonger();
    await new Promise((resolve) => setTimeout(resolve, 450));
    expect(puppet.orders).toHaveLength(1);
  });
});

describe('another muster in hand', () => {
  it('is planned for itself, not close to the plan of the one before', async () => {
    const puppet = new Puppet();
    const tab = await planned(puppet);
    await tab.store.add({ ...smallMuster(), name: 'Other' }, 'other');
    expect(tab.planner.plan()).toBeNull();
    await soon(() => expect(puppet.orders).toHaveLength(2));
    expect(puppet.orders[1]).toMatchObject({ previous: null, stability: 0 });
    expect(puppet.orders[1]!.muster.name).toBe('Other');
  });
});
