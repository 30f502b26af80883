/** Edits by path: what they do, and what they do where things have gone. */
import { describe, expect, it } from 'vitest';
import { layer, smallMuster } from '../plan/testing';
import { differences, GoneError, withEdits, type Edit, type Muster } from './index';

const base = smallMuster([layer('a'), layer('b')]);
const layers = (m: Muster): string[] => m.recipes[0]!.layers.map((l) => l.id);
const add = (id: string, after: string | null): Edit => ({
  do: 'add',
  at: ['recipes', 'r', 'layers'],
  item: layer(id),
  after,
});

describe('edits', () => {
  it('put a whole row in at its place, at the beginning or, what it was to follow gone, at the end', () => {
    expect(layers(withEdits(base, [add('x', 'a'), add('y', 'x'), add('w', 'y')]))).toEqual([
      'a',
      'x',
      'y',
      'w',
      'b',
    ]);
    expect(layers(withEdits(base, [add('x', null), add('y', 'x')]))).toEqual(['x', 'y', 'a', 'b']);
    expect(layers(withEdits(base, [add('x', 'gone'), add('y', 'x')]))).toEqual(['a', 'b', 'x', 'y']);
  });

  it('put each where it is to be that does not follow the one before, or is of another list', () => {
    expect(layers(withEdits(base, [add('x', 'b'), add('y', 'a')]))).toEqual(['a', 'y', 'b', 'x']);
    const roof = { id: 'q', name: 'Roof' };
    const zone: Edit = { do: 'add', at: ['recipes', 'r', 'zones'], item: roof, after: 'x' };
    const both = withEdits(base, [add('x', 'b'), zone, add('y', 'x')]);
    expect(layers(both)).toEqual(['a', 'b', 'x', 'y']);
    expect(both.recipes[0]!.zones.map((z) => z.id)).toEqual(['z', 'q']);
  });

  it('leave no doubles where some of a row is there already', () => {
    expect(layers(withEdits(base, [add('x', 'a'), add('b', 'x')]))).toEqual(['a', 'x', 'b']);
    expect(layers(withEdits(base, [add('x', 'a'), add('x', 'x')])).filter((id) => id === 'x')).toEqual(['x']);
  });

  it('take a field away, once and again', () => {
    const noted = { ...base, note: 'For the fair' } as Muster;
    const [unset] = differences(noted, base);
    expect(unset).toEqual({ do: 'unset', at: ['note'] });
    const without = withEdits(noted, [unset!]);
    expect('note' in without).toBe(false);
    expect(withEdits(without, [unset!])).toBe(without);
  });

  it('say what is not there any more', () => {
    const renamed: Edit = { do: 'set', at: ['recipes', 'gone', 'name'], value: 'Hull' };
    expect(() => withEdits(base, [renamed])).toThrow(GoneError);
    expect(() =>
      withEdits(base, [{ do: 'move', at: ['recipes', 'r', 'layers'], id: 'x', after: null }]),
    ).toThrow('recipes/r/layers/x');
    expect(() => withEdits(base, [{ do: 'set', at: ['name', 'inner', 'deep'], value: 1 }])).toThrow(
      GoneError,
    );
  });

  it('move what is there, and take it out', () => {
    const at = ['recipes', 'r', 'layers'];
    expect(layers(withEdits(base, [{ do: 'move', at, id: 'b', after: null }]))).toEqual(['b', 'a']);
    expect(layers(withEdits(base, [{ do: 'remove', at, id: 'a' }]))).toEqual(['b']);
  });
});
