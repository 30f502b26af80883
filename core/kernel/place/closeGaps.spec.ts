/** Gaps closed for one more step: who moves and how far, and that nothing else changes. */
import { mendAfter, place } from './setups';
import { findSlot } from './earlySlots';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { gapCloser } from './closeGaps';
import { parseProblem, solveProblem, type Problem, type Solution } from '../index';
import { judged } from '../document/judged';
import { buildModel } from '../model/model';
import { intervalAfter } from '../model/openHours';
import { placesOf } from './places';
import { propagate } from '../prove/propagate';
import { Schedule, UNPLACED } from './schedule';
import { isLastMilestone } from './shifting';
import { instance, smallProblem } from '../testing/problems';

/** Two evenings of 100 minutes; steps of one pair of hands as [minutes, start], start null: wants in. */
function evening(
  steps: Readonly<Record<string, readonly [number, number | null]>>,
  more: Partial<Problem> = {},
): { schedule: Schedule; at: (id: string) => number } {
  const problem = parseProblem({
    format: 'muster-problem/1',
    horizon: 1000,
    calendars: [
      {
        id: 'evenings',
        open: [
          [0, 100],
          [200, 300],
        ],
      },
    ],
    resources: [{ id: 'hands', capacity: 1, calendar: 'evenings' }],
    operations: Object.entries(steps).map(([id, [minutes]]) => ({
      id,
      minutes,
      uses: [{ resource: 'hands', amount: 1 }],
    })),
    units: [],
    objective: { completion: 1 },
    ...more,
  });
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error('The evening has a plan.');
  const schedule = new Schedule(model, propagation.bounds);
  const at = (id: string): number => model.ids.indexOf(id);
  for (const [id, [minutes, start]] of Object.entries(steps))
    if (start !== null && !schedule.isPlaced(at(id))) schedule.assign(at(id), start, start + minutes, 0);
  schedule.commit();
  return { schedule, at };
}

function close(schedule: Schedule, i: number, otherwise = Infinity) {
  return gapCloser(schedule)(i, schedule.startLow(i), otherwise, schedule.bounds);
}

describe('closing gaps', () => {
  it('makes one gap of three for what fits into none, in the same order', () => {
    const { schedule, at } = evening({ a: [30, 10], b: [30, 50], wanted: [35, null] });
    expect(findSlot(schedule, at('wanted'), 0, 1000, 1000)!.start).toBe(200);
    const slot = close(schedule, at('wanted'), 200)!;
    place(schedule, at('wanted'), slot);
    expect(slot.end).toBeLessThanOrEqual(100);
    expect(schedule.start[at('a')]).toBeLessThan(schedule.start[at('b')]!);
    const busy = ['a', 'b', 'wanted'].map((id) => [schedule.start[at(id)]!, schedule.end[at(id)]!]);
    busy.sort((x, y) => x[0]! - y[0]!);
    expect(busy[0]![0]).toBeGreaterThanOrEqual(0);
    expect(busy[1]![0]).toBeGreaterThanOrEqual(busy[0]![1]!);
    expect(busy[2]![0]).toBeGreaterThanOrEqual(busy[1]![1]!);
  });

  it('moves only what is in the way', () => {
    const { schedule, at } = evening(
      { a: [20, 0], b: [30, 30], c: [10, 90], wanted: [35, null] },
      { lags: [{ from: 'a', to: 'wanted', min: 0 }] },
    );
    expect(close(schedule, at('wanted'))).toEqual({ start: 20, end: 55, setup: 0 });
    expect(['a', 'b', 'c'].map((id) => schedule.start[at(id)])).toEqual([0, 55, 90]);
  });

  it.each<[string, Record<string, readonly [number, number | null]>, number]>([
    ['the session is too full', { a: [30, 10], b: [30, 50], wanted: [45, null] }, 200],
    ['it has a place in that session anyway', { a: [30, 10], b: [30, 50], wanted: [20, null] }, 80],
  ])('changes nothing when %s', (_, steps, otherwise) => {
    const { schedule, at } = evening(steps);
    expect(close(schedule, at('wanted'), otherwise)).toBeNull();
    for (const [id, [, start]] of Object.entries(steps))
      expect(schedule.start[at(id)]).toBe(start ?? UNPLACED);
    expect(schedule.mark()).toBe(0);
  });

  it('leaves history where it was', () => {
    const fixed = { fixed: [{ id: 'b', start: 60, end: 90 }] };
    const { schedule, at } = evening({ a: [30, 10], b: [30, 60], wanted: [30, null] }, fixed);
    expect(close(schedule, at('wanted'))).not.toBeNull();
    expect(schedule.start[at('b')]).toBe(60);
    expect(schedule.end[at('a')]).toBeLessThanOrEqual(60);
    expect(close(evening({ a: [30, 10], b: [30, 60], wanted: [35, null] }, fixed).schedule, 2)).toBeNull();
  });

  it('keeps what has to dry in between, and takes a milestone along', () => {
    const ready = { id: 'ready', minutes: 0 };
    const steps = { a: [20, 5], b: [20, 60], wanted: [45, null] } as const;
    const { schedule, at } = evening(steps, {
      operations: [
        ...Object.entries(steps).map(([id, [minutes]]) => ({
          id,
          minutes,
          uses: [{ resource: 'hands', amount: 1 }],
        })),
        ready,
      ],
      lags: [
        { from: 'a', to: 'b', min: 30 },
        { from: 'b', to: 'ready', min: 10 },
      ],
    });
    schedule.assign(at('ready'), 90, 90, 0);
    const slot = close(schedule, at('wanted'))!;
    place(schedule, at('wanted'), slot);
    expect(slot.end - slot.start).toBe(45);
    expect(schedule.start[at('b')]! - schedule.end[at('a')]!).toBeGreaterThanOrEqual(30);
    expect(schedule.start[at('ready')]! - schedule.end[at('b')]!).toBe(10);
  });

  it('lets two pairs of hands work side by side', () => {
    const hands = [{ id: 'hands', capacity: 2, calendar: 'evenings' }];
    const { schedule, at } = evening(
      { long: [90, 5], a: [30, 10], b: [30, 50], wanted: [35, null] },
      { resources: hands },
    );
    const slot = close(schedule, at('wanted'))!;
    expect(slot.end).toBeLessThanOrEqual(100);
    place(schedule, at('wanted'), slot);
    for (let t = 0; t < 100; t++) {
      const busy = ['long', 'a', 'b', 'wanted'].filter(
        (id) => schedule.start[at(id)]! <= t && t < schedule.end[at(id)]!,
      );
      expect(busy.length).toBeLessThanOrEqual(2);
    }
  });
});

describe('a step whose set-up begins before what leads to it', () => {
  it('stands before it in the session and is no trouble', () => {
    const spray = [
      { resource: 'hands', amount: 1 },
      { resource: 'airbrush', amount: 1 },
    ];
    const { schedule, at } = evening(
      { mask: [2, 48], spray: [6, 50], other: [90, 2], wanted: [60, null] },
      {
        resources: [
          { id: 'hands', capacity: 2, calendar: 'evenings' },
          { id: 'airbrush', capacity: 1, setup: { minutes: 8 } },
        ],
        clocks: [
          {
            id: 'air',
            points: [
              [0, 0],
              [1000, 1000],
            ],
          },
        ],
        operations: [
          { id: 'mask', minutes: 2, uses: [{ resource: 'hands', amount: 1 }] },
          { id: 'spray', minutes: 6, uses: spray, family: 'grey' },
          { id: 'other', minutes: 90, uses: [{ resource: 'hands', amount: 1 }] },
          { id: 'wanted', minutes: 60, uses: [{ resource: 'hands', amount: 1 }] },
        ],
        lags: [{ from: 'mask', to: 'spray', min: 0, max: 0, clock: 'air' }],
      },
    );
    schedule.assign(at('spray'), 50, 56, 8);
    const before = schedule.start.slice();
    const slot = close(schedule, at('wanted'));
    if (slot === null) expect(schedule.start).toEqual(before);
    else expect(slot.end).toBeLessThanOrEqual(100);
    expect(schedule.start[at('spray')]).toBe(schedule.end[at('mask')]);
  });
});

/**
 * Takes the last step of each chain out of a plan and asks for room for it in every session that it could be in.
 * @returns how often there was room, and how often others moved for it
 */
function squeezeEachLastStep(problem: Problem, solution: Solution): { found: number; moved: number } {
  const model = buildModel(problem);
  const propagation = propagate(model);
  if (!propagation.ok) throw new Error('The problem has a plan.');
  const schedule = new Schedule(model, propagation.bounds);
  solution.operations.forEach((o) => {
    const i = model.ids.indexOf(o.id);
    if (!schedule.isPlaced(i)) schedule.assign(i, o.start, o.end, o.setup);
  });
  schedule.commit();
  const closeGaps = gapCloser(schedule);
  const session = (i: number, t: number): number =>
    model.open[i] && model.minutes[i]! > 0 ? intervalAfter(model.open[i]!, t) : -1;
  const count = { found: 0, moved: 0 };
  for (let i = 0; i < model.count; i++) {
    const milestones = model.lagsOut[i]!.map((lag) => lag.to);
    const isLast = milestones.every((m) => isLastMilestone(schedule, m));
    if (model.isFixed[i] || model.minutes[i] === 0 || !isLast) continue;
    const was = schedule.start.slice();
    for (const m of milestones) schedule.remove(m);
    schedule.remove(i);
    if (mendAfter(schedule, i, was[i]!)) {
      const mark = schedule.mark();
      const before = schedule.start.slice();
      const slot = closeGaps(i, schedule.startLow(i), Infinity, schedule.bounds);
      if (slot === null) {
        expect(schedule.start).toEqual(before);
        expect(schedule.mark()).toBe(mark);
      } else {
        count.found++;
        if (schedule.touchedSince(mark).size > 0) count.moved++;
        place(schedule, i, slot);
        for (const m of milestones) schedule.assign(m, schedule.startLow(m), schedule.startLow(m), 0);
        for (let j = 0; j < model.count; j++)
          if (j !== i && !milestones.includes(j))
            expect(session(j, schedule.start[j]!)).toBe(session(j, before[j]!));
        // It throws when a rule is broken.
        expect(judged(model.problem, schedule, 0).cost).not.toBeNull();
      }
    }
    schedule.undoTo(0);
    expect(schedule.start).toEqual(was);
  }
  return count;
}

describe('a plan in which gaps were closed', () => {
  it('breaks no rule, and all others stay in their sessions, whatever the problem', () => {
    fc.assert(
      fc.property(smallProblem, fc.integer({ min: 1, max: 5 }), (problem, iterations) => {
        const solution = solveProblem(problem, { iterations });
        if (solution.cost !== null) squeezeEachLastStep(problem, solution);
      }),
      { numRuns: 200 },
    );
  });

  it.each([
    ['batch-200-1', 1],
    ['batch-600-1', 2],
  ])('so too for %s, where others do move', (name, least) => {
    const problem = instance(name);
    const { found, moved } = squeezeEachLastStep(problem, solveProblem(problem, { iterations: 40 }));
    expect(found).toBeGreaterThanOrEqual(moved);
    expect(moved).toBeGreaterThanOrEqual(least);
  });
});

describe('places', () => {
  const table = fc
    .record({
      amount: fc.integer({ min: 1, max: 4 }),
      others: fc.integer({ min: 0, max: 5 }),
      times: fc.array(fc.integer({ min: 0, max: 50 }), { minLength: 9, maxLength: 9 }),
      time: fc.integer({ min: 0, max: 50 }),
    })
    .map(({ amount, others, times, time }) => {
      const capacity = amount + others;
      const problem = parseProblem({
        format: 'muster-problem/1',
        horizon: 100,
        resources: [
          { id: 'unused', capacity: 3 },
          { id: 'hands', capacity },
        ],
        operations: [{ id: 'a', minutes: 5, uses: [{ resource: 'hands', amount }] }],
        units: [],
        objective: {},
      });
      const sorted = Int32Array.from(times.slice(0, capacity)).sort();
      return { places: placesOf(buildModel(problem)), sorted, amount, time };
    });

  it('are taken by whoever is free first, or needed last', () => {
    fc.assert(
      fc.property(table, ({ places, sorted, amount, time }) => {
        expect(places.count).toBe(sorted.length);
        const until = sorted.slice();
        expect(places.freeFor(until, 0, 0)).toBe(sorted[amount - 1]);
        places.takeUntil(until, 0, time);
        expect([...until]).toEqual([...sorted.map((t, q) => (q < amount ? Math.max(t, time) : t)).sort()]);
        const from = sorted.slice();
        const rest = sorted.length - amount;
        expect(places.neededAfter(from, 0, 0)).toBe(sorted[rest]);
        places.takeFrom(from, 0, time);
        expect([...from]).toEqual([...sorted.map((t, q) => (q >= rest ? Math.min(t, time) : t)).sort()]);
      }),
    );
  });

  it('fit when all that are not taken are free before they are needed', () => {
    fc.assert(
      fc.property(table, fc.integer({ min: -5, max: 30 }), ({ places, sorted, amount }, later) => {
        const needed = sorted.map((t) => t + later);
        const expected = [...sorted.slice(amount)].every((t, q) => t <= needed[q]!);
        expect(places.fit(sorted, needed, 0, 0)).toBe(expected);
      }),
    );
  });
});
