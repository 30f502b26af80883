/** The wave's formula against its check value and against the planner itself. */
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, type Problem } from '#core/kernel';
import { waveOf, type WaveInput } from './index';

describe('the wave', () => {
  // A worked example (derived; common practice, no source).
  it('lets 9 pieces through for a = 4, b = 6, lo = 20, hi = 60, s = 8', () => {
    expect(waveOf({ first: 4, second: 6, change: 8, opens: 20, closes: 60 }).pieces).toBe(9);
  });

  it.each([
    { first: 4, second: 6, change: 8, opens: 20, closes: 60 },
    { first: 6, second: 4, change: 5, opens: 20, closes: 50 },
    { first: 5, second: 5, change: 10, opens: 15, closes: 40 },
    { first: 3, second: 9, change: 6, opens: 10, closes: 45 },
    { first: 8, second: 2, change: 4, opens: 30, closes: 60 },
  ] satisfies WaveInput[])(
    'agrees with the planner: $first, $second, change $change, $opens to $closes',
    (input) => {
      const { pieces } = waveOf(input);
      expect(solveProblem(oneWave(input, pieces), { iterations: 400 }).status).toBe('optimal');
      expect(solveProblem(oneWave(input, pieces + 1), { iterations: 400 }).status).toBe('infeasible');
    },
  );

  it('names what limits it, and keeps every piece inside its window', () => {
    const wave = waveOf({ first: 4, second: 6, change: 8, opens: 20, closes: 60, places: 5, session: 200 });
    expect(wave.limits[0]).toEqual({ by: 'places', pieces: 5 });
    for (const p of wave.pieceTimes) {
      expect(p.second[0]).toBeGreaterThanOrEqual(p.opens);
      expect(p.second[0]).toBeLessThanOrEqual(p.closes);
    }
  });

  // Worked by hand: n firsts of 4, change 8, n seconds of 6: 8 + 10 n minutes once all windows have opened.
  it('is limited by handles, by whole cups and by the session, each named with its pieces, the smallest first', () => {
    const input = { first: 4, second: 6, change: 8, opens: 0, closes: 600 };
    const limits = (more: Partial<WaveInput>): unknown =>
      waveOf({ ...input, ...more }).limits.filter((l) => l.by !== 'window');
    expect(limits({})).toEqual([]);
    expect(limits({ handles: 7, perCup: 5.9 })).toEqual([
      { by: 'cup', pieces: 5 },
      { by: 'handles', pieces: 7 },
    ]);
    expect(limits({ session: 98 })).toEqual([{ by: 'session', pieces: 9 }]);
    expect(limits({ session: 97.9 })).toEqual([{ by: 'session', pieces: 8 }]);
    expect(limits({ session: 17 })).toEqual([{ by: 'session', pieces: 0 }]);
    expect(limits({ session: 1e9 })).toEqual([{ by: 'session', pieces: 1000 }]);
    expect(waveOf({ ...input, session: 17 })).toMatchObject({ pieces: 0, minutes: 0, pieceTimes: [] });
    expect(waveOf({ ...input, session: 98 }).minutes).toBe(98);
  });

  it('waits for the last window to open where that takes longer than the change', () => {
    const wave = waveOf({ first: 4, second: 6, change: 8, opens: 30, closes: 60, places: 2 });
    expect(wave.pieceTimes.map((p) => [p.first, p.second])).toEqual([
      [
        [0, 4],
        [34, 40],
      ],
      [
        [4, 8],
        [40, 46],
      ],
    ]);
    expect(wave.minutes).toBe(46);
    // Seconds that are quicker than firsts begin later still, or the last would be too early.
    const quick = waveOf({ first: 6, second: 2, change: 1, opens: 30, closes: 90, places: 3 });
    expect(quick.pieceTimes.map((p) => p.second[0] - p.opens)).toEqual([8, 4, 0]);
  });

  it('says what is wrong with impossible figures', () => {
    const input = { first: 4, second: 6, change: 8, opens: 1, closes: 20 };
    for (const part of [{ change: -1 }, { opens: -1 }, { second: 0 }])
      expect(() => waveOf({ ...input, ...part })).toThrow(RangeError);
    expect(() => waveOf({ first: 4, second: 6, change: 8, opens: 60, closes: 20 })).toThrow(
      /closes after 20 min/,
    );
    expect(() => waveOf({ first: 0, second: 6, change: 8, opens: 1, closes: 20 })).toThrow(/more than 0/);
  });
});

/** All first layers, then all second ones, with one pair of hands and one changeover: the order the formula speaks of. */
function oneWave(input: WaveInput, pieces: number): Problem {
  const ids = Array.from({ length: pieces }, (_, k) => k);
  const horizon = 1000;
  return parseProblem({
    format: 'muster-problem/1',
    horizon,
    resources: [{ id: 'hands', capacity: 1 }],
    operations: [
      ...ids.flatMap((k) => [
        { id: `a${k}`, minutes: input.first, uses: [{ resource: 'hands', amount: 1 }] },
        { id: `b${k}`, minutes: input.second, uses: [{ resource: 'hands', amount: 1 }] },
      ]),
      { id: 'change', minutes: input.change, uses: [{ resource: 'hands', amount: 1 }] },
    ],
    lags: ids.flatMap((k) => [
      { from: `a${k}`, to: `b${k}`, min: input.opens, max: input.closes },
      { from: `a${k}`, to: 'change', min: 0 },
      { from: 'change', to: `b${k}`, min: 0 },
      // One after the other without a pause: with pauses in between more could be squeezed through, at the price of idle hands.
      ...(k > 0
        ? [
            { from: `a${k - 1}`, to: `a${k}`, min: 0, max: 0 },
            { from: `b${k - 1}`, to: `b${k}`, min: 0, max: 0 },
          ]
        : []),
    ]),
    objective: { makespan: 1 },
  });
}
