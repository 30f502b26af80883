/** Practice of the eye, on the demo's own coats. */
import { describe, expect, it } from 'vitest';
import { eyeTasks, howFar, meanMiss, surfaceAt } from './index';
import { plan } from './testing';

const tasks = eyeTasks(plan);

describe('what there is to practise on', () => {
  it('asks of every coat that dries when it may be touched and gone over, and of windows when they open and when it is too late', () => {
    expect(new Set(tasks.map((t) => t.question))).toEqual(new Set(['touch', 'over', 'lift', 'late']));
    expect(new Set(tasks.map((t) => t.key)).size).toBe(tasks.length);
    for (const { question, step, truth, whole } of tasks) {
      const at = {
        touch: step.tide.wetUntil,
        over: step.tide.dryAt,
        lift: step.gate?.opens ?? NaN,
        late: step.gate?.closes ?? NaN,
      }[question];
      expect(truth).toBeCloseTo(at - step.end, 9);
      expect(whole).toBeGreaterThan(truth);
    }
  });
});

describe('a coat as it dries', () => {
  it('loses gloss, cold and tack, and never gains any', () => {
    for (const { step, whole } of tasks) {
      let before = surfaceAt(step, 0);
      expect(Math.min(before.gloss, before.cool, before.tack)).toBeGreaterThan(0.85);
      for (let m = 0; m <= whole; m += whole / 40) {
        const now = surfaceAt(step, m);
        for (const sense of ['gloss', 'cool', 'tack'] as const)
          expect(now[sense]).toBeLessThanOrEqual(before[sense] + 1e-9);
        before = now;
      }
      expect(before.gloss).toBeLessThan(0.2);
    }
  });

  it('is satin about when it may be touched', () => {
    for (const { step, truth } of tasks.filter((t) => t.question === 'touch')) {
      const { gloss } = surfaceAt(step, truth);
      expect(gloss).toBeGreaterThan(0.3);
      expect(gloss).toBeLessThan(0.75);
    }
  });
});

describe('an answer', () => {
  it('is told in minutes, and as right within a twentieth', () => {
    expect(howFar({ question: 'over', said: 20, truth: 30 })).toBe('10 min too soon');
    expect(howFar({ question: 'over', said: 45.4, truth: 30 })).toBe('15 min too late');
    expect(howFar({ question: 'touch', said: 31, truth: 30 })).toBe('right, to a twentieth');
  });

  it('counts in the record by how far off it was', () => {
    expect(meanMiss([])).toBeNull();
    const answers = [20, 36].map((said) => ({ question: 'over' as const, said, truth: 30 }));
    expect(meanMiss(answers)).toBeCloseTo((1 / 3 + 0.2) / 2, 12);
  });
});
