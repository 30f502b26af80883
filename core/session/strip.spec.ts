/** One evening as a strip, on a session whose minutes are set by hand. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, present, type PlanStep } from '#core/plan';
import { layer, smallMuster } from '../plan/testing';
import { stripOf, type Resting } from './index';

const muster = smallMuster(['base', 'shade', 'edge'].map((id) => layer(id)));
const made = compile(muster);
const plan = present(muster, made, solveProblem(made.problem, { iterations: 10 }));
const at = (id: string, start: number, end: number, who: string | null = null): PlanStep => ({
  ...plan.steps.get(id)!,
  start,
  end,
  doer: who === null ? null : { ...plan.steps.get(id)!.doer!, who },
});
const evening = (steps: PlanStep[]) => ({ ...plan.sessions[0]!, start: 100, end: 200, steps });
const base = at('p1.base', 104, 110);
const shade = at('p1.shade', 113, 120);
const edge = at('p1.edge', 130, 140);
const nothingDone = (): boolean => false;
const coat = (step: PlanStep, opens: number, closes: number): Resting => ({
  step,
  ended: 0,
  touchAt: 0,
  dryAt: 0,
  isFoundDry: false,
  gate: { opens, closes },
});

describe('the strip of an evening', () => {
  it('has its runs from their first step to the last that ends, what is done, and the first of the others in hand', () => {
    const second = at('p2.base', 107, 112);
    const strip = stripOf(plan, evening([base, second, shade, edge]), [], (s) => s.layer.id === 'base');
    expect(strip).toMatchObject({ from: 100, to: 200, done: 1 });
    expect(strip.runs.map((r) => [r.start, r.end, r.isDone, r.isInHand])).toEqual([
      [104, 112, true, false],
      [113, 120, false, true],
      [130, 140, false, false],
    ]);
    const half = stripOf(plan, evening([base, second]), [], (s) => s === base);
    expect([half.done, half.runs[0]!.isDone]).toEqual([0, false]);
  });

  it('has a wait wherever hands are idle for four minutes, and none that is a breath only', () => {
    expect(stripOf(plan, evening([base, shade, edge]), [], nothingDone).waits).toEqual([
      { start: 100, end: 104 },
      { start: 120, end: 130 },
    ]);
    const long = at('p1.base', 100, 135);
    expect(stripOf(plan, evening([long, shade, edge]), [], nothingDone).waits).toEqual([]);
  });

  it('has the windows that are open while it lasts, each once', () => {
    const coats = [
      coat(base, 50, 100),
      coat(base, 50, 101),
      coat(at('p2.base', 0, 1), 50.3, 101.2),
      coat(shade, 199, 300),
      coat(edge, 200, 300),
      { ...coat(edge, 120, 130), gate: null },
    ];
    expect(stripOf(plan, evening([base]), coats, nothingDone).gates.map((g) => [g.name, g.closes])).toEqual([
      ['base', 101.2],
      ['shade', 300],
    ]);
  });

  it('is that of one person where it is asked for, with what anybody does', () => {
    const steps = [at('p1.base', 104, 110, 'Me'), at('p1.shade', 113, 120, 'You'), edge];
    const of = (who: string | null) =>
      stripOf(plan, evening(steps), [], nothingDone, who).runs.map((r) => r.steps[0]!.layer.id);
    expect(of('You')).toEqual(['shade', 'edge']);
    expect(of(null)).toEqual(['base', 'shade', 'edge']);
  });
});
