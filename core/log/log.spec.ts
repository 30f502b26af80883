import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { instantAfter, originOf } from '#core/muster';
import { smallMuster } from '../plan/testing';
import {
  aheadOfClock,
  entryId,
  entrySchema,
  hasHistory,
  lastAct,
  logFileSchema,
  LOG_FORMAT,
  mergeLogs,
  standing,
  type LogEntry,
} from './index';

const origin = originOf(smallMuster());
const at = (minute: number): string => instantAfter(origin, minute);
const order = ['prime', 'base', 'chip', 'wash', 'matt'].map((layer) => ({ id: `piece.${layer}` }));
let count = 0;
const done = (step: string, minute: number, minutes = 5): LogEntry => ({
  id: `e${++count}`,
  at: at(minute),
  kind: 'done',
  step,
  minutes,
});

describe('the log', () => {
  const entry = fc
    .record({ id: fc.string({ minLength: 1, maxLength: 3 }), minute: fc.integer({ min: 0, max: 5000 }) })
    .map(({ id, minute }): LogEntry => ({ id, at: at(minute), kind: 'noted' }));

  it('merges two devices without loss or doubling, in any order', () => {
    fc.assert(
      fc.property(fc.array(entry), fc.array(entry), (a, b) => {
        // The same entry on two devices is the same throughout.
        const unique = new Map([...a, ...b].map((e) => [e.id, e]));
        const x = a.map((e) => unique.get(e.id)!);
        const y = b.map((e) => unique.get(e.id)!);
        const merged = mergeLogs(x, y);
        expect(merged).toEqual(mergeLogs(y, x));
        expect(new Set(merged.map((e) => e.id))).toEqual(new Set(unique.keys()));
        expect(merged).toHaveLength(unique.size);
        expect(mergeLogs(merged, y)).toEqual(merged);
      }),
    );
  });

  it('keeps what was taken back, and no longer counts it', () => {
    const first = done(order[0]!.id, 100);
    const log: LogEntry[] = [first, { id: 'back', at: at(101), kind: 'taken-back', entry: first.id }];
    expect(standing(log)).toEqual([]);
    expect(log).toHaveLength(2);
  });

  it('takes one press back as a whole, and only the last', () => {
    const press = (act: string, minute: number): LogEntry[] =>
      order.slice(0, 3).map((s, i) => ({ ...done(s.id, minute), id: `${act}-${i}`, act }));
    const log = [...press('a', 100), ...press('b', 100), { ...done(order[4]!.id, 100), id: 'c' }];
    expect(lastAct(log).map((e) => e.id)).toEqual(['c']);
    const back = (e: LogEntry): LogEntry => ({
      id: `x${e.id}`,
      at: at(100),
      kind: 'taken-back',
      entry: e.id,
    });
    const once = [...log, ...lastAct(log).map(back)];
    expect(lastAct(once).map((e) => e.id)).toEqual(['b-0', 'b-1', 'b-2']);
    const twice = [...once, ...lastAct(once).map(back)];
    expect(lastAct(twice).map((e) => e.id)).toEqual(['a-0', 'a-1', 'a-2']);
    expect(lastAct([...twice, ...lastAct(twice).map(back)])).toEqual([]);
  });

  it('keeps odds that were given as nobody’s deed: undo passes over them, and no plan goes by them', () => {
    const given: LogEntry = {
      id: 'f',
      at: at(200),
      kind: 'forecast',
      units: [{ unit: 'u', name: 'Ferries', share: 0.9, due: at(9000), last: [] }],
    };
    const deed = done(order[0]!.id, 100);
    expect(lastAct([deed, given])).toEqual([deed]);
    expect(hasHistory([given])).toBe(false);
    expect(hasHistory([deed, given])).toBe(true);
    expect(entrySchema.parse(given)).toEqual(given);
  });

  it('keeps the order of writing within a minute', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 4e12 }), fc.uuid())), (written) => {
        const unique = [...new Map(written).entries()].sort(([a], [b]) => a - b);
        const log = unique.map(([ms, random]): LogEntry => ({ ...done('s', 100), id: entryId(ms, random) }));
        expect(mergeLogs([...log].reverse(), [])).toEqual(log);
        for (const e of log) expect(entrySchema.safeParse(e).success).toBe(true);
      }),
    );
  });

  it('refuses entries that are none', () => {
    expect(entrySchema.safeParse({ id: 'x', at: '2027-03-01 20:00', kind: 'noted' }).success).toBe(false);
    expect(entrySchema.safeParse({ id: 'x', at: '2027-03-01T20:00', kind: 'painted' }).success).toBe(false);
  });
});

describe('a clock that was wrong', () => {
  const first = order[0]!;
  const second = order[1]!;
  const log: LogEntry[] = [
    done(first.id, 1200),
    { ...done(second.id, 1230), note: 'with a loupe' },
    { id: 'put-right', at: at(1000), kind: 'clock', entries: [], byMinutes: -180 } as LogEntry,
  ];
  const entries = [log[0]!.id, log[1]!.id];
  const right: LogEntry[] = [log[0]!, log[1]!, { ...log[2]!, entries } as LogEntry];

  it('is seen when entries lie in the future, not when a device is a minute ahead', () => {
    expect(aheadOfClock(log.slice(0, 2), at(1060))).toEqual({ minutes: 170, entries });
    expect(aheadOfClock(log.slice(0, 2), at(1229))).toBeNull();
    expect(aheadOfClock([], at(0))).toBeNull();
  });

  it('is put right by an entry of its own: times move, the log keeps what it said', () => {
    const holds = standing(right);
    expect(holds.filter((e) => e.kind === 'done').map((e) => e.at)).toEqual([at(1020), at(1050)]);
    expect(right[0]!.at).toBe(at(1200));
    expect(aheadOfClock(right, at(1060))).toBeNull();
    const file = { format: LOG_FORMAT, entries: right };
    expect(logFileSchema.parse(JSON.parse(JSON.stringify(file)))).toEqual(file);
  });

  it('and is as it was when that is taken back', () => {
    const back: LogEntry = { id: 'x', at: at(1100), kind: 'taken-back', entry: 'put-right' };
    expect(standing([...right, back]).map((e) => e.at)).toEqual([at(1200), at(1230)]);
  });

  it('shifts over midnight and the end of a year', () => {
    const e: LogEntry = { id: 'n', at: '2027-12-31T23:50:00Z', kind: 'noted' };
    const c: LogEntry = { id: 'c', at: '2027-12-31T23:55:00Z', kind: 'clock', entries: ['n'], byMinutes: 25 };
    expect(standing([e, c]).find((x) => x.id === 'n')!.at).toBe('2028-01-01T00:15:00Z');
  });
});
