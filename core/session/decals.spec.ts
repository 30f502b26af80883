/** Markings under way: each stage in its time, none soaked too long, hands not idle while another could be begun. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decalsFor, deedOf, nextDecalDeed, withDeedDone, type Decal } from './index';

const MINUTE = 60_000;
const steps = (n: number): string[] => Array.from({ length: n }, (_, k) => `s${k}`);

describe('one marking', () => {
  it('goes from wet to looked at, each when it may', () => {
    let list = decalsFor(['a'], [], 0);
    const told: string[] = [];
    let now = 0;
    for (let k = 0; k < 4; k++) {
      const deed = deedOf(list[0]!)!;
      now = deed.from;
      expect(nextDecalDeed(list, now - 1)?.decal.step).toBe(k === 0 ? 'a' : undefined);
      told.push(`${now / MINUTE} ${nextDecalDeed(list, now)!.deed.slice(0, 5)}`);
      list = withDeedDone(list, 'a', now);
    }
    expect(told).toEqual(['0 Trim ', '1 Slide', '11 Softe', '61 Look ']);
    expect(list[0]!.stage).toBe('done');
    expect(nextDecalDeed(list, now + 99 * MINUTE)).toBeNull();
    expect(withDeedDone(list, 'a', now)).toEqual(list);
  });
});

describe('several at once', () => {
  it('never soak too long, and hands rest only while none can be begun or is ready', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 20, max: 90 }), (n, seconds) => {
        let list: Decal[] = decalsFor(steps(n), [], 0);
        let now = 0;
        const hands = seconds * 1000;
        for (let k = 0; k < 5000 && list.some((d) => d.stage !== 'done'); k++) {
          const deed = nextDecalDeed(list, now);
          if (!deed) {
            const open = list.flatMap((d) => deedOf(d) ?? []);
            expect(open.every((d) => d.from > now || d.decal.stage === 'waiting')).toBe(true);
            now += 10_000;
            continue;
          }
          expect(deed.from).toBeLessThanOrEqual(now);
          if (deed.decal.stage === 'wet') expect(now).toBeLessThanOrEqual(deed.by!);
          now += hands;
          list = withDeedDone(list, deed.decal.step, now);
        }
        expect(list.every((d) => d.stage === 'done')).toBe(true);
        // One after the other they would take an hour each.
        if (n > 2) expect(now).toBeLessThan(n * 61 * MINUTE * 0.75);
      }),
    );
  });

  it('are those of the run in hand: what was begun goes on, what is no longer in it is gone', () => {
    const begun = withDeedDone(decalsFor(['a', 'b'], [], 0), 'b', 5);
    expect(decalsFor(['b', 'c'], begun, 9)).toEqual([
      { step: 'b', stage: 'wet', since: 5 },
      { step: 'c', stage: 'waiting', since: 9 },
    ]);
  });
});
