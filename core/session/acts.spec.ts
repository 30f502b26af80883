/** What a press at the bench means. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { instantAfter } from '#core/muster';
import { compile, present } from '#core/plan';
import { layer, smallMuster } from '../plan/testing';
import { doneDeeds, passesLeft, timingOf, waitedFor } from './index';
import { followed, order, origin, plan } from './testing';

const session = plan.sessions.find((s) => s.steps.length > 3)!;
const run = session.steps.slice(0, 2);
const first = run[0]!;
const planned = run.reduce((sum, s) => sum + s.end - s.start, 0);

describe('how long a run took', () => {
  it('is counted from Begin, for each piece', () => {
    const begun = instantAfter(origin, first.start);
    const { perPiece, isMeasured } = timingOf(plan, [], run, first.start + 30, begun);
    expect(isMeasured).toBe(true);
    expect(perPiece).toBeCloseTo(15, 6);
  });

  it('is counted from what came before where nobody pressed Begin', () => {
    const timing = timingOf(plan, [], run, first.start + planned * 1.2, null);
    expect(timing.isMeasured).toBe(true);
    expect(timing.perPiece * run.length).toBeCloseTo(planned * 1.2, 6);
  });

  it('is as planned where it cannot be: begun and forgotten, or far too short', () => {
    const forgotten = timingOf(plan, [], run, first.start + 5000, instantAfter(origin, first.start));
    expect(forgotten).toEqual({ perPiece: planned / run.length, isMeasured: false });
    expect(timingOf(plan, [], run, first.start + planned / 10, null).isMeasured).toBe(false);
  });
});

describe('done', () => {
  const at = new Date('2026-12-01T20:00:00Z');

  it('writes each piece at its own moment, the last of them now, numbered on from those before', () => {
    const deeds = doneDeeds(run, { perPiece: 6, isMeasured: true }, 3, () => ({}), at);
    expect(deeds.map((d) => d.at.getTime() - at.getTime())).toEqual([-6 * 60_000, 0]);
    expect(deeds.map((d) => d.entry)).toMatchObject([
      { kind: 'done', step: run[0]!.id, minutes: 6, nth: 4, isMeasured: true },
      { kind: 'done', step: run[1]!.id, minutes: 6, nth: 5, isMeasured: true },
    ]);
  });

  it('says what was in the cup, and nothing where nothing was mixed', () => {
    const [a, b] = doneDeeds(
      run,
      { perPiece: 1, isMeasured: false },
      0,
      (s) => (s === first ? { mixture: 'x 1 ml', used: [{ name: 'x', ml: 1 }] } : {}),
      at,
    );
    expect(a!.entry).toMatchObject({ mixture: 'x 1 ml', used: [{ name: 'x', ml: 1 }] });
    expect(b!.entry).not.toHaveProperty('mixture');
  });
});

describe('what a step waits for', () => {
  it('is the last that was put on its piece beneath it', () => {
    const step = order.find((s) => s.layerIndex > 2)!;
    const below = waitedFor(plan, followed(step.start), step)!;
    expect(below.piece.id).toBe(step.piece.id);
    expect(below.layerIndex).toBeLessThan(step.layerIndex);
    for (const s of order)
      if (s.piece.id === step.piece.id && s.layerIndex < step.layerIndex && s.end <= step.start)
        expect(s.end).toBeLessThanOrEqual(below.end);
    expect(waitedFor(plan, [], step)).toBeNull();
  });
});

describe('enough', () => {
  it('leaves off the passes that are left, on every piece in hand, and no other', () => {
    const muster = smallMuster([layer('shade', { passes: { expected: 3, waitMinutes: 10 } }), layer('top')]);
    const made = compile(muster);
    const small = present(muster, made, solveProblem(made.problem, { iterations: 10 }));
    const of = (from: readonly string[]): string[] =>
      passesLeft(
        small,
        from.map((id) => small.steps.get(id)!),
      )
        .map((s) => s.id)
        .sort();
    expect(of(['p1.shade'])).toEqual(['p1.shade', 'p1.shade~2', 'p1.shade~3']);
    expect(of(['p1.shade~2', 'p2.shade~3'])).toEqual(['p1.shade~2', 'p1.shade~3', 'p2.shade~3']);
  });
});
