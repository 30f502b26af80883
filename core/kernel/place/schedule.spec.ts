/** The schedule takes every change back exactly, and counts its cost as the judge does. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, validateSolution } from '../index';
import { insert } from './insert';
import { buildModel } from '../model/model';
import { propagate } from '../prove/propagate';
import { pullLate } from './pullLate';
import { putBack } from './putBack';
import { PROMPT } from './insert';
import { Schedule } from './schedule';
import { structureOf } from './structure';
import { smallProblem } from '../testing/problems';
import { relaxationBound } from '../prove/relax';
import { raisedBound } from '../prove/bound';

const prepare = (problem: Parameters<typeof buildModel>[0]) => {
  const model = buildModel(parseProblem(problem));
  const propagation = propagate(model);
  if (!propagation.ok) return null;
  const structure = structureOf(model, propagation.bounds, propagation.order);
  return { model, propagation, structure, schedule: new Schedule(model, propagation.bounds) };
};
const picture = (s: Schedule): string =>
  JSON.stringify([
    [...s.start],
    [...s.end],
    [...s.setup],
    s.sequences.map((q) => q.list()),
    Math.round(s.cost() * 1e6),
  ]);

describe('a schedule', () => {
  it('is exactly what it was when changes are taken back', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const p = prepare(problem);
        if (!p) return;
        const { schedule, structure } = p;
        const empty = picture(schedule);
        const mark = schedule.mark();
        for (const strand of structure.strands) insert(schedule, strand.operations);
        const full = picture(schedule);
        const middle = schedule.mark();
        for (const strand of structure.strands) {
          const placed = strand.operations.filter((i) => schedule.isPlaced(i));
          if (placed.length === strand.operations.length) pullLate(schedule, placed, structure.blockOf);
        }
        schedule.undoTo(middle);
        expect(picture(schedule)).toBe(full);
        schedule.undoTo(mark);
        expect(picture(schedule)).toBe(empty);
      }),
      { numRuns: 120 },
    );
  });

  it('costs what the judge says, after inserting and pulling late', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const p = prepare(problem);
        if (!p) return;
        const { model, schedule, structure } = p;
        const groups = structure.strands.map((s) => s.operations);
        if (putBack(schedule, structure, { groups, joints: structure.milestones }, { manner: PROMPT }) >= 0)
          return;
        const { violations, cost } = validateSolution(model.problem, {
          format: 'muster-solution/1',
          status: 'feasible',
          operations: model.ids.map((id, i) => ({
            id,
            start: schedule.start[i]!,
            end: schedule.end[i]!,
            setup: schedule.setup[i]!,
          })),
          cost: null,
          bound: null,
          conflict: null,
        });
        expect(violations.filter((v) => v.rule !== 8)).toEqual([]);
        expect(schedule.cost()).toBeCloseTo(cost!.total, 5);
      }),
      { numRuns: 150 },
    );
  });

  it('never costs more for being pulled late', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const p = prepare(problem);
        if (!p) return;
        const { schedule, structure } = p;
        for (const strand of structure.strands) if (insert(schedule, strand.operations) >= 0) return;
        if (insert(schedule, structure.milestones) >= 0) return;
        const before = schedule.cost();
        const starts = [...schedule.start];
        for (const strand of structure.strands) pullLate(schedule, strand.operations, structure.blockOf);
        expect(schedule.cost()).toBeLessThanOrEqual(before + 1e-6);
        structure.strands.forEach((s) =>
          s.operations.forEach((i) => expect(schedule.start[i]!).toBeGreaterThanOrEqual(starts[i]!)),
        );
      }),
      { numRuns: 100 },
    );
  });
});

describe('the relaxation', () => {
  it('bounds any plan, whatever the target it is told', () => {
    fc.assert(
      fc.property(smallProblem, fc.double({ min: 0, max: 1e5, noNaN: true }), (problem, target) => {
        const p = prepare(problem);
        if (!p) return;
        const solution = solveProblem(parseProblem(problem), { iterations: 30 });
        if (solution.cost === null) return;
        const { model, propagation } = p;
        const units = solution.cost.tardiness * 10 + solution.cost.completion * 0.01;
        expect(relaxationBound(model, propagation.bounds, propagation.order, target)).toBeLessThanOrEqual(
          units + 1e-6,
        );
        expect(raisedBound({ model, ...propagation }, target)).toBeLessThanOrEqual(
          solution.cost.total + 1e-6,
        );
      }),
      { numRuns: 100 },
    );
  });
});
