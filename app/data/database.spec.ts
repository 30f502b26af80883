/** What the browser keeps, without the services over it: rows, histories, logs and plans of several musters. */
import Dexie from 'dexie';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { LogEntry } from '#core/log';
import type { Muster } from '#core/muster';
import { smallMuster } from '../../core/plan/testing';
import { MOST_LETTERS, MOST_STATES, type Database, type KeptPlan, type Wanted } from './database';
import { OutdatedError } from './outdated';
import { emptyBrowser, openTab, type TestTab } from './testing/services';

let tab: TestTab;
let database: Database;
const NOON = new Date('2026-11-25T12:00:00Z');
const named = (name: string): Muster => ({ ...smallMuster(), name });
const wanted = (name: string, base: number, more: Partial<Wanted> = {}): Wanted => ({
  label: `Named ${name}`,
  touches: ['name'],
  tab: 'a',
  base,
  seen: base,
  text: JSON.stringify(named(name)),
  again: (text) => JSON.stringify({ ...(JSON.parse(text) as Muster), name: `${name} again` }),
  ...more,
});
const done = (id: string, step = id, kind = 'done'): LogEntry =>
  ({ id, kind, step, minutes: 5, at: '2026-11-25T12:00:00Z' }) as LogEntry;
const PLAN: KeptPlan = {
  id: 'm',
  musterText: '',
  now: null,
  logged: [],
  isMissed: false,
  solution: { operations: [] } as unknown as KeptPlan['solution'],
  naiveLateMinutes: null,
};
const current = async (of: string): Promise<number> => (await database.load(of))!.muster.current;

beforeEach(async () => {
  emptyBrowser();
  tab = await openTab(NOON, { wantsDemo: false });
  database = tab.database;
  await database.create('m', named('first'), 'Made');
});

describe('the musters', () => {
  it('are told the last changed first, and of one moment by their ids', async () => {
    await database.create('b', named('b'), 'Made');
    await database.create('a', named('a'), 'Made');
    expect((await database.musters()).map((m) => m.id)).toEqual(['a', 'b', 'm']);
    tab.time = new Date('2026-11-25T12:05:00Z');
    await database.change('m', wanted('later', await current('m')));
    expect((await database.musters()).map((m) => [m.id, m.name])).toEqual([
      ['m', 'later'],
      ['a', 'a'],
      ['b', 'b'],
    ]);
  });

  it('begin with one state, in hand and nowhere else', async () => {
    const { muster, states, text } = (await database.load('m'))!;
    expect(muster).toEqual({
      id: 'm',
      name: 'first',
      current: states[0]!.id,
      revision: 1,
      changedAt: '2026-11-25T12:00:00Z',
      isArchived: false,
      binnedAt: null,
    });
    expect(states).toHaveLength(1);
    expect(states[0]).toMatchObject({
      of: 'm',
      label: 'Made',
      size: text.length,
      at: '2026-11-25T12:00:00Z',
    });
    expect(JSON.parse(text)).toEqual(named('first'));
  });

  it('are watched one by one and as a list: whoever watches hears of each change', async () => {
    const rows: (string | undefined)[] = [];
    const lists: number[] = [];
    const row = database.watchMuster('m').subscribe((m) => rows.push(m?.name));
    const list = database.watchMusters().subscribe((all) => lists.push(all.length));
    await vi.waitFor(() => expect([rows, lists]).toEqual([['first'], [1]]));
    await database.change('m', wanted('second', await current('m')));
    await vi.waitFor(() => expect(rows.at(-1)).toBe('second'));
    await database.create('n', named('n'), 'Made');
    await vi.waitFor(() => expect(lists.at(-1)).toBe(2));
    row.unsubscribe();
    list.unsubscribe();
  });

  it('are archived and binned without a new state, and what is changed of one that is gone is refused', async () => {
    const before = (await database.load('m'))!.states;
    await database.setPlace('m', { isArchived: true });
    await database.setPlace('m', { binnedAt: '2026-11-25T12:00:00Z' });
    const { muster, states } = (await database.load('m'))!;
    expect([muster.isArchived, muster.binnedAt, states]).toEqual([true, '2026-11-25T12:00:00Z', before]);
    await database.destroy('m');
    const gone = 'deleted for good in another tab';
    await expect(database.change('m', wanted('x', 1))).rejects.toThrow(gone);
    await expect(database.go('m', -1)).rejects.toThrow(gone);
    await expect(database.setPlace('m', { isArchived: false })).rejects.toThrow(gone);
  });

  it('deleted for good take their states, log and plan along, and nobody else’s', async () => {
    await database.create('n', named('n'), 'Made');
    for (const of of ['m', 'n']) {
      await database.addToLog(of, [done('e')]);
      await database.keepPlan({ ...PLAN, id: of });
    }
    const [gone, stays] = [await current('m'), await current('n')];
    await database.setPlace('m', { binnedAt: '2026-11-25T12:00:00Z' });
    await database.destroy('m');
    await expect(database.textOf(gone)).rejects.toThrow(`State ${gone} is not there any more`);
    expect([await database.load('m'), await database.newestPlan('m')]).toEqual([null, undefined]);
    expect((await database.readLog('m')).entries).toEqual([]);
    expect((await database.newestPlan('n'))!.id).toBe('n');
    expect((await database.readLog('n')).entries).toHaveLength(1);
    expect(await database.textOf(stays)).toContain('"n"');
  });
});

describe('a change', () => {
  it('on the state that was seen is taken as it was worked out', async () => {
    const again = vi.fn();
    const base = await current('m');
    const kept = await database.change('m', wanted('second', base, { again }));
    expect(again).not.toHaveBeenCalled();
    expect(kept).toMatchObject({ revision: 2, wasMoved: false, oldest: base });
    expect(kept.state).toMatchObject({ of: 'm', label: 'Named second', base, tab: 'a', touches: ['name'] });
    expect(kept.state.id).toBe(base + 1);
  });

  it('on a state that somebody else has made is worked out again on that, or nothing is kept of it', async () => {
    const base = await current('m');
    await database.change('m', wanted('theirs', base));
    const kept = await database.change('m', wanted('ours', base));
    expect(kept.wasMoved).toBe(true);
    expect((JSON.parse(kept.text) as Muster).name).toBe('ours again');
    const before = await database.load('m');
    const refusing = wanted('x', base, {
      again: () => {
        throw new Error('not on this one');
      },
    });
    await expect(database.change('m', refusing)).rejects.toThrow('not on this one');
    expect(await database.load('m')).toEqual(before);
  });

  it('drops what was undone, here alone, and its states count on over all musters', async () => {
    await database.create('n', named('n'), 'Made');
    const base = await current('m');
    const second = await database.change('m', wanted('second', base));
    expect(second.state.id).toBe((await current('n')) + 1);
    expect(await database.go('m', -1)).toMatchObject({ current: base, revision: 3 });
    expect((await database.musters()).find((m) => m.id === 'm')!.name).toBe('first');
    await database.change('m', wanted('third', base));
    expect((await database.load('m'))!.states.map((s) => s.label)).toEqual(['Made', 'Named third']);
    await expect(database.textOf(second.state.id)).rejects.toThrow('not there any more');
    expect((await database.load('n'))!.states).toHaveLength(1);
  });

  it('forgets the oldest beyond so many, and says which is the oldest left', async () => {
    let kept = await database.change('m', wanted('0', await current('m')));
    const first = kept.oldest;
    for (let k = 1; k < MOST_STATES; k++) kept = await database.change('m', wanted(`${k}`, kept.state.id));
    const { states } = (await database.load('m'))!;
    expect(states).toHaveLength(MOST_STATES);
    expect(states[0]!.id).toBe(kept.oldest);
    expect(kept.oldest).toBe(first + 1);
    await expect(database.textOf(first)).rejects.toThrow();
  });

  it('that is long leaves room for fewer, but always for itself', async () => {
    const long = (share: number): string =>
      JSON.stringify({ ...named('long'), notes: 'x'.repeat(Math.floor(share * MOST_LETTERS)) });
    let kept = await database.change('m', wanted('a', await current('m'), { text: long(0.6) }));
    kept = await database.change('m', wanted('b', kept.state.id, { text: long(0.3) }));
    expect((await database.load('m'))!.states.map((s) => s.label)).toEqual(['Made', 'Named a', 'Named b']);
    kept = await database.change('m', wanted('c', kept.state.id, { text: long(0.3) }));
    expect((await database.load('m'))!.states.map((s) => s.label)).toEqual(['Named b', 'Named c']);
    await database.change('m', wanted('d', kept.state.id, { text: long(1.2) }));
    expect((await database.load('m'))!.states.map((s) => s.label)).toEqual(['Named d']);
  });
});

describe('going back and forth', () => {
  it('is by states, and nowhere beyond the first and the last', async () => {
    const base = await current('m');
    const { state } = await database.change('m', wanted('second', base));
    expect(await database.go('m', 1)).toBeNull();
    expect(await database.go('m', -2)).toBeNull();
    expect((await database.load('m'))!.muster).toMatchObject({ current: state.id, revision: 2 });
    const back = await database.go('m', -1);
    if (back === null || back === 'moved') throw new Error('There was something to go back to.');
    expect((JSON.parse(back.text) as Muster).name).toBe('first');
    expect(await database.go('m', -1)).toBeNull();
    expect(await database.go('m', 1)).toMatchObject({ current: state.id, revision: 4 });
  });
});

describe('a log', () => {
  const many = Array.from({ length: 620 }, (_, k) => done(`e${k}`));

  it('takes an entry once, by its id and by its step, in bundles or not', async () => {
    expect(await database.addToLog('m', many)).toHaveLength(620);
    expect(
      await database.addToLog('m', [done('else', 'e7'), done('new', 'new'), done('new', 'new')]),
    ).toEqual([done('new', 'new')]);
    expect(await database.addToLog('n', [done('e1')])).toHaveLength(1);
    expect(new Set(await database.logIds('m')).size).toBe(621);
    expect(await database.logIds('n')).toEqual(['e1']);
  });

  it('merged in keeps what is there, and takes the rest whole', async () => {
    await database.mergeLog('m', [done('e1', 'mine')]);
    const added = await database.mergeLog('m', many);
    expect(added).toHaveLength(619);
    expect(added.some((e) => e.id === 'e1')).toBe(false);
    expect((await database.readLog('m', ['e1', 'nobody', 'e2'])).entries).toEqual([
      done('e1', 'mine'),
      done('e2'),
    ]);
  });

  it('is read in part by few ids, and whole without any or with very many', async () => {
    await database.mergeLog('m', many);
    expect((await database.readLog('m')).entries).toHaveLength(620);
    expect((await database.readLog('m', [])).entries).toEqual([]);
    const first = (n: number): string[] => many.slice(0, n).map((e) => e.id);
    expect((await database.readLog('m', first(250))).entries).toHaveLength(250);
    expect((await database.readLog('m', first(251))).entries.length).toBeGreaterThanOrEqual(251);
  });

  it('is counted for whoever watches it', async () => {
    const counts: number[] = [];
    const watching = database.watchLog('m').subscribe((n) => counts.push(n));
    await vi.waitFor(() => expect(counts).toEqual([0]));
    await database.addToLog('m', [done('a'), done('b')]);
    await vi.waitFor(() => expect(counts.at(-1)).toBe(2));
    watching.unsubscribe();
  });
});

describe('a setting', () => {
  it('is what it was last set to', async () => {
    expect(await database.setting('theme')).toBeUndefined();
    await database.keepSetting('theme', 'day');
    await database.keepSetting('theme', 'night');
    expect(await database.setting('theme')).toBe('night');
  });
});

describe('what is damaged, or of a newer edition', () => {
  /** The same browser, written to by somebody else. */
  async function raw(work: (db: Dexie) => Promise<unknown>): Promise<void> {
    const db = new Dexie('patient-muster');
    await db.open();
    await work(db);
    db.close();
  }
  const inLog = (id: string, entry: unknown) => ({ of: 'm', id, kind: 'done', entry });

  it('an entry of the log is passed over and left where it is; the others are read, and Done is taken', async () => {
    await database.addToLog('m', [done('e1')]);
    await raw(async (db) => {
      await db.table('entries').add(inLog('e2', { ...done('e2'), at: '2026-13-45T12:00:00Z' }));
      await db.table('entries').add(inLog('e3', 'not an entry at all'));
      await db.table('entries').add(inLog('e4', done('another id')));
    });
    const read = await database.readLog('m');
    expect(read.entries.map((e) => e.id)).toEqual(['e1']);
    expect([...read.damaged].sort()).toEqual(['e2', 'e3', 'e4']);
    expect(await database.addToLog('m', [done('e5')])).toHaveLength(1);
    expect(await database.logIds('m')).toHaveLength(5);
  });

  it('a kept plan is none', async () => {
    await database.keepPlan(PLAN);
    expect(await database.newestPlan('m')).toEqual(PLAN);
    for (const broken of [{ logged: 'all' }, { solution: null }, { solution: {} }, { now: 5 }]) {
      await raw((db) => db.table('plans').put({ ...PLAN, ...broken }));
      expect(await database.newestPlan('m')).toBeUndefined();
    }
  });

  it('a database that a newer edition has opened is read, and never written to by a tab of this one', async () => {
    await database.addToLog('m', [done('e1')]);
    // A newer edition opens it: the connection of this one is closed, and what it kept stays.
    await new Promise((resolve, reject) => {
      const opening = Dexie.dependencies.indexedDB.open('patient-muster', 40);
      opening.onerror = reject;
      opening.onsuccess = () => (opening.result.close(), resolve(null));
    });
    await raw((db) => db.table('settings').put({ key: 'theme', value: 'of the newer edition' }));
    const writes: (() => Promise<unknown>)[] = [
      () => database.addToLog('m', [done('e2')]),
      () => database.mergeLog('m', [done('e3')]),
      () => database.create('x', named('x'), 'Made'),
      async () => database.change('m', wanted('later', await current('m'))),
      () => database.go('m', -1),
      () => database.keepSetting('theme', 'of this one'),
      () => database.setPlace('m', { isArchived: true }),
      () => database.destroy('m'),
    ];
    for (const write of writes) await expect(write()).rejects.toThrow(OutdatedError);
    expect((await database.readLog('m')).entries.map((e) => e.id)).toEqual(['e1']);
    expect(await database.setting('theme')).toBe('of the newer edition');
    expect((await database.musters()).map((m) => m.name)).toEqual(['first']);
  });
});
