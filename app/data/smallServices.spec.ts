/** Notices that go by themselves, refusals that find their field, what is being kept, what the checks have found. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { emptyBrowser, openTab, type TestTab } from './testing/services';

const NOON = new Date('2027-03-01T12:00:00Z');
let tab: TestTab;

beforeEach(async () => {
  emptyBrowser();
  tab = await openTab(NOON);
});
afterEach(() => {
  vi.useRealTimers();
  tab.close();
});

describe('a notice', () => {
  it('stands for twelve seconds, each one for its own, unless it is put away', () => {
    vi.useFakeTimers();
    const { notices } = tab;
    notices.tell('first');
    vi.advanceTimersByTime(11_000);
    const run = vi.fn();
    notices.tell('second', { word: 'Undo', run });
    vi.advanceTimersByTime(11_999);
    expect(notices.current()?.text).toBe('second');
    notices.current()!.action!.run();
    expect(run).toHaveBeenCalledOnce();
    vi.advanceTimersByTime(1);
    expect(notices.current()).toBeNull();
    notices.tell('third');
    expect(notices.current()).toEqual({ text: 'third', action: null });
    notices.dismiss();
    expect(notices.current()).toBeNull();
    notices.tell('fourth');
    vi.advanceTimersByTime(11_000);
    expect(notices.current()?.text).toBe('fourth');
  });
});

describe('a refusal', () => {
  it('goes to the field that is handing on, the first of several, and is told as a notice otherwise', () => {
    const { refusals, notices } = tab;
    expect(
      refusals.during(() => {
        refusals.say('is too long');
        refusals.say('and more');
      }),
    ).toBe('is too long');
    expect(notices.current()).toBeNull();
    expect(refusals.during(() => undefined)).toBeNull();
    refusals.say('the year is too far');
    expect(notices.current()!.text).toBe('Not taken: the year is too far');
  });

  it('is told again as a notice after a field that failed', () => {
    const { refusals, notices } = tab;
    expect(() =>
      refusals.during(() => {
        throw new Error('a mistake');
      }),
    ).toThrow('a mistake');
    refusals.say('no');
    expect(notices.current()!.text).toBe('Not taken: no');
  });
});

describe('keeping', () => {
  it('counts what waits of all keepers, and each keeper’s last count', () => {
    const { keeping } = tab;
    const [one, other] = [{}, {}];
    keeping.waits(one, 2);
    keeping.waits(other, 3);
    expect(keeping.unwritten()).toBe(5);
    keeping.waits(one, 0);
    expect(keeping.unwritten()).toBe(3);
  });

  it('tells what failed, in one line and with what to do, until something has been written', () => {
    const { keeping } = tab;
    expect(keeping.trouble()).toBeNull();
    keeping.failed('The last change is', new Error('the disk is full\nat some line'));
    expect(keeping.trouble()).toMatch(
      /^The last change is not saved in this browser \(the disk is full\)\. .*export it as a file/,
    );
    keeping.failed('It is', 'a text');
    expect(keeping.trouble()).toContain('(a text)');
    keeping.wrote();
    expect(keeping.trouble()).toBeNull();
  });
});

describe('what the checks have found', () => {
  /** A unit whose table date is before the muster begins is a break; a year of unused hands is none. */
  const breakIt = (): boolean =>
    tab.store.change('an earlier date', (m) => ({
      ...m,
      units: m.units.map((u, k) => (k === 0 ? { ...u, table: '2026-01-01T12:00' } : u)),
    }));

  it('is counted by what stands in the way and what warns, not by advice', async () => {
    const { concerns, store } = tab;
    // A muster that is opened is looked over in turns.
    await vi.waitFor(() => expect(store.findings().some((f) => f.severity === 'advice')).toBe(true));
    const all = store.findings();
    expect(concerns.counted()).toEqual(all.filter((f) => f.severity !== 'advice'));
    expect(concerns.breaks()).toEqual([]);
    breakIt();
    expect(concerns.breaks().length).toBeGreaterThan(0);
    expect(concerns.breaks().every((f) => f.severity === 'error')).toBe(true);
  });

  it('is looked up by recipe and by layer, and each has its cure in one press', () => {
    const { concerns, store } = tab;
    // Without their drying times layers come too soon on one another.
    store.change('nothing dries', (m) => ({
      ...m,
      recipes: m.recipes.map((r) => ({ ...r, layers: r.layers.map((l) => ({ ...l, dryMinutes: 0 })) })),
    }));
    const counted = concerns.counted();
    expect(counted.length).toBeGreaterThan(3);
    for (const { id, layers } of store.muster()!.recipes) {
      expect(concerns.ofRecipe(id)).toBe(counted.filter((f) => f.place.recipe === id).length);
      for (const l of layers)
        expect(concerns.ofLayer(id, l.id)).toEqual(
          counted.filter((f) => f.place.recipe === id && f.place.layer === l.id),
        );
    }
    expect(concerns.ofRecipe('no such')).toBe(0);
    expect(concerns.ofLayer('no such', 'layer')).toEqual([]);
    const cured = counted.find((f) => f.fix)!;
    concerns.cure(cured);
    expect(concerns.counted().map((f) => f.text)).not.toContain(cured.text);
    const muster = store.muster();
    concerns.cure({ ...cured, fix: undefined } as unknown as typeof cured);
    expect(store.muster()).toBe(muster);
  });
});
