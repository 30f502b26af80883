/** The fast structures against the slow and obvious ones. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  dryingClock,
  earliestAfter,
  earliestBefore,
  latestAfter,
  latestBefore,
  ticksBetween,
} from './dryingClock';
import { intersect, nextFit, NEVER, openHours, pausableEnd, pausableStart, previousFit } from './openHours';
import { Profile } from './profile';

const HORIZON = 400;

describe('a resource profile', () => {
  const change = fc.record({
    from: fc.integer({ min: 0, max: HORIZON }),
    length: fc.integer({ min: 0, max: HORIZON }),
    amount: fc.integer({ min: -3, max: 4 }),
  });

  it.each([100, 100_000])('agrees with an array of minutes (at most %i)', (most) => {
    fc.assert(
      fc.property(
        fc.array(change, { maxLength: 25 }),
        fc.integer({ min: 0, max: HORIZON }),
        fc.integer({ min: 0, max: HORIZON }),
        fc.integer({ min: -3, max: 8 }),
        (changes, a, b, limit) => {
          const profile = new Profile(HORIZON, most);
          const plain = new Int32Array(HORIZON + 1);
          for (const c of changes) {
            const to = Math.min(HORIZON, c.from + c.length);
            profile.add(c.from, to, c.amount);
            for (let t = c.from; t < to; t++) plain[t]! += c.amount;
          }
          const from = Math.min(a, b);
          const to = Math.max(a, b);
          let first = -1;
          let last = -1;
          for (let t = from; t < to; t++)
            if (plain[t]! > limit) {
              if (first < 0) first = t;
              last = t;
            }
          expect(profile.firstAbove(from, to, limit)).toBe(first);
          expect(profile.lastAbove(from, to, limit)).toBe(last);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('is what it was when every change is taken back', () => {
    fc.assert(
      fc.property(fc.array(change, { maxLength: 20 }), (changes) => {
        const profile = new Profile(HORIZON, 1000);
        for (const c of changes) profile.add(c.from, Math.min(HORIZON, c.from + c.length), c.amount);
        for (const c of [...changes].reverse())
          profile.add(c.from, Math.min(HORIZON, c.from + c.length), -c.amount);
        expect(profile.firstAbove(0, HORIZON, 0)).toBe(-1);
        expect(profile.firstAbove(0, HORIZON, -1)).toBe(0);
      }),
    );
  });
});

/** Sorted, disjoint, not touching. */
const intervals = fc
  .array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 1, max: 90 })), {
    minLength: 0,
    maxLength: 6,
  })
  .map((parts) => {
    const list: [number, number][] = [];
    let t = 0;
    for (const [gap, length] of parts) {
      list.push([t + gap, t + gap + length]);
      t += gap + length;
    }
    return list;
  });

const isOpen = (list: readonly [number, number][], from: number, to: number): boolean =>
  list.some(([a, b]) => a <= from && to <= b);

describe('open hours', () => {
  it('find the next and the previous fit that a search minute by minute finds', () => {
    fc.assert(
      fc.property(
        intervals,
        fc.integer({ min: 0, max: HORIZON }),
        fc.integer({ min: 0, max: 12 }),
        fc.integer({ min: 1, max: 40 }),
        (list, t, setup, minutes) => {
          const open = openHours(list);
          let next = NEVER;
          for (let s = t; s < 1000; s++)
            if (isOpen(list, s - setup, s + minutes)) {
              next = s;
              break;
            }
          expect(nextFit(open, t, setup, minutes)).toBe(next);
          let previous = -1;
          for (let s = t - minutes; s >= 0; s--)
            if (isOpen(list, s - setup, s + minutes)) {
              previous = s;
              break;
            }
          expect(previousFit(open, t, minutes, setup)).toBe(previous);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('let pausable work run through open minutes only, forwards and backwards', () => {
    fc.assert(
      fc.property(intervals, fc.integer({ min: 1, max: 120 }), (list, minutes) => {
        const open = openHours(list);
        for (const [from, to] of list)
          for (const start of [from, to - 1]) {
            let left = minutes;
            let end = NEVER;
            for (let t = start; t < 1000; t++)
              if (isOpen(list, t, t + 1) && --left === 0) {
                end = t + 1;
                break;
              }
            expect(pausableEnd(open, start, minutes)).toBe(end);
            if (end === NEVER) continue;
            const back = pausableStart(open, end, minutes);
            expect(pausableEnd(open, back, minutes)).toBe(end);
            expect(back).toBeGreaterThanOrEqual(start);
          }
      }),
    );
  });

  it('intersect to the minutes that are open in both', () => {
    fc.assert(
      fc.property(intervals, intervals, (a, b) => {
        const both = intersect(openHours(a), openHours(b));
        for (let t = 0; t < 900; t += 7) {
          const inBoth = isOpen(a, t, t + 1) && isOpen(b, t, t + 1);
          let found = false;
          both.from.forEach((from, k) => {
            if (from <= t && t + 1 <= both.to[k]!) found = true;
          });
          expect(found).toBe(inBoth);
        }
      }),
    );
  });
});

describe('a drying clock', () => {
  const points = fc
    .array(fc.tuple(fc.integer({ min: 1, max: 120 }), fc.integer({ min: 1, max: 200 })), {
      minLength: 1,
      maxLength: 5,
    })
    .map((parts) => {
      const list: [number, number][] = [[0, 0]];
      for (const [dt, dc] of parts) {
        const [t, c] = list[list.length - 1]!;
        list.push([t + dt, c + dc]);
      }
      return list;
    });

  it('answers from when and until when as a search minute by minute does', () => {
    fc.assert(
      fc.property(
        points,
        fc.integer({ min: 0, max: HORIZON }),
        fc.integer({ min: 0, max: 200 }),
        (list, at, ticks) => {
          const clock = dryingClock(list, HORIZON);
          const minutes = Array.from({ length: HORIZON + 1 }, (_, t) => t);
          const near = 1e-6;
          const soonest = minutes.find((t) => ticksBetween(clock, at, t) >= ticks - near) ?? HORIZON + 1;
          expect(earliestAfter(clock, at, ticks)).toBe(soonest);
          const latest = minutes.filter((t) => ticksBetween(clock, at, t) <= ticks + near).pop()!;
          expect(Math.min(HORIZON, latestAfter(clock, at, ticks))).toBe(latest);
          const before = minutes.filter((t) => ticksBetween(clock, t, at) >= ticks - near).pop() ?? -1;
          expect(latestBefore(clock, at, ticks)).toBe(before);
          const earliest = minutes.find((t) => ticksBetween(clock, t, at) <= ticks + near)!;
          expect(earliestBefore(clock, at, ticks)).toBe(earliest);
        },
      ),
      { numRuns: 300 },
    );
  });

  it('is plain minutes when there is none', () => {
    expect([
      earliestAfter(null, 5, 10),
      latestAfter(null, 5, 10),
      latestBefore(null, 20, 5),
      earliestBefore(null, 20, 5),
    ]).toEqual([15, 15, 15, 15]);
    expect(ticksBetween(null, 3, 8)).toBe(5);
  });
});
