/** Narrowing: every word counts, in any order and case; nothing typed narrows nothing. */
import { describe, expect, it } from 'vitest';
import { narrowed } from './narrow';

const shelf = ['Marsh green, acrylic', 'Fen grey, enamel', 'Marsh grey, acrylic'];

describe('a list', () => {
  it.each([
    ['', shelf],
    ['  ', shelf],
    ['MARSH', [shelf[0], shelf[2]]],
    ['acrylic grey', [shelf[2]]],
    ['salt', []],
  ])('narrowed by “%s”', (typed, left) => {
    expect(narrowed(shelf, typed, (s) => s)).toEqual(left);
  });
});
