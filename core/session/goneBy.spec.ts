/** Evenings that went by: what was planned for them and is not done. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { endedSteps, type LogEntry } from '#core/log';
import { layer, smallMuster } from '../plan/testing';
import { goneBy, pose, solvedPlan } from './index';

const posed = pose(smallMuster(['prime', 'coat', 'shade'].map((id) => layer(id, { minutes: 40 }))), [], null);
const { plan } = solvedPlan(posed, solveProblem(posed.problem, { iterations: 5 }));
const worked = plan.sessions.filter((s) => s.steps.length > 0);
const [first] = worked;
const none = endedSteps([]);
const done = (steps: readonly { id: string }[]): ReturnType<typeof endedSteps> =>
  endedSteps(
    steps.map(({ id }, k): LogEntry => ({
      id: `e${String(k).padStart(6, '0')}`,
      at: '2027-03-01T20:00',
      kind: 'done',
      step: id,
      minutes: 5,
    })),
  );

describe('an evening that went by', () => {
  it('is none while it lasts, nor in the hour after it: somebody may still be at the bench', () => {
    expect(goneBy(plan, none, first!.start)).toBeNull();
    expect(goneBy(plan, none, first!.end)).toBeNull();
    expect(goneBy(plan, none, first!.end + 59)).toBeNull();
    expect(goneBy(plan, none, first!.end + 60)).not.toBeNull();
  });

  it('is told with what is left of it, from when on', () => {
    expect(goneBy(plan, none, first!.end + 60)).toEqual({
      first: first!.start,
      sessions: 1,
      steps: first!.steps.length,
    });
    const all = worked.flatMap((s) => s.steps);
    expect(goneBy(plan, none, plan.sessions.at(-1)!.end + 60)).toEqual({
      first: first!.start,
      sessions: worked.length,
      steps: all.length,
    });
  });

  it('counts what is done or left off no more', () => {
    const [one, ...rest] = first!.steps;
    const late = first!.end + 60;
    expect(goneBy(plan, done([one!]), late)?.steps ?? 0).toBe(rest.length);
    expect(goneBy(plan, done(first!.steps), late)).toBeNull();
  });
});
