import { describe, expect, it } from 'vitest';
import { solveProblem, validateSolution, movedOperations } from '#core/kernel';
import { instantAfter, minutesUntil, originOf, wallTime } from '#core/muster';
import { compile, present, type Plan } from '#core/plan';
import { fenMuster } from '../../demo/fen';
import { smallMuster } from '../plan/testing';
import { aheadOfClock, type LogEntry } from '#core/log';
import {
  layOut,
  leftBehind,
  restingCoats,
  reworkId,
  withHistory,
  withoutOpenWindows,
  type Resting,
} from './index';

const muster = smallMuster();
const origin = originOf(muster);
const compiled = compile(muster);
const solution = solveProblem(compiled.problem, { iterations: 60 });
const plan = present(muster, compiled, solution);
const at = (minute: number): string => instantAfter(origin, minute);
const order = [...plan.steps.values()].sort((a, b) => a.start - b.start);
let count = 0;
const done = (step: string, minute: number, minutes = 5): LogEntry => ({
  id: `e${++count}`,
  at: at(minute),
  kind: 'done',
  step,
  minutes,
});

describe('planning the rest again', () => {
  it('fixes what was done, begins nothing before now, and keeps every rule', () => {
    const first = order[0]!;
    const now = first.end + 12;
    const problem = withHistory(
      compiled.problem,
      [done(first.id, now, first.end - first.start + 12)],
      origin,
      now,
    );
    const again = solveProblem(problem, { iterations: 60, previous: solution, stability: 8 });
    expect(validateSolution(problem, again).violations).toEqual([]);
    const placed = new Map(again.operations.map((o) => [o.id, o]));
    expect(placed.get(first.id)!.end).toBe(now);
    for (const o of again.operations)
      if (o.id !== first.id && compiled.steps.has(o.id))
        expect(o.start - o.setup).toBeGreaterThanOrEqual(now);
  });

  it('lets more drying go by when it was not dry yet', () => {
    const first = order[0]!;
    const log: LogEntry[] = [
      done(first.id, first.end),
      { id: 'nd', at: at(first.end + 10), kind: 'not-dry', step: first.id, moreMinutes: 300 },
    ];
    const problem = withHistory(compiled.problem, log, origin, first.end + 10);
    const followers = compiled.problem.lags!.filter((l) => l.from === first.id).map((l) => l.to);
    for (const id of followers.filter((f) => compiled.steps.has(f)))
      expect(problem.operations.find((o) => o.id === id)!.earliest).toBeGreaterThanOrEqual(first.end + 310);
  });

  it('takes a skipped step out, and puts a rework in before what follows', () => {
    const first = order[0]!;
    const log: LogEntry[] = [
      done(first.id, first.end),
      {
        id: 'rw',
        at: at(first.end),
        kind: 'rework',
        step: first.id,
        trouble: 'Hair or dust in a wet coat',
        cure: 'polish, recoat',
        minutes: 8,
        dryMinutes: 60,
      },
      { id: 'sk', at: at(first.end), kind: 'skipped', step: order[1]!.id },
    ];
    const problem = withHistory(compiled.problem, log, origin, first.end);
    const again = solveProblem(problem, { iterations: 60 });
    expect(validateSolution(problem, again).violations).toEqual([]);
    const placed = new Map(again.operations.map((o) => [o.id, o]));
    const rework = placed.get(reworkId(first.id, 'rw'))!;
    expect(rework.end - rework.start).toBe(8);
    for (const l of compiled.problem.lags!.filter((x) => x.from === first.id))
      expect(placed.get(l.to)!.start).toBeGreaterThanOrEqual(rework.end + 60);
  });

  it('plans on when several steps are ticked off in one go, and when a window was missed', () => {
    const steps = order.slice(0, 5);
    const now = steps[0]!.end;
    const log = steps.map((s): LogEntry => done(s.id, now, s.end - s.start));
    const problem = withHistory(compiled.problem, log, origin, now);
    const relaxed = withoutOpenWindows(problem);
    const again = solveProblem(relaxed, { iterations: 40 });
    expect(again.status).toMatch(/feasible|optimal/);
    expect(validateSolution(relaxed, again).violations).toEqual([]);
    const late = withHistory(
      compiled.problem,
      order
        .filter((s) => s.start <= order.find((x) => x.layer.id === 'medium')!.start)
        .map((s) => done(s.id, s.end, s.end - s.start)),
      origin,
      3000,
    );
    expect(solveProblem(late, { iterations: 20 }).status).toBe('infeasible');
    expect(solveProblem(withoutOpenWindows(late), { iterations: 40 }).status).toMatch(/feasible|optimal/);
  });

  it('lets nobody be away any more where that is over, so that what two did meanwhile is possible', () => {
    const base = smallMuster();
    const hours = [{ id: 'h', weekday: 6, from: '19:00', to: '20:00' }];
    const two = {
      ...base,
      bench: {
        ...base.bench,
        people: [
          { id: 'a', name: 'A' },
          { id: 'b', name: 'B', hours },
        ],
      },
    };
    const problem = compile(two).problem;
    const absences = problem.fixed!.filter((f) => f.id.startsWith('away.'));
    // Both are logged at the same minute of the first evening, when the second was not to be there.
    const log: LogEntry[] = ['p1.prime', 'p2.prime'].map((step, k) => ({
      id: `e${k}`,
      at: instantAfter(originOf(two), 1170),
      kind: 'done',
      step,
      minutes: 10,
    }));
    const now = 1180;
    const posed = withHistory(problem, log, originOf(two), now);
    const left = posed.fixed!.filter((f) => f.id.startsWith('away.'));
    expect(absences.some((f) => f.start < now)).toBe(true);
    expect(left.every((f) => f.start >= now && f.end > f.start)).toBe(true);
    expect(left.map((f) => f.id)).toEqual(absences.filter((f) => f.end > now).map((f) => f.id));
    expect(solveProblem(posed, { iterations: 20 }).status).not.toBe('infeasible');
  });

  it('keeps the rest of a large evening calm after a short delay', () => {
    const demo = fenMuster('2027-03-01');
    const c = compile(demo);
    const base = solveProblem(c.problem, { iterations: 1500 });
    // Lateness is worth any move: the calm shows only where nobody is late.
    expect(base.cost!.tardiness).toBe(0);
    const p = present(demo, c, base);
    const steps = [...p.steps.values()].sort((a, b) => a.start - b.start).slice(0, 12);
    const last = steps[11]!;
    const now = last.end + 10;
    const log = steps.map((s): LogEntry => ({
      id: `d-${s.id}`,
      at: instantAfter(p.origin, s === last ? now : s.end),
      kind: 'done',
      step: s.id,
      minutes: (s === last ? 10 : 0) + s.end - s.start,
    }));
    const problem = withHistory(c.problem, log, p.origin, now);
    const again = solveProblem(problem, { iterations: 60, previous: base, stability: 8 });
    expect(validateSolution(problem, again).violations).toEqual([]);
    expect(movedOperations(problem, base, again).length).toBeLessThan(0.25 * p.steps.size);
  });
});

describe('the night of the clock', () => {
  // Directive 2000/84/EC: summer time ends on the last Sunday of October at 01:00 UTC, here at 03:00 on the wall.
  const autumn = (): Plan => {
    const m = smallMuster();
    const there = {
      ...m,
      startsOn: '2027-10-30T18:00',
      bench: {
        ...m.bench,
        timeZone: 'Europe/Vienna',
        weekly: [
          { id: 'sat', weekday: 6, from: '22:00', to: '24:00' },
          { id: 'sun', weekday: 7, from: '00:00', to: '09:00' },
        ],
      },
      units: m.units.map((u) => ({ ...u, table: '2027-11-06T12:00' })),
    };
    const c = compile(there);
    return present(there, c, solveProblem(c.problem, { iterations: 60 }));
  };

  it('dries by the minutes that pass, whatever the wall shows: ticked at 02:40 summer time, looked at 70 minutes later at 02:50', () => {
    const p = autumn();
    const step = [...p.steps.values()].find((s) => s.layer.id === 'prime')!;
    const ticked = '2027-10-31T00:40:00Z';
    const later = '2027-10-31T01:50:00Z';
    expect(wallTime('Europe/Vienna', ticked)).toBe('2027-10-31T02:40');
    expect(wallTime('Europe/Vienna', later)).toBe('2027-10-31T02:50');
    expect(minutesUntil(p.origin, later) - minutesUntil(p.origin, ticked)).toBe(70);
    const log: LogEntry[] = [{ id: 't', at: ticked, kind: 'done', step: step.id, minutes: 5 }];
    expect(aheadOfClock(log, later)).toBeNull();
    const problem = withHistory(c0(p), log, p.origin, Math.floor(minutesUntil(p.origin, later)));
    const fixed = problem.fixed!.find((f) => f.id === step.id)!;
    expect(fixed.end).toBe(Math.floor(minutesUntil(p.origin, ticked)));
  });
  const c0 = (p: Plan): Parameters<typeof withHistory>[0] => ({
    format: 'muster-problem/1',
    horizon: 20_000,
    objective: compiled.problem.objective,
    operations: [...p.steps.keys()].map((id) => ({ id, minutes: 5 })),
  });

  it('makes the session of that night an hour longer', () => {
    const night = autumn().sessions[0]!;
    // 22:00 to 09:00 on the wall, and an hour that comes twice.
    expect(night.end - night.start).toBe(12 * 60);
  });
});

describe('before and after a session', () => {
  const fen = fenMuster('2027-03-01');
  const fenCompiled = compile(fen);
  const fenPlan = present(fen, fenCompiled, solveProblem(fenCompiled.problem, { iterations: 5 }));
  const busiest = [...fenPlan.sessions].sort((a, b) => b.steps.length - a.steps.length)[0]!;

  it('lays out every paint of the session once, then cups, tools, protection and water', () => {
    const lines = layOut(fenPlan, busiest, new Set());
    const mixtures = new Set(busiest.steps.map((s) => s.layer.mixture).filter((m) => m !== ''));
    const paints = lines.filter((l) => l.group === 'Paints to shake');
    expect(paints).toHaveLength(mixtures.size);
    for (const m of mixtures) expect(paints.filter((l) => l.text.startsWith(`${m}, from`))).toHaveLength(1);
    expect(new Set(lines.map((l) => `${l.group} ${l.text}`)).size).toBe(lines.length);
    const groups = [...new Set(lines.map((l) => l.group))];
    expect(groups).toEqual(
      ['Paints to shake', 'Cups', 'Tools', 'Protection', 'Water and cloths'].filter((g) =>
        groups.includes(g as (typeof groups)[number]),
      ),
    );
    if (busiest.steps.some((s) => s.layer.method === 'airbrush'))
      expect(lines.some((l) => l.text.startsWith('Respirator'))).toBe(true);
  });

  it('lays out nothing for what is done already', () => {
    expect(layOut(fenPlan, busiest, new Set(busiest.steps.map((s) => s.id)))).toEqual([]);
  });

  it('says what nobody may touch, and which window would shut while everyone is away', () => {
    const gated = [...plan.steps.values()].find((s) => s.gate?.closes != null)!;
    const after = (...ids: string[]): Resting[] =>
      restingCoats(
        plan,
        ids.map((id) => done(id, plan.steps.get(id)!.end)),
      );
    const behind = leftBehind(plan, after(gated.id), gated.end, gated.gate!.closes! + 600);
    expect(behind.untouchable.join()).toContain(gated.piece.name);
    expect(behind.meanwhile.filter((m) => m.isLost)).toHaveLength(1);
    expect(behind.meanwhile.find((m) => m.isLost)!.text).toContain(gated.layer.name);
    const finished = leftBehind(plan, after(gated.id, ...gated.gate!.steps), gated.end, Infinity);
    expect(finished.meanwhile).toEqual([]);
    expect(leftBehind(plan, [], 0, Infinity)).toEqual({ untouchable: [], meanwhile: [] });
  });
});
