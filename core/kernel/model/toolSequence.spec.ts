import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ToolSequence } from './toolSequence';

const spans = fc.array(fc.record({ start: fc.nat(60), minutes: fc.nat(3), isOut: fc.boolean() }), {
  maxLength: 40,
});

describe('a tool sequence', () => {
  it('is what sorting makes of all that came and did not go again', () => {
    fc.assert(
      fc.property(spans, (list) => {
        const sequence = new ToolSequence(list.length);
        list.forEach((s, i) => sequence.add(i, s.start, s.start + s.minutes));
        list.forEach((s, i) => s.isOut && sequence.remove(i, s.start));
        const left = [...list.keys()].filter((i) => !list[i]!.isOut);
        const times = (i: number): number[] => [list[i]!.start, list[i]!.start + list[i]!.minutes];
        const sorted = left.map(times).sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!);
        expect(sequence.length).toBe(left.length);
        expect(sequence.list().map(times)).toEqual(sorted);
        expect(sequence.list().sort((a, b) => a - b)).toEqual(left);
      }),
    );
  });

  it('finds the first that starts, or starting alike ends, at or after', () => {
    fc.assert(
      fc.property(spans, fc.nat(64), fc.nat(64), (list, start, end) => {
        const sequence = new ToolSequence(list.length);
        list.forEach((s, i) => sequence.add(i, s.start, s.start + s.minutes));
        const isBefore = (i: number): boolean =>
          list[i]!.start < start || (list[i]!.start === start && list[i]!.start + list[i]!.minutes < end);
        expect(sequence.position(start, end)).toBe(sequence.list().filter(isBefore).length);
      }),
    );
  });

  it('keeps what begins and ends together in the order of the problem, in whatever order it came', () => {
    const sequence = new ToolSequence(3);
    for (const i of [2, 0, 1]) sequence.add(i, 10, 20);
    expect(sequence.list()).toEqual([0, 1, 2]);
  });

  it('has nothing before the first and behind the last', () => {
    const sequence = new ToolSequence(1);
    expect([sequence.at(-1), sequence.at(0)]).toEqual([-1, -1]);
    sequence.add(5, 10, 20);
    expect([sequence.at(-1), sequence.at(0), sequence.at(1)]).toEqual([-1, 5, -1]);
  });
});
