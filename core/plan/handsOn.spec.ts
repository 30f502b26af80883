/** Minutes of hands of a step that is put down overnight. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, handsOnMinutes, present } from './index';
import { layer, smallMuster } from './testing';

const LONG = 150;
const muster = smallMuster([layer('details', { minutes: LONG, pausable: true }), layer('seal')]);
const compiled = compile(muster);
const plan = present(muster, compiled, solveProblem(compiled.problem, { iterations: 20 }));

describe('hands on a step', () => {
  it('are its minutes, however many nights it is put down for', () => {
    const over = [...plan.steps.values()].filter((s) => s.layer.id === 'details' && s.end - s.start > LONG);
    expect(over.length).toBeGreaterThan(0);
    for (const s of over) expect(handsOnMinutes(plan, s)).toBe(LONG);
  });

  it('are from beginning to end where it is done at one go', () => {
    for (const s of plan.steps.values())
      if (!s.layer.pausable) expect(handsOnMinutes(plan, s)).toBe(s.end - s.start);
  });

  it('are no more than a long day where it was done outside of all hours', () => {
    const [step] = [...plan.steps.values()].filter((s) => s.layer.pausable);
    expect(handsOnMinutes({ sessions: [] }, { ...step!, start: 0, end: 5000 })).toBe(720);
    expect(handsOnMinutes({ sessions: [] }, { ...step!, start: 0, end: 30 })).toBe(30);
  });
});
