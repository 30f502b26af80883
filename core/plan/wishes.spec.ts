/** What a plan wishes for: margins as the kernel understands them, and what the three positions ask. */
import { describe, expect, it } from 'vitest';
import { solveProblem, startSearch } from '#core/kernel';
import { WISHES } from '#core/muster';
import { fenMuster } from '../../demo/fen';
import { compile } from './compile';
import { present } from './present';
import { smallMuster } from './testing';
import { marginsOf, objectiveOf } from './wishes';

/** Ten evenings of two hours, one a day. */
const evenings = Array.from({ length: 10 }, (_, k) => ({ start: k * 1440 + 1140, end: k * 1440 + 1260 }));

/** What the margin costs when the unit is ready at this minute, by solving the smallest problem there is. */
function costOfReady(minute: number, due: number): number {
  const margins = marginsOf('balanced', evenings, [{ ready: 'ready', due }]);
  const solution = solveProblem(
    {
      format: 'muster-problem/1',
      horizon: 20_000,
      clocks: margins.clocks,
      operations: [...margins.operations, { id: 'ready', minutes: 0 }],
      lags: [...margins.lags],
      units: [{ id: 'u', ready: 'ready', due, weight: 1 }],
      objective: { ...objectiveOf('balanced'), completion: 0 },
      fixed: [...margins.fixed, { id: 'ready', start: minute, end: minute }],
    },
    { iterations: 1 },
  );
  return solution.cost!.total;
}

/** The same, with the milestone free but not before the minute: a fixed one is exempt. */
function costFrom(minute: number, due: number): number {
  const margins = marginsOf('balanced', evenings, [{ ready: 'ready', due }]);
  return solveProblem(
    {
      format: 'muster-problem/1',
      horizon: 20_000,
      clocks: margins.clocks,
      operations: [...margins.operations, { id: 'ready', minutes: 0, earliest: minute }],
      lags: [...margins.lags],
      units: [{ id: 'u', ready: 'ready', due, weight: 1 }],
      objective: { ...objectiveOf('balanced'), completion: 0 },
      fixed: margins.fixed,
    },
    { iterations: 1 },
  ).cost!.total;
}

describe('a margin', () => {
  const due = evenings[7]!.end + 300;

  it('costs nothing where three sessions or more are left, and more with each that is lost', () => {
    // Ready in the afternoon before evening k: evenings k to 7 are left.
    const cost = Array.from({ length: 9 }, (_, k) => costFrom(k * 1440 + 600, due));
    expect(cost.slice(0, 6).every((c) => c < 1)).toBe(true);
    const [three, two, one, none] = [cost[5]!, cost[6]!, cost[7]!, cost[8]!];
    expect(two - three).toBeGreaterThan(1);
    // Worth less and less the larger it is.
    expect(one - two).toBeGreaterThan(two - three);
    expect(none - one).toBeGreaterThan(one - two);
  });

  it('is no matter of history', () => {
    expect(costOfReady(evenings[7]!.start, due)).toBe(0);
  });

  it('is asked of nobody whose date leaves no session', () => {
    expect(marginsOf('balanced', evenings, [{ ready: 'r', due: 600 }])).toEqual({
      clocks: [],
      operations: [],
      lags: [],
      fixed: [],
    });
  });
});

describe('the three positions', () => {
  it('value runs ever more and earlier finishing ever less, and all of them dates most', () => {
    const [early, balanced, quiet] = WISHES.map(objectiveOf);
    expect(early!.runs).toBeLessThan(balanced!.runs!);
    expect(balanced!.runs).toBeLessThan(quiet!.runs!);
    expect(early!.completion).toBeGreaterThan(balanced!.completion!);
    expect(balanced!.completion).toBeGreaterThan(quiet!.completion!);
    // A weighted minute late costs more than any run.
    for (const o of [early!, balanced!, quiet!]) expect(o.tardiness).toBeGreaterThan(o.runs!);
  });

  it('ask for a margin, but for long quiet runs', () => {
    const due = evenings[7]!.end + 300;
    const asked = WISHES.map((wish) => marginsOf(wish, evenings, [{ ready: 'ready', due }]).lags.length);
    expect(asked).toEqual([3, 3, 0]);
  });

  it('are what the bench says, balanced where it says nothing', () => {
    const muster = smallMuster();
    expect(compile(muster).problem.objective).toEqual(objectiveOf('balanced'));
    const quiet = compile({ ...muster, bench: { ...muster.bench, wish: 'quiet' } });
    expect(quiet.problem.objective).toEqual(objectiveOf('quiet'));
  });
});

describe('a plan', () => {
  it('of a busy muster is looked for until every unit has a session to spare, before anything is polished', () => {
    const muster = fenMuster('2027-03-01');
    const compiled = compile(muster);
    // So early in a search the cost alone has not found it in three times as many steps.
    const search = startSearch(compiled.problem, { seed: 1, progress: () => 0.1 });
    search.step(1);
    for (let k = 0; k < 900; k++) search.step(1);
    const spare = present(muster, compiled, search.best()).units.map((u) => u.spareSessions);
    expect(Math.min(...spare)).toBeGreaterThanOrEqual(1);
  });

  it('ends so that a session is left before the date, where one can be', () => {
    const muster = smallMuster();
    const compiled = compile(muster);
    let k = 0;
    const search = startSearch(compiled.problem, { progress: () => Math.min(1, k / 200) });
    for (; k < 200 && !search.isDone; k++) search.step(1);
    const plan = present(muster, compiled, search.best());
    for (const unit of plan.units) expect(unit.spareSessions).toBeGreaterThanOrEqual(1);
  });
});
