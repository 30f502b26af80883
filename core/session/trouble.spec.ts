/** What goes wrong, and what is then planned: on a demo that is under way. */
import { describe, expect, it } from 'vitest';
import { solveProblem, validateSolution } from '#core/kernel';
import { compile, present, type PlanStep } from '#core/plan';
import { takenBackOf } from '#core/recipe';
import { layer, smallMuster } from '../plan/testing';
import { endedSteps, newEntries, type LogEntry } from '#core/log';
import {
  curesFor,
  ownCures,
  reworkEntry,
  withApprovals,
  withHistory,
  withReworks,
  type PieceCure,
} from './index';
import { compiled, demo, entry, followed, order, origin, plan } from './testing';

const medium = order.find((s) => s.gate?.closes != null)!;
const topcoat = plan.steps.get(medium.gate!.steps[0]!)!;
const log = followed(medium.end);
const shut = medium.gate!.closes! + 5;

/** The rest planned after a cure was taken, at a minute. */
function planned(cure: PieceCure, minute: number) {
  const all = [...log, entry(reworkEntry(cure), minute)];
  const problem = withHistory(compiled.problem, all, origin, minute);
  const solution = solveProblem(problem, { iterations: 5 });
  expect(validateSolution(problem, solution).violations).toEqual([]);
  return {
    log: all,
    problem,
    plan: present(demo, { ...compiled, steps: withReworks(compiled.steps, all) }, solution),
  };
}

describe('the cures for a step', () => {
  it('are several for each, with their minutes, the same trouble never twice with the same cure', () => {
    for (const s of order) {
      const cures = curesFor(plan, [], s);
      expect(cures.length).toBeGreaterThan(1);
      expect(new Set(cures.map((c) => c.trouble + c.cure)).size).toBe(cures.length);
      for (const c of cures) expect(c.minutes).toBeGreaterThan(0);
    }
  });

  it('have the missed window on the coat that should have gone into it, which is then in hand', () => {
    const missed = curesFor(plan, log, topcoat).filter((c) => c.trouble === 'Missed window');
    expect(missed.map((c) => c.on.id)).toEqual([medium.id, medium.id]);
    expect(curesFor(plan, [], topcoat).some((c) => c.trouble === 'Missed window')).toBe(false);
  });

  it('cover it with mud, and chip the decal away', () => {
    const of = (fits: (s: PlanStep) => boolean): string[] =>
      curesFor(plan, [], order.find(fits)!).map((c) => c.cure);
    expect(of((s) => s.layer.task === 'lift')).toContain('Cover it with mud');
    expect(of((s) => s.layer.task === 'decal')).toContain('Chip the decal away there');
  });
});

describe('what can still be taken back', () => {
  const wash = order.find((s) => curesFor(plan, [], s).some((c) => c.cure.startsWith('Take “')))!;
  const own = `Take “${wash.layer.name}” back`;
  const cures = (step: PlanStep, of: readonly LogEntry[]) =>
    curesFor(plan, of, step).filter((c) => c.cure.startsWith(own));

  it('is begun anew while it is in hand, and done once more when it is on', () => {
    expect(cures(wash, [])).toMatchObject([{ again: [], dryMinutes: 0 }]);
    const [done] = cures(wash, followed(wash.end));
    expect(done!.again.map((s) => s.id)).toEqual([wash.id]);
  });

  it('is offered no longer once its point of no return is past', () => {
    const { until } = takenBackOf(wash.recipe, wash.layer)!;
    const past = order.filter((s) => s.piece.id === wash.piece.id && s.layer.id === until!.id).at(-1)!;
    expect(cures(past, followed(past.end))).toEqual([]);
  });
});

describe('a sandwich that is started again', () => {
  const again = curesFor(plan, log, topcoat).find((c) => c.again.length > 0)!;

  it('begins with the seal beneath, where there is one, and has the coat whose window it was', () => {
    expect(again.again.map((s) => s.id)).toContain(medium.id);
    const seals = again.again.filter((s) => s.layerIndex < medium.layerIndex);
    for (const s of seals) expect(endedSteps(log).has(s.id)).toBe(true);
    expect(again.minutes).toBe(again.again.reduce((sum, s) => sum + s.end - s.start, 0));
  });

  it('really puts them on again, with their tools and drying, and in the window this time', () => {
    const after = planned(again, shut);
    for (const s of again.again) expect(after.plan.steps.get(s.id)!.start).toBeGreaterThanOrEqual(shut);
    const done = after.plan.steps.get(medium.id)!;
    const next = after.plan.steps.get(topcoat.id)!;
    expect(next.start).toBeGreaterThanOrEqual(done.gate!.opens);
    expect(next.start).toBeLessThanOrEqual(done.gate!.closes!);
  });

  it('can be ticked off again, once', () => {
    const all = [...log, entry(reworkEntry(again), shut)];
    const twice = [0, 1].map((k) => entry({ kind: 'done', step: medium.id, minutes: 5 }, shut + 60 + k));
    expect(newEntries(all, twice)).toEqual([twice[0]]);
    expect(endedSteps(all).has(medium.id)).toBe(false);
    expect(endedSteps([...all, twice[0]!]).has(medium.id)).toBe(true);
  });
});

describe('what putting a coat on once more takes', () => {
  it('is what is planned for it, whatever its tick says of it', () => {
    const shrunk = {
      ...plan,
      steps: new Map([...plan.steps].map(([id, s]) => [id, { ...s, start: s.end }])),
    };
    const once = curesFor(plan, log, topcoat).find((c) => c.again.length > 0)!;
    const ticked = curesFor(shrunk, log, shrunk.steps.get(topcoat.id)!).find((c) => c.again.length > 0)!;
    expect(once.minutes).toBeGreaterThan(0);
    expect(ticked.minutes).toBe(once.minutes);
  });
});

describe('which coats a sandwich is started again from', () => {
  const window = { opensMinutes: 10, closesMinutes: 200, preferMinutes: null, through: null };
  const varnish = { family: 'varnish' as const, dryMinutes: 30 };
  const muster = smallMuster([
    layer('base'),
    layer('early', varnish),
    layer('seal', varnish),
    layer('medium', { family: 'medium', dryMinutes: 20, window }),
    layer('top', { mixture: 'cream', minutes: 7 }),
    layer('over', { dryMinutes: 5 }),
  ]);
  const made = compile(muster);
  const small = present(muster, made, solveProblem(made.problem, { iterations: 10 }));
  const ticked = (ids: readonly string[], piece = 'p1'): LogEntry[] =>
    ids.map((id, k) => entry({ kind: 'done', step: `${piece}.${id}`, minutes: 5 }, k));
  const missed = (ids: readonly string[], other: readonly LogEntry[] = []) =>
    curesFor(small, [...ticked(ids), ...other], small.steps.get('p1.top')!).find((c) => c.again.length > 0)!;
  const layers = (c: PieceCure): string[] => c.again.map((s) => s.layer.id);

  it('the last seal beneath, the medium, and what was to go into the window if it was put on; nothing beneath or above them', () => {
    expect(layers(missed(['base', 'early', 'seal', 'medium']))).toEqual(['seal', 'medium']);
    expect(layers(missed(['base', 'early', 'seal', 'medium', 'top', 'over']))).toEqual([
      'seal',
      'medium',
      'top',
    ]);
  });

  it('without a seal where none was put on, and never a coat of another piece', () => {
    const elsewhere = ticked(['base', 'early', 'seal', 'medium'], 'p2');
    const cure = missed(['base', 'medium'], elsewhere);
    expect(layers(cure)).toEqual(['medium']);
    expect(cure.cure.startsWith('Start the sandwich again')).toBe(true);
    expect(missed(['seal', 'medium']).cure.startsWith('Seal it again and start')).toBe(true);
  });

  it('with the minutes and the drying of all of them', () => {
    const cure = missed(['seal', 'medium', 'top']);
    const steps = ['seal', 'medium', 'top'].map((id) => small.steps.get(`p1.${id}`)!);
    expect(cure.minutes).toBe(steps.reduce((sum, s) => sum + s.end - s.start, 0));
    expect(cure.dryMinutes).toBe(Math.round(steps.reduce((sum, s) => sum + s.tide.dryAt - s.end, 0)));
  });
});

describe('a window that is accepted as missed', () => {
  it('costs nothing and binds no more', () => {
    const accepted = curesFor(plan, log, topcoat).find(
      (c) => c.trouble === 'Missed window' && c.again.length === 0,
    )!;
    expect(accepted.minutes).toBe(0);
    const after = planned(accepted, shut);
    expect(after.plan.steps.size).toBe(plan.steps.size);
    expect(after.plan.steps.get(topcoat.id)!.start).toBeGreaterThanOrEqual(shut);
  });
});

describe('work on a step that is not done yet', () => {
  it('leaves the step to be done, and comes after it', () => {
    const open = order.find((s) => !endedSteps(log).has(s.id) && s.layer.task === 'lift')!;
    const [cure] = curesFor(plan, log, open).filter((c) => c.trouble === 'Lifted too much');
    const after = planned(cure!, medium.end);
    const work = [...after.plan.steps.values()].find((s) => s.id.startsWith(`${open.id}!`))!;
    expect(after.plan.steps.get(open.id)!.start).toBeGreaterThanOrEqual(medium.end);
    expect(work.start).toBeGreaterThanOrEqual(after.plan.steps.get(open.id)!.end);
  });
});

describe('a cure of one’s own', () => {
  it('is offered again, once, with its minutes', () => {
    const own = { trouble: 'Cat hair', cure: 'Tweezers', minutes: 3, dryMinutes: 5 };
    const noted: LogEntry[] = [1, 2].map((k) => entry({ kind: 'rework', step: medium.id, ...own }, shut + k));
    expect(ownCures(noted)).toEqual([own]);
    expect(curesFor(plan, noted, order[0]!)).toContainEqual({ ...own, on: order[0], again: [] });
    const known = curesFor(plan, [], medium)[0]!;
    expect(ownCures([entry(reworkEntry(known), shut)])).toEqual([]);
  });
});

describe('a pilot', () => {
  const muster = smallMuster([layer('base'), layer('wash', { isPiloted: true })]);
  muster.units[0]!.pieces[0]!.isPilot = true;
  const small = compile(muster);
  const left = (verdicts: readonly string[]) => {
    const said = verdicts.map((verdict, k) => entry({ kind: 'verdict', step: 'p1.base', verdict }, k));
    const { lags } = withApprovals(small.problem, small.steps, said);
    return lags!.filter((l) => l.from === 'p1!done').map((l) => l.to);
  };

  it('lets the others go on once it is approved, and holds them again when its recipe changes after all', () => {
    expect(left([])).toEqual(['u!ready', 'p2.wash']);
    expect(left(['approved'])).toEqual(['u!ready']);
    expect(left(['approved', 'changed'])).toEqual(['u!ready', 'p2.wash']);
  });

  it('has a plan in which they go on at once, though the pilot is not finished', () => {
    const said = [entry({ kind: 'verdict', step: 'p1.base', verdict: 'approved' }, 0)];
    const wash = (log: readonly LogEntry[]): number => {
      const problem = withApprovals(small.problem, small.steps, log);
      return present(muster, small, solveProblem(problem, { iterations: 50 })).steps.get('p2.wash')!.start;
    };
    expect(wash(said)).toBeLessThan(wash([]));
  });
});
