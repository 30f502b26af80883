/** Finding by a few words: names, days, and what is to be done. */
import { describe, expect, it } from 'vitest';
import { checked, sessionsOn, withExtraSession } from '#core/muster';
import { barePlan } from '#core/plan';
import { fenMuster } from '#demo/fen';
import { find, thingsOf } from './index';

const muster = fenMuster('2027-03-01');
const plan = barePlan(muster);
const things = thingsOf(muster);
const found = (words: string) => find(words, things, muster, plan, '2027-03-01');

describe('a name', () => {
  it('leads to its place, the nearest first', () => {
    const [first] = found('heron riders');
    expect(first).toMatchObject({ kind: 'unit', name: 'Heron riders', link: { query: { unit: 'herons' } } });
  });

  it('may be the beginning of words in any order, of name and place', () => {
    const hits = found('folk cutters');
    expect(hits.length).toBeGreaterThan(0);
    for (const h of hits)
      expect(`${h.name} ${h.detail}`.toLowerCase()).toMatch(/cutters.*folk|folk.*cutters/);
  });

  it('of every kind is there', () => {
    expect(new Set(things.map((t) => t.kind))).toEqual(
      new Set(['unit', 'piece', 'recipe', 'layer', 'product']),
    );
  });

  it('that nothing has finds nothing, nor does nothing at all', () => {
    expect(found('zzz')).toEqual([]);
    expect(found('   ')).toEqual([]);
  });
});

describe('a day', () => {
  it('is its session on the sheet', () => {
    const [first] = found('wed');
    expect(first).toMatchObject({
      kind: 'evening',
      name: 'Session of 2027-03-03',
      link: { path: ['/sheet', '3'] },
    });
  });

  it('without a session is none', () => {
    expect(found('7 march').filter((t) => t.kind === 'evening')).toEqual([]);
  });
});

describe('an extra session', () => {
  it('is a deed with the hours that are usual, or those said', () => {
    expect(found('extra session on 7 march')[0]!.deed).toEqual({
      do: 'extra-session',
      date: '2027-03-07',
      from: '19:15',
      to: '22:00',
    });
    expect(found('extra session on sunday from 9:00 to 11:30')[0]!.deed).toMatchObject({
      from: '09:00',
      to: '11:30',
    });
  });

  it('is offered neither over one that is there nor backwards', () => {
    expect(found('extra session on monday 20:00-21:00').filter((t) => t.kind === 'do')).toEqual([]);
    expect(found('extra session on sunday 20:00-19:00').filter((t) => t.kind === 'do')).toEqual([]);
  });

  it('stands beside what that day has already', () => {
    const more = withExtraSession(muster, '2027-03-06', { from: '19:00', to: '20:00' }, () => 'x');
    expect(sessionsOn(more.bench, '2027-03-06')).toEqual([
      ...sessionsOn(muster.bench, '2027-03-06'),
      { from: '19:00', to: '20:00' },
    ]);
    const twice = withExtraSession(more, '2027-03-06', { from: '21:00', to: '22:00' }, () => 'y');
    expect(twice.bench.exceptions.filter((e) => e.date === '2027-03-06')).toHaveLength(1);
    expect(checked(twice).ok).toBe(true);
  });
});
