/** Craft rules over the pieces of a muster: what only a piece's own way brings, and a fleet of copies. */
import { describe, expect, it } from 'vitest';
import type { Muster, Piece } from '#core/muster';
import { checkMuster } from './index';
import { layer, smallMuster } from './testing';

const rulesOf = (muster: Muster): string[] => checkMuster(muster).map((f) => f.rule);
const withUnit = (muster: Muster, part: Partial<Muster['units'][number]>): Muster => ({
  ...muster,
  units: muster.units.map((u) => ({ ...u, ...part })),
});
const played = (muster: Muster): Muster =>
  withUnit(muster, { pieces: muster.units[0]!.pieces.map((p) => ({ ...p, use: 'played' as const })) });

describe('a piece that is handled', () => {
  const muster = played(
    smallMuster([
      layer('prime', { family: 'primer' }),
      layer('base', { level: 1 }),
      layer('matt', { family: 'varnish', sheen: 'matt' }),
    ]),
  );

  it('has its last coat with the whole recipe, and is asked for one where a level leaves it off', () => {
    expect(rulesOf(muster)).not.toContain('no-last-coat');
    const cut = checkMuster(withUnit(muster, { level: 1 })).filter((f) => f.rule === 'no-last-coat');
    expect(cut.map((f) => [f.severity, f.place.view, f.where])).toEqual([
      ['error', 'muster', expect.stringContaining('Ferries, Ferry 1')],
    ]);
  });
});

describe('a fleet of copies', () => {
  const muster = smallMuster();
  const pieces = (n: number, count: number): Piece[] =>
    Array.from({ length: n }, (_, k) => ({
      ...muster.units[0]!.pieces[0]!,
      id: `p${k}`,
      name: `Ferry ${k}`,
      count,
    }));

  it.each([
    ['five single pieces', 5, 1, false],
    ['six single pieces', 6, 1, true],
    ['five trays of ten figures', 5, 10, true],
    ['two trays of five', 2, 5, false],
    ['one tray of twenty', 1, 20, false],
  ] as const)('%s: told %s', (_, n, count, isTold) => {
    expect(rulesOf(withUnit(muster, { pieces: pieces(n, count) })).includes('all-identical')).toBe(isTold);
  });
});
