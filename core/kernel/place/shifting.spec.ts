/** What a session could give way by, worked by hand: an evening of 100 minutes, one pair of hands. */
import { describe, expect, it } from 'vitest';
import { parseProblem, type Problem } from '../index';
import { buildModel } from '../model/model';
import { propagate } from '../prove/propagate';
import { Schedule } from './schedule';
import { shifting, type Session, type Shifting } from './shifting';

/** a at 10–30, b at 50–70, c at 80–90; `wanted`, 35 minutes, comes last among the operations. */
function evening(more: Partial<Problem> = {}): { shift: Shifting; session: Session; begun: () => Shifting } {
  const problem = parseProblem({
    format: 'muster-problem/1',
    horizon: 1000,
    calendars: [{ id: 'evening', open: [[0, 100]] }],
    resources: [{ id: 'hands', capacity: 1, calendar: 'evening' }],
    operations: ['a', 'b', 'c', 'wanted'].map((id, k) => ({
      id,
      minutes: [20, 20, 10, 35][k],
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
  [10, 50, 80].forEach((start, i) => schedule.assign(i, start, start + [20, 20, 10][i]!, 0));
  schedule.commit();
  const shift = shifting(schedule, 24);
  const session: Session = {
    wanted: 3,
    opens: 0,
    closes: 100,
    within: propagation.bounds,
    list: [0, 1, 2],
    first: 0,
    last: 3,
  };
  return { shift, session, begun: () => (shift.begin(session), shift) };
}

describe('how far each could go', () => {
  it('is to where the one before ends, and to where the next must begin', () => {
    const shift = evening().begun();
    expect(shift.soonest.slice(0, 3)).toEqual([0, 20, 40]);
    expect(shift.latest.slice(0, 3)).toEqual([50, 70, 90]);
  });

  it('is no farther than what has to dry allows', () => {
    const shift = evening({
      lags: [
        { from: 'a', to: 'b', min: 15 },
        { from: 'b', to: 'c', min: 0, max: 12 },
      ],
    }).begun();
    // As long as c stands at 80, b may end no sooner than twelve minutes before; alone it could begin at 35.
    expect(shift.soonest.slice(0, 3)).toEqual([0, 48, 68]);
    // And as long as b ends at 70, c begins by 82: so b ends by then, and a a quarter of an hour before b begins.
    expect(shift.latest.slice(0, 3)).toEqual([27, 62, 82]);
  });

  it('is nowhere for what has happened', () => {
    const shift = evening({ fixed: [{ id: 'b', start: 50, end: 70 }] }).begun();
    expect(shift.soonest.slice(0, 3)).toEqual([0, 50, 70]);
    expect(shift.latest.slice(0, 3)).toEqual([30, 50, 90]);
  });
});

describe('an opening', () => {
  it('is where all before gone sooner and all behind gone later leave room enough', () => {
    const shift = evening().begun();
    // 100 minutes less 50 of work leave 50 free: 35 fit before any of them, and last.
    for (const k of [0, 1, 2, 3]) expect(shift.openingAt(k, 0), `before ${k}`).not.toBeNull();
    // What stands before it stays if it can.
    expect(shift.openingAt(1, 0)!.start).toBe(30);
    expect(shift.openingAt(3, 0)!.start).toBe(65);
    shift.end();
  });

  it('is none that begins too soon, nor where too little is left', () => {
    const shift = evening().begun();
    expect(shift.openingAt(1, 35)!.start).toBe(35);
    expect(shift.openingAt(1, 36)).toBeNull();
    expect(shift.openingAt(0, 20)).toBeNull();
    const full = evening({ fixed: [{ id: 'b', start: 50, end: 70 }] }).begun();
    expect(full.openingAt(2, 0)).toBeNull();
    expect(full.openingAt(1, 0)).toBeNull();
    expect(full.openingAt(0, 0)).toBeNull();
  });
});

describe('to make room', () => {
  it('those before go just as much sooner as they must', () => {
    const shift = evening().begun();
    shift.aimSooner(shift.openingAt(3, 0)!);
    // wanted at 65: c ends by then, b by 55, a stays.
    expect(shift.target.slice(0, 3)).toEqual([10, 35, 55]);
  });

  it('those behind go just as much later', () => {
    const shift = evening().begun();
    shift.aimLater(shift.openingAt(1, 0)!);
    // wanted at 30 to 65: b begins then, c after it.
    expect(shift.target.slice(1, 3)).toEqual([65, 85]);
  });
});
