/** The muster in hand and what the browser keeps of it: undo and redo against a plain list, over tabs, on a broken disk. */
import Dexie from 'dexie';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { originOf, type Muster } from '#core/muster';
import { emptyBrowser, openTab, type TestTab } from './testing/services';

const NOON = new Date('2026-11-25T12:00:00');
const named =
  (name: string) =>
  (muster: Muster): Muster => ({ ...muster, name });
const nameIn = (tab: TestTab): string => tab.store.muster()!.name;

/** Until the browser has kept `states`, the one named `current` in hand. */
async function kept(tab: TestTab, states: number, current: string): Promise<void> {
  await vi.waitFor(
    async () => {
      const there = (await tab.database.load())!;
      expect([there.states.length, there.states[there.current]!.muster.name]).toEqual([states, current]);
    },
    { timeout: 5000 },
  );
}

beforeEach(emptyBrowser);

describe('the muster in hand', () => {
  it('is the demo at first, from the coming Monday on, and kept', async () => {
    const tab = await openTab(NOON);
    expect(originOf(tab.store.muster()!)).toBe('2026-11-30');
    expect([tab.store.undoLabel(), tab.store.redoLabel(), tab.store.trouble()]).toEqual([null, null, null]);
    const later = await openTab(new Date('2027-03-01T12:00:00'));
    expect(later.store.muster()).toEqual(tab.store.muster());
  });

  it('is in the next tab as it was left, with what can be undone and redone', async () => {
    const tab = await openTab(NOON);
    const first = nameIn(tab);
    tab.store.change('Named one', named('one'));
    tab.store.change('Named two', named('two'));
    tab.store.undo();
    await kept(tab, 3, 'one');

    const next = await openTab(NOON);
    expect([nameIn(next), next.store.undoLabel(), next.store.redoLabel()]).toEqual([
      'one',
      'Named one',
      'Named two',
    ]);
    next.store.redo();
    expect(nameIn(next)).toBe('two');
    next.store.undo();
    next.store.undo();
    next.store.undo();
    expect([nameIn(next), next.store.undoLabel()]).toEqual([first, null]);
  });

  it('forgets what was undone once something else is done instead', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    tab.store.undo();
    tab.store.change('Named two', named('two'));
    expect(tab.store.redoLabel()).toBeNull();
    await kept(tab, 2, 'two');
    expect((await openTab(NOON)).store.redoLabel()).toBeNull();
  });

  it('makes no state of an edit that changes nothing', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Nothing', (muster) => muster);
    expect(tab.store.undoLabel()).toBeNull();
  });

  it('offers to take back what was removed, and does', async () => {
    const tab = await openTab(NOON);
    const units = tab.store.muster()!.units.length;
    tab.store.remove('Unit gone', (m) => ({ ...m, units: m.units.slice(1) }));
    expect(tab.store.muster()!.units).toHaveLength(units - 1);
    const notice = tab.notices.current()!;
    expect([notice.text, notice.action!.word]).toEqual(['Unit gone', 'Undo']);
    notice.action!.run();
    expect(tab.store.muster()!.units).toHaveLength(units);
  });

  it('keeps the newest sixty states', async () => {
    const tab = await openTab(NOON);
    for (let k = 1; k <= 70; k++) tab.store.change(`Named ${k}`, named(`n${k}`));
    await kept(tab, 60, 'n70');
    const next = await openTab(NOON);
    for (let k = 0; k < 100; k++) next.store.undo();
    expect(nameIn(next)).toBe('n11');
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
        presses.forEach((p, k) => {
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
          expect(nameIn(tab)).toBe(list[at]);
        });
        await kept(tab, list.length, list[at]!);
        const next = await openTab(NOON);
        const walked: string[] = [];
        list.forEach(() => next.store.undo());
        list.forEach(() => {
          walked.push(nameIn(next));
          next.store.redo();
        });
        expect(walked).toEqual(list);
      }),
      { numRuns: 25 },
    );
  });
});

describe('a browser that does not keep what it should', () => {
  it('is told of in words, once, and not when the next change is kept', async () => {
    const tab = await openTab(NOON);
    const add = vi.spyOn(tab.database, 'add').mockRejectedValueOnce(new Error('the disk is full'));
    tab.store.change('Named one', named('one'));
    await vi.waitFor(() => expect(tab.store.trouble()).toContain('the disk is full'));
    expect(tab.store.trouble()).toContain('Take the muster away as a file');
    expect(nameIn(tab)).toBe('one');
    add.mockRestore();
    tab.store.change('Named two', named('two'));
    await vi.waitFor(() => expect(tab.store.trouble()).toBeNull());
  });

  it('with states that are none: they are passed over, counted, and the rest is there', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    await kept(tab, 2, 'one');
    const raw = await new Dexie('patient-muster').open();
    await raw.table('states').add({ muster: { name: 'half written' }, label: 'broken', at: NOON });
    raw.close();

    const next = await openTab(NOON);
    expect(nameIn(next)).toBe('one');
    expect(next.store.trouble()).toContain('1 of 3 kept states');
  });

  it('that cannot be read at all: the demo is shown, and nothing kept is touched', async () => {
    const tab = await openTab(NOON);
    tab.store.change('Named one', named('one'));
    await kept(tab, 2, 'one');
    const broken = await openTab(NOON, (database) =>
      vi.spyOn(database, 'load').mockRejectedValueOnce(new Error('no access')),
    );
    expect(broken.store.trouble()).toContain('no access');
    expect(broken.store.muster()!.units.length).toBeGreaterThan(0);
    await kept(tab, 2, 'one');
  });
});
