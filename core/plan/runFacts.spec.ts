/** What a run is told to be: names, units, what to look over before it can no longer be changed. */
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import type { Muster } from '#core/muster';
import { compile, factsOfRun, present, type PlanStep } from './index';
import { layer, smallMuster } from './testing';

const LAYERS = [
  layer('prime', { family: 'primer', method: 'airbrush', note: 'thin first' }),
  layer('base', { zones: ['z'], coats: 2, applicator: 'flat brush', judgeFrom: 'wash' }),
  layer('wash', { family: 'acrylic-wash', judgeBy: 'the raised edges' }),
  layer('chip', { family: 'work', task: 'lift', dryMinutes: 0 }),
  layer('coat', { family: 'varnish', sheen: 'gloss', dryMinutes: 60 }),
  layer('matt', { family: 'varnish', sheen: 'matt', dryMinutes: 60 }),
  layer('dust', { family: 'powder' }),
];

function stepsOf(id: string, change: (m: Muster) => Muster = (m) => m): PlanStep[] {
  const plain = smallMuster(LAYERS);
  const m = change({
    ...plain,
    units: plain.units.map((u) => ({ ...u, details: [{ id: 'd', name: 'Stern lamp' }] })),
  });
  const compiled = compile(m);
  const plan = present(m, compiled, solveProblem(compiled.problem, { iterations: 1 }));
  return [...plan.steps.values()].filter((s) => s.layer.id === id);
}
const lookOver = (id: string): readonly string[][] =>
  factsOfRun(stepsOf(id)).lookOver.map((l) => [l.unit, ...l.details]);

describe('a run', () => {
  it('has what its layers say, each once, for all its pieces', () => {
    const facts = factsOfRun(stepsOf('base'));
    expect(facts).toMatchObject({
      name: 'base',
      hasNames: false,
      units: ['Ferries'],
      zones: ['Sides'],
      coats: [2, 2],
      applicators: ['flat brush'],
      judge: ['Looks wrong on purpose: judge it only after “wash”.'],
      who: null,
      tool: null,
    });
    expect(factsOfRun(stepsOf('prime'))).toMatchObject({ notes: ['thin first'], zones: [] });
    expect(factsOfRun(stepsOf('wash')).judge).toEqual(['Judge it: the raised edges.']);
  });

  it('says so where its layers go by several names', () => {
    const facts = factsOfRun([...stepsOf('base'), ...stepsOf('wash')]);
    expect(facts.hasNames).toBe(true);
    expect(facts.name).toBe('base and wash');
  });
});

describe('what is looked over', () => {
  it('is nothing where nothing is final yet', () => {
    for (const id of ['prime', 'base', 'wash', 'coat']) expect(lookOver(id)).toEqual([]);
  });

  it('is the coat before the first chip, without the details of the unit', () => {
    expect(lookOver('chip')).toEqual([
      ['Ferries', 'the coat even and without bare spots', 'a trial on one edge that will not be seen'],
    ]);
  });

  it('is every detail, and that nothing is left to paint, before the last seal and not before another', () => {
    const [unit] = lookOver('matt');
    expect(unit!.slice(0, 2)).toEqual(['Ferries', 'Stern lamp']);
    expect(unit).toContain('nothing left to paint beneath it');
    expect(unit).toHaveLength(5);
  });

  it('is every detail before the last layer of all, once for each unit', () => {
    expect(lookOver('dust')).toEqual([['Ferries', 'Stern lamp']]);
    const two = stepsOf('dust', (m) => ({
      ...m,
      units: [
        m.units[0]!,
        {
          ...m.units[0]!,
          id: 'b',
          name: 'Barges',
          details: [],
          pieces: m.units[0]!.pieces.map((p) => ({ ...p, id: `b${p.id}` })),
        },
      ],
    }));
    expect(factsOfRun(two).units).toEqual(['Ferries', 'Barges']);
    expect(factsOfRun(two).lookOver.map((l) => l.unit)).toEqual(['Ferries']);
  });
});
