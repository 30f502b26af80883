/** Who waits outside of a plan in which nobody is late, and what stands in their way. */
import { describe, expect, it } from 'vitest';
import { parseProblem } from '../index';
import { inTime } from '../prove/inTime';
import { PROMPT } from '../place/insert';
import { planned } from '../testing/planned';
import { muchInTheWay } from './inTheWay';
import { Outside } from './outside';

/** One pair of hands, an hour for each piece, which then dries on a rack for two; placed one after the other, whatever is due first. */
function outside(due: readonly number[]) {
  const plan = planned(
    parseProblem({
      format: 'muster-problem/1',
      horizon: 1000,
      resources: [
        { id: 'hands', capacity: 1 },
        { id: 'rack', capacity: 2 },
      ],
      operations: due.flatMap((_, k) => [
        { id: `p${k}`, minutes: 60, uses: [{ resource: 'hands', amount: 1 }] },
        { id: `r${k}`, minutes: 0 },
      ]),
      lags: due.map((_, k) => ({ from: `p${k}`, to: `r${k}`, min: 100 })),
      holds: due.map((_, k) => ({ resource: 'rack', amount: 1, from: `p${k}`, to: `r${k}` })),
      units: due.map((d, k) => ({ id: `u${k}`, ready: `r${k}`, due: d, weight: 1 })),
      objective: { tardiness: 100, completion: 0.01 },
    }),
  );
  const { model, schedule, bounds, structure } = plan;
  // Placed in the order of the list, whatever is due first.
  schedule.clear();
  due.forEach((_, k) => {
    schedule.assign(model.ids.indexOf(`p${k}`), 60 * k, 60 * k + 60, 0);
    schedule.assign(model.ids.indexOf(`r${k}`), 60 * k + 160, 60 * k + 160, 0);
  });
  schedule.commit();
  const timely = inTime(model, bounds)!;
  const strandOf = (k: number): number => structure.strandOf[model.ids.indexOf(`p${k}`)]!;
  return { ...plan, timely, strandOf, outside: new Outside(schedule, structure, timely) };
}

describe('strands outside of a plan', () => {
  it('are those that would be late', () => {
    const { outside: late, strandOf } = outside([900, 900, 200]);
    expect(late.waiting).toEqual([strandOf(2)]);
    expect(outside([900, 900, 900]).outside.waiting).toEqual([]);
  });

  it('go in when what stands in their way comes out, which is tried without a trace', () => {
    const { outside: late, strandOf, schedule, model } = outside([900, 900, 200]);
    const s = late.next(0);
    expect(late.bringIn(s, PROMPT)).toBe(false);
    const before = late.schedule.start.slice();
    expect(late.wouldFit(s, [strandOf(0)])).toEqual([strandOf(0)]);
    expect(late.wouldFit(s, [strandOf(1)])).toBeNull();
    expect(late.schedule.start).toEqual(before);
    expect(late.isOut[strandOf(0)]).toBe(0);
    late.wait(late.takeOut([strandOf(0)]));
    expect(late.bringIn(s, PROMPT)).toBe(true);
    expect(late.bringIn(late.next(0), PROMPT)).toBe(true);
    expect(late.finish()).toBe(true);
    expect(late.schedule.start[model.ids.indexOf('p2')]).toBe(0);
    expect(late.schedule.start[model.ids.indexOf('p0')]).toBeGreaterThan(
      schedule.start[model.ids.indexOf('p1')]!,
    );
  });

  it('are blocked by hands in use and by places held, in the times in which they would not be late', () => {
    const { structure, timely, strandOf, schedule } = outside([900, 900, 200]);
    const late = structure.strands[strandOf(2)]!;
    // Due at 200 with 100 of drying: it would have to be done within 0 to 100.
    const [first, second] = [0, 1].map((k) =>
      muchInTheWay(schedule, timely, structure.strands[strandOf(k)]!, late),
    );
    // Hands: 0 to 60 and 60 to 100, six times each; the rack of two from when it would be dry, 60 to 160 and 120 to 200.
    expect(first).toBe(6 * 60 + 100 / 2);
    expect(second).toBe(6 * 40 + 80 / 2);
  });
});
