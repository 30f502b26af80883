/** Every craft rule (common practice, no source): a recipe that breaks it, and its cure. */
import { describe, expect, it } from 'vitest';
import { musterSchema, unsound, type Layer, type Recipe } from '#core/muster';
import { layer, smallMuster } from '../plan/testing';
import {
  checkCraft,
  CRAFT_RULES,
  dryingOf,
  effectiveRecipe,
  linksOf,
  QUESTIONS,
  roundsOf,
  waitsBetween,
  withSchool,
  workMinutes,
  type Finding,
} from './index';

const recipe = (layers: Layer[], extra: Partial<Recipe> = {}): Recipe => ({
  id: 'r',
  name: 'Hull',
  zones: [{ id: 'z', name: 'Sides' }],
  layers,
  ...extra,
});
/** What a cure makes of the recipe, in a muster that holds it. */
const after = (finding: Finding, of: Recipe): Recipe =>
  finding.fix!.apply({ ...smallMuster(), recipes: [of] }).recipes[0]!;
const prime = layer('prime', { family: 'primer', colour: '#8d9294' });
const base = layer('base', { colour: '#c04030' });
const varnish = (id: string, sheen: Layer['sheen'], dryMinutes = 240): Layer =>
  layer(id, { family: 'varnish', method: 'airbrush', sheen, dryMinutes, mixture: `${sheen} varnish` });
const work = (id: string, task: Layer['task'], extra: Partial<Layer> = {}): Layer =>
  layer(id, { family: 'work', task, dryMinutes: 0, ...extra });
const medium = layer('medium', { family: 'medium', method: 'airbrush' });
const top = layer('top', { method: 'airbrush', colour: '#e6dcc0' });
const lift = work('lift', 'lift');
const sealed = varnish('sealed', 'satin');
const wash = layer('wash', { family: 'enamel', colour: '#2a1a10', dryMinutes: 720 });

/** Rule, a recipe that breaks it, and whether one click cures it. */
const BROKEN: readonly (readonly [string, Recipe, boolean])[] = [
  ['enamel-over-acrylic', recipe([prime, base, wash]), true],
  ['oil-over-acrylic', recipe([prime, base, layer('oil', { family: 'oil', colour: '#102030' })]), true],
  [
    'lacquer-over-acrylic',
    recipe([prime, base, layer('clear', { family: 'lacquer', method: 'brush', sheen: 'satin' })]),
    true,
  ],
  ['solvent-on-young', recipe([layer('base', { family: 'primer', dryMinutes: 60 }), wash]), true],
  [
    'tape-on-young',
    recipe([
      prime,
      base,
      work('mask', 'mask'),
      layer('stripe', { colour: '#204060' }),
      work('off', 'unmask'),
    ]),
    true,
  ],
  [
    'wet-mask',
    recipe([
      prime,
      { ...base, dryMinutes: 1440 },
      work('mask', 'mask', { masking: 'liquid' }),
      layer('stripe', { colour: '#204060' }),
      work('off', 'unmask'),
    ]),
    true,
  ],
  [
    'effect-eaten',
    recipe([
      prime,
      base,
      layer('chips', { colour: '#3a2018', reach: 'traces' }),
      layer('mud', { family: 'paste', colour: '#b8a888', reach: 'most' }),
      sealed,
    ]),
    true,
  ],
  ['seal-too-young', recipe([prime, base, varnish('gloss', 'gloss', 60), wash]), true],
  ['wipe-without-wash', recipe([prime, base, work('wipe', 'wipe')]), true],
  [
    'water-over-washable',
    recipe([
      prime,
      base,
      layer('dust', { family: 'powder' }),
      layer('w', { family: 'acrylic-wash', colour: '#101010' }),
    ]),
    true,
  ],
  [
    'heavy-unsealed',
    recipe([prime, base, layer('dust', { family: 'powder', air: 'contaminates', colour: '#f0e0c0' })]),
    true,
  ],
  ['decal-after-dirt', recipe([prime, base, sealed, wash, work('decal', 'decal')]), true],
  ['decal-on-matt', recipe([prime, base, work('decal', 'decal')]), true],
  ['medium-without-topcoat', recipe([prime, base, sealed, medium]), true],
  ['never-chipped', recipe([prime, base, sealed, medium, top, varnish('end', 'satin')]), true],
  ['sandwich-unsealed', recipe([prime, base, sealed, medium, top, lift]), true],
  [
    'heat-on-live',
    recipe([prime, base, sealed, medium, { ...top, aid: 'heat' }, lift, varnish('end', 'satin')]),
    true,
  ],
  [
    'tape-on-live',
    recipe([
      prime,
      base,
      sealed,
      medium,
      work('tape', 'mask'),
      top,
      lift,
      work('off', 'unmask'),
      varnish('end', 'satin'),
    ]),
    true,
  ],
  [
    'putty-on-live',
    recipe([prime, base, sealed, medium, work('putty', 'putty'), top, lift, varnish('end', 'satin')]),
    true,
  ],
  [
    'touched-between-seals',
    recipe([
      prime,
      base,
      sealed,
      medium,
      top,
      lift,
      varnish('s1', 'satin'),
      work('look', 'coat'),
      varnish('s2', 'satin'),
    ]),
    true,
  ],
  [
    'medium-over-unsealed',
    recipe([prime, layer('steel', { family: 'metal', method: 'airbrush' }), medium, top, lift, sealed]),
    true,
  ],
  [
    'seal-lifts-in-strings',
    recipe([
      prime,
      base,
      { ...sealed, mixture: 'medium and gloss 1:1' },
      medium,
      top,
      lift,
      varnish('end', 'satin'),
    ]),
    true,
  ],
  [
    'crackle-unsealed',
    recipe([
      prime,
      layer('crackle', { family: 'crackle' }),
      layer('w', { family: 'acrylic-wash', colour: '#101010' }),
    ]),
    true,
  ],
  ['chips-unsealed-base', recipe([prime, base, medium, top, lift, sealed]), true],
  [
    'zone-without-colour',
    recipe([{ ...base, zones: ['a'] }], {
      zones: [
        { id: 'a', name: 'Deck' },
        { id: 'b', name: 'Lamps' },
      ],
    }),
    true,
  ],
  [
    'detail-not-covered',
    recipe([prime, { ...base, zones: ['a'] }], {
      zones: [
        { id: 'a', name: 'Deck' },
        { id: 'b', name: 'Lamps' },
      ],
    }),
    true,
  ],
  [
    'sheen-missed',
    recipe([prime, base, varnish('g', 'gloss')], { zones: [{ id: 'z', name: 'Sides', sheen: 'matt' }] }),
    true,
  ],
  ['matt-over-shine', recipe([prime, base, work('edge', 'polish'), varnish('matt', 'matt')]), true],
  [
    'light-over-dark-primer',
    recipe([{ ...prime, colour: '#202224' }, layer('yellow', { colour: '#f5d020' })]),
    true,
  ],
  ['too-little-contrast', recipe([prime, base, varnish('g', 'gloss'), { ...wash, colour: '#c04131' }]), true],
  ['one-heavy-coat', recipe([prime, { ...base, film: 'heavy' }]), true],
  [
    'nozzle-too-small',
    recipe([prime, base, sealed, { ...medium, nozzleMm: 0.3 }, top, lift, varnish('end', 'satin')]),
    true,
  ],
  [
    'pour-too-deep',
    recipe([prime, base, layer('pond', { family: 'water', method: 'pour', depthMm: 8 })]),
    true,
  ],
  ['glue-on-paint', recipe([prime, base, work('glue', 'glue')]), true],
  ['mask-left-on', recipe([prime, work('tape', 'mask'), base]), true],
  [
    'under-mask',
    {
      ...recipe([
        prime,
        { ...base, zones: ['hull'] },
        { ...work('tape', 'mask'), zones: ['deck'] },
        layer('deck green', { zones: ['deck'] }),
        { ...work('off', 'unmask'), zones: ['deck'] },
      ]),
      zones: [
        { id: 'hull', name: 'Hull' },
        { id: 'deck', name: 'Deck' },
      ],
    },
    true,
  ],
  ['spatter-beside-wet', recipe([prime, base, work('flick', 'spatter')]), true],
];

const rulesOf = (r: Recipe): string[] => checkCraft(r).map((f) => f.rule);

describe('craft rules', () => {
  it.each(BROKEN)('%s is found, placed, and cured in one click', (rule, broken, hasFix) => {
    const finding = checkCraft(broken).find((f) => f.rule === rule);
    expect(finding).toBeDefined();
    expect(finding!.text.length).toBeGreaterThan(15);
    expect(finding!.cure.length).toBeGreaterThan(5);
    expect(finding!.isCraft).toBe(true);
    expect(finding!.fix !== undefined).toBe(hasFix);
    const cured = after(finding!, broken);
    const before = rulesOf(broken).filter((r) => r === rule).length;
    expect(rulesOf(cured).filter((r) => r === rule).length).toBeLessThan(before);
    const minutes = (r: Recipe): number =>
      r.layers.reduce((sum, l) => sum + l.minutes * l.coats * (l.passes?.expected ?? 1), 0);
    expect(minutes(cured) - minutes(broken)).toBeCloseTo(finding!.fix!.addsMinutes, 6);
  });

  it('has a test for every rule', () => {
    const tested = new Set(BROKEN.map(([rule]) => rule));
    expect(
      CRAFT_RULES.filter(
        (r) =>
          !tested.has(r) &&
          !r.startsWith('wish-') &&
          !['no-last-coat', 'solvent-on-old', 'all-identical'].includes(r),
      ),
    ).toEqual([]);
  });

  it('finds nothing in a sound recipe', () => {
    const sound = recipe([
      prime,
      base,
      sealed,
      medium,
      top,
      lift,
      varnish('seals', 'gloss'),
      wash,
      work('wipe', 'wipe'),
      varnish('matt', 'matt'),
    ]);
    expect(rulesOf(sound)).toEqual([]);
  });

  it('asks for a last coat only where pieces are handled', () => {
    const bare = recipe([prime, base]);
    expect(checkCraft(bare, ['display']).map((f) => f.rule)).not.toContain('no-last-coat');
    const finding = checkCraft(bare, ['played']).find((f) => f.rule === 'no-last-coat')!;
    expect(checkCraft(after(finding, bare), ['played'])).toEqual([]);
  });

  it('is silent where it was silenced with a reason, and only there', () => {
    const broken = recipe([prime, base, wash], {
      silenced: [{ rule: 'enamel-over-acrylic', layer: 'wash', reason: 'lacquer-based paint' }],
    });
    expect(rulesOf(broken)).toEqual([]);
    expect(
      rulesOf({ ...broken, silenced: [{ rule: 'enamel-over-acrylic', layer: 'base', reason: 'x' }] }),
    ).toEqual(['enamel-over-acrylic']);
  });

  it('heeds the schools', () => {
    const open = recipe([prime, base, medium, top, lift, sealed]);
    expect(rulesOf(withSchool(open, 'under-medium', 'bare'))).toEqual([]);
    const dry = withSchool(open, 'topcoat', 'dry').layers.find((l) => l.id === 'medium')!;
    expect(dry.window).toMatchObject({ opensMinutes: 720, closesMinutes: null });
    const hour = withSchool(open, 'topcoat', 'hour').layers.find((l) => l.id === 'medium')!;
    expect(hour.window).toMatchObject({ opensMinutes: 20, closesMinutes: 60 });
    expect(QUESTIONS.every((q) => q.schools.length > 1 && q.schools.every((s) => s.reason.length > 5))).toBe(
      true,
    );
  });
});

describe('what a layer can be', () => {
  it('takes rounds face by face and pass by pass, with the right wait between', () => {
    const l = layer('salt', {
      minutes: 6,
      faces: { count: 2, waitMinutes: 30 },
      passes: { expected: 2, waitMinutes: 60 },
    });
    expect(roundsOf(l)).toBe(4);
    expect(waitsBetween(l)).toEqual([30, 60, 30]);
    expect(workMinutes(l, 1)).toBe(3);
  });

  it('dries longer in a heavy film and quicker in moving air', () => {
    const l = layer('x', { dryMinutes: 100 });
    expect(dryingOf({ ...l, film: 'heavy' })).toBeGreaterThan(200);
    expect(dryingOf({ ...l, aid: 'moving-air' })).toBeLessThan(100);
    expect(linksOf(recipe([{ ...l, film: 'heavy' }, base]))[0]!.min).toBe(dryingOf({ ...l, film: 'heavy' }));
  });

  it('takes substitutes, stops at a level and begins part-way', () => {
    const full = recipe([
      prime,
      { ...base, level: 1 },
      {
        ...wash,
        level: 2,
        substitute: {
          name: 'Acrylic shade',
          family: 'acrylic-wash',
          method: 'brush',
          coats: 1,
          minutes: 4,
          dryMinutes: 40,
        },
      },
      varnish('matt', 'matt'),
    ]);
    const way = { substitutes: ['wash'] };
    expect(effectiveRecipe(full, way).layers[2]).toMatchObject({
      name: 'Acrylic shade',
      family: 'acrylic-wash',
      dryMinutes: 40,
    });
    expect(effectiveRecipe(full, {}, 1).layers.map((l) => l.id)).toEqual(['prime', 'base']);
    expect(effectiveRecipe(full, { startsAt: 'wash' }).layers.map((l) => l.id)).toEqual([
      '~repair',
      '~seal',
      'wash',
      'matt',
    ]);
    expect(effectiveRecipe(full, {})).toBe(full);
  });

  it('goes without an optional layer, or has a trace of it or much, where the piece says so', () => {
    const own = recipe([prime, base, { ...wash, isOptional: true }, varnish('matt', 'matt')]);
    const { layers } = own;
    const having = (is: 'off' | 'trace' | 'heavy', layer = 'wash') =>
      effectiveRecipe(own, { effects: [{ layer, is }] }).layers.find((l) => l.id === layer);
    expect(having('off')).toBeUndefined();
    expect(having('trace')).toMatchObject({
      name: `${wash.name}, trace`,
      minutes: wash.minutes * 0.6,
      film: 'thin',
    });
    expect(having('heavy')).toMatchObject({ minutes: wash.minutes * 1.5, film: 'heavy' });
    // What is not optional is on every piece.
    expect(having('off', 'base')).toEqual(layers.find((l) => l.id === 'base'));
    expect(effectiveRecipe(own, { effects: [] })).toBe(own);
  });
});

describe('a cure that takes a layer out', () => {
  it('leaves nothing that points at it', () => {
    const loose = recipe([
      layer('prime', {
        family: 'primer',
        judgeFrom: 'medium',
        window: { opensMinutes: 5, closesMinutes: 50, preferMinutes: null, through: 'medium' },
      }),
      medium,
    ]);
    const cure = checkCraft(loose).find((f) => f.fix?.label === 'Take the medium out')!;
    const cured = after(cure, loose);
    expect(cured.layers.map((l) => l.id)).toEqual(['prime']);
    expect(JSON.stringify(cured)).not.toContain('"medium"');
  });
});

describe('every cure', () => {
  it.each(BROKEN.filter(([, , hasFix]) => hasFix))(
    'of %s leaves the recipe sound: no id twice, nothing dangling',
    (_, broken) => {
      for (const finding of checkCraft(broken)) {
        if (!finding.fix) continue;
        const cured = after(finding, broken);
        const muster = { ...smallMuster(), units: [], recipes: [cured] };
        expect(unsound(muster)).toEqual([]);
        expect(musterSchema.safeParse(muster).error).toBeUndefined();
      }
    },
  );
});

describe('a bench that trusts its thinner', () => {
  const sprayed = layer('sprayed', { method: 'airbrush', colour: '#c04030', dryMinutes: 2880 });
  const severityOf = (layers: Layer[], solvent: string): string | undefined =>
    checkCraft(recipe(layers, { schools: { solvent } })).find((f) => f.rule === 'enamel-over-acrylic')
      ?.severity;

  it('is warned of enamel over airbrushed acrylic, and told off for any other', () => {
    expect(severityOf([prime, sprayed, wash], 'trusting')).toBe('warning');
    expect(severityOf([prime, sprayed, wash], 'careful')).toBe('error');
    expect(severityOf([prime, { ...sprayed, method: 'brush' }, wash], 'trusting')).toBe('error');
    expect(severityOf([prime, { ...medium, dryMinutes: 2880 }, wash], 'trusting')).toBe('error');
  });

  it('hears nothing of the enamel being wiped', () => {
    const wiping = layer('wipe', { family: 'enamel', task: 'wipe', dryMinutes: 0 });
    expect(severityOf([prime, sprayed, varnish('gloss', 'gloss'), wash, wiping], 'careful')).toBeUndefined();
  });
});
