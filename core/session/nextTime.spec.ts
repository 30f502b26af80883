import { describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import { layer } from '../plan/testing';
import { nextTimeNotes } from './index';

const base = layer('base', { mixture: 'grey 3:1' });
const about = {
  unit: 'Barges',
  piece: 'Barge 1',
  recipe: 'Barge',
  layer: base.name,
  family: 'acrylic',
  method: 'brush',
  mixture: 'grey 3:1',
  coats: 1,
};
const note = (id: string, part: Record<string, unknown>): LogEntry =>
  ({ id, at: '2027-03-01T20:00:00Z', kind: 'noted', step: 's', note: id, about, ...part }) as LogEntry;

describe('what was to be done otherwise the next time', () => {
  it('is told with the layer of that name and mixture, the newest first, whatever recipe it is in', () => {
    const log = [
      note('thinner', { isForNextTime: true }),
      note('only a note', {}),
      note('two passes', { isForNextTime: true, at: '2027-03-02T20:00:00Z' }),
      note('of another layer', { isForNextTime: true, about: { ...about, layer: 'wash' } }),
    ];
    expect(nextTimeNotes(log, base).map((n) => [n.text, n.piece])).toEqual([
      ['two passes', 'Barge 1'],
      ['thinner', 'Barge 1'],
    ]);
    expect(nextTimeNotes(log, { ...base, mixture: 'blue' })).toEqual([]);
  });

  it('is gone when it is taken back', () => {
    const log = [
      note('thinner', { isForNextTime: true }),
      { id: 'x', at: '2027-03-03T20:00:00Z', kind: 'taken-back', entry: 'thinner' } as LogEntry,
    ];
    expect(nextTimeNotes(log, base)).toEqual([]);
  });
});
