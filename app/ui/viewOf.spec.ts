/** Where a finding is mended: by what it names, else by its rule. */
import { describe, expect, it } from 'vitest';
import { viewOf } from './viewOf';

describe('the view of a finding', () => {
  it('is that of the unit or recipe which it names, the unit first', () => {
    expect(viewOf({ rule: 'too-little-contrast', place: { recipe: 'r', layer: 'l' } })).toBe('recipes');
    expect(viewOf({ rule: 'too-little-contrast', place: { unit: 'u', piece: 'p' } })).toBe('muster');
    expect(viewOf({ rule: 'can-indoors', place: { recipe: 'r' } })).toBe('recipes');
  });

  it('is that of its rule where it names nothing', () => {
    expect(viewOf({ rule: 'sessions-overlap', place: {} })).toBe('bench');
    expect(viewOf({ rule: 'product-twice', place: {} })).toBe('stores');
    expect(viewOf({ rule: 'muster-empty', place: {} })).toBe('muster');
  });
});
