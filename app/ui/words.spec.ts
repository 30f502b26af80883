/** Words with a rule of language in them, and amounts. */
import { describe, expect, it } from 'vitest';
import { dateTimeWords, many, tenths, weekdayName } from './words';

describe('words', () => {
  it('count one and several', () => {
    expect([many(1, 'run'), many(0, 'run'), many(3, 'box', 'boxes')]).toEqual(['1 run', '0 runs', '3 boxes']);
  });

  it('tell an amount to a tenth, and never nothing where there is some', () => {
    expect([0, 0.04, 0.099, 0.1, 2.66, 15.87].map(tenths)).toEqual([
      '0.0',
      'under 0.1',
      'under 0.1',
      '0.1',
      '2.7',
      '15.9',
    ]);
  });

  it('name days and moments', () => {
    expect([weekdayName(1), weekdayName(7, 'short')]).toEqual(['Monday', 'Sun']);
    expect(dateTimeWords('2027-03-16T19:00')).toBe('Tue 16 Mar, 19:00');
  });
});
