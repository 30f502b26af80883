/** What becomes of a recipe’s layers when its zones go. */
import { describe, expect, it } from 'vitest';
import { layer, smallMuster } from '../plan/testing';
import { mended, type Layer, type Muster } from './index';

const zoned = (
  layers: Layer[],
  zones: string[],
  silenced?: { rule: string; layer: string | null }[],
): Muster => {
  const m = smallMuster(layers);
  return {
    ...m,
    recipes: [
      {
        ...m.recipes[0]!,
        zones: zones.map((id) => ({ id, name: id })),
        ...(silenced ? { silenced: silenced.map((s) => ({ ...s, reason: 'tried' })) } : {}),
      },
    ],
  };
};
const layers = [
  layer('all'),
  layer('roof', { zones: ['roof'] }),
  layer('both', { zones: ['roof', 'sides'] }),
];

describe('a zone that has gone', () => {
  const was = zoned(layers, ['roof', 'sides']);
  const { muster, notes } = mended(was, zoned(layers, ['sides']));

  it('takes the layers along that were for it alone, and says so', () => {
    expect(muster.recipes[0]!.layers.map((l) => l.id)).toEqual(['all', 'both']);
    expect(notes).toContain('“roof” went with its zone.');
  });

  it('leaves the others, for the zones that are left', () => {
    expect(muster.recipes[0]!.layers.map((l) => l.zones)).toEqual([[], ['sides']]);
  });

  it('takes along what was silenced at its layers, and leaves what is silenced of the recipe', () => {
    const silenced = [
      { rule: 'x', layer: 'roof' },
      { rule: 'y', layer: 'both' },
      { rule: 'z', layer: null },
    ];
    const next = mended(zoned(layers, ['roof', 'sides'], silenced), zoned(layers, ['sides'], silenced));
    expect(next.muster.recipes[0]!.silenced!.map((s) => s.rule)).toEqual(['y', 'z']);
  });

  it('changes nothing where none has gone', () => {
    const same = mended(was, was);
    expect(same.muster).toBe(was);
    expect(same.notes).toEqual([]);
  });
});
