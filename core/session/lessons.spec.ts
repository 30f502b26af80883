/** From the log to better figures and to a card that can be followed again. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { solveProblem } from '#core/kernel';
import {
  asNominal,
  instantAfter,
  estimateWords,
  musterSchema,
  nominalOf,
  originOf,
  withEstimate,
  type Muster,
} from '#core/muster';
import { checkMuster, compile, hasErrors, present } from '#core/plan';
import { layer, smallMuster } from '../plan/testing';
import type { LogEntry } from '#core/log';
import {
  dryingLessons,
  handsLessons,
  pacesOf,
  pieceCards,
  pose,
  recipeOf,
  taught,
  withDryingLesson,
  withHands,
  withHandsLesson,
  withoutLessons,
} from './index';
import { shareDried } from './lessons';

const muster: Muster = smallMuster([
  layer('base', { mixture: 'grey', minutes: 10, dryMinutes: 30 }),
  layer('shade', { family: 'acrylic-wash', mixture: 'umber shade', minutes: 4, dryMinutes: 40 }),
  layer('seal', { family: 'varnish', mixture: 'matt', minutes: 5, dryMinutes: 60 }),
]);
const origin = originOf(muster);
const { steps, clocks, problem } = compile(muster);
const plan = present(muster, compile(muster), solveProblem(problem, { iterations: 20 }));
const at = (minute: number): string => instantAfter(origin, minute);
let count = 0;
const entry = (minute: number, part: Record<string, unknown>): LogEntry =>
  ({ id: `e${++count}`, at: at(minute), ...part }) as LogEntry;
const done = (step: string, minute: number, part: Record<string, unknown> = {}): LogEntry =>
  entry(minute, { kind: 'done', step, minutes: 10, ...part });

describe('a figure', () => {
  const plain = layer('x', { minutes: 5, dryMinutes: 30 });

  it('says where it comes from, and can be nominal again', () => {
    expect(estimateWords(plain.dryFrom)).toBe('nominal');
    const mine = withEstimate(plain, 'dryMinutes', 45);
    expect(estimateWords(mine.dryFrom)).toBe('yours');
    const taught = withEstimate(mine, 'dryMinutes', 52, 12);
    expect(estimateWords(taught.dryFrom)).toBe('learned from 12');
    expect(nominalOf(taught, 'dryMinutes')).toBe(30);
    expect(asNominal(taught, 'dryMinutes')).toEqual(plain);
  });

  it('never loses its nominal value, whatever is set in whatever order', () => {
    const change = fc.record({
      figure: fc.constantFrom('minutes' as const, 'dryMinutes' as const),
      value: fc.integer({ min: 1, max: 900 }),
      from: fc.option(fc.integer({ min: 1, max: 50 }), { nil: undefined }),
    });
    fc.assert(
      fc.property(fc.array(change), (changes) => {
        const changed = changes.reduce((l, c) => withEstimate(l, c.figure, c.value, c.from), plain);
        expect(nominalOf(changed, 'minutes')).toBe(5);
        expect(nominalOf(changed, 'dryMinutes')).toBe(30);
        expect(asNominal(asNominal(changed, 'minutes'), 'dryMinutes')).toEqual(plain);
        const m = smallMuster([changed]);
        expect(musterSchema.safeParse(m).success).toBe(true);
      }),
    );
  });
});

describe('lessons of drying', () => {
  // The bench is at 21 °C and 50 %: a minute of the clock is a nominal minute.
  const slow = ['p1', 'p2'].flatMap((p) => [
    done(`${p}.base`, 1200),
    entry(1236, { kind: 'not-dry', step: `${p}.base`, moreMinutes: 10 }),
    entry(1254, { kind: 'dry', step: `${p}.base` }),
  ]);

  it('come from looks between “not yet” and “dry”, against the nominal figure', () => {
    const [lesson] = dryingLessons(slow, steps, clocks, origin);
    expect(lesson).toMatchObject({ product: 'grey', family: 'acrylic', looks: 4, relatives: 0 });
    // Not dry at 1.2, dry at 1.8 of nominal.
    expect(lesson!.median).toBeGreaterThan(1.2);
    expect(lesson!.median).toBeLessThan(1.8);
  });

  it('are used on that product alone, and give the same when asked again', () => {
    const [lesson] = dryingLessons(slow, steps, clocks, origin);
    const taught = withDryingLesson(muster, lesson!);
    const [base, shade, seal] = taught.recipes[0]!.layers;
    expect(base!.dryMinutes).toBe(Math.round(30 * lesson!.median));
    expect(estimateWords(base!.dryFrom)).toBe('learned from 4');
    expect([shade, seal]).toEqual(muster.recipes[0]!.layers.slice(1));
    const again = dryingLessons(slow, compile(taught).steps, clocks, origin);
    expect(again[0]!.median).toBeCloseTo(lesson!.median, 9);
    expect(withDryingLesson(taught, again[0]!)).toEqual(taught);
    expect(withoutLessons(taught)).toEqual(muster);
  });

  it('do not come from looks at what was never put on, or was taken back', () => {
    const look = entry(1300, { kind: 'dry', step: 'p1.base' });
    expect(dryingLessons([look], steps, clocks, origin)).toEqual([]);
    const first = done('p1.base', 1200);
    const back = entry(1310, { kind: 'taken-back', entry: first.id });
    expect(dryingLessons([first, look, back], steps, clocks, origin)).toEqual([]);
  });
});

describe('the share of its drying that has gone by', () => {
  const of = steps.get('p1.base')!;

  it('is counted by its clock, or by the wall where it has none', () => {
    expect(shareDried({ ...of, clock: null }, clocks, 100, 115)).toBeCloseTo(0.5, 9);
    const twice = new Map([
      [
        'fast',
        [
          [0, 0],
          [1000, 2000],
        ] as const,
      ],
    ]) as unknown as typeof clocks;
    expect(shareDried({ ...of, clock: 'fast' }, twice, 100, 115)).toBeCloseTo(1, 9);
    expect(shareDried({ ...of, clock: 'unknown' }, clocks, 100, 115)).toBeCloseTo(0.5, 9);
  });

  it('is nothing where nothing dries, or no time went by', () => {
    expect(shareDried({ ...of, clock: null }, clocks, 100, 100)).toBeNull();
    expect(
      shareDried({ ...of, clock: null, layer: { ...of.layer, dryMinutes: 0 } }, clocks, 0, 9),
    ).toBeNull();
  });
});

describe('lessons of the hands', () => {
  it('come from measured minutes only', () => {
    expect(handsLessons([done('p1.base', 1200, { minutes: 30 })], steps)).toEqual([]);
    const measured = ['p1', 'p2'].map((p, k) =>
      done(`${p}.base`, 1200 + 20 * k, { minutes: 20, isMeasured: true, nth: k + 1 }),
    );
    const [lesson] = handsLessons(measured, steps);
    expect(lesson).toMatchObject({ recipe: 'r', layer: 'base', logged: 2 });
    expect(lesson!.median).toBeGreaterThan(1.3);
    const taught = withHandsLesson(muster, lesson!, 2);
    expect(taught.recipes[0]!.layers[0]!.minutes).toBeGreaterThan(13);
    expect(estimateWords(taught.recipes[0]!.layers[0]!.minutesFrom)).toBe('learned from 2');
    expect(handsLessons(measured, compile(taught).steps)[0]!.median).toBeCloseTo(lesson!.median, 9);
    expect(hasErrors(checkMuster(taught))).toBe(false);
    expect(withoutLessons(taught)).toEqual(muster);
  });
});

describe('two at the bench', () => {
  const helped = {
    ...muster,
    bench: {
      ...muster.bench,
      people: [
        { id: 'me', name: 'Me' },
        { id: 'you', name: 'You' },
      ],
    },
  };
  // Each has done the layer four times, one in half the time of the other.
  const log = [8, 16].flatMap((minutes, k) =>
    [0, 1, 2, 3].map((n) =>
      done(`p${(n % 2) + 1}.base`, 1200 + 1440 * n + 30 * k, {
        minutes,
        isMeasured: true,
        people: [k === 0 ? 'Me' : 'You'],
      }),
    ),
  );
  const names = new Map([
    ['p1.base', 'Me'],
    ['p2.base', 'You'],
  ]);
  const minutesOf = (m: typeof helped): (number | undefined)[] => {
    const posed = pose(m, [], null);
    const { operations } = withHands({ ...posed, paces: pacesOf(m, log, posed.steps) }, names).problem;
    return ['p1.base', 'p2.base'].map((id) => operations.find((o) => o.id === id)!.minutes);
  };

  it('are planned each with their own minutes, as the log has measured them', () => {
    const [mine, yours] = minutesOf(helped);
    const mean = pose(helped, [], null).problem.operations.find((o) => o.id === 'p1.base')!.minutes;
    expect(mine!).toBeLessThan(mean);
    expect(yours!).toBeGreaterThan(mean);
  });

  it('are planned alike where the bench is told not to use its lessons, or works alone', () => {
    const [mine, yours] = minutesOf({ ...helped, bench: { ...helped.bench, usesLessons: false } });
    expect(mine).toBe(yours);
    expect(pacesOf(muster, log, steps).size).toBe(0);
  });
});

describe('the card of a piece', () => {
  const log: LogEntry[] = [
    done('p1.base', 1200, {
      mixture: 'grey 2.10 ml (42 drops)',
      air: { celsius: 20.6, humidityPercent: 51 },
      people: ['Me'],
    }),
    entry(1205, {
      kind: 'rework',
      step: 'p1.base',
      trouble: 'Pooled',
      cure: 'Wick it at once',
      minutes: 2,
      dryMinutes: 10,
    }),
    entry(1206, { kind: 'picture', step: 'p1.base', data: 'data:image/jpeg;base64,AAAA' }),
    entry(1207, { kind: 'noted', step: 'p1.base', note: 'a second thin pass at the lip' }),
    entry(1250, { kind: 'skipped', step: 'p1.shade' }),
    done('p1.seal', 1300),
  ];

  it('has mixes, air, people, corrections, notes and pictures in order', () => {
    const [card] = pieceCards(log, steps, 'UTC');
    expect(card!.lines).toEqual([
      '2027-03-01 base: brush, grey 2.10 ml (42 drops), 10 min, 21 °C, 51 %, Me',
      '2027-03-01 base: corrected: Pooled → Wick it at once',
      '2027-03-01 base: a second thin pass at the lip',
      '2027-03-01 shade: left off',
      '2027-03-01 seal: brush, matt, 10 min',
    ]);
    expect(card!.pictures).toHaveLength(1);
  });

  it('becomes a recipe of what was really put on, sound and without what was left off', () => {
    const [card] = pieceCards(log, steps, 'UTC');
    const recipe = recipeOf(card!, 'new');
    expect(recipe.layers.map((l) => l.id)).toEqual(['base', 'seal']);
    expect(recipe.layers[0]!.note).toContain('grey 2.10 ml');
    expect(recipe.layers[0]!.note).toContain('Corrected: Pooled');
    const m = { ...muster, recipes: [...muster.recipes, recipe] };
    expect(musterSchema.safeParse(m).success).toBe(true);
    expect(hasErrors(checkMuster(m))).toBe(false);
  });

  it('has the minutes, the mixture, the film and the drying that were, not those that were planned', () => {
    const own: LogEntry[] = [
      done('p1.base', 1200, {
        minutes: 25,
        isMeasured: true,
        used: [
          { name: 'grey', ml: 1.5 },
          { name: 'water', ml: 0.52 },
        ],
        about: {
          unit: 'u',
          piece: 'p',
          recipe: 'r',
          layer: 'base',
          family: 'acrylic',
          method: 'brush',
          mixture: 'grey',
          coats: 2,
          film: 'wet',
        },
      }),
      entry(1290, { kind: 'dry', step: 'p1.base' }),
    ];
    const [card] = pieceCards(own, steps, 'UTC', { clocks, origin });
    const [base] = recipeOf(card!, 'new').layers;
    expect(base).toMatchObject({ mixture: 'grey, water 3:1', coats: 2, film: 'wet' });
    // Two coats in twenty-five minutes.
    expect(base!.minutes).toBeCloseTo(12.5, 1);
    expect(estimateWords(base!.minutesFrom)).toBe('learned from 1');
    // Ninety minutes went by, by its own clock; it was to take thirty.
    const share = card!.done[0]!.driedAt!;
    expect(share).toBeGreaterThan(2);
    expect(base!.dryMinutes).toBe(Math.round(30 * share));
    // What was as planned stays as it was written.
    const plain = pieceCards([done('p1.base', 1200, { used: [{ name: 'grey', ml: 2 }] })], steps, 'UTC')[0]!;
    expect(recipeOf(plain, 'new').layers[0]).toMatchObject({ mixture: 'grey', minutes: 10, dryMinutes: 30 });
  });

  it('is kept apart for each piece, by name, also of pieces that only the log remembers; of what nobody can tell there is none', () => {
    const about = {
      unit: 'Barges',
      piece: 'Barge',
      recipe: 'r',
      layer: 'base',
      family: 'acrylic',
      method: 'brush',
      mixture: 'grey',
      coats: 1,
      film: '',
    };
    const cards = pieceCards(
      [
        done('p2.base', 1200),
        done('gone.base', 1210, { about }),
        done('p1.base', 1220),
        done('lost.base', 1230),
        done('p2.seal', 1240),
      ],
      steps,
      'UTC',
    );
    expect(cards.map((c) => [c.name, c.lines.length])).toEqual([
      ['Barge (Barges)', 1],
      ['Ferry 1 (Ferries)', 1],
      ['Ferry 2 (Ferries)', 2],
    ]);
    expect(cards.map((c) => c.recipe?.id ?? null)).toEqual([null, 'r', 'r']);
    expect(() => recipeOf(cards[0]!, 'new')).toThrow('gone');
  });

  it('has no line for what was taken back', () => {
    const back = entry(1400, { kind: 'taken-back', entry: log[0]!.id });
    const [card] = pieceCards([...log, back], steps, 'UTC');
    expect(card!.lines.some((l) => l.includes('grey 2.10'))).toBe(false);
    expect(recipeOf(card!, 'new').layers.map((l) => l.id)).toEqual(['seal']);
  });

  it('knows the pieces of the plan it was worked by', () => {
    expect([...plan.steps.keys()].sort()).toEqual([...steps.keys()].sort());
  });
});

describe('what is planned with', () => {
  const window = { opensMinutes: 20, closesMinutes: 60, preferMinutes: null, through: null };
  const chipped = smallMuster([
    layer('base', { mixture: 'grey', dryMinutes: 30 }),
    layer('medium', { family: 'medium', mixture: 'chipping medium', dryMinutes: 20, window }),
    layer('top', { mixture: 'cream' }),
  ]);
  const made = compile(chipped);
  // On six evenings the medium was wet at its nominal time and dry at twice that.
  const slow = Array.from({ length: 6 }, (_, k) => 1440 * k + 1200).flatMap((m) => [
    done('p1.medium', m),
    entry(m + 28, { kind: 'not-dry', step: 'p1.medium', moreMinutes: 10 }),
    entry(m + 42, { kind: 'dry', step: 'p1.medium' }),
  ]);
  const told = (m: Muster, log: readonly LogEntry[]) => taught(m, log, () => made).recipes[0]!.layers;

  it('is what a medium with a closing window has shown, its window by the same clock', () => {
    const [lesson] = dryingLessons(slow, made.steps, made.clocks, originOf(chipped));
    const medium = told(chipped, slow)[1]!;
    expect(lesson!.median).toBeGreaterThan(1.4);
    expect(medium.dryMinutes).toBe(Math.round(20 * lesson!.median));
    expect(medium.window).toMatchObject({
      opensMinutes: Math.round(20 * lesson!.median),
      closesMinutes: Math.round(60 * lesson!.median),
    });
    expect(estimateWords(medium.dryFrom)).toBe('learned from 12');
    expect(chipped.recipes[0]!.layers[1]!.dryMinutes).toBe(20);
  });

  it('leaves off the ends that a window has not, and moves the one that is wished for with the others', () => {
    const [lesson] = dryingLessons(slow, made.steps, made.clocks, originOf(chipped));
    const windowOf = (of: { opensMinutes?: null; closesMinutes?: null; preferMinutes?: number }) => {
      const own = structuredClone(chipped);
      own.recipes[0]!.layers[1]!.window = { ...window, ...of };
      return told(own, slow)[1]!.window;
    };
    expect(windowOf({ opensMinutes: null })).toMatchObject({ opensMinutes: null, preferMinutes: null });
    expect(windowOf({ preferMinutes: 40 })!.preferMinutes).toBe(Math.round(40 * lesson!.median));
    expect(windowOf({ closesMinutes: null, preferMinutes: 30 })!.closesMinutes).toBeNull();
  });

  it('learns from a coat that could be touched, and from windows that stood or had shut, by the same clock', () => {
    const evenings = Array.from({ length: 6 }, (_, k) => 1440 * k + 1200);
    const median = (log: readonly LogEntry[]): number =>
      dryingLessons(log, made.steps, made.clocks, originOf(chipped)).find(
        (d) => d.product === 'chipping medium',
      )?.median ?? 1;
    // It was to shut after an hour: work on it after an hour and a half says that it dries slower here; found shut after half of one, faster.
    const worked = evenings.flatMap((m) => [done('p1.medium', m), done('p1.top', m + 110, { minutes: 10 })]);
    expect(median(worked)).toBeGreaterThan(1.25);
    const shut = evenings.flatMap((m) => [
      done('p1.medium', m),
      entry(m + 30, {
        kind: 'rework',
        step: 'p1.top',
        trouble: 'Will not lift',
        cure: 'Chip by sponge instead',
        minutes: 8,
        dryMinutes: 15,
      }),
    ]);
    expect(median(shut)).toBeLessThan(0.75);
    // What is done within its window tells hardly anything.
    const within = evenings.flatMap((m) => [done('p1.medium', m), done('p1.top', m + 30, { minutes: 5 })]);
    expect(median(within)).toBeGreaterThan(0.9);
    expect(taught(chipped, within, () => made).recipes[0]!.layers[1]!.dryMinutes).toBe(20);
    // Touched without a mark long before its time.
    const touched = evenings.flatMap((m) => [
      done('p1.base', m),
      entry(m + 4, { kind: 'touch-dry', step: 'p1.base' }),
    ]);
    const grey = dryingLessons(touched, made.steps, made.clocks, originOf(chipped)).find(
      (d) => d.product === 'grey',
    )!;
    expect(grey.median).toBeLessThan(0.8);
  });

  it('is in the plan at once: nothing goes on the medium before it is dry on this bench', () => {
    const gap = (log: readonly LogEntry[]): number => {
      const posed = pose(chipped, log, null);
      const p = present(posed.muster, posed, solveProblem(posed.problem, { iterations: 20 }));
      return p.steps.get('p2.top')!.start - p.steps.get('p2.medium')!.end;
    };
    expect(gap([])).toBeLessThan(28);
    expect(gap(slow)).toBeGreaterThanOrEqual(28);
  });

  it('is nominal where the looks tell nothing, where the user has set a figure, and where lessons are switched off', () => {
    const asExpected = [done('p1.base', 1200), entry(1231, { kind: 'dry', step: 'p1.base' })];
    expect(told(chipped, asExpected)).toEqual(chipped.recipes[0]!.layers);
    const set = (m: Muster): Muster => ({
      ...m,
      recipes: m.recipes.map((r) => ({
        ...r,
        layers: r.layers.map((l) => (l.id === 'medium' ? withEstimate(l, 'dryMinutes', 25) : l)),
      })),
    });
    expect(told(set(chipped), slow)[1]!.dryMinutes).toBe(25);
    const off = { ...chipped, bench: { ...chipped.bench, usesLessons: false } };
    expect(told(off, slow)).toEqual(chipped.recipes[0]!.layers);
  });
});
