/** What is next at the bench at any minute of any evening, against what the words mean. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { instantAfter } from '#core/muster';
import { loadOf, type Plan } from '#core/plan';
import type { LogEntry } from '#core/log';
import { agenda } from './index';
import { followed, last, order, origin, plan } from './testing';

const anyMinute = fc.integer({ min: 0, max: last + 600 });

describe('the step in hand', () => {
  it('is the first that is not done, with its like directly after it, and nothing is lost behind it', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const log = followed(minute);
        const view = agenda(plan, log);
        const done = new Set(log.map((e) => ('step' in e ? e.step : '')));
        const open = order.filter((s) => !done.has(s.id));
        expect(view.done + open.length).toBe(view.all);
        expect([...view.run, ...view.next.flat()].map((s) => s.id)).toEqual(
          open.slice(0, view.run.length + view.next.flat().length).map((s) => s.id),
        );
        for (const run of [view.run, ...view.next])
          for (const s of run)
            expect([loadOf(s.layer), s.layer.method, s.round]).toEqual([
              loadOf(run[0]!.layer),
              run[0]!.layer.method,
              run[0]!.round,
            ]);
        expect(view.begins).toBe(open[0]?.start ?? null);
      }),
      { numRuns: 60 },
    );
  });

  it('is that of one pair of hands where it is asked for', () => {
    const shared: Plan = {
      ...plan,
      steps: new Map(
        // By turns as the evening goes, so that both have something among the first runs.
        order.map((s, k) => [s.id, { ...s, doer: { who: k % 2 ? 'Ada' : 'Bo', handovers: [] } }]),
      ),
    };
    for (const who of ['Ada', 'Bo']) {
      const view = agenda(shared, [], who);
      expect(view.run.length).toBeGreaterThan(0);
      for (const s of [view.run, ...view.next].flat()) expect(s.doer!.who).toBe(who);
    }
    const all = agenda(shared, []);
    expect(new Set([all.run, ...all.next].flat().map((s) => s.doer!.who)).size).toBe(2);
  });

  it('counts only steps of this plan as done', () => {
    const gone: LogEntry = { id: 'g', at: instantAfter(origin, 10), kind: 'done', step: 'gone', minutes: 5 };
    expect(agenda(plan, [gone]).done).toBe(0);
  });

  it('is filled up, when the hands are idle, by what may really be done now', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const log = followed(minute);
        const done = new Set(log.map((e) => ('step' in e ? e.step : '')));
        for (const filler of agenda(plan, log)
          .fillers.filter((f) => f.readyAt <= minute)
          .map((f) => f.step)) {
          expect(done.has(filler.id)).toBe(false);
          for (const below of order)
            if (below.piece.id === filler.piece.id && below.layerIndex < filler.layerIndex) {
              expect(done.has(below.id)).toBe(true);
              expect(below.tide.dryAt).toBeLessThanOrEqual(minute);
            }
        }
      }),
      { numRuns: 60 },
    );
  });
});
