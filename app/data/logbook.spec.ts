/** The log in the browser: what is seen is kept, nothing is changed or lost, two devices come to the same. */
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { standing, type LogEntry } from '#core/log';
import { pieceCards } from '#core/session';
import { emptyBrowser, openTab, type TestTab } from './testing/services';

const EVENING = new Date('2026-11-30T19:30:00Z');
const note = (text: string): { kind: 'noted'; note: string } => ({ kind: 'noted', note: text });
const notesIn = (tab: TestTab): (string | undefined)[] => tab.logbook.entries().map((e) => e.note);

beforeEach(emptyBrowser);

describe('an entry', () => {
  it('is on the disk when adding it has ended, in the order of writing', async () => {
    const tab = await openTab(EVENING);
    for (let k = 0; k < 12; k++) await tab.logbook.add(note(`n${k}`));
    const next = await openTab(EVENING);
    expect(notesIn(next)).toEqual(Array.from({ length: 12 }, (_, k) => `n${k}`));
    expect(next.logbook.entries()).toEqual(tab.logbook.entries());
  });

  it('says when, who was at the bench, and in what air', async () => {
    const tab = await openTab(EVENING);
    await tab.logbook.add(note('alone'));
    const [only] = tab.logbook.entries();
    expect(only!.at).toBe('2026-11-30T19:30:00Z');
    expect(only!.people).toEqual(['First pair of hands']);
    const { climate } = tab.store.muster()!.bench;
    expect(only!.air!.celsius).toBeCloseTo(climate.day.celsius, 0);
    expect(only!.air!.humidityPercent).toBeGreaterThan(0);

    tab.logbook.people.set(['Wren', 'Teal']);
    await tab.logbook.add(note('in company'));
    expect(tab.logbook.entries()[1]!.people).toEqual(['Wren', 'Teal']);
  });

  it('takes the air from readings of the bench where there are any', async () => {
    const tab = await openTab(EVENING);
    tab.store.change('Read', (m) => ({
      ...m,
      bench: {
        ...m.bench,
        readings: [
          { at: '2026-11-30T19:00:00Z', celsius: 11.5, humidityPercent: 93 },
          { at: '2026-11-30T20:00:00Z', celsius: 11.5, humidityPercent: 93 },
        ],
      },
    }));
    await tab.logbook.add(note('fog'));
    expect(tab.logbook.entries()[0]!.air).toEqual({ celsius: 11.5, humidityPercent: 93 });
  });

  it('of one press stands with the others of it, and all are taken back as one', async () => {
    const tab = await openTab(EVENING);
    await tab.logbook.add(note('before'));
    await tab.logbook.addAll(['a', 'b', 'c'].map((step) => ({ kind: 'skipped' as const, step })));
    const press = tab.logbook.entries().slice(1);
    expect(new Set(press.map((e) => e.act)).size).toBe(1);
    expect(press[0]!.act).toBeDefined();
    expect(tab.logbook.entries()[0]!.act).toBeUndefined();
    await tab.logbook.takeBack(press);
    expect(standing(tab.logbook.entries()).map((e) => e.note)).toEqual(['before']);
    expect(tab.logbook.entries()).toHaveLength(7);
  });

  it('comes after the one before it even when the clock stands still or goes back', async () => {
    const tab = await openTab(EVENING);
    await tab.logbook.add(note('first'));
    await tab.logbook.add(note('second'));
    tab.time = new Date(EVENING.getTime() - 20_000);
    await tab.logbook.add(note('third'));
    const ids = tab.logbook.entries().map((e) => e.id);
    expect(ids).toHaveLength(3);
    const inOrder = ['first', 'second', 'third'].map(
      (n) => tab.logbook.entries().find((e) => e.note === n)!.id,
    );
    expect([...inOrder].sort()).toEqual(inOrder);
  });
});

describe('a rehearsal', () => {
  it('sees what has really happened, writes nothing, and ends without a trace', async () => {
    const tab = await openTab(EVENING);
    await tab.logbook.add(note('real'));
    tab.clock.rehearse(EVENING);
    await tab.logbook.addAll(['a', 'b'].map((step) => ({ kind: 'skipped' as const, step })));
    expect(notesIn(tab)[0]).toBe('real');
    expect(tab.logbook.entries()).toHaveLength(3);
    expect((await tab.database.readLog(tab.store.openId!)).entries).toHaveLength(1);
    const [, ...press] = tab.logbook.entries();
    await tab.logbook.takeBack(press);
    expect(standing(tab.logbook.entries()).map((e) => e.note)).toEqual(['real']);
    tab.clock.backToReal();
    expect(notesIn(tab)).toEqual(['real']);
    expect(notesIn(await openTab(EVENING))).toEqual(['real']);
  });

  it('does no step twice, whether it was done before or in it', async () => {
    const tab = await openTab(EVENING);
    const done = (step: string) => ({ kind: 'done' as const, step, minutes: 5 });
    await tab.logbook.add(done('x'));
    tab.clock.rehearse(EVENING);
    for (const step of ['x', 'y', 'y']) await tab.logbook.add(done(step));
    expect(tab.logbook.entries().flatMap((e) => (e.kind === 'done' ? [e.step] : []))).toEqual(['x', 'y']);
  });
});

describe('two tabs', () => {
  it('see each other’s entries, and a Done in each counts once', async () => {
    const [a, b] = [await openTab(EVENING), await openTab(EVENING)];
    const done = { kind: 'done' as const, step: 'folk1.prime', minutes: 5 };
    await Promise.all([a.logbook.add(done), b.logbook.add(done)]);
    await vi.waitFor(() => {
      for (const t of [a, b]) expect(t.logbook.entries().filter((e) => e.kind === 'done')).toHaveLength(1);
    });
    expect([a, b].filter((t) => t.notices.current()?.text.includes('logged already'))).toHaveLength(1);
    await a.logbook.takeBack(a.logbook.entries());
    await a.logbook.add(done);
    await vi.waitFor(() => expect(b.logbook.entries()).toHaveLength(3));
    expect(standing(b.logbook.entries())).toHaveLength(1);
  });
});

describe('the log of a muster', () => {
  it('belongs to it alone', async () => {
    const tab = await openTab(EVENING);
    const demo = tab.store.openId!;
    await tab.logbook.add(note('demo'));
    await tab.store.addEmpty();
    await tab.logbook.ready;
    expect(notesIn(tab)).toEqual([]);
    await tab.logbook.add(note('own'));
    await tab.store.open(demo);
    await tab.logbook.ready;
    expect(notesIn(tab)).toEqual(['demo']);
  });

  it('says from itself alone what a step was, when its recipe has long gone', async () => {
    const tab = await openTab(EVENING);
    await tab.logbook.add({ kind: 'done', step: 'folk1.prime', minutes: 12 });
    tab.store.change('All gone', (m) => ({ ...m, recipes: [], units: [] }));
    const [entry] = tab.logbook.entries();
    expect(entry!.about).toMatchObject({ unit: 'Reed folk', piece: 'Cutters, tray 1', family: 'primer' });
    const [card] = pieceCards(tab.logbook.entries(), new Map(), 'UTC');
    expect([card!.name, card!.recipe]).toEqual(['Cutters, tray 1 (Reed folk)', null]);
    expect(card!.lines[0]).toMatch(/^2026-11-30 .*12 min/);
  });
});

describe('a disk that fails', () => {
  it('is told of until it works again; nothing counts that is not kept, and nothing is lost', async () => {
    const tab = await openTab(EVENING);
    const add = vi.spyOn(tab.database, 'addToLog').mockRejectedValue(new Error('quota'));
    await tab.logbook.add(note('nearly lost'));
    expect(tab.keeping.trouble()).toContain('quota');
    expect(tab.keeping.trouble()).toContain('export it as a file');
    expect([notesIn(tab), tab.keeping.unwritten()]).toEqual([[], 1]);
    expect(tab.logbook.file()).toContain('nearly lost');
    add.mockRestore();
    await tab.logbook.add(note('kept again'));
    expect([tab.keeping.trouble(), tab.keeping.unwritten()]).toEqual([null, 0]);
    expect(notesIn(tab)).toEqual(['nearly lost', 'kept again']);
    expect(notesIn(await openTab(EVENING))).toEqual(['nearly lost', 'kept again']);
  });

  it('loses none of two presses that fail at once', async () => {
    const tab = await openTab(EVENING);
    const add = vi.spyOn(tab.database, 'addToLog').mockRejectedValue(new Error('quota'));
    await Promise.all([tab.logbook.add(note('one')), tab.logbook.add(note('two'))]);
    expect(tab.keeping.unwritten()).toBe(2);
    add.mockRestore();
    await tab.logbook.add(note('three'));
    expect(tab.keeping.unwritten()).toBe(0);
    expect(new Set(notesIn(await openTab(EVENING)))).toEqual(new Set(['one', 'two', 'three']));
  });

  it('keeps all entries of a press or none', async () => {
    const tab = await openTab(EVENING);
    const good: LogEntry = { id: 'good', at: '2026-11-30T19:30:00Z', kind: 'stopped' };
    // A function cannot be stored: the transaction fails at the second entry.
    const bad = { id: 'bad', at: '2026-11-30T19:31:00Z', kind: 'stopped', note: () => '' };
    await expect(
      tab.database.addToLog(tab.store.openId!, [good, bad as unknown as LogEntry]),
    ).rejects.toThrow();
    expect((await tab.database.readLog(tab.store.openId!)).entries).toEqual([]);
  });

  it('that cannot be read is told of, and the log is empty, not wrong', async () => {
    const tab = await openTab(EVENING, {
      prepare: (database) => vi.spyOn(database, 'readLog').mockRejectedValueOnce(new Error('no access')),
    });
    expect(tab.logbook.trouble()).toContain('no access');
    expect(tab.logbook.entries()).toEqual([]);
  });
});

describe('a log from elsewhere', () => {
  it('is merged; once is enough', async () => {
    const there = await openTab(EVENING);
    await there.logbook.add(note('there'));
    const file = there.logbook.file();
    emptyBrowser();
    const here = await openTab(EVENING);
    await here.logbook.add(note('here'));
    expect(await here.logbook.bringIn(file)).toBe(1);
    expect(await here.logbook.bringIn(file)).toBe(0);
    expect(new Set(notesIn(here))).toEqual(new Set(['here', 'there']));
    expect(new Set(notesIn(await openTab(EVENING)))).toEqual(new Set(['here', 'there']));
  });

  it('never changes what is here, even under the same id', async () => {
    const tab = await openTab(EVENING);
    await tab.logbook.add(note('as it was'));
    const forged = JSON.parse(tab.logbook.file()) as { entries: LogEntry[] };
    forged.entries[0] = { ...forged.entries[0]!, note: 'as it was not' };
    expect(await tab.logbook.bringIn(JSON.stringify(forged))).toBe(0);
    expect(notesIn(tab)).toEqual(['as it was']);
    expect(notesIn(await openTab(EVENING))).toEqual(['as it was']);
  });

  it.each([
    ['no JSON', 'words', 'no JSON file'],
    ['another format', '{"format":"other/1","entries":[]}', 'format'],
    [
      'an entry without a time',
      '{"format":"patient-muster-log/1","entries":[{"id":"x","kind":"stopped"}]}',
      'entries[0].at',
    ],
    [
      'an unknown kind',
      '{"format":"patient-muster-log/1","entries":[{"id":"x","at":"2026-11-30T19:30","kind":"sanded"}]}',
      'entries[0].kind',
    ],
  ])('with %s is refused in words, and nothing is changed', async (_, text, words) => {
    const tab = await openTab(EVENING);
    await tab.logbook.add(note('here'));
    await expect(tab.logbook.bringIn(text)).rejects.toThrow(words);
    await expect(tab.logbook.bringIn(text)).rejects.toThrow('nothing is changed');
    expect(notesIn(tab)).toEqual(['here']);
  });

  it('of the first format comes in with the bench’s own time, and a newer one is refused', async () => {
    const tab = await openTab(EVENING, { zone: 'Europe/Vienna' });
    const first = (at: string): string =>
      JSON.stringify({ format: 'patient-muster-log/1', entries: [{ id: 'x', at, kind: 'stopped' }] });
    expect(await tab.logbook.bringIn(first('2026-11-30T19:30'))).toBe(1);
    expect(tab.logbook.entries()[0]!.at).toBe('2026-11-30T18:30:00Z');
    for (const at of ['2026-99-99T99:99', '2026-02-30T10:00', '0026-11-30T19:30', '2026-11-30T24:00'])
      await expect(tab.logbook.bringIn(first(at))).rejects.toThrow('entries[0].at');
    const newer = '{"format":"patient-muster-log/3","entries":[]}';
    await expect(tab.logbook.bringIn(newer)).rejects.toThrow('newer program (patient-muster-log/3)');
    expect(tab.logbook.entries()).toHaveLength(1);
  });

  it('makes two devices the same, whatever was done on each', async () => {
    const act = fc.oneof(
      fc.record({ kind: fc.constant('note' as const), text: fc.string({ maxLength: 8 }) }),
      fc.record({ kind: fc.constant('press' as const), many: fc.integer({ min: 2, max: 4 }) }),
      fc.record({ kind: fc.constant('back' as const) }),
      fc.record({ kind: fc.constant('wait' as const), minutes: fc.integer({ min: -3, max: 90 }) }),
    );
    const device = fc.array(act, { maxLength: 8 });
    await fc.assert(
      fc.asyncProperty(device, device, async (first, second) => {
        const files: string[] = [];
        for (const acts of [first, second]) {
          emptyBrowser();
          const tab = await openTab(EVENING);
          for (const a of acts) {
            if (a.kind === 'note') await tab.logbook.add(note(a.text));
            else if (a.kind === 'press')
              await tab.logbook.addAll(
                Array.from({ length: a.many }, (_, k) => ({ kind: 'dry' as const, step: `s${k}` })),
              );
            else if (a.kind === 'back') await tab.logbook.takeBack(standing(tab.logbook.entries()).slice(-1));
            else tab.time = new Date(tab.time.getTime() + a.minutes * 60_000);
          }
          files.push(tab.logbook.file());
        }
        const merged: string[] = [];
        for (const order of [files, [...files].reverse()]) {
          emptyBrowser();
          const tab = await openTab(EVENING);
          for (const file of order) await tab.logbook.bringIn(file);
          merged.push((await openTab(EVENING)).logbook.file());
        }
        expect(merged[0]).toBe(merged[1]);
        const count = (file: string): number => (JSON.parse(file) as { entries: unknown[] }).entries.length;
        expect(count(merged[0]!)).toBe(count(files[0]!) + count(files[1]!));
      }),
      { numRuns: 20 },
    );
  });
});
