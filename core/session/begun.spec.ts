/** Which pieces are under way, by their steps in the log. */
import { describe, expect, it } from 'vitest';
import type { LogEntry } from '#core/log';
import { begunPieces } from './index';

const at = '2027-03-01T19:00';
const about = (step: string, kind: 'done' | 'note', id: string): LogEntry =>
  kind === 'done'
    ? ({ id, at, kind, step, minutes: 5 } as unknown as LogEntry)
    : ({ id, at, kind, text: step } as unknown as LogEntry);

describe('pieces under way', () => {
  it('are those of which something is done, also where an id holds a dot; a note begins nothing', () => {
    const begun = begunPieces([
      about('boat.prime', 'done', 'a'),
      about('fleet.2.prime', 'done', 'b'),
      about('punt.prime', 'note', 'c'),
    ]);
    expect(['boat', 'fleet.2', 'punt'].map((id) => begun.has(id))).toEqual([true, true, false]);
  });
});
