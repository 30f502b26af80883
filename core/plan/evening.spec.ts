import { describe, expect, it } from 'vitest';
import type { Layer } from '#core/muster';
import { eveningOf } from './evening';
import type { PlanStep } from './present';

let n = 0;
function step(start: number, minutes: number, layer: Partial<Layer>): PlanStep {
  return {
    id: `s${n++}`,
    start,
    end: start + minutes,
    round: 1,
    layer: { family: 'acrylic', method: 'brush', mixture: '', name: 'x', ...layer },
  } as PlanStep;
}

describe('the kind of an evening', () => {
  it('is what most of it goes into, in the order of the clock', () => {
    const steps = [
      step(0, 40, { family: 'primer', method: 'airbrush', mixture: 'grey' }),
      step(45, 5, { family: 'pen', mixture: 'edges' }),
      step(60, 30, { family: 'acrylic-wash', mixture: 'brown' }),
    ];
    expect(eveningOf(steps)).toEqual({ runs: 3, swaps: 1, kind: 'priming, then washes' });
    // The other way round the words turn too.
    expect(
      eveningOf([
        { ...steps[2]!, start: 0, end: 30 },
        { ...steps[0]!, start: 40, end: 80 },
      ]).kind,
    ).toBe('washes, then priming');
  });

  it('names one thing where that fills it, and nothing where nothing is done', () => {
    expect(eveningOf([step(0, 90, { task: 'glue', family: 'work' }), step(95, 5, {})]).kind).toBe('gluing');
    expect(eveningOf([])).toEqual({ runs: 0, swaps: 0, kind: '' });
  });
});
