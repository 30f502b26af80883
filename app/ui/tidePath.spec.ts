import { describe, expect, it } from 'vitest';
import { tideLevel, tidePaths } from './tidePath';

describe('the drying tide', () => {
  it('falls from full to nothing and never rises', () => {
    expect(tideLevel(0)).toBe(1);
    expect(tideLevel(1)).toBe(0);
    for (let s = 0; s < 1; s += 0.05) expect(tideLevel(s + 0.05)).toBeLessThan(tideLevel(s));
  });
  it('draws nothing where nothing dries', () => {
    expect(tidePaths({ from: 10, wet: 10, workable: 10, dry: 10 }, 50, 30)).toEqual({
      wet: '',
      workable: '',
      nearly: '',
      line: '',
    });
  });
  it('begins at the end of the work and stands on the ground line', () => {
    expect(tidePaths({ from: 10, wet: 20, workable: 30, dry: 40 }, 50, 30).wet).toMatch(
      /^M10\.0 50L10\.0 20\.0/,
    );
  });
});
