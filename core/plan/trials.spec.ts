/** Work done for the first time: tried on scrap, planned longer; and products that were written off. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import { admit, differences, storesOf, withStores, type Layer, type Muster } from '#core/muster';
import { checkMuster, compile, present } from './index';
import { layer, smallMuster } from './testing';

const first = (part: Partial<Layer> = {}): Muster =>
  smallMuster([
    layer('prime', { family: 'primer' }),
    layer('rust', { minutes: 8, mixture: 'rust 3:1', ...part }),
    layer('matt', { family: 'varnish' }),
  ]);
const findings = (m: Muster, rule: string) => checkMuster(m).filter((f) => f.rule === rule);
const planOf = (m: Muster) => {
  const compiled = compile(m);
  return present(m, compiled, solveProblem(compiled.problem, { iterations: 20 }));
};
const minutes = (m: Muster): number => {
  const step = planOf(m).steps.get('p1.rust')!;
  return step.end - step.start;
};

describe('a layer that is done for the first time', () => {
  const muster = first({ isFirstTime: true });

  it('is planned a quarter longer', () => {
    expect(minutes(first())).toBe(8);
    expect(minutes(muster)).toBe(10);
  });

  it('is asked for a trial, and the cure puts one before the piece that goes ahead', () => {
    const [finding] = findings(muster, 'no-trial');
    expect(finding).toMatchObject({ severity: 'advice', place: { layer: 'rust' } });
    expect(findings(first(), 'no-trial')).toEqual([]);
    expect(finding!.fix).toMatchObject({ addsMinutes: 8, addsDryMinutes: 15 });
    const cured = finding!.fix!.apply(muster);
    expect(findings(cured, 'no-trial')).toEqual([]);
    const plan = planOf(cured);
    const trial = plan.steps.get('p1.~trial-rust')!;
    expect(trial.layer.name).toBe('Trial on scrap: rust');
    expect(plan.steps.get('p1.rust')!.start).toBeGreaterThanOrEqual(trial.end + 15);
    expect(plan.steps.has('p2.~trial-rust')).toBe(false);
  });

  it('is not asked for a trial where the user has said why not', () => {
    const recipes = muster.recipes.map((r) => ({
      ...r,
      silenced: [{ rule: 'no-trial', layer: 'rust', reason: 'tried last week' }],
    }));
    expect(findings({ ...muster, recipes }, 'no-trial')).toEqual([]);
  });

  it('is tried by the pilot, where there is one', () => {
    const [unit] = muster.units;
    const pieces = unit!.pieces.map((p) => ({ ...p, isPilot: p.id === 'p2' }));
    const [finding] = findings({ ...muster, units: [{ ...unit!, pieces }] }, 'no-trial');
    expect(finding!.fix!.label).toBe('Try it on scrap before Ferry 2');
  });

  it('needs no trial any more when it is no longer new: what was planned of it goes', () => {
    const cured = findings(muster, 'no-trial')[0]!.fix!.apply(muster);
    const known: Muster = {
      ...cured,
      recipes: cured.recipes.map((r) => ({
        ...r,
        layers: r.layers.map((l) => (l.id === 'rust' ? { ...l, isFirstTime: false } : l)),
      })),
    };
    const admitted = admit(cured, differences(cured, known));
    expect(admitted.ok && admitted.muster.units[0]!.pieces[0]!.trials).toEqual([]);
  });
});

describe('a product of which was said “never again”', () => {
  it('is told wherever it is mixed, with what may stand for it', () => {
    const muster = withStores(first(), {
      ...storesOf(first()),
      products: [
        {
          id: 'r',
          name: 'Rust',
          family: 'acrylic',
          colour: '#7c4528',
          bottleMl: 17,
          leftMl: 17,
          verdict: 'never',
          character: 'clogs',
          equivalents: [{ id: 'e', madeOf: { parts: [{ id: '1', name: 'Old rust', parts: 1 }] } }],
        },
      ],
    });
    const [told] = findings(muster, 'written-off');
    expect(told).toMatchObject({ place: { layer: 'rust' }, text: expect.stringContaining('clogs') });
    expect(told!.cure).toContain('Old rust');
  });
});
