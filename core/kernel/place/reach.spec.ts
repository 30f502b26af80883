/** How far a hold reaches at the least, and what follows from it before its end has a place. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { goBack, roomFrom } from './broken';
import { parseProblem, solveProblem, type Problem } from '../index';
import { buildModel } from '../model/model';
import { propagate } from '../prove/propagate';
import { reachOf } from './reach';
import { Schedule } from './schedule';
import { instance, instanceNames, smallProblem } from '../testing/problems';

/** Every way over a hold in a plan: where it ends, and where at the least. */
function reaches(problem: Problem): { ends: number; soonest: number }[] {
  const solution = solveProblem(problem, { iterations: 60 });
  const model = buildModel(problem);
  const reach = reachOf(model);
  const start = new Map(solution.operations.map((o) => [o.id, o.start]));
  const end = new Map(solution.operations.map((o) => [o.id, o.end]));
  return model.ids.flatMap((id, i) =>
    reach.over[i]!.filter(({ hold }) => end.has(id) && !model.isFixed[hold.to]).map((stretch) => ({
      ends: start.get(model.ids[stretch.hold.to]!)!,
      soonest: reach.soonest(stretch, end.get(id)!),
    })),
  );
}

describe('no hold ends sooner than it can', () => {
  it('in a plan of any problem', () => {
    let seen = 0;
    fc.assert(
      fc.property(smallProblem, (problem) => {
        for (const { ends, soonest } of reaches(problem)) {
          seen++;
          expect(ends).toBeGreaterThanOrEqual(soonest);
        }
      }),
      { numRuns: 120 },
    );
    expect(seen).toBeGreaterThan(0);
  });

  it.each(instanceNames().filter((name) => name.startsWith('batch')))('in a plan of %s', (name) => {
    const all = reaches(instance(name));
    expect(all.length).toBeGreaterThan(20);
    for (const { ends, soonest } of all) expect(ends).toBeGreaterThanOrEqual(soonest);
    // And it says more than that it ends after what leads to it: somewhere it ends within an hour of it.
    expect(Math.min(...all.map(({ ends, soonest }) => ends - soonest))).toBeLessThanOrEqual(60);
  });
});

/** Evenings of 100 minutes, one rack place from priming to varnish, 150 minutes of drying between coats. */
function evenings(places: number) {
  const steps = ['prime', 'paint', 'varnish'];
  const pieces = ['a', 'b'];
  const problem = parseProblem({
    format: 'muster-problem/1',
    horizon: 3000,
    calendars: [{ id: 'evening', open: [0, 1, 2, 3, 4, 5].map((d) => [500 * d, 500 * d + 100] as const) }],
    resources: [
      { id: 'hands', capacity: 1, calendar: 'evening' },
      { id: 'rack', capacity: places },
    ],
    operations: pieces.flatMap((p) =>
      steps.map((s) => ({ id: `${p}.${s}`, minutes: 10, uses: [{ resource: 'hands', amount: 1 }] })),
    ),
    lags: pieces.flatMap((p) => [
      { from: `${p}.prime`, to: `${p}.paint`, min: 150 },
      { from: `${p}.paint`, to: `${p}.varnish`, min: 150 },
    ]),
    holds: pieces.map((p) => ({ resource: 'rack', amount: 1, from: `${p}.prime`, to: `${p}.varnish` })),
    objective: { completion: 1 },
  });
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error('There is a plan.');
  return { model, schedule: new Schedule(model, propagation.bounds) };
}

describe('worked by hand', () => {
  it('a coat an evening: primed on the first, varnished on the third', () => {
    const { model, schedule } = evenings(1);
    const { over, soonest } = schedule.reach;
    expect(soonest(over[0]![0]!, 10)).toBe(1000);
    expect(soonest(over[0]![0]!, 95)).toBe(1000);
    expect(soonest(over[0]![0]!, 510)).toBe(1500);
    expect(soonest(over[1]![0]!, 510)).toBe(1000);
    expect(over[model.ids.indexOf('a.varnish')]).toEqual([]);
  });

  it('a piece waits for the rack before its end has a place, and a second place lets it in', () => {
    for (const places of [1, 2]) {
      const { model, schedule } = evenings(places);
      // The first piece leaves the rack on the third evening, at minute 1050.
      [0, 500, 1050].forEach((t, i) => schedule.assign(i, t, t + 10, 0));
      const prime = model.ids.indexOf('b.prime');
      const isFull = places === 1;
      expect(roomFrom(schedule, prime, 0)).toBe(isFull ? 1040 : 0);
      expect(roomFrom(schedule, prime, 1095)).toBe(1500);
      // From minute 30 it would be there till 1000 at the least: all of that time the rack is full.
      expect(goBack(schedule, prime, 20, 30)).toEqual(isFull ? { operation: prime, start: 990 } : null);
    }
  });
});
