/** The log as CSV, read back by a library that is not ours: nothing left out, nothing moved, nothing run as a formula. */
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { entrySchema, logFileSchema, LOG_FORMAT, mergeLogs, type LogEntry } from '#core/log';
import { writeLogCsv } from './index';

const text = fc.string({ maxLength: 40, unit: 'grapheme' });
const id = fc.uuid();
const two = (n: number): string => String(n).padStart(2, '0');
const at = fc
  .tuple(
    fc.integer({ min: 1, max: 12 }),
    fc.integer({ min: 1, max: 28 }),
    fc.integer({ min: 0, max: 23 }),
    fc.integer({ min: 0, max: 59 }),
  )
  .map(([m, d, h, min]) => `2027-${two(m)}-${two(d)}T${two(h)}:${two(min)}:00Z`);
const base = {
  id,
  at,
  note: fc.option(text, { nil: undefined }),
  act: fc.option(id, { nil: undefined }),
  people: fc.option(fc.array(fc.constantFrom('Wren', 'Teal, the elder', 'O"Dea')), { nil: undefined }),
  air: fc.option(
    fc.record({
      celsius: fc.integer({ min: -30, max: 60 }),
      humidityPercent: fc.integer({ min: 1, max: 100 }),
    }),
    { nil: undefined },
  ),
};
const step = fc.stringMatching(/^[a-z0-9.]{1,20}$/);
const minutes = fc.integer({ min: 0, max: 600 });

const entry: fc.Arbitrary<LogEntry> = fc
  .oneof(
    fc.record({
      ...base,
      kind: fc.constant('done' as const),
      step,
      minutes,
      isMeasured: fc.option(fc.boolean(), { nil: undefined }),
      nth: fc.option(fc.integer({ min: 1, max: 500 }), { nil: undefined }),
      mixture: fc.option(text, { nil: undefined }),
    }),
    fc.record({ ...base, kind: fc.constantFrom('dry' as const, 'skipped' as const), step }),
    fc.record({
      ...base,
      kind: fc.constant('not-dry' as const),
      step,
      moreMinutes: fc.integer({ min: 1, max: 900 }),
    }),
    fc.record({
      ...base,
      kind: fc.constant('rework' as const),
      step,
      trouble: text,
      cure: text,
      minutes,
      dryMinutes: minutes,
    }),
    fc.record({
      ...base,
      kind: fc.constant('verdict' as const),
      step,
      verdict: fc.constantFrom('approved' as const, 'changed' as const),
    }),
    fc.record({
      ...base,
      kind: fc.constant('clock' as const),
      entries: fc.array(id, { minLength: 1, maxLength: 3 }),
      byMinutes: fc.integer({ min: -9000, max: 9000 }),
    }),
    fc.record({ ...base, kind: fc.constant('taken-back' as const), entry: id }),
  )
  // What is left out is left out, not undefined: as JSON would have it.
  .map((e) => JSON.parse(JSON.stringify(e)) as LogEntry);
const log = fc.uniqueArray(entry, { selector: (e) => e.id, maxLength: 12 });

/** A spreadsheet is told by an apostrophe that something is no formula. */
const plain = (value: string): string => (/^\s*[=+\-@＝＋－＠]|^[\t\r\n]/.test(value) ? `'${value}` : value);

describe('the log as CSV (RFC 4180, read by Papa Parse)', () => {
  it('has a line an entry and every field of it under its heading', () => {
    fc.assert(
      fc.property(log, (entries) => {
        const { data, errors, meta } = Papa.parse<Record<string, string>>(writeLogCsv(entries), {
          header: true,
          skipEmptyLines: true,
        });
        expect(errors).toEqual([]);
        expect(meta.linebreak).toBe('\r\n');
        expect(data).toHaveLength(entries.length);
        entries.forEach((e, k) => {
          const line = data[k]!;
          expect([line['id'], line['at'], line['kind']]).toEqual([e.id, e.at, e.kind]);
          expect(line['note']).toBe(plain(e.note ?? ''));
          expect(line['act']).toBe(e.act ?? '');
          expect(line['people']).toBe((e.people ?? []).join(' + '));
          const number = (name: string, value: number | undefined): void =>
            expect(line[name]).toBe(value === undefined ? '' : String(value));
          number('celsius', e.air?.celsius);
          number('humidity_percent', e.air?.humidityPercent);
          if ('step' in e) expect(line['step']).toBe(e.step);
          if (e.kind === 'done') {
            number('minutes', e.minutes);
            number('nth_of_run', e.nth);
            expect(line['mixture']).toBe(plain(e.mixture ?? ''));
            expect(line['is_measured']).toBe(e.isMeasured === undefined ? '' : String(e.isMeasured));
          } else if (e.kind === 'not-dry') number('more_minutes', e.moreMinutes);
          else if (e.kind === 'rework') {
            expect(line['trouble']).toBe(plain(e.trouble));
            expect(line['cure']).toBe(plain(e.cure));
            number('dry_minutes', e.dryMinutes);
          } else if (e.kind === 'verdict') expect(line['verdict']).toBe(e.verdict);
          else if (e.kind === 'taken-back') expect(line['takes_back']).toBe(e.entry);
          else if (e.kind === 'clock') {
            expect(line['shifts_entries']).toBe(e.entries.join(' '));
            number('by_minutes', e.byMinutes);
          }
        });
      }),
    );
  });

  it.each(['=HYPERLINK("http://x")', '\n=1+1', ' \t=1+1', '＝1+1', '＋1', '@SUM(1)', '-1+1', '\rx'])(
    'gives a spreadsheet no formula to run: %j',
    (note) => {
      const csv = writeLogCsv([{ id: 'a', at: '2027-03-01T20:00:00Z', kind: 'noted', note }]);
      const [, cells] = Papa.parse<string[]>(csv).data;
      expect(cells).toContain(`'${note}`);
      for (const cell of cells!) expect(cell).not.toMatch(/^\s*[=+\-@＝＋－＠]/);
    },
  );
});

describe('the log as JSON', () => {
  it('comes back as it was', () => {
    fc.assert(
      fc.property(log, (entries) => {
        const file = { format: LOG_FORMAT, entries };
        expect(logFileSchema.parse(JSON.parse(JSON.stringify(file)))).toEqual(file);
      }),
    );
  });

  it('is refused with a field too many, or one of the wrong kind, whatever the entry', () => {
    fc.assert(
      fc.property(entry, fc.constantFrom('id', 'at', 'kind'), (e, field) => {
        expect(entrySchema.safeParse(e).success).toBe(true);
        expect(entrySchema.safeParse({ ...e, brush: 'new' }).success).toBe(false);
        expect(entrySchema.safeParse({ ...e, [field]: 7 }).success).toBe(false);
        const less = Object.fromEntries(Object.entries(e).filter(([key]) => key !== field));
        expect(entrySchema.safeParse(less).success).toBe(false);
      }),
    );
  });

  it('is in one order, whoever merges it in whatever pieces', () => {
    fc.assert(
      fc.property(log, fc.integer({ min: 0, max: 12 }), (entries, cut) => {
        const whole = mergeLogs(entries, []);
        expect(mergeLogs(entries.slice(cut), entries.slice(0, cut))).toEqual(whole);
        expect([...whole].sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id))).toEqual(
          whole,
        );
      }),
    );
  });
});
