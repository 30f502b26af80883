/** Runs on the sheet: a load taken up once goes on everything that needs it, whatever recipe or unit that belongs to. */
import { describe, expect, it } from 'vitest';
import { settle, solveProblem } from '#core/kernel';
import { fenMuster } from '../../demo/fen';
import { compile, loadOf, present, runSheet, runsOf, swapsOf, type Plan } from './index';

const muster = fenMuster('2027-03-01');
const compiled = compile(muster);
const solution = settle(compiled.problem, solveProblem(compiled.problem, { iterations: 400 }));
const plan: Plan = present(muster, compiled, solution);
const sheets = plan.sessions.map((s) => runSheet(plan, s.index));

describe('the runs of the demo', () => {
  it('hold every step of a session once, in order', () => {
    for (const { steps } of plan.sessions) expect(runsOf(steps).flat()).toEqual(steps);
  });

  it('end only where the load, the way of putting it on or the round changes', () => {
    for (const { steps } of plan.sessions) {
      const key = (run: ReturnType<typeof runsOf>[number]): string =>
        `${loadOf(run[0]!.layer)} ${run[0]!.layer.method} ${run[0]!.round}`;
      const keys = runsOf(steps).map(key);
      keys.forEach((k, n) => expect(k).not.toBe(keys[n + 1]));
    }
  });

  it('span units and recipes: some run has pieces of several', () => {
    const runs = plan.sessions.flatMap((s) => runsOf(s.steps));
    expect(runs.some((r) => new Set(r.map((s) => s.unit.id)).size > 1)).toBe(true);
    expect(runs.some((r) => new Set(r.map((s) => s.recipe.id)).size > 1)).toBe(true);
  });

  it('are as many as the kernel counted, up to rounds and ways of putting on, which only the sheet tells apart', () => {
    const entries = sheets.flatMap((s) => s.entries).length;
    expect(plan.runs).toBe(solution.cost!.runs);
    expect(entries).toBeGreaterThanOrEqual(plan.runs);
    expect(entries).toBeLessThanOrEqual(1.15 * plan.runs);
  });

  it('tell a caution where its kind of work begins, and not again on the same sheet', () => {
    let told = 0;
    for (const { entries } of sheets) {
      const all = entries.flatMap((e) => e.newCautions);
      expect(new Set(all).size).toBe(all.length);
      expect(new Set(all)).toEqual(new Set(entries.flatMap((e) => e.cautions)));
      told += all.length;
    }
    expect(told).toBeGreaterThan(5);
  });

  it('swap the airbrush for a brush or back so often as one is taken up after the other', () => {
    for (const { steps } of plan.sessions) {
      const tools = runsOf(steps).map((r) => (r[0]!.layer.method === 'airbrush' ? 'a' : 'b'));
      expect(swapsOf(runsOf(steps))).toBe(
        tools.join('').replace(/(.)\1*/g, '$1').length - (tools.length > 0 ? 1 : 0),
      );
    }
  });

  it('are mixed once for all their pieces', () => {
    const entry = sheets.flatMap((s) => s.entries).find((e) => e.mix !== null && e.pieces.length > 3)!;
    const parts = entry.mix!.components.reduce((sum, c) => sum + c.ml, 0);
    expect(parts).toBeCloseTo(entry.mix!.ml, 6);
    expect(entry.mix!.from).toContain(`and ${entry.pieces.length - 1} more pieces`);
  });
});
