/** The session at the bench at any minute of any evening, against what the words mean. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { instantAfter, originOf } from '#core/muster';
import { compile, loadOf, present, type Plan } from '#core/plan';
import { fenMuster } from '../../demo/fen';
import { layer, smallMuster } from '../plan/testing';
import { layOut, leftBehind, tonight, type LogEntry, type ShelfState } from './index';

const demo = fenMuster('2026-11-30');
const compiled = compile(demo);
const plan = present(demo, compiled, solveProblem(compiled.problem, { iterations: 30 }));
const origin = originOf(demo);
const order = [...plan.steps.values()].sort(
  (a, b) => a.start - b.start || a.end - b.end || a.id.localeCompare(b.id),
);
const last = order.at(-1)!.end;

/** The log of a bench that has followed the plan up to a minute. */
const followed = (minute: number): LogEntry[] =>
  order
    .filter((s) => s.end <= minute)
    .map((s, k) => ({
      id: `e${k}`,
      at: instantAfter(origin, s.end),
      kind: 'done',
      step: s.id,
      minutes: s.end - s.start,
    }));
const anyMinute = fc.integer({ min: 0, max: last + 600 });

/** Minutes in words such as “opens in 2 h 30 min”, or null where there are none. */
function minutesIn(words: string): number | null {
  const found = [...words.matchAll(/(\d+) (min|h|days?)/g)];
  if (found.length === 0) return null;
  return found.reduce((sum, [, n, u]) => sum + Number(n) * (u === 'min' ? 1 : u === 'h' ? 60 : 1440), 0);
}

describe('the step in hand', () => {
  it('is the first that is not done, with its like directly after it, and nothing is lost behind it', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const log = followed(minute);
        const view = tonight(plan, log, minute);
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
        [...plan.steps].map(([id, s], k) => [
          id,
          { ...s, doer: { who: k % 2 ? 'Ada' : 'Bo', handovers: [] } },
        ]),
      ),
    };
    for (const who of ['Ada', 'Bo']) {
      const view = tonight(shared, [], 0, who);
      expect(view.run.length).toBeGreaterThan(0);
      for (const s of [view.run, ...view.next].flat()) expect(s.doer!.who).toBe(who);
    }
    const all = tonight(shared, [], 0);
    expect(new Set([all.run, ...all.next].flat().map((s) => s.doer!.who)).size).toBe(2);
  });

  it('counts only steps of this plan as done', () => {
    const gone: LogEntry = { id: 'g', at: instantAfter(origin, 10), kind: 'done', step: 'gone', minutes: 5 };
    expect(tonight(plan, [gone], 10).done).toBe(0);
  });

  it('is filled up, when the hands are idle, by what may really be done now', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const log = followed(minute);
        const done = new Set(log.map((e) => ('step' in e ? e.step : '')));
        for (const filler of tonight(plan, log, minute).fillers) {
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

describe('the drying shelf', () => {
  it('has each piece once, what closes first on top, in a state and words that are true', () => {
    const states = new Set<ShelfState>();
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const { shelf } = tonight(plan, followed(minute), minute);
        const pieces = shelf.map((i) => i.step.piece.id);
        expect(new Set(pieces).size).toBe(pieces.length);
        shelf.slice(1).forEach((i, k) => expect(i.moment).toBeGreaterThanOrEqual(shelf[k]!.moment));
        for (const { state, words, level, step } of shelf) {
          states.add(state);
          const { tide, gate } = step;
          expect(level).toBeGreaterThanOrEqual(0);
          expect(level).toBeLessThanOrEqual(1);
          expect(words).not.toMatch(/h 60 min|NaN|Infinity|-\d/);
          const said = minutesIn(words);
          const near = (m: number): void => {
            expect(said).not.toBeNull();
            // Rounded up to the minute; to the half hour where it is days.
            expect(Math.abs(said! - m)).toBeLessThanOrEqual(m > 2880 ? 31 : 1);
          };
          switch (state) {
            case 'wet':
              near(tide.wetUntil - minute);
              break;
            case 'opening':
              near((gate?.closes == null ? tide.dryAt : gate.opens) - minute);
              break;
            case 'open':
            case 'closing':
              expect(minute).toBeGreaterThanOrEqual(gate!.opens);
              near(gate!.closes! - minute);
              break;
            case 'missed':
              expect(minute).toBeGreaterThan(gate!.closes!);
              break;
            case 'safe':
              expect(minute).toBeGreaterThanOrEqual(tide.dryAt);
          }
        }
      }),
      // Seeded, so that all states are sure to come up.
      { numRuns: 150, seed: 2026 },
    );
    for (const state of ['wet', 'opening', 'safe'] as const) expect(states.has(state)).toBe(true);
  });

  it('falls like a tide: never higher later, while nothing is added', () => {
    fc.assert(
      fc.property(anyMinute, fc.integer({ min: 1, max: 900 }), (minute, more) => {
        const log = followed(minute);
        const later = new Map(
          tonight(plan, log, minute + more).shelf.map((i) => [i.step.id, i.level] as const),
        );
        for (const i of tonight(plan, log, minute).shelf)
          expect(later.get(i.step.id) ?? 0).toBeLessThanOrEqual(i.level + 1e-9);
      }),
      { numRuns: 60 },
    );
  });

  it('never says an hour and sixty minutes', () => {
    const muster = smallMuster([layer('base', { dryMinutes: 300 })]);
    const made = compile(muster);
    const small = present(muster, made, solveProblem(made.problem, { iterations: 20 }));
    const [step] = [...small.steps.values()];
    const log: LogEntry[] = [
      { id: 'd', at: instantAfter(originOf(muster), step!.end), kind: 'done', step: step!.id, minutes: 5 },
    ];
    for (let m = 1; m < 300; m += 0.7) {
      const [item] = tonight(small, log, step!.end + m).shelf;
      expect(item!.words).not.toMatch(/h (6\d|[7-9]\d) min/);
    }
  });
});

describe('before and after a session', () => {
  it('every paint of it is laid out, and protection wherever it is sprayed', () => {
    for (const session of plan.sessions) {
      const lines = layOut(plan, session, new Set());
      const text = lines.map((l) => l.text).join('\n');
      for (const s of session.steps) {
        if (s.layer.mixture !== '') expect(text).toContain(s.layer.mixture);
        if (s.layer.method === 'airbrush' || s.layer.method === 'can') expect(text).toContain('Respirator');
      }
      expect(new Set(lines.map((l) => `${l.group} ${l.text}`)).size).toBe(lines.length);
      expect(layOut(plan, session, new Set(plan.steps.keys()))).toEqual([]);
    }
  });

  it('what is wet when everyone goes is named, and what is dry is not', () => {
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const done = new Set(order.filter((s) => s.end <= minute).map((s) => s.id));
        const next = plan.sessions.find((s) => s.start > minute)?.start ?? Infinity;
        const { untouchable, meanwhile } = leftBehind(plan, done, minute, next);
        const wet = order.filter((s) => done.has(s.id) && s.tide.wetUntil > minute);
        expect(untouchable.length > 0).toBe(wet.length > 0);
        const lost = order.filter(
          (s) =>
            done.has(s.id) &&
            s.gate?.closes != null &&
            s.gate.closes > minute &&
            s.gate.closes < next &&
            s.gate.steps.some((id) => !done.has(id)),
        );
        expect(meanwhile.filter((m) => m.isLost).length).toBe(lost.length);
      }),
      { numRuns: 60 },
    );
  });
});
