import { parseMuster } from '#core/muster';
import { describe, expect, it } from 'vitest';

import { solveProblem } from '#core/kernel';
import { checkMuster, compile, hasErrors, oneAfterAnother, present, worstLateness } from '#core/plan';
import { fenMuster, mondayFrom } from './fen';

const muster = fenMuster('2027-03-01');

describe('the demo muster', () => {
  it('is a right muster without errors', () => {
    expect(parseMuster(JSON.parse(JSON.stringify(muster)))).toEqual(muster);
    expect(hasErrors(checkMuster(muster))).toBe(false);
  });

  it('is as large as it says: 30 pieces, 350 operations, five table dates within three weeks', () => {
    expect(muster.units.flatMap((u) => u.pieces).length).toBeGreaterThanOrEqual(30);
    expect(compile(muster).problem.operations.length).toBeGreaterThanOrEqual(350);
    expect(new Set(muster.units.map((u) => u.table)).size).toBe(5);
  });

  it('is late one unit after another, and on time as planned', () => {
    const compiled = compile(muster);
    const solution = solveProblem(compiled.problem, { iterations: 1500 });
    expect(present(muster, compiled, solution).lateMinutes).toBe(0);
    const naive = oneAfterAnother(muster);
    expect(worstLateness(naive, solveProblem(naive, { iterations: 100 }))).toBeGreaterThan(1440);
  });

  it('begins on a Monday', () => {
    expect(mondayFrom('2027-03-02')).toBe('2027-03-08');
    expect(mondayFrom('2027-03-01')).toBe('2027-03-01');
  });
});
