/** The point of no return: as the recipe says, else as is usual for what it is (common practice, no source). */
import { describe, expect, it } from 'vitest';
import type { Layer, Recipe } from '#core/muster';
import { layer } from '../plan/testing';
import { lastChances, takenBackOf } from './index';

const recipe = (...layers: Layer[]): Recipe => ({
  id: 'r',
  name: 'Hull',
  zones: [
    { id: 'hull', name: 'Hull' },
    { id: 'deck', name: 'Deck' },
  ],
  layers,
});
const oil = layer('oil', { family: 'oil', zones: ['hull'] });
const deckSeal = layer('deck-seal', { family: 'varnish', zones: ['deck'] });
const seal = layer('seal', { family: 'varnish' });
const matt = layer('matt', { family: 'varnish' });

describe('what can be taken back', () => {
  it('is oil with its thinner, until its own zone is sealed', () => {
    const r = recipe(layer('base'), oil, deckSeal, seal, matt);
    expect(takenBackOf(r, oil)).toMatchObject({ by: expect.stringContaining('thinner'), until: seal });
    expect(takenBackOf(r, r.layers[0]!)).toBeNull();
    expect(takenBackOf(recipe(oil), oil)!.until).toBeNull();
  });

  it('is as the recipe says, where it says so', () => {
    const own = { ...oil, takenBack: { by: 'a damp cloth', until: 'matt' } };
    expect(takenBackOf(recipe(own, seal, matt), own)).toEqual({ by: 'a damp cloth', until: matt });
  });

  it('has its last chance before the layer that closes it, and before no other', () => {
    const r = recipe(oil, deckSeal, seal, matt);
    expect(lastChances(r, seal).map((c) => c.layer.id)).toEqual(['oil']);
    expect(lastChances(r, deckSeal)).toEqual([]);
    expect(lastChances(r, matt)).toEqual([]);
  });
});
