/** The tortures in short; `npm run torture` runs the long ones. */
import { describe, expect, it } from 'vitest';
import { tortureFiles } from './files';
import { tortureTabs } from './tabs';

describe('files with something wrong in them', () => {
  it.each(['muster', 'log', 'readings'] as const)(
    'of the kind %s are refused in words or come out sound',
    (kind) => {
      const { faults, told } = tortureFiles(kind, 500);
      expect(faults).toEqual([]);
      // Both came of it, or the files were not wrong in interesting ways.
      const [refused, taken] = told
        .match(/(\d+) refused in words, (\d+) taken/)!
        .slice(1)
        .map(Number);
      expect(refused).toBeGreaterThan(100);
      expect(taken).toBeGreaterThan(5);
    },
  );
});

describe('two tabs', () => {
  it('lose none of a hundred edits made by turns', async () => {
    expect((await tortureTabs(100, 5)).faults).toEqual([]);
  });
});
