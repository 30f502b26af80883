/** Strengths in words: by piece, in order of their numbers, each once. */
import { describe, expect, it } from 'vitest';
import type { Piece } from '#core/muster';
import { strengthWords } from './index';
import { smallMuster } from './testing';

const on = (name: string, is?: 'trace' | 'heavy' | 'off'): { piece: Piece; layer: string } => ({
  piece: {
    ...smallMuster().units[0]!.pieces[0]!,
    name,
    ...(is ? { effects: [{ layer: 'dust', is }] } : {}),
  },
  layer: 'dust',
});

describe('strengths of an effect', () => {
  it('name the pieces by their numbers, the heavy first, and nobody who has it as usual', () => {
    const run = [
      on('Ferry 10', 'heavy'),
      on('Ferry 3', 'heavy'),
      on('Mast', 'trace'),
      on('Ferry 1', 'trace'),
      on('Ferry 2'),
    ];
    expect(strengthWords(run)).toBe('heavy on Ferry 3, 10; a trace on Mast, Ferry 1');
  });

  it('name a piece once that comes in several rounds, and are silent where all is as usual', () => {
    expect(strengthWords([on('Ferry 3', 'trace'), on('Ferry 3', 'trace')])).toBe('a trace on Ferry 3');
    expect(strengthWords([on('Ferry 1'), on('Ferry 2', 'off')])).toBe('');
  });
});
