/** Marks told place by place, and what a recipe goes by, both read from the log. */
import { describe, expect, it } from 'vitest';
import { entrySchema, hasHistory, type LogEntry, type New } from '#core/log';
import { layer, smallMuster } from '../plan/testing';
import {
  drawnEntry,
  markOn,
  placedMarks,
  recipesOf,
  referencesOf,
  referenceWords,
  tickedEntry,
} from './index';

const muster = smallMuster();
const [unit] = muster.units;
const [piece, other] = unit!.pieces;
const rust = layer('rust');
const bow = {
  face: 'left' as const,
  x: 0.2,
  y: 0.8,
  rx: 0.1,
  ry: 0.1,
  where: 'at the front corner',
};
let n = 0;
const logged = (entry: New<LogEntry>): LogEntry =>
  entrySchema.parse({ ...entry, id: `e${++n}`, at: `2027-03-01T19:0${n % 10}:00Z` });

describe('marks on a piece', () => {
  const ticked = logged(tickedEntry(unit!, piece!, rust, bow));
  const drawn = logged(drawnEntry(unit!, piece!, rust, { face: 'top', x: 0.5, y: 0.5, rx: 0.2, ry: 0.1 }));

  it('are read from the log alone, piece by piece, and change nothing in the plan', () => {
    expect(placedMarks([ticked, drawn], piece!.id).map((m) => [m.face, m.where])).toEqual([
      ['left', 'at the front corner'],
      ['top', 'drawn by hand'],
    ]);
    expect(placedMarks([ticked, drawn], other!.id)).toEqual([]);
    expect(hasHistory([ticked, drawn])).toBe(false);
    expect(ticked).toMatchObject({ text: expect.stringContaining(`${piece!.name}: rust, left`) as string });
  });

  it('answer for a place of the brief by face and name, of this layer only, until taken back', () => {
    const marks = placedMarks([ticked, drawn], piece!.id);
    expect(markOn(marks, 'rust', { face: 'left', where: bow.where })?.id).toBe(ticked.id);
    expect(markOn(marks, 'dust', bow)).toBeNull();
    expect(markOn(marks, 'rust', { ...bow, face: 'right' })).toBeNull();
    const back = logged({ kind: 'taken-back', entry: ticked.id });
    expect(markOn(placedMarks([ticked, drawn, back], piece!.id), 'rust', bow)).toBeNull();
  });

  it('that are drawn stand for no place of the brief', () => {
    const same = logged(drawnEntry(unit!, piece!, rust, bow));
    expect(markOn(placedMarks([same], piece!.id), 'rust', { ...bow, where: 'drawn by hand' })).toBeNull();
  });
});

describe('references', () => {
  const barge = { id: 'r1', name: 'Barge at the quay', year: '1934', shows: 'rust low on the bow' };
  const recipe = { ...muster.recipes[0]!, references: [barge, { id: 'r2', name: 'Own photograph' }] };
  const picture = (data: string): LogEntry => logged({ kind: 'picture', reference: 'r1', data });
  const [first, second] = ['data:image/png;base64,AAAA', 'data:image/png;base64,BBBB'];

  it('have the newest of their pictures, or none', () => {
    expect(referencesOf([recipe], [picture(first!), picture(second!)]).map((r) => r.picture)).toEqual([
      second,
      null,
    ]);
    expect(referencesOf([recipe], []).map((r) => r.picture)).toEqual([null, null]);
  });

  it('say their year and what they show', () => {
    expect(referenceWords(barge)).toBe('Barge at the quay, 1934: rust low on the bow');
    expect(referenceWords({ id: 'r2', name: 'Own photograph' })).toBe('Own photograph');
  });

  it('are those of the recipes that the unit’s pieces follow', () => {
    expect(recipesOf(muster, unit!).map((r) => r.id)).toEqual([muster.recipes[0]!.id]);
    expect(recipesOf(muster, { ...unit!, pieces: [] })).toEqual([]);
  });
});
