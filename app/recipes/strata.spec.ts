import { describe, expect, it } from 'vitest';
import { layer } from '../../core/plan/testing';
import { strataOf } from './strata';

describe('the cut-away', () => {
  const recipe = {
    id: 'r',
    name: 'R',
    zones: [
      { id: 'a', name: 'A' },
      { id: 'b', name: 'B' },
      { id: 'c', name: 'C' },
    ],
    layers: [
      layer('all'),
      layer('sides', { zones: ['a', 'c'], colour: '#101010' }),
      layer('left', {
        zones: ['a', 'b'],
        colour: '#f0f0f0',
        window: { opensMinutes: 20, closesMinutes: 60, preferMinutes: null, through: null },
      }),
    ],
  };
  const strata = strataOf(recipe);

  it('lists the top layer first', () => {
    expect(strata.map((s) => s.layer.id)).toEqual(['left', 'sides', 'all']);
  });

  it('joins neighbouring zones into one span and keeps others apart', () => {
    expect(strata.map((s) => s.spans)).toEqual([
      [{ from: 1, to: 3 }],
      [
        { from: 1, to: 2 },
        { from: 3, to: 4 },
      ],
      [{ from: 1, to: 4 }],
    ]);
  });

  it('writes dark on light paint and light on dark', () => {
    expect(strata[0]!.ink).not.toBe(strata[1]!.ink);
  });

  it('has a gate only where there is a window', () => {
    expect(strata[0]!.gate).toMatch(/20.60 min/);
    expect(strata[1]!.gate).toBeNull();
  });
});
