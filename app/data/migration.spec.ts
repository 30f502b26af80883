/** A browser of the first edition: what it kept becomes the first of several musters, whole. */
import Dexie from 'dexie';
import { beforeEach, describe, expect, it } from 'vitest';
import { withUnit, type Muster } from '#core/muster';
import { fenMuster } from '#demo/fen';
import { emptyBrowser, openTab } from './testing/services';

const NOON = new Date('2026-12-02T12:00:00Z');

/** A muster as the first edition wrote it: no time zone, readings by the wall, references that may dangle. */
function firstEdition(name: string): unknown {
  const { format, bench, ...rest } = fenMuster('2026-11-30');
  const { timeZone, ...old } = bench;
  expect([format, timeZone]).toEqual(['patient-muster/2', 'UTC']);
  return {
    ...rest,
    format: 'patient-muster/1',
    name,
    bench: { ...old, readings: [{ at: '2026-11-30T19:00', celsius: 18, humidityPercent: 60 }] },
  };
}

interface Old {
  readonly states: readonly { readonly muster: unknown; readonly label: string }[];
  readonly current: number;
  readonly log: readonly object[];
}

/** The database as the code of the first edition made it: version 2, its tables, its rows. */
async function keptBefore({ states, current, log }: Old): Promise<void> {
  const db = new Dexie('patient-muster');
  db.version(1).stores({ states: '++id', plans: 'id', settings: 'key' });
  db.version(2).stores({ log: 'id, at' });
  await db.open();
  const ids: unknown[] = [];
  for (const s of states) ids.push(await db.table('states').add({ ...s, at: NOON }));
  await db.table('settings').add({ key: 'current', value: String(ids[current]) });
  await db.table('settings').add({ key: 'theme', value: 'day' });
  await db.table('plans').add({ id: 'newest', musterText: '{}', solution: {}, naiveLateMinutes: null });
  await db.table('log').bulkAdd([...log]);
  db.close();
}

beforeEach(emptyBrowser);

describe('a database of the first edition', () => {
  it('becomes the first muster: its state in hand, its undo and redo, its log at the same moments, its settings', async () => {
    await keptBefore({
      states: ['one', 'two', 'three'].map((name) => ({ muster: firstEdition(name), label: `Named ${name}` })),
      current: 1,
      log: [
        { id: 'e1', at: '2026-11-30T19:30', kind: 'done', step: 'folk1.prime', minutes: 10, people: ['Me'] },
      ],
    });
    const tab = await openTab(NOON, { zone: 'Europe/Vienna' });
    const muster = tab.store.muster()!;
    expect([muster.name, tab.store.undoLabel(), tab.store.redoLabel()]).toEqual([
      'two',
      'Named two',
      'Named three',
    ]);
    expect(muster.format).toBe('patient-muster/2');
    expect(muster.bench.timeZone).toBe('Europe/Vienna');
    expect(muster.bench.readings).toEqual([{ at: '2026-11-30T18:00:00Z', celsius: 18, humidityPercent: 60 }]);
    expect(tab.logbook.entries()).toEqual([
      {
        id: 'e1',
        at: '2026-11-30T18:30:00Z',
        kind: 'done',
        step: 'folk1.prime',
        minutes: 10,
        people: ['Me'],
      },
    ]);
    expect(await tab.database.setting('theme')).toBe('day');
    expect((await tab.database.musters()).map((m) => m.name)).toEqual(['two']);
    tab.store.redo();
    await tab.store.settled();
    expect(tab.store.muster()!.name).toBe('three');
    expect(tab.store.trouble()).toBeNull();
  });

  it('whose newest states were refused by the schema shows the last sound one, and keeps the others', async () => {
    const bad = firstEdition('bad') as Muster;
    await keptBefore({
      states: [
        { muster: firstEdition('sound'), label: 'Sound' },
        { muster: withUnit(bad, { ...bad.units[0]!, table: '20277-03-01T12:00' }), label: 'Year mistyped' },
      ],
      current: 1,
      log: [],
    });
    const tab = await openTab(NOON);
    expect(tab.store.muster()!.name).toBe('sound');
    expect(tab.store.trouble()).toContain('“Sound”');
    tab.store.change('Named', (m) => ({ ...m, name: 'goes on' }));
    await tab.store.settled();
    expect((await openTab(NOON)).store.muster()!.name).toBe('goes on');
    const kept = (await tab.database.load(tab.store.openId!))!;
    expect(kept.states.map((s) => s.label)).toEqual(['Sound', 'Year mistyped', 'Named']);
  });

  it('with references that dangle is mended', async () => {
    const loose = firstEdition('loose') as Muster;
    const unit = loose.units[0]!;
    await keptBefore({
      states: [
        {
          muster: withUnit(loose, {
            ...unit,
            pieces: unit.pieces.map((p) => ({ ...p, recipe: 'gone', startsAt: 'gone' })),
          }),
          label: 'Loose',
        },
      ],
      current: 0,
      log: [],
    });
    const tab = await openTab(NOON);
    expect(tab.store.trouble()).toBeNull();
    expect(tab.store.muster()!.units[0]!.pieces.map((p) => [p.recipe, p.startsAt])).toEqual(
      unit.pieces.map(() => [null, undefined]),
    );
  });

  it('that is empty is a fresh one', async () => {
    await keptBefore({ states: [], current: 0, log: [] });
    const tab = await openTab(NOON);
    expect(tab.store.muster()!.name).toBe('Moth Fair at Candlewick Fen');
  });
});
