/** The drying shelf at any minute of any evening, against what the words mean. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { instantAfter, originOf } from '#core/muster';
import { compile, present } from '#core/plan';
import { layer, smallMuster } from '../plan/testing';
import type { LogEntry } from '#core/log';
import { alarmsOf, dueAlarms, nextAlarm, restingCoats, shelfAt, type ShelfRow } from './index';
import { entry, followed, last, order, plan } from './testing';

/** a minute before each window opens that stands in the plan, so that every state comes up */
const openings = order.flatMap((s) => (s.gate?.closes != null ? [Math.ceil(s.gate.opens) - 1] : []));
const anyMinute = fc.oneof(fc.integer({ min: 0, max: last + 600 }), fc.constantFrom(...openings));
const shelf = (log: readonly LogEntry[], minute: number): ShelfRow[] =>
  shelfAt(plan, restingCoats(plan, log), minute);
const rowOf = (rows: readonly ShelfRow[], step: string): ShelfRow | undefined =>
  rows.find((r) => r.pieces.some((p) => p.resting.step.id === step));
/** a coat that nothing covers before its session ends, and its run */
const medium = order.find((s) => s.gate?.closes != null)!;

/** Minutes in words such as “opens in 2 h 30 min”, or null where there are none. */
function minutesIn(words: string): number | null {
  const found = [...words.matchAll(/(\d+) (min|h|days?)/g)];
  if (found.length === 0) return null;
  return found.reduce((sum, [, n, u]) => sum + Number(n) * (u === 'min' ? 1 : u === 'h' ? 60 : 1440), 0);
}

describe('the drying shelf', () => {
  it('has each coat once, by run, what presses first on top and what is dry last, in words that are true', () => {
    const states = new Set<string>();
    fc.assert(
      fc.property(anyMinute, (minute) => {
        const rows = shelf(followed(minute), minute);
        const coats = rows.flatMap((r) => r.pieces.map((p) => p.resting.step.id));
        expect(new Set(coats).size).toBe(coats.length);
        const wet = rows.filter((r) => r.state !== 'dry');
        expect(rows.slice(0, wet.length)).toEqual(wet);
        wet.slice(1).forEach((r, k) => expect(r.moment).toBeGreaterThanOrEqual(wet[k]!.moment));
        for (const { pieces, state, words } of rows) {
          states.add(state);
          expect(words).not.toMatch(/h 60 min|NaN|Infinity|-\d/);
          if (pieces.length > 1) continue;
          const { touchAt, dryAt, gate } = pieces[0]!.resting;
          const said = minutesIn(words);
          const near = (m: number): void => {
            expect(said).not.toBeNull();
            // Rounded up to the minute; to the half hour where it is days.
            expect(Math.abs(said! - m)).toBeLessThanOrEqual(m > 2880 ? 31 : 1);
          };
          if (state === 'wet') near(touchAt - minute);
          else if (state === 'drying') near(dryAt - minute);
          else if (state === 'opening') near(gate!.opens - minute);
          else if (state === 'open' || state === 'closing') near(gate!.closes - minute);
          else if (state === 'missed') expect(minute).toBeGreaterThan(gate!.closes);
          else expect(minute).toBeGreaterThanOrEqual(dryAt);
        }
      }),
      // Seeded, so that all states are sure to come up.
      { numRuns: 150, seed: 2026 },
    );
    for (const state of ['wet', 'drying', 'opening', 'dry']) expect(states).toContain(state);
  });

  it('holds every window that is under way, whatever else was done on the piece', () => {
    const until = medium.end;
    const log = followed(until);
    const elsewhere = order.find(
      (s) => s.piece.id === medium.piece.id && s.start > until && !medium.gate!.steps.includes(s.id),
    );
    const more = elsewhere ? [entry({ kind: 'done', step: elsewhere.id, minutes: 5 }, until + 1)] : [];
    expect(elsewhere).toBeDefined();
    expect(rowOf(shelf([...log, ...more], until + 2), medium.id)?.lead.gate).not.toBeNull();
    // … until what it waited for is on.
    const shut = medium.gate!.steps.map((id) => entry({ kind: 'done', step: id, minutes: 5 }, until + 3));
    expect(rowOf(shelf([...log, ...shut], until + 4), medium.id)?.lead.gate ?? null).toBeNull();
  });

  it('shows a window from drying to open, closing and missed', () => {
    const log = followed(medium.end);
    const { opens, closes } = medium.gate!;
    const at = (m: number): string | undefined => rowOf(shelf(log, m), medium.id)?.state;
    expect(at(medium.end + 0.5)).toBe('opening');
    expect(at(opens + 0.5)).toBe('open');
    expect(at(closes! - 5)).toBe('closing');
    expect(at(closes! + 5)).toBe('missed');
  });

  it('keeps what is dry by the plan until somebody has looked', () => {
    const coat = order.find((s) => s.gate === null && s.tide.dryAt - s.end > 20)!;
    const log = followed(coat.end);
    const later = coat.tide.dryAt + 5000;
    expect(rowOf(shelf(log, later), coat.id)?.state).toBe('dry');
    const looked = [...log, entry({ kind: 'dry', step: coat.id }, later)];
    expect(
      rowOf(shelf(looked, later + 1), coat.id)?.pieces.map((p) => p.resting.step.id) ?? [],
    ).not.toContain(coat.id);
  });

  it('believes a look: “not yet” makes it wet for as long as was said, and the row stays', () => {
    const coat = order.find((s) => s.gate === null && s.tide.dryAt - s.end > 20)!;
    const looked = coat.tide.dryAt + 10;
    const log = [...followed(coat.end), entry({ kind: 'not-dry', step: coat.id, moreMinutes: 30 }, looked)];
    const piece = (m: number) =>
      rowOf(shelf(log, m), coat.id)!.pieces.find((p) => p.resting.step.id === coat.id)!;
    expect(piece(looked + 1).words).toContain('do not touch for 29 min');
    expect(piece(looked + 31).words).toContain('should be dry');
  });

  it('takes a look for what it is: touched, dry, or not yet, sooner or later than was thought', () => {
    const coat = order.find((s) => s.gate?.closes != null && s.tide.dryAt - s.end > 20)!;
    const { wetUntil, dryAt } = coat.tide;
    const seen = (looks: readonly (readonly [Record<string, unknown>, number])[]) =>
      restingCoats(plan, [
        ...followed(coat.end),
        ...looks.map(([look, m]) => entry({ step: coat.id, ...look }, m)),
      ]).find((r) => r.step.id === coat.id)!;
    const soon = coat.end + 1;
    expect(soon).toBeLessThan(wetUntil);
    expect(seen([])).toMatchObject({ touchAt: wetUntil, dryAt });
    // Touched before its time: it may be touched, and is not dry for that.
    expect(seen([[{ kind: 'touch-dry' }, soon]])).toMatchObject({ touchAt: soon, dryAt });
    expect(seen([[{ kind: 'dry' }, soon]])).toMatchObject({ touchAt: soon, dryAt: soon });
    expect(seen([[{ kind: 'dry' }, dryAt + 40]])).toMatchObject({ touchAt: wetUntil, dryAt });
    const late = dryAt + 10;
    expect(seen([[{ kind: 'not-dry', moreMinutes: 30 }, late]])).toMatchObject({
      touchAt: late + 30,
      dryAt: late + 30,
    });
    // “Half an hour more” said too soon takes nothing off what the book says.
    expect(seen([[{ kind: 'not-dry', moreMinutes: 0 }, soon]])).toMatchObject({ touchAt: wetUntil, dryAt });
    // Touched since: what was said of its drying still holds.
    const both = seen([
      [{ kind: 'not-dry', moreMinutes: 30 }, late],
      [{ kind: 'touch-dry' }, late + 10],
    ]);
    expect(both).toMatchObject({ touchAt: wetUntil, dryAt: late + 30 });
  });

  it('has a run in one row though it was begun before its session, or outstayed it', () => {
    const session = plan.sessions.find((s) => {
      const [first, second] = s.steps.filter((x) => x.end - x.start > 0 && x.tide.dryAt > x.end);
      return first && second?.layer.name === first.layer.name;
    })!;
    const [first, second] = session.steps.filter((x) => x.tide.dryAt > x.end);
    const around: [number, number][] = [
      [session.start - 3, session.start + 3],
      [session.end - 3, session.end + 3],
    ];
    for (const [a, b] of around) {
      const log = [
        entry({ kind: 'done', step: first!.id, minutes: 5 }, a),
        entry({ kind: 'done', step: second!.id, minutes: 5 }, b),
      ];
      expect(shelf(log, b + 1).map((r) => r.pieces.length)).toEqual([2]);
    }
  });

  it('dries from when it was really done, even before the plan begins', () => {
    const [first] = order;
    const early = first!.end - 3 * 1440;
    const [row] = shelf([entry({ kind: 'done', step: first!.id, minutes: 5 }, early)], early + 1);
    expect(minutesIn(row!.words)!).toBeLessThanOrEqual(first!.tide.dryAt - first!.end + 1);
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
      const [row] = shelfAt(small, restingCoats(small, log), step!.end + m);
      expect(row!.words).not.toMatch(/h (6\d|[7-9]\d) min/);
    }
  });
});

describe('alarms', () => {
  const log = followed(medium.end);
  const rows = shelf(log, medium.end);
  const alarms = alarmsOf(rows);
  const { opens, closes } = medium.gate!;
  const own = alarms.filter((a) => a.text.startsWith(medium.layer.name));

  it('come before a window opens, when it opens and before it shuts', () => {
    expect(own.map((a) => a.at)).toContain(opens - 2);
    expect(own.map((a) => a.at)).toContain(opens);
    expect(own.some((a) => a.isUrgent && a.at === Math.max(opens, closes! - 5))).toBe(true);
  });

  it('are the same alarm where a new plan moves its moment by a minute or two', () => {
    const moved = rows.map((row) => ({
      ...row,
      pieces: row.pieces.map((p) => ({
        ...p,
        resting: {
          ...p.resting,
          dryAt: p.resting.dryAt + 2,
          gate: p.resting.gate && { opens: p.resting.gate.opens + 2, closes: p.resting.gate.closes + 2 },
        },
      })),
    }));
    const open = (list: readonly { readonly id: string }[]): string[] =>
      list.map((a) => a.id).filter((id) => id.endsWith(' opens'));
    expect(open(alarmsOf(moved))).toEqual(open(alarms));
  });

  it('tell which pieces they are about: all of a run, some of it, or one by name', () => {
    const resting = rows[0]!.pieces[0]!.resting;
    const at = (dryAt: number, n: number): ShelfRow['pieces'][number] => ({
      words: '',
      resting: {
        ...resting,
        step: { ...resting.step, id: `s${n}`, piece: { ...resting.step.piece, name: `Ferry ${n}` } },
        gate: null,
        isFoundDry: false,
        touchAt: 100,
        dryAt,
      },
    });
    const row = { ...rows[0]!, pieces: [at(200, 1), at(200, 2), at(260, 3)] };
    const { name } = resting.step.layer;
    expect(alarmsOf([row]).map((a) => a.text)).toEqual([
      `${name}, 3 pieces: may be touched`,
      `${name}, 2 of 3 pieces: ready for what follows: look`,
      `${name}, Ferry 3: ready for what follows: look`,
    ]);
  });

  it('sound once, each in its time, and not the morning after', () => {
    const due = dueAlarms(alarms, opens + 0.1, new Set());
    expect(due.some((a) => a.text.endsWith('open now'))).toBe(true);
    expect(dueAlarms(alarms, opens + 0.1, new Set(due.map((a) => a.id)))).toEqual([]);
    expect(dueAlarms(alarms, opens + 2000, new Set())).toEqual([]);
    expect(nextAlarm(alarms, opens)!.at).toBeGreaterThan(opens);
  });
});
