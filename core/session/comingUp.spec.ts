import { describe, expect, it } from 'vitest';
import { comingUp } from './comingUp';
import type { Resting } from './shelf';

const row = (
  moment: number,
  lead: Partial<Pick<Resting, 'dryAt' | 'gate'>> = {},
): { moment: number; lead: Resting } => ({
  moment,
  lead: { dryAt: moment, gate: null, ...lead } as Resting,
});

describe('the next moment that matters', () => {
  it('is the beginning of the run in hand, then its end', () => {
    const run = [
      { start: 10, end: 14 },
      { start: 14, end: 18 },
    ];
    expect(comingUp(3, run, [], [])).toBe(10);
    expect(comingUp(10, run, [], [])).toBe(18);
    expect(comingUp(18, run, [], [])).toBeNull();
  });

  it('is a coat that opens or is dry, in the whole minute after', () => {
    expect(comingUp(3, [], [row(7.2, { dryAt: 9 })], [])).toBe(8);
    expect(comingUp(8, [], [row(7.2, { dryAt: 9 })], [])).toBe(9);
  });

  it('is a window that has just shut, however few seconds are left of it', () => {
    const shutting = row(52.3, { gate: { opens: 20, closes: 52.3 }, dryAt: 20 });
    expect(comingUp(52, [], [shutting], [])).toBe(53);
    const onTheMinute = row(52, { gate: { opens: 20, closes: 52 }, dryAt: 20 });
    expect(comingUp(51.5, [], [onTheMinute], [])).toBe(52);
    expect(comingUp(52, [], [onTheMinute], [])).toBe(53);
  });

  it('is what a rehearsal has in store, and nothing when nothing is left', () => {
    expect(comingUp(3, [], [], [{ at: 4.5 }, { at: 30 }])).toBe(5);
    expect(comingUp(31, [], [row(12)], [{ at: 4.5 }, { at: 30 }])).toBeNull();
  });
});
