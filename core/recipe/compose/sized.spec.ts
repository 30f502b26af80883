/** Zones by their share and by how they are seen: minutes follow, and nothing is done for the eye where none falls (common practice, no source). */
import { describe, expect, it } from 'vitest';
import type { Recipe } from '#core/muster';
import { checkCraft, composed, FIRST_LOOKS, withLook, withZones } from '../index';

const looks = withLook(withLook(withLook(FIRST_LOOKS, 'chips'), 'details'), 'lining');
const zones = (hull: Partial<Recipe['zones'][number]>, under: Partial<Recipe['zones'][number]> = {}) => [
  { id: 'hull', name: 'Hull', ...hull },
  { id: 'under', name: 'Underside', ...under },
];
const onHull = { ...looks, list: looks.list.map((l) => (l.kind === 'base' ? { ...l, zones: ['hull'] } : l)) };
const minutes = (of: Recipe['zones'], id: string): number =>
  composed({ zones: of }, onHull).find((l) => l.id === id)!.minutes;

describe('what of a surface a layer has to do with', () => {
  it('is nothing new where nothing is said of the zones, and all of it on all of them', () => {
    expect(minutes(zones({ percent: 50 }, { percent: 50 }), 'ground')).toBe(minutes(zones({}), 'ground'));
  });

  it('takes fewer minutes on a smaller share, but never none', () => {
    const share = (percent: number): number =>
      minutes(zones({ percent }, { percent: 100 - percent }), 'base');
    expect(share(10)).toBeLessThan(share(50));
    expect(share(50)).toBeLessThan(share(99));
    expect(share(99)).toBeLessThanOrEqual(minutes(zones({}), 'base'));
    expect(share(1)).toBeGreaterThanOrEqual(1);
  });

  it('takes fewer minutes where it is little seen', () => {
    expect(minutes(zones({ seen: 'little' }), 'base')).toBeLessThan(
      minutes(zones({ percent: 50 }, { percent: 50 }), 'base'),
    );
  });

  it('is no effect where nobody looks: only what protects and colours goes there', () => {
    const hidden = zones({}, { seen: 'never' });
    const stack = composed({ zones: hidden }, looks);
    const on = (id: string) => stack.filter((l) => l.zones.length === 0 || l.zones.includes(id));
    const kinds = (id: string) => on(id).map((l) => l.id.split('-')[0]);
    expect(kinds('hull')).toEqual(expect.arrayContaining(['chips', 'details', 'lining', 'base']));
    for (const kind of ['chips', 'details', 'lining']) expect(kinds('under')).not.toContain(kind);
    expect(kinds('under')).toEqual(expect.arrayContaining(['ground', 'base']));
    const recipe: Recipe = { id: 'r', name: 'Boat', zones: hidden, looks, layers: stack };
    expect(checkCraft(recipe).filter((f) => f.severity === 'error')).toEqual([]);
    const nowhere = composed({ zones: zones({ seen: 'never' }, { seen: 'never' }) }, looks);
    expect(nowhere.some((l) => l.id.startsWith('chips'))).toBe(false);
  });

  it('may stay primed where nobody looks', () => {
    const bare = {
      ...FIRST_LOOKS,
      list: onHull.list.filter((l) => l.kind === 'ground' || l.kind === 'base'),
    };
    const told = (of: Recipe['zones']): string[] =>
      checkCraft({ id: 'r', name: 'Boat', zones: of, looks: bare, layers: composed({ zones: of }, bare) })
        .filter((f) => f.rule === 'detail-not-covered')
        .map((f) => f.text);
    expect(told(zones({}))).toEqual([expect.stringContaining('Underside')]);
    expect(told(zones({}, { seen: 'never' }))).toEqual([]);
  });

  it('is a fifth of the work on a figure, where what has a place of its own is brushed', () => {
    const figures = composed({ zones: zones({}) }, { ...onHull, isForFigures: true });
    const piece = composed({ zones: zones({}) }, onHull);
    expect(figures.map((l) => l.id)).toEqual(piece.map((l) => l.id));
    for (const [k, l] of figures.entries()) expect(l.minutes).toBeLessThan(piece[k]!.minutes);
    const of = (list: typeof figures, id: string) => list.find((l) => l.id === id)!;
    expect(of(figures, 'ground')).toMatchObject({ method: 'airbrush', minutes: 1 });
    expect(of(piece, 'base').method).toBe('airbrush');
    expect(of(figures, 'base')).toMatchObject({ method: 'brush', pausable: true });
  });

  it('is composed anew when a zone changes, and what a hand has made stays', () => {
    const before: Recipe = {
      id: 'r',
      name: 'Boat',
      zones: zones({}),
      looks,
      layers: composed({ zones: zones({}) }, looks).map((l) =>
        l.id === 'details' ? { ...l, name: 'Lamps by hand' } : l,
      ),
    };
    const after = withZones(before, zones({}, { seen: 'never' }));
    expect(after.layers.find((l) => l.id.startsWith('chips'))!.zones).toEqual(['hull']);
    expect(after.layers.find((l) => l.id === 'details')!.name).toBe('Lamps by hand');
    expect(withZones({ ...before, looks: undefined }, zones({}, { seen: 'never' })).layers).toEqual(
      before.layers,
    );
  });
});
