/** What a layer can be, all the way through the plan. */
import { describe, expect, it } from 'vitest';
import { explainer, solveProblem, validateSolution, type Solution } from '#core/kernel';
import type { Layer, Muster, Piece } from '#core/muster';
import {
  checkMuster,
  checkPlan,
  compile,
  hasErrors,
  lateBecause,
  planFix,
  present,
  runSheet,
  waysOut,
  type Compiled,
  type Plan,
} from './index';
import { fenMuster } from '../../demo/fen';
import { layer, smallMuster } from './testing';

interface Planned {
  readonly compiled: Compiled;
  readonly solution: Solution;
  readonly plan: Plan;
}

function planned(muster: Muster, iterations = 60): Planned {
  expect(hasErrors(checkMuster(muster))).toBe(false);
  const compiled = compile(muster);
  const solution = solveProblem(compiled.problem, { iterations });
  expect(solution.status).toMatch(/feasible|optimal/);
  expect(validateSolution(compiled.problem, solution).violations).toEqual([]);
  return { compiled, solution, plan: present(muster, compiled, solution) };
}

const withPieces = (muster: Muster, change: (p: Piece, k: number) => Piece): Muster => ({
  ...muster,
  units: muster.units.map((u) => ({ ...u, pieces: u.pieces.map(change) })),
});
const two = (extra: Partial<Layer>): Layer[] => [
  layer('base', { dryMinutes: 20 }),
  layer('effect', { dryMinutes: 30, ...extra }),
  layer('seal', { family: 'varnish', dryMinutes: 60 }),
];

describe('rounds', () => {
  it('are steps of their own, with the waits between them and the next layer after the last', () => {
    const muster = smallMuster(
      two({ minutes: 6, passes: { expected: 2, waitMinutes: 40 }, faces: { count: 2, waitMinutes: 15 } }),
    );
    const { plan } = planned(muster);
    const rounds = [...plan.steps.values()].filter((s) => s.piece.id === 'p1' && s.layer.id === 'effect');
    expect(rounds.map((s) => [s.round, s.rounds, s.end - s.start])).toEqual([
      [1, 4, 3],
      [2, 4, 3],
      [3, 4, 3],
      [4, 4, 3],
    ]);
    const wait = (k: number): number => rounds[k]!.start - rounds[k - 1]!.end;
    expect(wait(1)).toBeGreaterThanOrEqual(15);
    expect(wait(2)).toBeGreaterThanOrEqual(40);
    expect(wait(3)).toBeGreaterThanOrEqual(15);
    expect(plan.steps.get('p1.seal')!.start).toBeGreaterThanOrEqual(rounds[3]!.end + 30);
  });

  it('do not share a run on the sheet', () => {
    const { plan } = planned(smallMuster(two({ passes: { expected: 2, waitMinutes: 0 } })));
    for (const session of plan.sessions)
      for (const entry of runSheet(plan, session.index).entries) {
        const rounds = new Set(entry.pieces.map((p) => plan.steps.get(p.step)!.round));
        expect(rounds.size).toBe(1);
      }
  });
});

describe('the air of the bench', () => {
  it('keeps what throws dust apart from what is wet and needs clean air', () => {
    const muster = smallMuster([
      layer('base', { dryMinutes: 20 }),
      layer('gloss', { family: 'varnish', dryMinutes: 60, air: 'needs-clean' }),
      layer('dust', { family: 'powder', dryMinutes: 30, air: 'contaminates' }),
      layer('seal', { family: 'varnish', dryMinutes: 60 }),
    ]);
    const { plan } = planned(muster);
    const wet = ['p1', 'p2'].map((p) => plan.steps.get(`${p}.gloss`)!);
    const dusty = ['p1', 'p2'].map((p) => plan.steps.get(`${p}.dust`)!);
    for (const w of wet)
      for (const d of dusty) {
        const touch = w.end + 20;
        expect(d.end <= w.start || d.start >= touch).toBe(true);
      }
  });

  it('is nobody’s business where nothing throws dust', () => {
    const { problem } = compile(smallMuster(two({ air: 'needs-clean' })));
    expect(problem.resources!.map((r) => r.id)).not.toContain('air');
  });
});

describe('pieces that go their own way', () => {
  it('wait for the verdict on the pilot', () => {
    const muster = withPieces(smallMuster(two({ isPiloted: true })), (p, k) =>
      k === 1 ? { ...p, isPilot: true } : p,
    );
    const { plan, solution } = planned(muster);
    const done = solution.operations.find((o) => o.id === 'p2!done')!;
    expect(plan.steps.get('p1.effect')!.start).toBeGreaterThanOrEqual(done.end);
    expect(plan.steps.get('p1.base')!.start).toBeLessThan(done.end);
  });

  it('take their substitute, with its own minutes, method and drying', () => {
    const substitute = {
      name: 'By brush',
      family: 'acrylic',
      method: 'brush',
      coats: 2,
      minutes: 4,
      dryMinutes: 90,
    } as const;
    const muster = withPieces(smallMuster(two({ method: 'airbrush', minutes: 2, substitute })), (p, k) =>
      k === 0 ? { ...p, substitutes: ['effect'] } : p,
    );
    const { plan, compiled } = planned(muster);
    expect(plan.steps.get('p1.effect')!.layer).toMatchObject({ name: 'By brush', method: 'brush' });
    expect(plan.steps.get('p1.effect')!.end - plan.steps.get('p1.effect')!.start).toBe(8);
    expect(plan.steps.get('p2.effect')!.layer.method).toBe('airbrush');
    const lag = compiled.problem.lags!.find((l) => l.from === 'p1.effect' && l.to === 'p1.seal')!;
    expect(lag.min).toBe(90);
  });

  it('stop at their level, and begin part-way after repair and seal', () => {
    const base = smallMuster([
      layer('base', { level: 1 }),
      layer('effect'),
      layer('seal', { family: 'varnish' }),
    ]);
    const cut = { ...base, units: base.units.map((u) => ({ ...u, level: 1 })) };
    expect([...compile(cut).steps.keys()]).toEqual(['p1.base', 'p2.base']);
    const late = withPieces(base, (p, k) => (k === 0 ? { ...p, startsAt: 'effect' } : p));
    expect([...compile(late).steps.keys()].filter((id) => id.startsWith('p1'))).toEqual([
      'p1.~repair',
      'p1.~seal',
      'p1.effect',
      'p1.seal',
    ]);
    planned(late);
  });

  it('ask for care where solvent goes on an old piece', () => {
    const muster = withPieces(
      smallMuster([
        layer('base'),
        layer('seal', { family: 'varnish', dryMinutes: 240, sheen: 'satin' }),
        layer('wash', { family: 'enamel' }),
      ]),
      (p) => ({ ...p, startsAt: 'seal' }),
    );
    expect(checkMuster(muster).map((f) => f.rule)).toContain('solvent-on-old');
  });
});

describe('rules over the plan', () => {
  it('look at the hours that are really there between a seal and a solvent wash', () => {
    const stack = (dryMinutes: number): Layer[] => [
      layer('base', { dryMinutes: 10 }),
      layer('seal', { family: 'varnish', dryMinutes, sheen: 'gloss' }),
      layer('wash', { family: 'enamel', dryMinutes: 60 }),
    ];
    const quick = planned(smallMuster(stack(30)));
    const young = checkPlan(quick.plan, quick.compiled).filter((f) => f.rule === 'seal-too-young');
    for (const f of young) expect(quick.plan.steps.get(f.step)!.layer.id).toBe('wash');
    const slow = planned(smallMuster(stack(1000)));
    expect(checkPlan(slow.plan, slow.compiled)).toEqual([]);
  });

  it('tells tape and solvent on what is too young, by the hours that the plan leaves, and cures it by one press', () => {
    const work = (id: string, task: Layer['task']): Layer =>
      layer(id, { family: 'work', task, dryMinutes: 0 });
    const masked = smallMuster([
      layer('prime', { family: 'primer', dryMinutes: 30 }),
      work('tape', 'mask'),
      layer('stripe'),
      work('off', 'unmask'),
    ]);
    const brushed = smallMuster([
      layer('prime', { family: 'primer', dryMinutes: 30 }),
      layer('wash', { family: 'enamel', dryMinutes: 60 }),
    ]);
    for (const [muster, rule] of [
      [masked, 'tape-on-young'],
      [brushed, 'solvent-on-young'],
    ] as const) {
      const { plan, compiled } = planned(muster);
      const found = checkPlan(plan, compiled).find((f) => f.rule === rule)!;
      expect(found.text).toContain('“prime” has dried for');
      const cured = planFix(muster, found)!.apply(muster);
      expect(cured.recipes[0]!.layers[0]!.dryMinutes).toBe(1440);
      const again = planned(cured);
      expect(checkPlan(again.plan, again.compiled).map((f) => f.rule)).not.toContain(rule);
      // A layer that is gone has no cure any more.
      expect(planFix({ ...muster, recipes: [] }, found)).toBeNull();
    }
  });
});

describe('a unit that is late', () => {
  const muster = ((): Muster => {
    const m = smallMuster();
    return { ...m, units: m.units.map((u) => ({ ...u, table: '2027-03-01T20:00' })) };
  })();

  it('says why, from the table back to the start', () => {
    const { compiled, solution, plan } = planned(muster);
    expect(plan.lateMinutes).toBeGreaterThan(0);
    const chain = lateBecause(compiled, solution, plan, 'u');
    expect(chain.length).toBeGreaterThan(2);
    const starts = chain.map((c) => plan.steps.get(c.step!)!.start);
    expect([...starts].sort((a, b) => b - a)).toEqual(starts);
    const kernel = explainer(compiled.problem, solution).chain('u!ready');
    expect(kernel[0]!.operation).toBe('u!ready');
    expect(new Set(kernel.map((k) => k.operation)).size).toBe(kernel.length);
  });

  it('is offered ways out that are sound musters, one of which helps', () => {
    const { plan } = planned(muster);
    const ways = waysOut(muster, ['u'], 0);
    expect(ways.length).toBeGreaterThanOrEqual(4);
    expect(new Set(ways.map((w) => w.id)).size).toBe(ways.length);
    const late = ways.map((w) => {
      const m = w.apply(muster);
      expect(hasErrors(checkMuster(m))).toBe(false);
      const compiled = compile(m);
      return present(m, compiled, solveProblem(compiled.problem, { iterations: 30 })).lateMinutes;
    });
    expect(Math.min(...late)).toBeLessThan(plan.lateMinutes);
    expect(waysOut(muster, [], 0)).toEqual([]);
  });

  it('may leave off an effect, of the late unit alone and never the ground or the seal', () => {
    const fen = fenMuster('2027-03-01');
    for (const unit of fen.units) {
      const ways = waysOut(fen, [unit.id], 0).filter((w) => w.id.startsWith('without-'));
      for (const way of ways) {
        const m = way.apply(fen);
        expect(hasErrors(checkMuster(m))).toBe(false);
        const before = compile(fen).problem.operations.map((o) => o.id);
        const after = new Set(compile(m).problem.operations.map((o) => o.id));
        const gone = before.filter((id) => !after.has(id));
        expect(gone.length).toBeGreaterThan(0);
        const pieces = new Set(unit.pieces.map((p) => p.id));
        expect(gone.every((id) => pieces.has(id.split('.')[0]!))).toBe(true);
        const steps = compile(fen).steps;
        for (const id of gone)
          expect(['primer', 'varnish', 'acrylic']).not.toContain(steps.get(id)!.layer.family);
        expect(m.units.filter((u) => u.id !== unit.id)).toEqual(fen.units.filter((u) => u.id !== unit.id));
      }
    }
    expect(fen.units.some((u) => waysOut(fen, [u.id], 0).some((w) => w.id.startsWith('without-')))).toBe(
      true,
    );
  });

  it('may put half of it off by a week, losing no piece', () => {
    const fen = fenMuster('2027-03-01');
    const unit = fen.units.find((u) => waysOut(fen, [u.id], 0).some((w) => w.id === 'second-wave'))!;
    const m = waysOut(fen, [unit.id], 0)
      .find((w) => w.id === 'second-wave')!
      .apply(fen);
    expect(hasErrors(checkMuster(m))).toBe(false);
    const halves = m.units.filter((u) => u.id.startsWith(unit.id));
    expect(halves).toHaveLength(2);
    expect(halves.flatMap((u) => u.pieces.map((p) => p.id)).sort()).toEqual(
      unit.pieces.map((p) => p.id).sort(),
    );
    expect(halves[1]!.table > halves[0]!.table).toBe(true);
  });
});
