/** Steps that are to begin in a session, or not in it. */
import { describe, expect, it } from 'vitest';
import { smallMuster } from '../plan/testing';
import { withPins, withoutPins, type Muster } from './index';

const step = { piece: 'p1', layer: 'prime', round: 1 };
const again = { ...step, round: 2 };
const other = { ...step, piece: 'p2' };
let ids = 0;
const newId = (): string => `pin${++ids}`;
const said = (muster: Muster): string[] =>
  (muster.pins ?? []).map((p) => `${p.piece} ${p.round} ${p.is} ${p.session}`);

describe('pins', () => {
  it('are one for each step, with an id of its own', () => {
    const muster = withPins(smallMuster(), [step, other], 'monday', 'in', newId);
    expect(said(muster)).toEqual(['p1 1 in monday', 'p2 1 in monday']);
    expect(new Set(muster.pins!.map((p) => p.id)).size).toBe(2);
  });

  it('of a step that is to be in another session replace what was said of it, and nothing else', () => {
    const before = withPins(smallMuster(), [step, again, other], 'monday', 'in', newId);
    expect(said(withPins(before, [step], 'tuesday', 'in', newId))).toEqual([
      'p1 2 in monday',
      'p2 1 in monday',
      'p1 1 in tuesday',
    ]);
  });

  it('may keep a step out of several sessions, but say of none twice, and not that it is in one as well', () => {
    const out = withPins(smallMuster(), [step], 'monday', 'out', newId);
    const both = withPins(out, [step], 'tuesday', 'out', newId);
    expect(said(both)).toEqual(['p1 1 out monday', 'p1 1 out tuesday']);
    expect(said(withPins(both, [step], 'tuesday', 'out', newId))).toEqual([
      'p1 1 out monday',
      'p1 1 out tuesday',
    ]);
    expect(said(withPins(both, [step], 'friday', 'in', newId))).toEqual(['p1 1 in friday']);
    const kept = withPins(smallMuster(), [step], 'friday', 'in', newId);
    expect(said(withPins(kept, [step], 'monday', 'out', newId))).toEqual(['p1 1 out monday']);
  });

  it('are taken off a step, or off all', () => {
    const muster = withPins(smallMuster(), [step, again, other], 'monday', 'in', newId);
    expect(said(withoutPins(muster, [step]))).toEqual(['p1 2 in monday', 'p2 1 in monday']);
    expect(said(withoutPins(muster))).toEqual([]);
    expect(said(withoutPins(smallMuster(), [step]))).toEqual([]);
  });
});
