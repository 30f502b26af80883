/** The muster in hand and what the browser keeps of it: undo and redo against a plain list, tabs that share one truth, a broken disk. */
import Dexie from 'dexie';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { originOf, withUnit, withoutUnit, type Muster } from '#core/muster';
import { MOST_STATES } from './database';
import { emptyBrowser, openTab, type TestTab } from './testing/services';

const NOON = new Date('2026-11-25T12:00:00Z');
const named =
  (name: string) =>
  (muster: Muster): Muster => ({ ...muster, name });
const nameIn = (tab: TestTab): string => tab.store.muster()!.name;
const table = (tab: TestTab): string => tab.store.muster()!.units[0]!.table;
const setTable =
  (at: string) =>
  (m: Muster): Muster =>
    withUnit(m, { ...m.units[0]!, table: at });
const setUnitName =
  (name: string) =>
  (m: Muster): Muster =>
    withUnit(m, { ...m.units[0]!, name });
const soon = (check: () => void): Promise<void> => vi.waitFor(check, { timeout: 5000, interval: 5 });

beforeEach(emptyBrowser);

describe('the muster in hand', () => {
  it('is none at first where the demo is not asked for, and the first one made is it', async () => {
    const tab = await openTab(new Date('2027-02-24T10:00:00'), { wantsDemo: false });
    expect([tab.store.muster(), tab.store.isRead(), tab.store.trouble()]).toEqual([null, true, null]);
    expect(tab.store.change('nothing there', (m) => ({ ...m, name: 'x' }))).toBe(false);
    await tab.store.addEmpty();
    expect(tab.store.muster()?.units).toEqual([]);
    tab.close();
    // Another tab of that browser opens it, whether or not it asks for the demo.
    const other = await openTab(new Date('2027-02-24T10:00:00'));
    expect(other.store.muster()?.name).toBe('New muster');
    other.close();
  });

  it('is the demo at first, from the coming Monday on, and kept', async () => {
    const tab = await openTab(NOON);
    expect(originOf(tab.store.muster()!)).toEqual({ date: '2026-11-30', zone: 'UTC' });
    expect([tab.store.undoLabel(), tab.store.redoLabel(), tab.store.trouble()]).toEqual([null, null, null]);
    const later = await openTab(new Date('2027-03-01T12:00:00Z'));
    expect(later.store.muster()).toEqual(tab.store.muster());
  });

  it('is the demo from the next Monday on once the evening of this one is over', async () => {
    const during = await openTab(new Date('2026-11-30T21:59:00Z'));
    expect(originOf(during.store.muster()!).date).toBe('2026-11-30');
    await emptyBrowser();
    const after = await openTab(new Date('2026-11-30T22:00:00Z'));
    expect(originOf(after.store.muster()!).date).toBe('2026-12-07');
  });

  it('is in the next tab as it was left, with what can be undone and redone', async () => {
    const tab = await openTab(NOON);
    const first = nameIn(tab);
    tab.store.change('Named one', named('one'));
    tab.store.change('Named two', named('two'));
    tab.store.undo();
    await tab.store.settled();

    const next = await openTab(NOON);
    expect([nameIn(next), next.store.undoLabel(), next.store.redoLabel()]).toEqual([
      'one',
      'Named one',
      'Named two',
    ]);
    next.store.redo();
    await next.store.settled();
    expect(nameIn(next)).toBe('two');
    for (let k = 0; k < 3; k++) next.store.undo();
    await next.store.settled();
    expect([nameIn(next), next.store.undoLabel()]).toEqual([first, null]);
  });

  it('forgets what was undone once something else is done instead', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    tab.store.undo();
    await tab.store.settled();
    tab.store.change('Named two', named('two'));
    await tab.store.settled();
    expect(tab.store.redoLabel()).toBeNull();
    expect((await openTab(NOON)).store.redoLabel()).toBeNull();
  });

  it('makes no state of an edit that changes nothing', async () => {
    const tab = await openTab(NOON);
    expect(tab.store.change('Nothing', (m) => ({ ...m, units: [...m.units] }))).toBe(false);
    expect(tab.store.undoLabel()).toBeNull();
  });

  it('is shown as it becomes at once, and called kept only when it is', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    expect(nameIn(tab)).toBe('one');
    expect(tab.keeping.unwritten()).toBe(1);
    await tab.store.settled();
    expect(tab.keeping.unwritten()).toBe(0);
    expect(nameIn(await openTab(NOON))).toBe('one');
  });

  it('offers to take back what was removed, says what was mended, and takes it back', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Part-way', (m) =>
      withUnit(m, { ...m.units[0]!, pieces: m.units[0]!.pieces.map((p) => ({ ...p, startsAt: 'wash' })) }),
    );
    const before = tab.store.muster();
    tab.store.remove('Recipe gone', (m) => ({
      ...m,
      recipes: m.recipes.filter((r) => r.id !== 'reed-folk'),
    }));
    const notice = tab.notices.current()!;
    expect(notice.text).toMatch(/^Recipe gone\. .*left without a recipe/);
    // Three pieces: two are named.
    expect(notice.text).toMatch(/And \d+ more like it\.$/);
    expect(notice.text.match(/left without a recipe/g)).toHaveLength(2);
    expect(notice.action!.word).toBe('Undo');
    notice.action!.run();
    await tab.store.settled();
    expect(tab.store.muster()).toEqual(before);
  });

  it('refuses what the schema refuses, says why, and keeps nothing of it', async () => {
    const tab = await openTab(NOON);
    const before = tab.store.muster();
    expect(tab.store.change('Dated', setTable('20277-03-01T12:00'))).toBe(false);
    expect(tab.notices.current()!.text).toMatch(/no date and time from 2000 to 2199/);
    expect(tab.store.change('Dated', setTable('2077-03-01T12:00'))).toBe(false);
    expect(tab.notices.current()!.text).toMatch(
      /lies 50 years after the beginning of the plan.*at most two years/,
    );
    expect([tab.store.muster(), tab.store.undoLabel()]).toEqual([before, null]);
    expect((await openTab(NOON)).store.trouble()).toBeNull();
  });

  it(`keeps the newest ${MOST_STATES} states, and offers no undo beyond them`, async () => {
    const tab = await openTab(NOON);
    for (let k = 1; k <= MOST_STATES + 10; k++) tab.store.change(`Named ${k}`, named(`n${k}`));
    await tab.store.settled();
    for (const t of [tab, await openTab(NOON)]) {
      expect(t.store.depth()).toBe(MOST_STATES - 1);
      for (let k = 0; k < MOST_STATES; k++) t.store.undo();
      await t.store.settled();
      expect([nameIn(t), t.store.undoLabel()]).toEqual(['n11', null]);
      for (let k = 0; k < MOST_STATES; k++) t.store.redo();
      await t.store.settled();
    }
  });

  it('keeps fewer where they are long', async () => {
    const tab = await openTab(NOON);
    const long = 'x'.repeat(2000);
    const stuffed = (k: number) => (m: Muster) => ({
      ...m,
      name: `n${k}`,
      recipes: [1, 2, 3].flatMap((copy) =>
        m.recipes
          .filter((r) => !/-\d$/.test(r.id))
          .map((r) => ({
            ...r,
            id: copy === 1 ? r.id : `${r.id}-${copy}`,
            layers: r.layers.map((l) => ({ ...l, note: `${k}${long}`.slice(0, 2000) })),
          })),
      ),
    });
    for (let k = 0; k < 50; k++) expect(tab.store.change(`Stuffed ${k}`, stuffed(k))).toBe(true);
    await tab.store.settled();
    expect(tab.store.depth()).toBeLessThan(48);
    expect(tab.store.depth()).toBeGreaterThan(10);
    expect(nameIn(await openTab(NOON))).toBe('n49');
  });

  it('does what a list and a finger on it do, whatever is pressed, and so does the next tab', async () => {
    const press = fc.oneof(
      { weight: 3, arbitrary: fc.constant('change' as const) },
      { weight: 2, arbitrary: fc.constant('undo' as const) },
      fc.constant('redo' as const),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(press, { minLength: 1, maxLength: 14 }), async (presses) => {
        emptyBrowser();
        const tab = await openTab(NOON);
        let list = [nameIn(tab)];
        let at = 0;
        for (const [k, p] of presses.entries()) {
          if (p === 'change') {
            tab.store.change(`Named n${k}`, named(`n${k}`));
            list = [...list.slice(0, at + 1), `n${k}`];
            at++;
          } else if (p === 'undo') {
            tab.store.undo();
            at = Math.max(0, at - 1);
          } else {
            tab.store.redo();
            at = Math.min(list.length - 1, at + 1);
          }
          await tab.store.settled();
          expect(nameIn(tab)).toBe(list[at]);
        }
        const next = await openTab(NOON);
        const walked: string[] = [];
        list.forEach(() => next.store.undo());
        await next.store.settled();
        for (let k = list.length; k > 0; k--) {
          walked.push(nameIn(next));
          next.store.redo();
          await next.store.settled();
        }
        expect(walked).toEqual(list);
        tab.close();
        next.close();
      }),
      { numRuns: 15 },
    );
  });
});

describe('a change that was worked out elsewhere', () => {
  it('is taken on the muster that it was worked out from, and on no other', async () => {
    const tab = await openTab(NOON);
    const before = tab.store.muster()!;
    const after = { ...before, name: 'Worked out' };
    expect(tab.store.changeTo('Worked out', before, { ok: true, muster: after, notes: [] })).toBe(true);
    expect([nameIn(tab), tab.store.undoLabel()]).toEqual(['Worked out', 'Worked out']);
    expect(tab.store.changeTo('Too late', before, { ok: true, muster: before, notes: [] })).toBe(false);
    expect(nameIn(tab)).toBe('Worked out');
    expect(tab.notices.current()!.text).toContain('changed meanwhile');
    const faults = [{ path: 'units.0.table', text: 'is no date' }];
    expect(tab.store.changeTo('Wrong', tab.store.muster()!, { ok: false, faults })).toBe(false);
    expect(tab.notices.current()!.text).toBe('Not taken: Is no date.');
    await tab.store.settled();
    expect(nameIn(await openTab(NOON))).toBe('Worked out');
  });
});

describe('what is mended with a change', () => {
  it('is told in few words, with undo, however much it is', async () => {
    const tab = await openTab(NOON);
    const notes = ['First.', 'Second.', 'Third.', 'Fourth.'];
    const change = (name: string, told: string[]): boolean => {
      const before = tab.store.muster()!;
      return tab.store.changeTo(name, before, { ok: true, muster: { ...before, name }, notes: told });
    };
    change('one', notes);
    expect(tab.notices.current()!.text).toBe('First. Second. And 2 more like it.');
    const [before] = [nameIn(tab)];
    change('two', notes.slice(0, 2));
    expect(tab.notices.current()!.text).toBe('First. Second.');
    tab.notices.current()!.action!.run();
    await tab.store.settled();
    expect(nameIn(tab)).toBe(before);
  });
});

describe('a muster of hundreds of pieces', () => {
  it('is looked over after it is shown, and what is found is that of the muster in hand', async () => {
    const tab = await openTab(NOON);
    const [unit] = tab.store.muster()!.units;
    const many = (recipe: string | null) => (m: Muster) =>
      withUnit(m, {
        ...unit!,
        pieces: Array.from({ length: 301 }, (_, k) => ({
          ...unit!.pieces[0]!,
          id: `many${k}`,
          name: `Many ${k}`,
          recipe,
        })),
      });
    const told: (string | null)[] = [];
    const watching = tab.store.changes.subscribe((m) => told.push(m?.name ?? null));
    tab.store.change('Many', many(null));
    expect(tab.store.hasErrors()).toBe(false);
    await soon(() => expect(tab.store.hasErrors()).toBe(true));
    expect(tab.store.findings().length).toBeGreaterThan(0);
    tab.store.change('With a recipe', many(unit!.pieces[0]!.recipe));
    tab.store.change('And a name', named('Many of one'));
    await soon(() => expect(told.at(-1)).toBe('Many of one'));
    expect(tab.store.hasErrors()).toBe(false);
    watching.unsubscribe();
  });
});

describe('two tabs', () => {
  it('that begin an optional list in the same moment lose nothing of it', async () => {
    const tabs = [await openTab(NOON), await openTab(NOON), await openTab(NOON)];
    const ids = Array.from({ length: 30 }, (_, k) => `away${k}`);
    ids.forEach((id, k) =>
      tabs[k % 3]!.store.change(`Away ${id}`, (m) => ({
        ...m,
        bench: { ...m.bench, away: [...(m.bench.away ?? []), { id, from: '2027-05-01', to: '2027-05-02' }] },
      })),
    );
    for (const t of tabs) await t.store.settled();
    const next = await openTab(NOON);
    expect(new Set(next.store.muster()!.bench.away?.map((a) => a.id))).toEqual(new Set(ids));
  });

  it('undo only what they have seen: what another wrote in that moment stays, and it is said', async () => {
    const [a, b] = [await openTab(NOON), await openTab(NOON)];
    a.store.change('Named A', named('A'));
    await a.store.settled();
    await soon(() => expect(nameIn(b)).toBe('A'));
    // Undo is pressed in the one while the other writes.
    b.store.change('Moved by B', (m) => ({ ...m, startsOn: '2026-12-01T18:00' }));
    a.store.undo();
    await Promise.all([a.store.settled(), b.store.settled()]);
    await soon(() => expect(a.store.muster()).toEqual(b.store.muster()));
    const wasRefused = a.notices.current()?.text.includes('nothing was undone') ?? false;
    expect(a.store.muster()!.startsOn).toBe('2026-12-01T18:00');
    expect(nameIn(a)).toBe(wasRefused ? 'A' : nameIn(await openTab(NOON)));
  });

  it('share one truth: what one does the other shows, its undo included', async () => {
    const [a, b] = [await openTab(NOON), await openTab(NOON)];
    a.store.change('Named one', named('one'));
    await soon(() => expect(nameIn(b)).toBe('one'));
    expect(b.store.undoLabel()).toBe('Named one');
    b.store.undo();
    await soon(() => expect(nameIn(a)).not.toBe('one'));
    expect(a.store.redoLabel()).toBe('Named one');
  });

  it('opened at once in a fresh browser come to one first muster', async () => {
    const tabs = await Promise.all([openTab(NOON), openTab(NOON), openTab(NOON)]);
    expect(new Set(tabs.map((t) => t.store.openId)).size).toBe(1);
    expect(tabs.map((t) => t.store.trouble())).toEqual([null, null, null]);
    expect(await tabs[0]!.database.musters()).toHaveLength(1);
  });

  it('lose none of 200 edits made by turns without waiting, and come to the same', async () => {
    const tabs = [await openTab(NOON), await openTab(NOON)];
    const units = tabs[0]!.store.muster()!.units.length;
    for (let k = 0; k < 200; k++) {
      const tab = tabs[k % 2]!;
      tab.store.change(`Unit ${k}`, (m) =>
        withUnit(m, { ...m.units[0]!, id: `new${k}`, name: `New ${k}`, pieces: [] }),
      );
      // Now and then a moment to breathe, as between two taps.
      if (k % 7 === 0) await new Promise((resolve) => setTimeout(resolve, 1));
    }
    for (const t of tabs) await t.store.settled();
    await soon(() => expect(tabs[0]!.store.muster()).toEqual(tabs[1]!.store.muster()));
    const kept = (await openTab(NOON)).store.muster()!;
    expect(kept.units).toHaveLength(units + 200);
    expect(kept).toEqual(tabs[0]!.store.muster());
  });

  it('keep edits of two fields of one unit, and of one field the later; who made the earlier is told', async () => {
    const [a, b] = [await openTab(NOON), await openTab(NOON)];
    a.store.change('Folk: name', setUnitName('From A'));
    b.store.change('Folk: table date', setTable('2026-12-20T13:00'));
    await soon(() =>
      expect(a.store.muster()!.units[0]).toMatchObject({ name: 'From A', table: '2026-12-20T13:00' }),
    );
    await soon(() => expect(b.store.muster()).toEqual(a.store.muster()));
    expect([a.notices.current(), b.notices.current()]).toEqual([null, null]);

    a.store.change('Folk: name', setUnitName('Earlier'));
    b.store.change('Folk: renamed', setUnitName('Later'));
    await soon(() => expect([a, b].map((t) => t.store.muster()!.units[0]!.name)).toEqual(['Later', 'Later']));
    await soon(() =>
      expect(a.notices.current()?.text).toMatch(
        /Another tab has changed the same after you \(“Folk: renamed”\)/,
      ),
    );
    expect(b.notices.current()).toBeNull();
  });

  it('say so when an edit is meant for what the other has deleted, and lose nothing else', async () => {
    const [a, b] = [await openTab(NOON), await openTab(NOON)];
    const gone = a.store.muster()!.units[0]!.id;
    a.store.change('Folk deleted', (m) => withoutUnit(m, gone));
    b.store.change('Folk: renamed', setUnitName('Late'));
    b.store.change('Named', named('still kept'));
    await soon(() =>
      expect(b.notices.current()?.text).toMatch(
        /“Folk: renamed” was not taken: .*another tab has deleted it/,
      ),
    );
    await soon(() => expect(nameIn(a)).toBe('still kept'));
    await b.store.settled();
    await soon(() => expect(b.store.muster()).toEqual(a.store.muster()));
    expect(a.store.muster()!.units.some((u) => u.id === gone)).toBe(false);
  });
});

describe('several musters', () => {
  it('lie side by side, each with its own history, whichever is in hand', async () => {
    const tab = await openTab(NOON);
    const demo = tab.store.openId!;
    tab.store.change('Named one', named('one'));
    await tab.store.addEmpty();
    expect([nameIn(tab), tab.store.undoLabel(), tab.store.muster()!.units]).toEqual(['New muster', null, []]);
    const empty = tab.store.openId!;
    tab.store.change('Named own', named('own'));
    await tab.store.open(demo);
    expect([nameIn(tab), tab.store.undoLabel()]).toEqual(['one', 'Named one']);
    tab.store.undo();
    await tab.store.settled();
    await tab.store.open(empty);
    expect([nameIn(tab), tab.store.undoLabel()]).toEqual(['own', 'Named own']);
    expect((await tab.database.musters()).map((m) => m.name).sort()).toEqual([
      'Moth Fair at Candlewick Fen',
      'own',
    ]);
    expect(nameIn(await openTab(NOON))).toBe('own');
  });

  it('go to the bin and come back whole; only from the bin can one be deleted for good', async () => {
    const tab = await openTab(NOON);
    const demo = tab.store.openId!;
    await tab.store.addEmpty();
    await expect(tab.database.destroy(demo)).rejects.toThrow('does not lie in the bin');
    await tab.database.setPlace(demo, { binnedAt: '2026-11-25T12:00:00Z' });
    await tab.database.setPlace(demo, { binnedAt: null });
    await tab.store.open(demo);
    expect(nameIn(tab)).toBe('Moth Fair at Candlewick Fen');
    await tab.store.addEmpty();
    await tab.database.setPlace(demo, { binnedAt: '2026-11-25T12:00:00Z' });
    await tab.database.destroy(demo);
    await expect(tab.store.open(demo)).rejects.toThrow('no such muster');
    expect(await tab.database.load(demo)).toBeNull();
  });
});

describe('which muster is opened', () => {
  const binned = { binnedAt: '2026-11-25T12:00:00Z' };

  it('is the one last in hand, unless it lies in the bin; else one that is put away nowhere; else none', async () => {
    const tab = await openTab(NOON);
    const demo = tab.store.openId!;
    await tab.store.addEmpty();
    const empty = tab.store.openId!;
    const opened = async (): Promise<string | null> => (await openTab(NOON)).store.openId;
    expect(await opened()).toBe(empty);
    await tab.database.setPlace(empty, { isArchived: true });
    expect(await opened()).toBe(empty);
    await tab.database.setPlace(empty, binned);
    expect(await opened()).toBe(demo);
    await tab.database.setPlace(demo, { isArchived: true });
    await tab.database.keepSetting('open muster', 'nobody');
    expect(await opened()).toBeNull();
  });

  it('stays the one in hand while something of it could not be written, or another is not there', async () => {
    const tab = await openTab(NOON);
    const demo = tab.store.openId!;
    await expect(tab.store.open('nobody')).rejects.toThrow('no such muster');
    vi.spyOn(tab.database, 'change').mockRejectedValue(new Error('the disk is full'));
    tab.store.change('Named one', named('one'));
    await tab.store.settled();
    await expect(tab.store.open(demo)).rejects.toThrow('could not be written yet');
    expect([tab.store.openId, nameIn(tab)]).toEqual([demo, 'one']);
  });

  it('is a new one only when it has been written', async () => {
    const tab = await openTab(NOON);
    const demo = tab.store.openId!;
    const create = vi.spyOn(tab.database, 'create').mockRejectedValueOnce(new Error('the disk is full'));
    await expect(tab.store.addEmpty()).rejects.toThrow('the disk is full');
    expect([tab.store.openId, tab.keeping.trouble()?.includes('New muster')]).toEqual([demo, true]);
    create.mockRestore();
    await tab.store.addDemo();
    expect([tab.store.openId === demo, tab.keeping.trouble()]).toEqual([false, null]);
    expect(nameIn(tab)).toBe('Moth Fair at Candlewick Fen');
  });

  it('of one’s own has the bench of the one before, without its readings and exceptions', async () => {
    const tab = await openTab(NOON);
    const reading = { at: '2026-11-30T19:00:00Z', celsius: 18, humidityPercent: 60 };
    tab.store.change('Bench', (m) => ({
      ...m,
      bench: {
        ...m.bench,
        rackPlaces: 7,
        readings: [reading],
        exceptions: [{ id: 'x', date: '2026-12-01', sessions: [] }],
      },
    }));
    await tab.store.addEmpty();
    const { bench, startsOn } = tab.store.muster()!;
    expect([bench.rackPlaces, bench.readings, bench.exceptions]).toEqual([7, [], []]);
    expect(startsOn).toBe('2026-11-25T18:00');
  });
});

describe('a browser that does not keep what it should', () => {
  const full = (tab: TestTab) =>
    vi.spyOn(tab.database, 'change').mockRejectedValue(new Error('the disk is full'));

  it('says so until something has truly been written, keeps trying, and loses nothing', async () => {
    const tab = await openTab(NOON);
    const change = full(tab);
    tab.store.change('Named one', named('one'));
    await soon(() => expect(tab.keeping.trouble()).toContain('the disk is full'));
    expect(tab.keeping.trouble()).toContain('export it as a file');
    expect([nameIn(tab), tab.keeping.unwritten()]).toEqual(['one', 1]);
    tab.store.change('Dated', setTable('2026-12-21T13:00'));
    await tab.store.settled();
    expect(tab.keeping.unwritten()).toBe(2);
    change.mockRestore();
    tab.store.change('Named two', named('two'));
    await soon(() => expect([tab.keeping.trouble(), tab.keeping.unwritten()]).toEqual([null, 0]));
    const next = await openTab(NOON);
    expect([nameIn(next), table(next)]).toEqual(['two', '2026-12-21T13:00']);
  });

  it('is not called well by an undo of what was never written', async () => {
    const tab = await openTab(NOON);
    const before = nameIn(tab);
    full(tab);
    tab.store.change('Named one', named('one'));
    await soon(() => expect(tab.keeping.trouble()).not.toBeNull());
    tab.store.undo();
    await tab.store.settled();
    expect(nameIn(tab)).toBe(before);
    expect(tab.keeping.trouble()).toContain('the disk is full');
    expect(tab.keeping.unwritten()).toBe(0);
  });

  it('with a newest state that is none: the one before is shown, told of, and the unreadable one stays', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    tab.store.change('Named two', named('two'));
    await tab.store.settled();
    const raw = await new Dexie('patient-muster').open();
    const newest = (await raw.table('texts').orderBy(':id').last()) as { id: number };
    await raw.table('texts').put({ id: newest.id, text: '{"name":"half writ' });

    const next = await openTab(NOON);
    expect(nameIn(next)).toBe('one');
    expect(next.store.trouble()).toContain('can’t be read');
    next.store.change('Named three', named('three'));
    await next.store.settled();
    expect(await raw.table('texts').get(newest.id)).toMatchObject({ text: '{"name":"half writ' });
    raw.close();
    expect(nameIn(await openTab(NOON))).toBe('three');
  });

  it('that cannot be read at all: the demo is shown, and nothing kept is touched by what is typed', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    await tab.store.settled();
    const broken = await openTab(NOON, {
      prepare: (database) => vi.spyOn(database, 'musters').mockRejectedValueOnce(new Error('no access')),
    });
    expect(broken.store.trouble()).toContain('no access');
    expect(broken.store.muster()!.units.length).toBeGreaterThan(0);
    broken.store.change('Typed', named('typed'));
    await broken.store.settled();
    expect(broken.keeping.trouble()).toContain('could not be read');
    expect(nameIn(await openTab(NOON))).toBe('one');
  });
});
