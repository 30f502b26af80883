/** Where a figure comes from, and back to nominal. */
import { describe, expect, it } from 'vitest';
import { layer } from '../plan/testing';
import { asNominal, estimateWords, nominalOf, withEstimate } from './index';

const nominal = layer('a', { minutes: 5, dryMinutes: 60 });

describe('a figure', () => {
  it('says where it comes from', () => {
    expect(estimateWords(nominal.minutesFrom)).toBe('nominal');
    expect(estimateWords(withEstimate(nominal, 'minutes', 8).minutesFrom)).toBe('yours');
    expect(estimateWords(withEstimate(nominal, 'dryMinutes', 90, 12).dryFrom)).toBe('learned from 12');
  });

  it('remembers the nominal one through all changes, and is it again', () => {
    const twice = withEstimate(withEstimate(nominal, 'minutes', 8), 'minutes', 9, 4);
    expect(twice.minutes).toBe(9);
    expect(nominalOf(twice, 'minutes')).toBe(5);
    expect(asNominal(twice, 'minutes')).toEqual(nominal);
    const both = withEstimate(twice, 'dryMinutes', 90);
    expect(asNominal(both, 'dryMinutes')).toEqual(twice);
    expect(asNominal(both, 'minutes')).toEqual(withEstimate(nominal, 'dryMinutes', 90));
  });

  it('is nominal where the user types just that, but not where it was learned', () => {
    expect(withEstimate(withEstimate(nominal, 'minutes', 8), 'minutes', 5)).toEqual(nominal);
    expect(withEstimate(nominal, 'minutes', 5, 3).minutesFrom).toEqual({
      source: 'learned',
      nominalMinutes: 5,
      learnedFrom: 3,
    });
  });
});
