/** Markings given out: every side, rationed where scarce, numbers without doubles. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SIDES, type Marking, type Piece } from '#core/muster';
import { smallMuster } from '../plan/testing';
import { allot, markingsWanted, sidesWanted } from './index';

const sheet = (part: Partial<Marking> = {}): Marking => ({
  id: 'm',
  name: 'Fair numbers',
  unit: null,
  perPiece: 4,
  left: 100,
  policy: 'every-side',
  ...part,
});
const pieces = (n: number, part: (k: number) => Partial<Piece> = () => ({})): Piece[] =>
  Array.from({ length: n }, (_, k) => ({
    ...smallMuster().units[0]!.pieces[0]!,
    id: `p${k}`,
    name: `Punt ${k + 1}`,
    ...part(k),
  }));

describe('sides', () => {
  const both = sheet({ sides: ['left', 'right', 'back'] });

  it('are all that the rules call for, those that are seen first', () => {
    const [piece] = pieces(1, () => ({ hidden: ['left'] }));
    expect(sidesWanted(both, piece!)).toEqual(['right', 'back', 'left']);
    expect(sidesWanted({ ...both, policy: 'seen-sides' }, piece!)).toEqual(['right', 'back']);
  });

  it('that are not said take their share by what is hidden, not half of all', () => {
    const [piece] = pieces(1, () => ({ hidden: ['left', 'back'] }));
    expect(markingsWanted(sheet(), piece!)).toBe(4);
    expect(markingsWanted(sheet({ policy: 'seen-sides' }), piece!)).toBe(3);
    expect(markingsWanted(sheet({ policy: 'seen-sides' }), pieces(1)[0]!)).toBe(4);
  });

  it('that nobody will see get none, which is told', () => {
    const seen = sheet({ sides: ['left'], policy: 'seen-sides' });
    const turned = pieces(2, (k) => (k === 0 ? { hidden: ['left'] } : {}));
    const given = allot(seen, turned, 12);
    expect(given.pieces.map((p) => p.count)).toEqual([0, 1]);
    expect(given.faults.map((f) => f.text)).toEqual([
      'Punt 1: no side that “Fair numbers” goes on will be seen, so it gets none.',
    ]);
    expect(allot({ ...seen, policy: 'every-side' }, turned, 12).faults).toEqual([]);
  });

  it('are rationed: everybody has one before anybody has two, and what is short is told with its cure', () => {
    const given = allot(both, pieces(4), 6);
    expect(given.pieces.map((p) => p.count)).toEqual([2, 2, 1, 1]);
    expect(given.pieces[3]!.sides).toEqual(['left']);
    expect(given.faults.map((f) => f.text)).toEqual(['“Fair numbers” has 6 of the 12 that are wanted.']);
    expect(allot(both, pieces(4), 3).faults[0]!.text).toContain('1 piece goes without');
    expect(allot(both, pieces(4), 12).faults).toEqual([]);
  });
});

describe('numbers of a series', () => {
  const series = sheet({ numbers: { from: 1, to: 5 } });

  it('are given out without doubles, round those that are taken', () => {
    const given = allot(
      series,
      pieces(4, (k) => (k === 2 ? { number: 2 } : {})),
      99,
    );
    expect(given.pieces.map((p) => p.number)).toEqual([1, 3, 2, 4]);
    expect(given.faults).toEqual([]);
  });

  it('that are too few, double or not on the sheet are told, each with a cure', () => {
    const given = allot(
      series,
      pieces(7, (k) => (k < 2 ? { number: 4 } : k === 2 ? { number: 77 } : {})),
      99,
    );
    expect(given.pieces.map((p) => p.number)).toEqual([4, 4, 77, 1, 2, 3, 5]);
    expect(given.faults.map((f) => f.text)).toEqual([
      'Number 4 of “Fair numbers” is on Punt 1 and Punt 2.',
      'Punt 3 bears 77, which is not on “Fair numbers” (1 to 5).',
    ]);
    expect(allot(series, pieces(7), 99).faults[0]!.text).toContain('2 pieces go without');
    expect(given.faults.every((f) => f.cure.length > 0)).toBe(true);
  });
});

it('never gives out more than there is, nor more than is wanted, and no number twice', () => {
  fc.assert(
    fc.property(
      fc.array(
        fc.record({
          count: fc.integer({ min: 1, max: 5 }),
          hidden: fc.uniqueArray(fc.constantFrom(...SIDES)),
        }),
        { maxLength: 12 },
      ),
      fc.option(fc.uniqueArray(fc.constantFrom(...SIDES), { minLength: 1 })),
      fc.constantFrom('every-side' as const, 'seen-sides' as const),
      fc.nat(80),
      (parts, sides, policy, left) => {
        const marking = sheet({ policy, ...(sides ? { sides } : {}), numbers: { from: 1, to: 9 } });
        const given = allot(
          marking,
          pieces(parts.length, (k) => parts[k]!),
          left,
        );
        expect(given.given).toBeLessThanOrEqual(Math.min(left, given.wanted));
        for (const p of given.pieces) expect(p.count).toBeLessThanOrEqual(p.wanted);
        const numbers = given.pieces.flatMap((p) => p.number ?? []);
        expect(new Set(numbers).size).toBe(numbers.length);
        const isNone = given.pieces.some((p) => p.wanted === 0);
        expect(given.faults.length > 0).toBe(given.given < given.wanted || parts.length > 9 || isNone);
      },
    ),
  );
});
