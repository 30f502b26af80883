/** What is taken up first once the bench is behind. */
import { describe, expect, it } from 'vitest';
import type { Problem, Solution } from '#core/kernel';
import { courseOf, noRisks, Player } from './index';

const DAY = 1440;
const evenings: [number, number][] = Array.from({ length: 8 }, (_, d) => [d * DAY + 1140, d * DAY + 1260]);
const hands = [{ resource: 'hands', amount: 1 }];

/** Two units of one step that fills an evening; the plan does the one first whose date is farther off. */
const problem: Problem = {
  format: 'muster-problem/1',
  horizon: 20_000,
  calendars: [{ id: 'sessions', open: evenings }],
  resources: [{ id: 'hands', capacity: 1, calendar: 'sessions' }],
  operations: [
    { id: 'far', minutes: 120, uses: hands },
    { id: 'near', minutes: 120, uses: hands },
  ],
  units: [
    { id: 'f', ready: 'far', due: 5 * DAY, weight: 1 },
    { id: 'n', ready: 'near', due: 2 * DAY, weight: 1 },
  ],
  objective: { tardiness: 1 },
};

function planned(of: Problem, starts: Readonly<Record<string, number>>): Solution {
  return {
    format: 'muster-solution/1',
    status: 'feasible',
    operations: of.operations.map((o) => ({
      id: o.id,
      start: starts[o.id]!,
      end: starts[o.id]! + o.minutes,
      setup: 0,
    })),
    cost: null,
    bound: null,
    conflict: null,
  };
}

describe('a bench that is behind', () => {
  const course = courseOf(problem, planned(problem, { far: 1140, near: DAY + 1140 }), evenings);
  const ready = (lost?: number): number[] => [
    ...new Player(course, noRisks(2), 1).play(0, 0, lost === undefined ? {} : { lost }).ready,
  ];

  it('goes by the plan as long as it is not', () => {
    expect(ready()).toEqual([1260, DAY + 1260]);
  });

  it('takes up first what must begin first for its date, though the plan had it later', () => {
    expect(ready(0)).toEqual([2 * DAY + 1260, DAY + 1260]);
  });
});

describe('the load in hand, once the bench is behind', () => {
  const brush = [...hands, { resource: 'airbrush', amount: 1 }];
  const paint = (id: string, family: string) => ({ id, minutes: 30, uses: brush, family });
  /** An evening is lost; then grey is in the airbrush, and red presses more than the second grey, whose date is so many days off. */
  const begins = (greyDue: number): Record<string, number> => {
    const colours: Problem = {
      ...problem,
      resources: [
        ...problem.resources!,
        { id: 'airbrush', capacity: 1, setup: { minutes: 10, between: [] } },
      ],
      operations: [paint('grey 1', 'grey'), paint('red', 'red'), paint('grey 2', 'grey')],
      units: [
        { id: 'a', ready: 'grey 1', due: 2 * DAY, weight: 1 },
        { id: 'b', ready: 'red', due: 3 * DAY, weight: 1 },
        { id: 'c', ready: 'grey 2', due: greyDue * DAY, weight: 1 },
      ],
    };
    const starts = { 'grey 1': 1150, red: DAY + 1150, 'grey 2': 4 * DAY + 1150 };
    const course = courseOf(colours, planned(colours, starts), evenings);
    const player = new Player(course, noRisks(3), 1);
    player.play(0, 0, { lost: 0 });
    return Object.fromEntries(course.ids.map((id, i) => [id, player.endOf(i)]));
  };

  it('is finished before what presses more, where that does not press by days', () => {
    const ends = begins(5);
    expect(ends['grey 2']).toBe(ends['grey 1']! + 30);
    expect(ends['red']).toBe(ends['grey 2']! + 40);
  });

  it('waits for what presses by more than three days more', () => {
    const ends = begins(7);
    expect(ends['red']).toBe(ends['grey 1']! + 40);
    expect(ends['grey 2']).toBeGreaterThan(ends['red']!);
  });
});

describe('what is a helper’s', () => {
  /** Pim comes on the second evening and the fifth; the date is the fourth. */
  const helped: Problem = {
    ...problem,
    calendars: [...problem.calendars!, { id: 'pim', open: [evenings[1]!, evenings[4]!] }],
    resources: [...problem.resources!, { id: 'pim', capacity: 1, calendar: 'pim' }],
    operations: [{ id: 'wash', minutes: 60, uses: [{ resource: 'pim', amount: 1 }] }],
    units: [{ id: 'u', ready: 'wash', due: 4 * DAY, weight: 1 }],
  };
  const course = courseOf(helped, planned(helped, { wash: DAY + 1140 }), evenings);
  const risks = { ...noRisks(1), helpers: [{ hands: 1, absent: 0, instead: 0 }] };
  const ready = (twist: object): number => new Player(course, risks, 1).play(0, 0, twist).ready[0]!;

  it('waits for them as planned', () => {
    expect(ready({})).toBe(DAY + 1200);
  });

  it('is done by another once the bench is behind and they are not there', () => {
    expect(ready({ lost: 1 })).toBe(2 * DAY + 1200);
  });
});

describe('the latest start of a step', () => {
  const chain: Problem = {
    ...problem,
    operations: [
      { id: 'base', minutes: 30, uses: hands },
      { id: 'top', minutes: 40, uses: hands },
      { id: 'free', minutes: 10, uses: hands },
    ],
    lags: [{ from: 'base', to: 'top', min: 60 }],
    units: [{ id: 'u', ready: 'top', due: 2 * DAY, weight: 1 }],
  };
  const { latest } = courseOf(chain, planned(chain, { base: 1140, top: 1230, free: 1140 }), evenings);

  it('lies within an evening, before what must dry, and is never where nothing depends on it', () => {
    // The top coat ends with the last evening before the date; an hour and the base before it do not fit into that.
    expect([...latest]).toEqual([1260 - 30, DAY + 1260 - 40, Infinity]);
  });
});
