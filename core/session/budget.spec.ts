/** Hours that a unit may cost. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import type { Muster } from '#core/muster';
import { compile, present } from '#core/plan';
import { layer, smallMuster } from '../plan/testing';
import { budgetOf } from './budget';
import type { LogEntry } from '#core/log';

const base = smallMuster([
  layer('prime', { family: 'primer', minutes: 10 }),
  layer('colour', { minutes: 20 }),
  layer('streaks', { family: 'pen', minutes: 30, dryMinutes: 0 }),
]);
const withBudget = (budgetHours?: number): Muster => ({
  ...base,
  units: base.units.map((u) => ({ ...u, ...(budgetHours === undefined ? {} : { budgetHours }) })),
});
const compiled = compile(base);
const plan = present(base, compiled, solveProblem(compiled.problem, { iterations: 20 }));
const setups = [...plan.steps.values()].reduce((sum, s) => sum + s.setup, 0);
const done: LogEntry = {
  id: 'e',
  at: '2027-03-01T19:30:00Z',
  kind: 'done',
  step: 'p1.prime',
  minutes: 14,
};
const of = (muster: Muster, log: readonly LogEntry[] = []): ReturnType<typeof budgetOf> =>
  budgetOf(muster, muster.units[0]!, plan, log);

describe('a budget of hours', () => {
  it('is none where none is set', () => {
    expect(of(withBudget())).toBeNull();
  });

  it('sets what is spent beside what is still planned', () => {
    // Two pieces of 10 + 20 + 30 min, and getting ready.
    expect(of(withBudget(10))).toMatchObject({
      budgetMinutes: 600,
      spentMinutes: 0,
      plannedMinutes: 120 + setups,
      overMinutes: 0,
      drops: [],
    });
    const later = of(withBudget(10), [done])!;
    expect(later.spentMinutes).toBe(14);
    expect(later.plannedMinutes).toBe(110 + setups - plan.steps.get('p1.prime')!.setup);
  });

  it('says what could be left off once it is over, by the work that it saves', () => {
    const over = of(withBudget(1))!;
    expect(over.overMinutes).toBe(60 + setups);
    expect(over.drops).toContainEqual({ layer: 'streaks', recipe: 'Hull', minutes: 60 });
    // Ground and colour are never offered.
    expect(over.drops.map((d) => d.layer)).not.toContain('colour');
  });

  it('counts nothing of other units, whatever their ids begin with', () => {
    const other: LogEntry = { ...done, step: 'p12.prime' };
    expect(of(withBudget(10), [other])!.spentMinutes).toBe(0);
  });
});
