/** Several people at one bench: who may do what, when each is there, and who does which step. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseProblem, solveProblem, type Problem } from '#core/kernel';
import { presenceOf, type Layer, type Muster, type Person } from '#core/muster';
import { checkMuster } from './checkMuster';
import { compile } from './compile';
import { mayDo } from './hands';
import { present, type Plan } from './present';
import { runsOf } from './runs';
import { layer, smallMuster } from './testing';
import { whoDoes, type Working } from './who';

const layers = [
  layer('prime', { family: 'primer', method: 'airbrush', dryMinutes: 60 }),
  layer('base', { minutes: 10 }),
  layer('oil', { family: 'oil', minutes: 6, dryMinutes: 600 }),
  layer('detail', { minutes: 15, dryMinutes: 10 }),
];
const ME: Person = { id: 'me', name: 'Me' };
const PIM: Person = { id: 'pim', name: 'Pim', may: 'careful' };

function musterOf(people: Person[], pieces = 4): Muster {
  const muster = smallMuster(layers);
  const [unit] = muster.units;
  return {
    ...muster,
    bench: { ...muster.bench, people, rackPlaces: 40 },
    units: [
      {
        ...unit!,
        table: '2027-03-12T12:00',
        pieces: Array.from({ length: pieces }, (_, k) => ({
          ...unit!.pieces[0]!,
          id: `p${k}`,
          name: `Ferry ${k}`,
        })),
      },
    ],
  };
}

function planOf(muster: Muster): Plan {
  const compiled = compile(muster);
  return present(muster, compiled, solveProblem(compiled.problem, { iterations: 80 }));
}

describe('what a helper may do', () => {
  it('is brush, sponge and hand with what water thins, and nothing with blade, glue, dust, solvent or spray', () => {
    expect(mayDo('careful', layer('a'))).toBe(true);
    expect(mayDo('careful', layer('a', { family: 'work', method: 'hand' }))).toBe(true);
    for (const forbidden of [
      { method: 'airbrush' },
      { method: 'can' },
      { family: 'enamel' },
      { family: 'oil' },
      { family: 'lacquer' },
      { task: 'mask' },
      { task: 'decal' },
      { task: 'glue' },
      { task: 'polish' },
    ] as const) {
      expect(mayDo('careful', layer('a', forbidden))).toBe(false);
      expect(mayDo('all', layer('a', forbidden))).toBe(true);
    }
  });
});

describe('two at the bench', () => {
  const muster = musterOf([ME, PIM]);
  const plan = planOf(muster);
  const steps = [...plan.steps.values()];

  it('work at the same time, but the helper at nothing that is not for helpers', () => {
    const both = steps.some((a) => steps.some((b) => a !== b && a.start < b.end && b.start < a.end));
    expect(both).toBe(true);
    for (const step of steps) {
      const hands = [step.doer!.who, ...step.doer!.handovers.map((h) => h.to)];
      if (!mayDo('careful', step.layer)) expect(hands).toEqual(['Me']);
    }
    expect(new Set(steps.map((s) => s.doer!.who))).toEqual(new Set(['Me', 'Pim']));
  });

  it('never do two things at once, each of them', () => {
    for (const name of ['Me', 'Pim']) {
      const spans = steps.flatMap((s) => {
        const marks = [{ at: s.start - s.setup, who: s.doer!.who }];
        for (const h of s.doer!.handovers) marks.push({ at: h.at, who: h.to });
        return marks.flatMap((m, k) => (m.who === name ? [[m.at, marks[k + 1]?.at ?? s.end] as const] : []));
      });
      spans.sort((a, b) => a[0] - b[0]);
      for (let k = 1; k < spans.length; k++) expect(spans[k]![0]).toBeGreaterThanOrEqual(spans[k - 1]![1]);
    }
  });

  it('never share the one airbrush', () => {
    const sprays = steps.filter((s) => s.layer.method === 'airbrush').sort((a, b) => a.start - b.start);
    for (let k = 1; k < sprays.length; k++)
      expect(sprays[k]!.start - sprays[k]!.setup).toBeGreaterThanOrEqual(sprays[k - 1]!.end);
  });

  it('have runs of their own', () => {
    for (const { steps: inSession } of plan.sessions)
      for (const run of runsOf(inSession)) expect(new Set(run.map((s) => s.doer!.who)).size).toBe(1);
  });

  it('have their runs counted on the one who may do everything', () => {
    const { problem } = compile(muster);
    expect(problem.resources!.filter((r) => r.runs).map((r) => r.id)).toEqual(['skilled']);
  });
});

describe('who takes what', () => {
  const step = (id: string, start: number, minutes: number, of: Layer): Working => ({
    id,
    start,
    end: start + minutes,
    setup: 0,
    layer: of,
    layerIndex: 0,
    round: 1,
    rounds: 1,
    clock: null,
    tool: null,
    unit: muster.units[0]!,
    piece: muster.units[0]!.pieces[0]!,
    recipe: muster.recipes[0]!,
  });
  const muster = musterOf([ME, PIM]);
  const [spray, brush, dots] = [
    layer('spray', { method: 'airbrush' }),
    layer('brush', { mixture: 'a' }),
    layer('dots', { mixture: 'b' }),
  ];
  const names = (steps: readonly Working[]): string[] => {
    const doers = whoDoes(muster, steps, 3);
    return steps.map((s) => doers.get(s.id)!.who);
  };

  it('helpers take what they may, so that the others are free for the rest', () => {
    expect(names([step('a', 1140, 30, brush), step('b', 1145, 10, spray)])).toEqual(['Pim', 'Me']);
  });

  it('the same load goes on in the same hands', () => {
    const steps = [
      step('a', 1140, 20, brush),
      step('b', 1141, 5, dots),
      step('c', 1160, 5, dots),
      step('d', 1166, 5, brush),
    ];
    expect(names(steps)).toEqual(['Pim', 'Me', 'Me', 'Pim']);
  });

  it('a helper takes over where only the other may do what comes next', () => {
    const steps = [step('a', 1140, 10, dots), step('b', 1141, 40, brush), step('c', 1155, 5, spray)];
    const doers = whoDoes(muster, steps, 3);
    expect(doers.get('b')).toEqual({ who: 'Me', handovers: [{ at: 1155, to: 'Pim' }] });
    expect(doers.get('c')!.who).toBe('Me');
  });
});

describe('own hours and days away', () => {
  it('bind: nothing is done by hands that are not there', () => {
    const pim: Person = {
      ...PIM,
      hours: [{ id: 'h', weekday: 3, from: '19:30', to: '20:30' }],
      away: [{ id: 'a', from: '2027-03-10', to: '2027-03-10' }],
    };
    const me: Person = { ...ME, away: [{ id: 'a', from: '2027-03-01', to: '2027-03-02' }] };
    const muster = musterOf([me, pim]);
    const plan = planOf(muster);
    const there = new Map(
      [me, pim].map((p) => [p.name, presenceOf(muster, p, 30).map((s) => [s.start, s.end] as const)]),
    );
    // Wednesday the third is Pim's; the tenth is not.
    expect(there.get('Pim')![0]).toEqual([2 * 1440 + 1170, 2 * 1440 + 1230]);
    expect(there.get('Pim')!.some(([a]) => Math.floor(a / 1440) === 9)).toBe(false);
    for (const s of plan.steps.values())
      for (const minute of [s.start, s.end - 1]) {
        const present = [...there].filter(([, spans]) => spans.some(([a, b]) => a <= minute && minute < b));
        expect(present.length).toBeGreaterThan(0);
        if (!mayDo('careful', s.layer)) expect(present.map(([name]) => name)).toContain('Me');
      }
  });
});

describe('findings', () => {
  const rules = (muster: Muster): string[] => checkMuster(muster).map((f) => f.rule);

  it('name a layer that nobody may do, and a helper who can do nothing', () => {
    expect(rules(musterOf([PIM]))).toContain('layer-nobody-may');
    expect(rules(musterOf([ME, PIM]))).not.toContain('layer-nobody-may');
    const never: Person = { ...PIM, hours: [{ id: 'h', weekday: 1, from: '06:00', to: '07:00' }] };
    expect(rules(musterOf([ME, never]))).toContain('helper-idle');
    expect(rules(musterOf([ME, PIM]))).not.toContain('helper-idle');
  });
});

/** A pool within a pool, and one of its hands away for a while, small enough to try every start. */
const tiny = fc
  .record({
    minutes: fc.tuple(...Array.from({ length: 4 }, () => fc.integer({ min: 1, max: 4 }))),
    isSkilled: fc.tuple(fc.boolean(), fc.boolean(), fc.boolean(), fc.boolean()),
    away: fc.integer({ min: 0, max: 8 }),
    length: fc.integer({ min: 1, max: 5 }),
    isSkilledAway: fc.boolean(),
  })
  .map((r) => {
    const uses = (skilled: boolean): { resource: string; amount: number }[] =>
      ['hands', ...(skilled ? ['skilled'] : [])].map((resource) => ({ resource, amount: 1 }));
    return parseProblem({
      format: 'muster-problem/1',
      horizon: 24,
      resources: [
        { id: 'hands', capacity: 2 },
        { id: 'skilled', capacity: 1 },
      ],
      operations: [
        ...r.minutes.map((minutes, k) => ({ id: `o${k}`, minutes, uses: uses(r.isSkilled[k]!) })),
        { id: 'away', minutes: r.length, uses: uses(r.isSkilledAway) },
      ],
      objective: { makespan: 1 },
      fixed: [{ id: 'away', start: r.away, end: r.away + r.length }],
    });
  });

/** The least makespan by trying every start of every operation, minute by minute, counting hands. */
function byTrying(problem: Problem): number {
  const hands = new Int8Array(40);
  const skilled = new Int8Array(40);
  const [absence] = problem.fixed!;
  let best = Infinity;
  const put = (k: number, start: number, by: number): void => {
    const o = problem.operations[k]!;
    for (let t = start; t < start + o.minutes; t++) {
      hands[t]! += by;
      if (o.uses!.length > 1) skilled[t]! += by;
    }
  };
  put(4, absence!.start, 1);
  const go = (k: number, end: number): void => {
    if (end >= best) return;
    if (k === 4) {
      best = end;
      return;
    }
    const { minutes } = problem.operations[k]!;
    for (let start = 0; start + minutes <= problem.horizon; start++) {
      put(k, start, 1);
      if (hands.every((n) => n <= 2) && skilled.every((n) => n <= 1))
        go(k + 1, Math.max(end, start + minutes));
      put(k, start, -1);
    }
  };
  go(0, absence!.end);
  return best;
}

describe('a pool of hands within another', () => {
  it('is planned as well as by trying everything', () => {
    fc.assert(
      fc.property(tiny, (problem) => {
        const solution = solveProblem(problem, { iterations: 300 });
        expect(solution.cost!.makespan).toBe(byTrying(problem));
      }),
      { numRuns: 25 },
    );
  });
});
