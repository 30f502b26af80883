/** Files in and out, read back by libraries that are not ours. */
import { MusterFileError, readMuster, writeMuster } from '#core/muster';
import ICAL from 'ical.js';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, present } from '#core/plan';
import { smallMuster } from '../plan/testing';
import { writeCalendar, writePlanCsv } from './index';

const muster = smallMuster();
const compiled = compile(muster);
const plan = present(muster, compiled, solveProblem(compiled.problem, { iterations: 30 }));

describe('the muster as a file', () => {
  it('comes back as it was', () => expect(readMuster(writeMuster(muster))).toEqual(muster));

  it.each([
    ['no JSON', '{', 'file'],
    ['another format', '{"format":"x/1"}', 'format'],
    ['a wrong date', writeMuster(muster).replace('2027-03-05T12:00', '2027-02-30T12:00'), 'units[0].table'],
    ['a misspelt field', writeMuster(muster).replace('"places"', '"palces"'), 'units[0].pieces[0].palces'],
    [
      'a family that is none',
      writeMuster(muster).replace('"primer"', '"prmier"'),
      'recipes[0].layers[0].family',
    ],
  ])('with %s is refused at its path', (_, text, path) => {
    let error: unknown;
    try {
      readMuster(text);
    } catch (e) {
      error = e;
    }
    expect(error).toBeInstanceOf(MusterFileError);
    expect((error as MusterFileError).faults.map((f) => f.path)).toContain(path);
  });
});

describe('what is wrong with a file', () => {
  it.each([
    [
      writeMuster(muster).replace('2027-03-05T12:00', '2027-02-30T12:00'),
      'Ferries: its table date is no day of the calendar (units[0].table)',
    ],
    [
      writeMuster(muster).replace('"places"', '"palces"'),
      'Ferries: Ferry 1: “palces” is no field that is known here; is it misspelt? (units[0].pieces[0].palces)',
    ],
    [writeMuster(muster).replace('"count": 1', '"count": 0'), 'Ferries, Ferry 1: its number of figures'],
  ])('is told by the names of things', (text, words) => {
    expect(() => readMuster(text)).toThrow(words);
  });
});

describe('the plan as a calendar (RFC 5545, read by ical.js)', () => {
  const events = new ICAL.Component(
    ICAL.parse(writeCalendar(plan, muster.name, new Date('2027-03-01T12:00:00Z'))),
  ).getAllSubcomponents('vevent');

  it('has an event a session with work in it, at its wall-clock time', () => {
    const sessions = plan.sessions.filter((s) => s.steps.length > 0);
    expect(events).toHaveLength(sessions.length + plan.units.length);
    const first = new ICAL.Event(events[0]!);
    expect(first.startDate.toString()).toBe('2027-03-01T19:00:00Z');
    expect(first.endDate.toString()).toBe('2027-03-01T21:00:00Z');
    expect(first.description).toContain('prime');
    expect(events[0]!.getFirstSubcomponent('valarm')!.getFirstPropertyValue('trigger')!.toString()).toBe(
      '-PT15M',
    );
  });

  it('has the table date of each unit, a day’s warning before it', () => {
    const table = new ICAL.Event(events[events.length - 1]!);
    expect(table.summary).toBe('On the table: Ferries');
    expect(table.startDate.toString()).toBe('2027-03-05T12:00:00Z');
    expect(table.component.getFirstSubcomponent('valarm')!.getFirstPropertyValue('trigger')!.toString()).toBe(
      '-P1D',
    );
  });

  it('means the same instant whatever the bench’s zone, in winter and in summer', () => {
    for (const [startsOn, utc] of [
      ['2027-03-01T18:00', '2027-03-01T18:00:00Z'],
      ['2027-07-01T18:00', '2027-07-01T17:00:00Z'],
    ] as const) {
      const there = { ...muster, startsOn, bench: { ...muster.bench, timeZone: 'Europe/Vienna' } };
      there.units = there.units.map((u) => ({ ...u, table: `${startsOn.slice(0, 8)}05T12:00` }));
      const own = compile(there);
      const text = writeCalendar(
        present(there, own, solveProblem(own.problem, { iterations: 5 })),
        'x',
        new Date('2027-01-01T00:00:00Z'),
      );
      const calendar = new ICAL.Component(ICAL.parse(text));
      expect(new ICAL.Event(calendar.getFirstSubcomponent('vevent')!).startDate.toString()).toBe(utc);
      expect(calendar.getFirstPropertyValue('x-wr-timezone')).toBe('Europe/Vienna');
    }
  });

  it('has ids of its own and a stamp', () => {
    expect(new Set(events.map((e) => e.getFirstPropertyValue('uid'))).size).toBe(events.length);
    for (const e of events) expect(e.getFirstPropertyValue('dtstamp')).not.toBeNull();
  });
});

describe('the plan as CSV (RFC 4180, read by Papa Parse)', () => {
  it('has a line a step under headings with units', () => {
    const text = writePlanCsv(plan);
    expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/);
    const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true });
    expect(errors).toEqual([]);
    expect(data).toHaveLength(plan.steps.size);
    expect(data[0]).toMatchObject({ layer: 'prime', hands_minutes: '5' });
  });
});
