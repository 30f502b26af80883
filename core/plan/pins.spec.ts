/** What a user says of single steps, and what comes of it in the plan. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import {
  dateTimeAfter,
  mended,
  originOf,
  sessionsOf,
  unsound,
  withoutPins,
  withPins,
  type Muster,
} from '#core/muster';
import { compile } from './compile';
import { conflictInWords } from './conflicts';
import { present, type Plan } from './present';
import { whyOf } from './reasons';
import { smallMuster } from './testing';

const muster = smallMuster();
const origin = originOf(muster);
const sessions = sessionsOf(muster, 12);
let n = 0;
const newId = (): string => `pin${n++}`;
const PRIME = [{ piece: 'p1', layer: 'prime', round: 1 }];

function planOf(m: Muster, now = 0): Plan {
  const compiled = compile(m, now);
  return present(m, compiled, solveProblem(compiled.problem, { iterations: 60 }));
}
const at = (k: number): string => dateTimeAfter(origin, sessions[k]!.start);
const sessionOf = (plan: Plan, id: string): number =>
  sessions.findIndex((s) => s.start <= plan.steps.get(id)!.start && plan.steps.get(id)!.end <= s.end);

describe('a pinned step', () => {
  it('stands in its session, and says so', () => {
    const kept = withPins(muster, PRIME, at(1), 'in', newId);
    expect(sessionOf(planOf(muster), 'p1.prime')).toBe(0);
    const compiled = compile(kept);
    const solution = solveProblem(compiled.problem, { iterations: 60 });
    const plan = present(kept, compiled, solution);
    expect(sessionOf(plan, 'p1.prime')).toBe(1);
    const why = whyOf(compiled, solution, plan)('p1.prime');
    expect(why.reasons.map((r) => r.text).join(' ')).toContain('pinned to the session');
  });

  it('keeps out of sessions it is not to be in', () => {
    const first = withPins(muster, PRIME, at(0), 'out', newId);
    expect(sessionOf(planOf(first), 'p1.prime')).toBe(1);
    const both = withPins(first, PRIME, at(1), 'out', newId);
    expect(both.pins).toHaveLength(2);
    expect(sessionOf(planOf(both), 'p1.prime')).toBe(2);
  });

  it('is free again when it is let go, and when its session is under way or gone', () => {
    const kept = withPins(muster, PRIME, at(2), 'in', newId);
    expect(sessionOf(planOf(withoutPins(kept, PRIME)), 'p1.prime')).toBe(0);
    expect(compile(kept, sessions[2]!.start + 5).pins.size).toBe(0);
    expect(compile(kept, sessions[2]!.start).pins.size).toBe(1);
  });

  it('has one session at a time', () => {
    const moved = withPins(withPins(muster, PRIME, at(2), 'in', newId), PRIME, at(1), 'in', newId);
    expect(moved.pins!.map((p) => p.session)).toEqual([at(1)]);
  });

  it('goes with its piece, its layer or its session, and that is told', () => {
    const kept = withPins(muster, PRIME, at(1), 'in', newId);
    const shut = { ...kept, bench: { ...kept.bench, weekly: [], exceptions: [] } };
    expect(mended(kept, shut).muster.pins).toEqual([]);
    expect(mended(kept, shut).notes.join(' ')).toContain('no longer pinned');
    const without = {
      ...kept,
      recipes: kept.recipes.map((r) => ({ ...r, layers: r.layers.filter((l) => l.id !== 'prime') })),
    };
    expect(mended(kept, without).muster.pins).toEqual([]);
    expect(unsound(without).map((f) => f.path)).toContain('pins[0].layer');
  });

  it('that can’t be done there is named, with its cure', () => {
    const last = [{ piece: 'p1', layer: smallMuster().recipes[0]!.layers.at(-1)!.id, round: 1 }];
    const impossible = withPins(muster, last, at(0), 'in', newId);
    const compiled = compile(impossible);
    const { conflict } = solveProblem(compiled.problem, { iterations: 5 });
    expect(conflict).not.toBeNull();
    expect(conflictInWords(conflict!, compiled, impossible)).toContain('let it go from there');
  });
});
