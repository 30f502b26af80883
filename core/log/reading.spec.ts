/** What the log says of steps, what of a second log is news, and which files are logs. */
import { describe, expect, it } from 'vitest';
import {
  aheadOfClock,
  endedSteps,
  fromFirstLog,
  hasHistory,
  LOG_FORMAT,
  readLogFile,
  newEntries,
  type LogEntry,
} from './index';

const at = (minute: number): string => `2027-03-01T18:${String(minute).padStart(2, '0')}:00Z`;
const done = (id: string, step: string, minute: number): LogEntry => ({
  id,
  at: at(minute),
  kind: 'done',
  step,
  minutes: 5,
});
const skipped = (id: string, step: string, minute: number): LogEntry => ({
  id,
  at: at(minute),
  kind: 'skipped',
  step,
});
const noted = (id: string, minute: number): LogEntry => ({ id, at: at(minute), kind: 'noted' });
const rework = (id: string, minute: number, again?: string[]): LogEntry => ({
  id,
  at: at(minute),
  kind: 'rework',
  step: 'hull.top',
  trouble: 'missed window',
  cure: 'again',
  minutes: 0,
  dryMinutes: 0,
  ...(again ? { again } : {}),
});
const ids = (log: readonly LogEntry[]): string[] => log.map((e) => e.id);

describe('a step', () => {
  it('is over when it is done or left off, by the entry that says so', () => {
    const ended = endedSteps([done('a', 'hull.prime', 1), skipped('b', 'hull.dust', 2), noted('c', 3)]);
    expect([...ended].map(([step, e]) => [step, e.id])).toEqual([
      ['hull.prime', 'a'],
      ['hull.dust', 'b'],
    ]);
  });

  it('is open again once it has to be done again, and over when it is', () => {
    const log = [done('a', 'hull.top', 1), done('b', 'hull.prime', 2), rework('c', 3, ['hull.top'])];
    expect([...endedSteps(log).keys()]).toEqual(['hull.prime']);
    expect(endedSteps([...log, done('d', 'hull.top', 4)]).get('hull.top')?.id).toBe('d');
  });

  it('stays over where a mending is work of its own', () => {
    expect(endedSteps([done('a', 'hull.top', 1), rework('b', 2)]).has('hull.top')).toBe(true);
  });
});

describe('what of another log is news', () => {
  const log = [done('a', 'hull.prime', 1), skipped('b', 'hull.dust', 2)];

  it('is no entry that is there, and no step that is over', () => {
    const other = [
      noted('a', 1),
      done('x', 'hull.prime', 3),
      skipped('y', 'hull.dust', 3),
      done('z', 'hull.dust', 4),
    ];
    expect(newEntries(log, other)).toEqual([]);
  });

  it('is a step that is open, once', () => {
    const other = [done('x', 'hull.base', 3), done('y', 'hull.base', 4), skipped('z', 'hull.base', 5)];
    expect(ids(newEntries(log, other))).toEqual(['x']);
  });

  it('is every note and look, whatever is over', () => {
    const other = [noted('x', 3), { ...noted('y', 4), step: 'hull.prime' } as LogEntry];
    expect(ids(newEntries(log, other))).toEqual(['x', 'y']);
  });

  it('is a step that has to be done again, whichever log says so', () => {
    const again = rework('r', 3, ['hull.prime']);
    expect(ids(newEntries(log, [again, done('x', 'hull.prime', 4), done('y', 'hull.dust', 4)]))).toEqual([
      'r',
      'x',
    ]);
    expect(ids(newEntries([...log, again], [done('x', 'hull.prime', 4)]))).toEqual(['x']);
    expect(ids(newEntries([...log, rework('r', 3)], [done('x', 'hull.prime', 4)]))).toEqual([]);
  });

  it('is a step that was taken back here', () => {
    const back: LogEntry = { id: 't', at: at(3), kind: 'taken-back', entry: 'a' };
    expect(ids(newEntries([...log, back], [done('x', 'hull.prime', 4)]))).toEqual(['x']);
  });
});

describe('a plan goes by what has happened', () => {
  it('not by notes, nor by what was taken back', () => {
    expect(hasHistory([])).toBe(false);
    expect(hasHistory([noted('a', 1)])).toBe(false);
    expect(hasHistory([noted('a', 1), done('b', 'hull.prime', 2)])).toBe(true);
    const back: LogEntry = { id: 't', at: at(3), kind: 'taken-back', entry: 'b' };
    expect(hasHistory([noted('a', 1), done('b', 'hull.prime', 2), back])).toBe(false);
  });
});

describe('a clock that is ahead', () => {
  const log = [noted('a', 10), noted('b', 30), noted('c', 32)];

  it('is told with the minutes of the newest, and with all entries that lie ahead', () => {
    expect(aheadOfClock(log, at(29))).toEqual({ minutes: 3, entries: ['b', 'c'] });
  });

  it('may be two minutes off, and no entry of now lies ahead', () => {
    expect(aheadOfClock(log, at(30))).toBeNull();
    expect(aheadOfClock([...log, noted('d', 40)], at(32))?.entries).toEqual(['d']);
  });
});

describe('a log file', () => {
  const file = (format: unknown, entries: unknown): string => JSON.stringify({ format, entries });

  it('is read as it was written', () => {
    const entries = [done('a', 'hull.prime', 1), rework('b', 2, ['hull.prime'])];
    expect(readLogFile(file(LOG_FORMAT, entries), 'Europe/Vienna')).toEqual(entries);
  });

  it('of the first format had the time on the bench’s wall', () => {
    const first = [{ id: 'a', at: '2027-07-01T20:15', kind: 'noted' }];
    expect(readLogFile(file('patient-muster-log/1', first), 'Europe/Vienna')[0]!.at).toBe(
      '2027-07-01T18:15:00Z',
    );
    expect(() => readLogFile(file(LOG_FORMAT, first), 'Europe/Vienna')).toThrow(/entries\[0\]\.at/);
  });

  it('has no times that are none: they are refused, not guessed at', () => {
    for (const at of ['2027-99-99T20:15', '2027-07-01T24:00', '2027-07-01T20:60', '2027-07-01']) {
      const entry = { id: 'a', at, kind: 'noted' };
      expect(fromFirstLog(entry, 'UTC')).toBe(entry);
      expect(() => readLogFile(file('patient-muster-log/1', [entry]), 'UTC')).toThrow(/nothing is changed/);
    }
    for (const odd of [null, 'text', 7, { id: 'a' }, { at: 7 }]) expect(fromFirstLog(odd, 'UTC')).toBe(odd);
  });

  it('that is none, or newer than the program, is refused in words', () => {
    expect(() => readLogFile('{', 'UTC')).toThrow('This is no JSON file; nothing is changed.');
    expect(() => readLogFile('null', 'UTC')).toThrow(/^This is no log/);
    expect(() => readLogFile(file(undefined, []), 'UTC')).toThrow(/^This is no log: format/);
    expect(() => readLogFile(file('patient-muster-log/3', []), 'UTC')).toThrow(
      /newer program \(patient-muster-log\/3\)/,
    );
    expect(() => readLogFile(file('patient-muster-log/0', []), 'UTC')).toThrow(/^This is no log/);
    expect(() => readLogFile(file('patient-muster-log/1', 'none'), 'UTC')).toThrow(/^This is no log/);
  });
});
