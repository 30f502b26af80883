/** What the plan view draws, without a screen. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { compile, present } from '#core/plan';
import { smallMuster } from '../../core/plan/testing';
import { gateOf, rowsOf, type Body } from './rows';
import { timeAxis } from './timeAxis';

const muster = smallMuster();
const compiled = compile(muster);
const plan = present(muster, compiled, solveProblem(compiled.problem, { iterations: 40 }));

describe('the time axis', () => {
  const axis = timeAxis(plan.sessions, 1.15);

  it('rises with time, and folds the nights', () => {
    let before = -1;
    for (let minute = plan.sessions[0]!.start; minute < plan.sessions[2]!.end; minute += 15) {
      const x = axis.xOf(minute);
      expect(x).toBeGreaterThanOrEqual(before);
      before = x;
    }
    const [first, second] = plan.sessions;
    const evening = axis.xOf(first!.end) - axis.xOf(first!.start);
    const night = axis.xOf(second!.start) - axis.xOf(first!.end);
    expect(night).toBeLessThan(evening);
  });

  it('has a lamp for every session and a pleat between', () => {
    expect(axis.lamps).toHaveLength(plan.sessions.length);
    for (const lamp of axis.lamps) expect(lamp.width).toBeGreaterThan(0);
  });

  it('is wider the nearer one looks', () => {
    expect(timeAxis(plan.sessions, 2.6).width).toBeGreaterThan(axis.width);
  });
});

describe('the rows', () => {
  const axis = timeAxis(plan.sessions, 1.15);

  it('are one for a unit, and one more for each piece when it is open', () => {
    expect(rowsOf(plan, axis, new Set())).toHaveLength(1);
    const open = rowsOf(plan, axis, new Set(['u']));
    expect(open).toHaveLength(3);
    expect(open.filter((r) => r.piece).map((r) => r.piece!.id)).toEqual(['p1', 'p2']);
  });

  it('show every step of a piece once, where it stands', () => {
    for (const row of rowsOf(plan, axis, new Set(['u'])).filter((r) => r.piece)) {
      const steps = [...plan.steps.values()].filter((s) => s.piece.id === row.piece!.id);
      const bodies = row.tiles().flatMap((t) => t.bodies);
      const drawn = bodies.flatMap((b) => b.steps);
      expect(drawn.map((s) => s.id).sort()).toEqual(steps.map((s) => s.id).sort());
      for (const b of bodies) expect(b.x).toBeCloseTo(axis.xOf(b.steps[0]!.start), 6);
    }
  });

  it('draw a gate where a window is, and none elsewhere', () => {
    const medium = plan.steps.get('p1.medium')!;
    const gate = gateOf(medium, axis);
    expect(gate).not.toBeNull();
    // Its posts stand where it opens and where it shuts, in this order.
    expect(gate!.opens).toBe(axis.xOf(medium.gate!.opens));
    expect(gate!.closes).toBe(axis.xOf(medium.gate!.closes!));
    expect(gate!.closes).toBeGreaterThan(gate!.opens);
    expect(gate!.text).toBe('20 min–1 h');
    expect(gateOf(plan.steps.get('p1.prime')!, axis)).toBeNull();
  });
});

describe('a unit on which two people work at once', () => {
  const two = {
    ...muster,
    bench: {
      ...muster.bench,
      people: [
        { id: 'a', name: 'Ann' },
        { id: 'b', name: 'Bo' },
      ],
    },
    units: muster.units.map((u) => ({
      ...u,
      pieces: [0, 1, 2, 3, 4, 5].map((k) => ({ ...u.pieces[0]!, id: `p${k}`, name: `Ferry ${k}` })),
    })),
  };
  const own = compile(two);
  const shared = present(two, own, solveProblem(own.problem, { iterations: 40 }));
  const bodies = (people: typeof shared): Body[] =>
    rowsOf(people, timeAxis(people.sessions, 2.6), new Set())[0]!
      .tiles()
      .flatMap((t) => t.bodies)
      .sort((a, b) => a.x - b.x);

  it('shows their runs one above the other, never over one another', () => {
    let together = 0;
    const all = bodies(shared);
    all.forEach((b, k) => {
      for (const other of all.slice(k + 1)) {
        if (other.x >= b.x + b.width - 3) continue;
        together++;
        const isBeneath = b.base - b.height >= other.base || other.base - other.height >= b.base;
        expect(isBeneath, `${b.id} and ${other.id}`).toBe(true);
      }
    });
    expect(together).toBeGreaterThan(0);
    expect(all.flatMap((b) => b.steps)).toHaveLength(shared.steps.size);
  });

  it('has whole heights where one works alone', () => {
    const heights = new Set(bodies(plan).map((b) => b.height));
    expect(heights.size).toBe(1);
  });
});
