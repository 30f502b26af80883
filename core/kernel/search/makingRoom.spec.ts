/** Who has to be in time is let in front: bounds without lateness, who can wait, and putting back with room made. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseProblem, seededRandom, solveProblem, type Problem } from '../index';
import { inTime } from '../prove/inTime';
import { PROMPT } from '../place/insert';
import { buildModel } from '../model/model';
import { mostPatient } from './mostPatient';
import { propagate } from '../prove/propagate';
import { putBack, type Loose } from '../place/putBack';
import { Schedule } from '../place/schedule';
import { structureOf } from '../place/structure';
import { smallProblem } from '../testing/problems';

/** One pair of hands, each piece one step of an hour; `due` by piece. */
function queue(
  due: readonly number[],
  objective: Problem['objective'] = { tardiness: 100, completion: 0.01 },
) {
  const problem = parseProblem({
    format: 'muster-problem/1',
    horizon: 1000,
    resources: [{ id: 'hands', capacity: 1 }],
    operations: due.map((_, k) => ({ id: `p${k}`, minutes: 60, uses: [{ resource: 'hands', amount: 1 }] })),
    units: due.map((d, k) => ({ id: `u${k}`, ready: `p${k}`, due: d, weight: 1 })),
    objective,
  });
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error('The queue has a plan.');
  const structure = structureOf(model, propagation.bounds, propagation.order);
  return { model, structure, schedule: new Schedule(model, propagation.bounds) };
}

describe('bounds within which nobody is late', () => {
  it('hold for every step of a best plan in which nobody is late', () => {
    fc.assert(
      fc.property(smallProblem, (problem) => {
        const solution = solveProblem(problem, { iterations: 400 });
        const model = buildModel(problem);
        const propagation = propagate(model);
        if (!propagation.ok) return;
        const bounds = inTime(model, propagation.bounds);
        if (solution.cost === null || solution.cost.tardiness > 0 || bounds === null) return;
        for (const o of solution.operations) {
          const i = model.ids.indexOf(o.id);
          if (model.isFixed[i]) continue;
          expect(o.start).toBeGreaterThanOrEqual(bounds.startLow[i]!);
          expect(o.end).toBeLessThanOrEqual(bounds.endHigh[i]!);
        }
      }),
      { numRuns: 80 },
    );
  });

  it('end at the due date, or as soon after it as can be, and are none where lateness is cheap', () => {
    const boundsOf = ({ model, schedule }: ReturnType<typeof queue>) => inTime(model, schedule.bounds);
    expect(boundsOf(queue([300]))!.endHigh[0]).toBe(300);
    expect(boundsOf(queue([59]))!.endHigh[0]).toBe(60);
    expect(boundsOf(queue([300], { tardiness: 1, completion: 1 }))).toBeNull();
  });
});

describe('who can wait', () => {
  const placed = (due: readonly number[]) => {
    const q = queue(due);
    due.forEach((_, i) => q.schedule.assign(i, 60 * i, 60 * i + 60, 0));
    return q;
  };
  const room = { from: -1, length: 60, due: 200 };

  it('is one that has time in hand and stands where it helps', () => {
    const { schedule, structure } = placed([60, 900, 180, 900]);
    for (let seed = 1; seed <= 20; seed++) {
      const s = mostPatient(schedule, structure.strands, room, new Uint8Array(4), seededRandom(seed));
      // The first and the third have to be ready just then; the last begins at 180, too late to help.
      expect(structure.strands[s]!.operations).toEqual([1]);
    }
  });

  it('is nobody when all have moved or none has time', () => {
    const { schedule, structure } = placed([60, 120, 180, 240]);
    const random = seededRandom(3);
    expect(mostPatient(schedule, structure.strands, room, new Uint8Array(4), random)).toBe(-1);
    const free = placed([900, 900, 900, 900]);
    expect(mostPatient(free.schedule, free.structure.strands, room, new Uint8Array(4).fill(1), random)).toBe(
      -1,
    );
  });
});

describe('putting back with room made', () => {
  it('lets the one that has to be in time go first', () => {
    const { schedule, structure } = queue([900, 60]);
    schedule.assign(0, 0, 60, 0);
    const limit = 0.01 * (60 + 120);
    const loose: Loose = { groups: [[1]], joints: [] };
    const mark = schedule.mark();
    expect(putBack(schedule, structure, loose, { manner: PROMPT, limit })).toBe(0);
    schedule.undoTo(mark);
    const asked: number[][] = [];
    const makeRoom = (group: readonly number[]): Loose => {
      asked.push([...group]);
      schedule.remove(0);
      return { groups: [[0]], joints: [] };
    };
    expect(putBack(schedule, structure, loose, { manner: PROMPT, limit, makeRoom })).toBe(-1);
    expect(asked).toEqual([[1]]);
    expect([...schedule.start]).toEqual([60, 0]);
    expect(schedule.cost()).toBeCloseTo(limit, 9);
  });

  it('gives up with what found no place when nothing else can go', () => {
    const { schedule, structure } = queue([60, 60]);
    schedule.assign(0, 0, 60, 0);
    const groups = [[1]];
    const options = { manner: PROMPT, limit: 10, makeRoom: () => null };
    expect(putBack(schedule, structure, { groups, joints: [] }, options)).toBe(0);
  });
});
