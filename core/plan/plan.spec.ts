import { describe, expect, it } from 'vitest';
import type { Muster } from '#core/muster';
import { parseProblem, solveProblem, validateSolution } from '#core/kernel';
import { checkMuster, compile, conflictInWords, hasErrors, present, runSheet, whyOf } from './index';
import { layer, smallMuster } from './testing';

function planned(muster: Muster) {
  const compiled = compile(muster);
  const solution = solveProblem(parseProblem(compiled.problem), { iterations: 60 });
  return { compiled, solution, plan: present(muster, compiled, solution) };
}

describe('from muster to plan', () => {
  const muster = smallMuster();
  const { compiled, solution, plan } = planned(muster);

  it('compiles to a problem of the format, whose plan passes the judge', () => {
    expect(validateSolution(compiled.problem, solution).violations).toEqual([]);
    expect(compiled.steps.size).toBe(10);
  });

  it('keeps the chipping window', () => {
    for (const piece of ['p1', 'p2']) {
      const wait = plan.steps.get(`${piece}.top`)!.start - plan.steps.get(`${piece}.medium`)!.end;
      expect(wait).toBeGreaterThanOrEqual(20);
      expect(wait).toBeLessThanOrEqual(60);
      expect(plan.steps.get(`${piece}.medium`)!.gate?.steps).toEqual([`${piece}.top`]);
    }
  });

  it('tells the kernel and the eye the same window: 20 to 60 minutes at the reference air, in slower air as much longer', () => {
    const lag = (c: typeof compiled) =>
      c.problem.lags!.find((l) => l.from === 'p1.medium' && l.to === 'p1.top')!;
    expect(lag(compiled)).toMatchObject({ min: 20, max: 60, clock: 'water' });
    const { gate, end } = plan.steps.get('p1.medium')!;
    expect([gate!.opens - end, gate!.closes! - end, gate!.prefer]).toEqual([20, 60, null]);
    const damp = smallMuster();
    damp.bench.climate.day = damp.bench.climate.night = { celsius: 21, humidityPercent: 75 };
    const slow = planned(damp);
    expect(lag(slow.compiled)).toMatchObject({ min: 20, max: 60 });
    const medium = slow.plan.steps.get('p1.medium')!;
    // Half the vapour pressure deficit: twice the minutes.
    expect(medium.gate!.opens - medium.end).toBe(40);
    expect(medium.gate!.closes! - medium.end).toBe(120);
  });

  it('prices what a painter minds: being late most, then changing over, a window past its best, being done later', () => {
    const { tardiness, setup, overrun, completion } = compiled.problem.objective;
    expect(tardiness!).toBeGreaterThan(setup!);
    expect(setup!).toBeGreaterThan(overrun!);
    expect(overrun!).toBeGreaterThan(completion!);
    expect(completion!).toBeGreaterThan(0);
  });

  it('takes up a wash by its better-by minute where the evening allows it', () => {
    const soft = smallMuster([
      layer('wash', {
        family: 'enamel',
        dryMinutes: 5,
        window: { opensMinutes: 5, closesMinutes: null, preferMinutes: 30, through: null },
      }),
      layer('wipe', { family: 'work', task: 'wipe', dryMinutes: 0 }),
    ]);
    for (const s of planned(soft).plan.steps.values())
      if (s.layer.id === 'wash') {
        const wipe = planned(soft).plan.steps.get(`${s.piece.id}.wipe`)!;
        expect(wipe.start).toBeLessThanOrEqual(s.gate!.prefer!);
      }
  });

  it('works only under a lamp, and says how busy hands are', () => {
    for (const s of plan.steps.values())
      expect(
        plan.sessions.some((x) => s.start - s.setup >= x.start && s.end <= x.end) || s.layer.pausable,
      ).toBe(true);
    for (const s of plan.sessions) {
      expect(s.busy).toBeLessThanOrEqual(1);
      // Of one person's minutes the share that is work or set-up; what is paused over night counts where it is worked on.
      const worked = s.steps.reduce((sum, x) => sum + Math.min(x.end, s.end) - (x.start - x.setup), 0);
      const isWhole = plan.sessions.every((o) => o.steps.every((x) => x.end <= o.end));
      if (isWhole) expect(s.busy).toBeCloseTo(worked / (s.end - s.start), 9);
    }
    // Evenings are lit up to the last work and the last table date, and no farther.
    const [unit] = plan.units;
    expect(plan.sessions.length).toBeGreaterThan(2);
    expect(plan.sessions.at(-1)!.start).toBeLessThan(unit!.due);
    expect(plan.sessions.at(-1)!.end + 1440).toBeGreaterThan(unit!.due);
    const late = smallMuster();
    const short = planned({ ...late, units: late.units.map((u) => ({ ...u, table: '2027-03-01T19:10' })) });
    const last = Math.max(...[...short.plan.steps.values()].map((x) => x.end));
    expect(short.plan.sessions.at(-1)!.end).toBeGreaterThanOrEqual(last);
    expect(short.plan.sessions.at(-1)!.start).toBeLessThan(last);
    expect(plan.units[0]!.lateMinutes).toBe(0);
  });

  it('says why a step is not sooner', () => {
    const why = whyOf(compiled, solution, plan)('p1.top');
    expect(why.reasons.map((r) => r.text).join(' ')).toMatch(/medium|busy/);
    expect(why.holdsUp.join(' ')).toContain('chip');
  });

  it('has a sheet a session, with cautions where paint is sprayed', () => {
    const index = plan.sessions.findIndex((s) => s.steps.some((x) => x.layer.id === 'prime'));
    const sheet = runSheet(plan, index);
    expect(sheet.entries[0]!.verb).toBe('Spray');
    expect(sheet.entries[0]!.cautions.join()).toContain('respirator');
    expect(sheet.entries.flatMap((e) => e.pieces).length).toBe(sheet.session.steps.length);
    expect(() => runSheet(plan, 99)).toThrow(RangeError);
  });

  it('covers a group of layers with one window', () => {
    const group = smallMuster([
      layer('medium', {
        family: 'medium',
        window: { opensMinutes: 20, closesMinutes: 90, preferMinutes: null, through: 'second' },
      }),
      layer('first'),
      layer('second'),
    ]);
    const { plan: p } = planned(group);
    for (const piece of ['p1', 'p2'])
      expect(p.steps.get(`${piece}.second`)!.start - p.steps.get(`${piece}.medium`)!.end).toBeLessThanOrEqual(
        90,
      );
  });

  it('slows drying in damp air', () => {
    const damp = { celsius: 21, humidityPercent: 75 };
    const m = smallMuster([layer('coat', { dryMinutes: 30 }), layer('next')]);
    const wet = { ...m, bench: { ...m.bench, climate: { ...m.bench.climate, day: damp, night: damp } } };
    const { plan: p } = planned(wet);
    expect(p.steps.get('p1.next')!.start - p.steps.get('p1.coat')!.end).toBeGreaterThanOrEqual(60);
  });

  it('puts a joined part on after it is done', () => {
    const m = smallMuster();
    m.units[0]!.pieces[1]!.joins = { piece: 'p1', layer: 'seal' };
    const { plan: p } = planned(m);
    expect(p.steps.get('p1.seal')!.start).toBeGreaterThanOrEqual(p.steps.get('p2.seal')!.end + 240);
  });
});

describe('a part that is glued late', () => {
  const joined = (glue?: { minutes: number; dryMinutes: number }) => {
    const m = smallMuster();
    m.units[0]!.pieces[1]!.joins = { piece: 'p1', layer: 'seal', ...(glue ? { glue } : {}) };
    return planned(m).plan.steps;
  };

  it('is glued once what the layer goes over is on and dry, and the layer waits for the glue', () => {
    const steps = joined({ minutes: 4, dryMinutes: 30 });
    const glue = steps.get('p2.~glue')!;
    expect(glue.layer.task).toBe('glue');
    expect(glue.start).toBeGreaterThanOrEqual(steps.get('p1.chip')!.end);
    expect(glue.start).toBeGreaterThanOrEqual(steps.get('p2.seal')!.end + 240);
    expect(steps.get('p1.seal')!.start).toBeGreaterThanOrEqual(glue.end + 30);
  });

  it('has no such step where nothing is said of glue', () => {
    expect([...joined().keys()].filter((id) => id.includes('glue'))).toEqual([]);
  });

  it('by a gluing layer of its own recipe waits for its host as well', () => {
    const m = smallMuster();
    const [recipe] = m.recipes;
    const own = [layer('coat'), layer('stick', { family: 'work', task: 'glue', dryMinutes: 60 })];
    m.recipes.push({ ...recipe!, id: 'part', name: 'Part', layers: own });
    Object.assign(m.units[0]!.pieces[1]!, { recipe: 'part', joins: { piece: 'p1', layer: 'seal' } });
    const { steps } = planned(m).plan;
    expect(steps.get('p2.stick')!.start).toBeGreaterThanOrEqual(steps.get('p1.chip')!.end);
    // What comes before the gluing needs no host.
    expect(steps.get('p2.coat')!.start).toBeLessThan(steps.get('p1.chip')!.end);
  });
});

describe('what can’t be planned', () => {
  const rules = (m: Muster): string[] =>
    checkMuster(m)
      .filter((f) => f.severity === 'error')
      .map((f) => f.rule);
  const changed = (edit: (m: Muster) => void): Muster => {
    const m = structuredClone(smallMuster());
    edit(m);
    return m;
  };

  it.each<[string, string, (m: Muster) => void]>([
    [
      'a recipe whose layers wait for each other',
      'recipe-circle',
      (m) => m.recipes[0]!.layers[0]!.waitsFor.push('seal'),
    ],
    [
      'a window shorter than the drying',
      'window-too-short',
      (m) => (m.recipes[0]!.layers[1]!.window!.closesMinutes = 10),
    ],
    [
      'a session that ends before it starts',
      'session-ends-before-start',
      (m) => (m.bench.weekly[0]!.to = '18:00'),
    ],
    ['a piece with no recipe', 'piece-without-recipe', (m) => (m.units[0]!.pieces[0]!.recipe = null)],
    ['a table date in the past', 'table-date-past', (m) => (m.units[0]!.table = '2027-02-01T12:00')],
    [
      'no session before the table date',
      'no-session-before-table',
      (m) => (m.units[0]!.table = '2027-03-01T18:30'),
    ],
    [
      'a layer longer than any session',
      'layer-longer-than-session',
      (m) => (m.recipes[0]!.layers[0]!.minutes = 150),
    ],
    ['a tray larger than the rack', 'rack-too-small', (m) => (m.units[0]!.pieces[0]!.places = 7)],
    ['nobody at the bench', 'bench-no-hands', (m) => (m.bench.people = [])],
    [
      'a part that joins itself',
      'join-circle',
      (m) => {
        m.units[0]!.pieces[0]!.joins = { piece: 'p2', layer: 'seal' };
        m.units[0]!.pieces[1]!.joins = { piece: 'p1', layer: 'seal' };
      },
    ],
    ['an empty unit', 'unit-empty', (m) => (m.units[0]!.pieces = [])],
    [
      'a window that nothing follows',
      'window-without-next',
      (m) => (m.recipes[0]!.layers[4]!.window = m.recipes[0]!.layers[1]!.window),
    ],
  ])('%s is told at its place, with a cure', (_, rule, edit) => {
    const m = changed(edit);
    expect(rules(m)).toContain(rule);
    const finding = checkMuster(m).find((f) => f.rule === rule)!;
    expect(finding.where.length).toBeGreaterThan(3);
    expect(finding.cure).toMatch(/\.$/);
  });

  it('a right muster has no errors', () => expect(hasErrors(checkMuster(smallMuster()))).toBe(false));

  it('a window that shuts while the bench is shut is proved impossible, in layers’ names', () => {
    const m = smallMuster([
      layer('medium', {
        family: 'medium',
        dryMinutes: 300,
        window: { opensMinutes: 300, closesMinutes: 420, preferMinutes: null, through: null },
      }),
      layer('top'),
    ]);
    const compiled = compile(m);
    const solution = solveProblem(compiled.problem, { iterations: 10 });
    expect(solution.status).toBe('infeasible');
    const text = conflictInWords(solution.conflict!, compiled, m);
    expect(text).toContain('medium');
    expect(text).not.toContain('p1.');
  });
});
