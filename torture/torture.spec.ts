/** The tortures in short; `npm run torture` runs the long ones. */
import { describe, expect, it } from 'vitest';
import { tortureCampaigns } from './campaigns/campaign';
import { PLANTED, unnoticed } from './campaigns/planted';
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

/** Five short ones: under a minute by themselves. */
const SHORT = { count: 5, acts: 14, mostSteps: 24 };

describe('campaigns that a random painter lives through', () => {
  it('come to their end, five of them, with all that must hold after every act', async () => {
    expect((await tortureCampaigns(SHORT)).faults).toEqual([]);
  }, 240_000);

  it('notice a fault that was planted', async () => {
    const [rework] = PLANTED;
    expect(rework!.name).toBe('a coat that is done again counts as a repeat');
    expect(await unnoticed(6, [rework!])).toEqual([]);
  }, 240_000);
});
