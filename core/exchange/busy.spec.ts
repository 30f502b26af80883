/** Busy calendars (RFC 5545): recurrence, zones and exceptions, and what they leave of the sessions. */
import { describe, expect, it } from 'vitest';
import { checked, dateTimeAfter, sessionsOn, type Muster } from '#core/muster';
import { smallMuster } from '../plan/testing';
import { cutByBusy, readBusy } from './index';

const FROM = '2027-03-22';
const DAYS = 21;

const calendar = (...lines: string[]): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN', ...lines, 'END:VCALENDAR'].join('\r\n');
const event = (...lines: string[]): string =>
  ['BEGIN:VEVENT', `UID:${lines.join('')}`, 'DTSTAMP:20270101T000000Z', ...lines, 'END:VEVENT'].join('\r\n');
const told = (text: string, zone = 'Europe/Vienna') =>
  readBusy(text, zone, FROM, DAYS).spans.map((s) => [
    dateTimeAfter({ date: FROM, zone }, s.start),
    dateTimeAfter({ date: FROM, zone }, s.end),
  ]);

describe('a busy calendar', () => {
  it('of UTC times is read on the bench’s wall, on both sides of the change of clocks', () => {
    // Clocks in Vienna go forward on 28 March 2027.
    expect(
      told(
        calendar(
          event('DTSTART:20270324T180000Z', 'DTEND:20270324T190000Z'),
          event('DTSTART:20270331T180000Z', 'DTEND:20270331T190000Z'),
        ),
      ),
    ).toEqual([
      ['2027-03-24T19:00', '2027-03-24T20:00'],
      ['2027-03-31T20:00', '2027-03-31T21:00'],
    ]);
  });

  it('repeats by its rule in its own zone, without what was called off', () => {
    expect(
      told(
        calendar(
          event(
            'DTSTART;TZID=America/New_York:20270301T130000',
            'DTEND;TZID=America/New_York:20270301T140000',
            'RRULE:FREQ=WEEKLY;BYDAY=MO',
            'EXDATE;TZID=America/New_York:20270405T130000',
          ),
        ),
      ),
    ).toEqual([
      // New York changes clocks two weeks before Vienna: five hours apart, then six.
      ['2027-03-22T18:00', '2027-03-22T19:00'],
      ['2027-03-29T19:00', '2027-03-29T20:00'],
    ]);
  });

  it('takes a zone that the calendar brings itself', () => {
    const zone = [
      'BEGIN:VTIMEZONE',
      'TZID:Own time',
      'BEGIN:STANDARD',
      'DTSTART:19700101T000000',
      'TZOFFSETFROM:+0300',
      'TZOFFSETTO:+0300',
      'END:STANDARD',
      'END:VTIMEZONE',
    ].join('\r\n');
    expect(told(calendar(zone, event('DTSTART;TZID=Own time:20270324T210000', 'DURATION:PT90M')))).toEqual([
      ['2027-03-24T19:00', '2027-03-24T20:30'],
    ]);
  });

  it('has whole days, moved occurrences and times without a zone', () => {
    expect(
      told(
        calendar(
          event('DTSTART;VALUE=DATE:20270325'),
          event('DTSTART:20270326T190000', 'DTEND:20270326T200000'),
        ),
      ),
    ).toEqual([
      ['2027-03-25T00:00', '2027-03-26T00:00'],
      ['2027-03-26T19:00', '2027-03-26T20:00'],
    ]);
    const moved = calendar(
      'BEGIN:VEVENT\r\nUID:a\r\nDTSTART:20270322T180000Z\r\nDTEND:20270322T190000Z\r\nRRULE:FREQ=WEEKLY;COUNT=2\r\nEND:VEVENT',
      'BEGIN:VEVENT\r\nUID:a\r\nRECURRENCE-ID:20270329T180000Z\r\nDTSTART:20270330T170000Z\r\nDTEND:20270330T180000Z\r\nEND:VEVENT',
    );
    expect(told(moved, 'UTC').map(([a]) => a)).toEqual(['2027-03-22T18:00', '2027-03-30T17:00']);
  });

  it('leaves out what is free or called off, and what lies outside', () => {
    expect(
      told(
        calendar(
          event('DTSTART:20270324T180000Z', 'DTEND:20270324T190000Z', 'TRANSP:TRANSPARENT'),
          event('DTSTART:20270324T180000Z', 'DTEND:20270324T190000Z', 'STATUS:CANCELLED'),
          event('DTSTART:20260324T180000Z', 'DTEND:20260324T190000Z'),
          event('DTSTART:20280324T180000Z', 'DTEND:20280324T190000Z'),
        ),
      ),
    ).toEqual([]);
  });

  it('of a thousand years is given up on, and that is said', () => {
    const text = calendar(
      event('DTSTART:12000101T180000Z', 'DTEND:12000101T190000Z', 'RRULE:FREQ=DAILY', 'SUMMARY:Vigil'),
      event('DTSTART:20270324T180000Z', 'DTEND:20270324T190000Z'),
    );
    const { spans, faults } = readBusy(text, 'UTC', FROM, DAYS);
    expect(faults).toEqual(['Vigil']);
    expect(spans).toHaveLength(1);
  });

  it('that is none says so', () => {
    expect(() => readBusy('hello', 'UTC', FROM, DAYS)).toThrow('no calendar');
  });
});

describe('the sessions that a busy calendar leaves', () => {
  const muster: Muster = { ...smallMuster(), startsOn: `${FROM}T18:00` };
  const cut = (text: string) =>
    cutByBusy(muster, readBusy(calendar(text), 'UTC', FROM, DAYS).spans, FROM, DAYS, () => 'x');

  it('are shorter, cut in two, or gone; other days are as they were', () => {
    const {
      muster: after,
      shortened,
      gone,
    } = cut(
      [
        event('DTSTART:20270323T200000Z', 'DTEND:20270323T230000Z'),
        event('DTSTART:20270324T193000Z', 'DTEND:20270324T200000Z'),
        event('DTSTART;VALUE=DATE:20270325', 'DTEND;VALUE=DATE:20270327'),
      ].join('\r\n'),
    );
    expect(sessionsOn(after.bench, '2027-03-23')).toEqual([{ from: '19:00', to: '20:00' }]);
    expect(sessionsOn(after.bench, '2027-03-24')).toEqual([
      { from: '19:00', to: '19:30' },
      { from: '20:00', to: '21:00' },
    ]);
    expect([sessionsOn(after.bench, '2027-03-25'), sessionsOn(after.bench, '2027-03-26')]).toEqual([[], []]);
    expect(sessionsOn(after.bench, '2027-03-27')).toEqual([{ from: '19:00', to: '21:00' }]);
    expect([shortened, gone]).toEqual([2, 2]);
    expect(after.bench.exceptions).toHaveLength(4);
    expect(
      checked({ ...after, bench: { ...after.bench, exceptions: after.bench.exceptions.slice(0, 1) } }).ok,
    ).toBe(true);
  });

  it('leave no scrap too short to sit down for, and nothing changes where nothing is taken', () => {
    const { muster: after } = cut(event('DTSTART:20270323T191500Z', 'DTEND:20270323T220000Z'));
    expect(sessionsOn(after.bench, '2027-03-23')).toEqual([]);
    expect(cut(event('DTSTART:20270323T080000Z', 'DTEND:20270323T090000Z')).muster.bench.exceptions).toEqual(
      [],
    );
  });
});
