/** An old plan mended, and everything gone in anew load by load: whole plans that the judge passes, with what each is for. */
import { describe, expect, it } from 'vitest';
import { movedOperations, solveProblem, type Problem, type Solution } from '../index';
import { calmOf } from '../place/calm';
import { PROMPT } from '../place/insert';
import { inTime } from '../prove/inTime';
import { Schedule } from '../place/schedule';
import { instance } from '../testing/problems';
import { planned } from '../testing/planned';
import { judged } from '../document/judged';
import { byLoad, inTurn, repair, waysFor } from './repair';

const CALM = 24;

/** A plan of the problem, mended in each way in which it could be; the judge throws where one breaks a rule. */
function mended(problem: Problem, previous: Solution) {
  const { model, bounds, structure } = planned(problem);
  const schedule = new Schedule(model, bounds, calmOf(model, previous, CALM));
  return waysFor(schedule).flatMap((way) => {
    const isWhole = repair(schedule, structure, previous, way);
    const solution = isWhole ? judged(problem, schedule, 0) : null;
    schedule.undoTo(0);
    return solution ? [{ ...way, moved: movedOperations(problem, previous, solution).length }] : [];
  });
}

/** Half an hour more for the first step of a session, when that session is not over. */
function slipped(problem: Problem, before: Solution, session: number): Problem {
  const sessions = problem.calendars!.find((c) => c.id === 'sessions')!.open;
  const worked = before.operations.filter((o) => o.end > o.start).sort((a, b) => a.start - b.start);
  const first = worked.find((o) => o.start >= sessions[session]![0])!;
  const now = first.end + 30;
  const fixed = before.operations
    .filter((o) => o.start < first.start || o.id === first.id)
    .map((o) => ({ id: o.id, start: o.start, end: o.id === first.id ? now : o.end }));
  const isDone = new Set(fixed.map((f) => f.id));
  const operations = problem.operations.map((o) =>
    isDone.has(o.id) ? o : { ...o, earliest: Math.max(o.earliest ?? 0, now) },
  );
  return { ...problem, operations, fixed };
}

describe('an old plan', () => {
  const problem = instance('rhythm-300-1');
  const before = solveProblem(problem, { iterations: 150 });

  it('stays as it is where nothing has changed', () => {
    const all = mended(problem, before);
    expect(all.length).toBeGreaterThan(4);
    for (const { way, moved } of all) if (way !== 'in turn') expect(moved).toBe(0);
  });

  it('is mended with less moved where what cannot stay is pushed on within its session only', () => {
    const slips = [1, 2, 3, 4, 5].map((session) => mended(slipped(problem, before, session), before));
    const least = (name: string): number =>
      slips.reduce((sum, all) => sum + Math.min(...all.filter((m) => m.way === name).map((m) => m.moved)), 0);
    expect(least('within')).toBeLessThan(least('pushing'));
    expect(least('within')).toBeLessThan(least('in turn'));
  });

  it('knows no sessions to keep to where none is to be kept close to', () => {
    const { model, bounds } = planned(problem);
    expect(waysFor(new Schedule(model, bounds)).map((w) => w.way)).toEqual(['pushing', 'between', 'in turn']);
  });
});

describe('load by load', () => {
  it.each(['rhythm-700-1'])('everything goes in with fewer runs than in turn: %s', (name) => {
    const problem = instance(name);
    const { model, bounds, structure } = planned(problem);
    const runsOf = (fill: (schedule: Schedule) => boolean): number => {
      const schedule = new Schedule(model, bounds);
      expect(fill(schedule)).toBe(true);
      return judged(problem, schedule, 0).cost!.runs;
    };
    const timely = inTime(model, bounds)!;
    const key = Float64Array.from(timely.startHigh);
    const turned = runsOf((s) => inTurn(s, structure, key));
    const loaded = runsOf((s) =>
      byLoad(s, structure, key, 8 * 1440, { ...PROMPT, patience: 1500, haste: 0, within: timely }),
    );
    expect(loaded).toBeLessThan(0.9 * turned);
  });

  it('is where a search begins in which runs count', () => {
    expect(solveProblem(instance('rhythm-700-1'), { iterations: 20 }).cost!.runs).toBeLessThan(200);
  });
});
