/** How far a plan looks ahead: as far as the work needs, and no muster is searched for ever that cannot end. */
import { describe, expect, it } from 'vitest';
import { startSearch } from '#core/kernel';
import type { Muster } from '#core/muster';
import { checkMuster, compile } from './index';
import { GRACE_DAYS, horizonDays } from './horizon';
import { layer, smallMuster } from './testing';

/** So many pieces of three layers, 5 minutes each, in evenings of two hours. */
function pile(count: number, places = 1): Muster {
  const muster = smallMuster([
    layer('prime', { family: 'primer' }),
    layer('base', { dryMinutes: 1440 }),
    layer('seal', { family: 'varnish', sheen: 'matt' }),
  ]);
  const [unit] = muster.units;
  const pieces = Array.from({ length: count }, (_, k) => ({
    ...unit!.pieces[0]!,
    id: `p${k}`,
    name: `Piece ${k}`,
    places,
  }));
  return { ...muster, units: [{ ...unit!, pieces }] };
}

describe('the horizon', () => {
  it('is the usual one where that is enough', () => {
    const few = pile(2);
    expect(horizonDays(few)).toBe(horizonDays(few, 0) + GRACE_DAYS);
  });

  it('grows with the work, and with what lies on the rack', () => {
    const usual = horizonDays(pile(2));
    expect(horizonDays(pile(1200, 0))).toBeGreaterThan(usual);
    const crowded = pile(200);
    const narrow = { ...crowded, bench: { ...crowded.bench, rackPlaces: 2 } };
    expect(horizonDays(narrow)).toBeGreaterThan(horizonDays(crowded));
  });

  it('lets five hundred pieces that are far too many for their date have a late plan, instead of none', () => {
    const muster = pile(500);
    expect(checkMuster(muster).filter((f) => f.severity === 'error')).toEqual([]);
    const search = startSearch(compile(muster).problem, { seed: 1 });
    while (search.best().status === 'unknown' && !search.isDone) search.step(1);
    expect(search.best().cost).not.toBeNull();
  });

  it('says so where two years of sessions do not hold the work', () => {
    const muster = pile(6000);
    const found = checkMuster(muster).filter((f) => f.rule === 'too-much-work');
    expect(found.map((f) => f.text)).toEqual([
      expect.stringMatching(
        /^All pieces together take 1500 h of hands, and there are \d+ h of sessions in two years\.$/,
      ),
    ]);
    expect(checkMuster(pile(500)).some((f) => f.rule === 'too-much-work')).toBe(false);
  });
});
