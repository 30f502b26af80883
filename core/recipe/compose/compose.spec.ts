/** The composer: the rule checker is its judge, over random wishes, zones and schools. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  layerSchema,
  LOOK_KINDS,
  LOOK_STRENGTHS,
  SEEN,
  recipeSchema,
  type Layer,
  type Look,
  type Looks,
  type Recipe,
} from '#core/muster';
import { smallMuster } from '../../plan/testing';
import {
  checkCraft,
  checkRecipe,
  composed,
  FIRST_LOOKS,
  LOOKS,
  QUESTIONS,
  revised,
  withLook,
  withoutLook,
} from '../index';

const ZONES = [
  { id: 'hull', name: 'Hull' },
  { id: 'deck', name: 'Deck', sheen: 'satin' as const },
  { id: 'glass', name: 'Glass' },
];

const colours = fc
  .tuple(fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }), fc.integer({ min: 0, max: 255 }))
  .map((c) => `#${c.map((v) => v.toString(16).padStart(2, '0')).join('')}`);
const look = (zones: readonly string[]): fc.Arbitrary<Omit<Look, 'id'>> =>
  fc.record({
    kind: fc.constantFrom(...LOOK_KINDS),
    zones: fc.subarray([...zones]),
    strength: fc.constantFrom(...LOOK_STRENGTHS),
    colour: colours,
  });
const schools = fc.record(
  Object.fromEntries(QUESTIONS.map((q) => [q.id, fc.constantFrom(...q.schools.map((s) => s.id))])),
  { requiredKeys: [] },
) as fc.Arbitrary<Record<string, string>>;
/** Shares of zones and how they are seen, where anything is said of them. */
const how = fc.record(
  { seen: fc.constantFrom(...SEEN), percent: fc.integer({ min: 1, max: 60 }) },
  { requiredKeys: [] },
);
const wish: fc.Arbitrary<{ recipe: Recipe; looks: Looks }> = fc
  .subarray(ZONES)
  .chain((zones) =>
    fc.record({
      zones: fc.tuple(...zones.map((z) => how.map((said) => ({ ...z, ...said })))),
      schools,
      list: fc.array(look(zones.map((z) => z.id)), { maxLength: 14 }),
      sheen: fc.constantFrom('matt' as const, 'satin' as const, 'gloss' as const),
      noSolvents: fc.boolean(),
      noAirbrush: fc.boolean(),
      isQuick: fc.boolean(),
      isForFigures: fc.boolean(),
    }),
  )
  .map(({ zones, schools: chosen, list, ...rest }) => ({
    recipe: { id: 'r', name: 'Composed', zones, layers: [], schools: chosen },
    looks: { ...rest, list: list.map((l, k) => ({ ...l, id: `w${k}` })) },
  }));

const bare: Recipe = { id: 'r', name: 'Composed', zones: [], layers: [] };
const withLayers = (recipe: Recipe, layers: readonly Layer[]): Recipe => ({ ...recipe, layers: [...layers] });
const errorsOf = (recipe: Recipe): string[] =>
  [...checkRecipe(recipe), ...checkCraft(recipe, ['played'])]
    // A colour that goes on nothing but its own mask is a stack that does not work, though the rule only warns.
    .filter((f) => f.severity === 'error' || (f.rule === 'under-mask' && f.where.includes('“Second colour”')))
    .map((f) => `${f.rule} ${f.where}: ${f.text}`);

describe('what is composed', () => {
  it('breaks no rule: a thousand random sets of wishes give a thousand sound stacks', () => {
    fc.assert(
      fc.property(wish, ({ recipe, looks }) => {
        const made = withLayers(recipe, composed(recipe, looks));
        expect(errorsOf(made)).toEqual([]);
        expect(recipeSchema.safeParse({ ...made, looks }).success).toBe(true);
        expect(new Set(made.layers.map((l) => l.id)).size).toBe(made.layers.length);
      }),
      { numRuns: 1000, seed: 18 },
    );
  });

  it('is the same each time', () => {
    fc.assert(
      fc.property(wish, ({ recipe, looks }) => {
        expect(composed(recipe, looks)).toEqual(composed(recipe, structuredClone(looks)));
      }),
      { numRuns: 100, seed: 19 },
    );
  });

  it('never gets longer by a wish that is dropped', () => {
    fc.assert(
      fc.property(wish, fc.nat(), ({ recipe, looks }, pick) => {
        fc.pre(looks.list.length > 0);
        const dropped = looks.list[pick % looks.list.length]!;
        // A part that is no longer clear gets what is wished for on it.
        fc.pre(dropped.kind !== 'ground' && dropped.kind !== 'clear');
        const before = composed(recipe, looks).length;
        expect(composed(recipe, withoutLook(looks, dropped.id)).length).toBeLessThanOrEqual(before);
      }),
      { numRuns: 1000, seed: 20 },
    );
  });

  it('has no seal to spare: without any one of them a rule speaks, or a zone has no last coat', () => {
    fc.assert(
      fc.property(wish, ({ recipe, looks }) => {
        const layers = composed(recipe, looks);
        const said = (list: readonly Layer[]): Set<string> =>
          new Set(
            checkCraft(withLayers(recipe, list), ['played']).map(
              (f) => `${f.rule} ${f.place.layer} ${f.place.zone}`,
            ),
          );
        const whole = said(layers);
        for (const seal of layers.filter((l) => l.id.startsWith('seal-'))) {
          // A whitewash needs something closed beneath it, chips under tape too: of these no rule speaks.
          if (/whitewash|tape/.test(seal.name)) continue;
          const without = said(layers.filter((l) => l !== seal));
          expect(
            [...without].some((f) => !whole.has(f)),
            `${seal.name} in ${layers.map((l) => l.name).join(' / ')}`,
          ).toBe(true);
        }
      }),
      { numRuns: 300, seed: 21 },
    );
  });
});

describe.each(LOOKS.map((l) => [l.kind, l] as const))('a wish for “%s”', (kind, facts) => {
  const made = (change: Partial<Look>): string => {
    const wished = withLook(FIRST_LOOKS, kind);
    const list = wished.list.map((l) => (l === wished.list.at(-1) ? { ...l, ...change } : l));
    const own = kind === 'ground' ? list.filter((l) => l.id !== 'ground') : list;
    return JSON.stringify(composed({ zones: [] }, { ...wished, list: own }));
  };

  it('changes the stack by its strength, each of the three', () => {
    expect(new Set(LOOK_STRENGTHS.map((strength) => made({ strength }))).size).toBe(LOOK_STRENGTHS.length);
  });

  it('changes it by its colour, where it asks for one', () => {
    expect(made({ colour: '#123456' }) !== made({ colour: '#654321' })).toBe(!facts.isColourless);
  });
});

describe('salt in place of a chipping medium', () => {
  const looks = withLook(FIRST_LOOKS, 'chipping');
  const salted = composed({ zones: [], schools: { sandwich: 'salt' } }, looks);

  it('is strewn, painted over once and thinly, brushed off and rinsed; nothing has to be caught in a window', () => {
    const from = salted.findIndex((l) => l.masking === 'salt');
    expect(salted.slice(from, from + 4).map((l) => l.task ?? `${l.name} ×${l.coats}, ${l.film}`)).toEqual([
      'mask',
      'Base colour ×1, thin',
      'unmask',
      'rinse',
    ]);
    expect(salted.filter((l) => l.window)).toEqual([]);
    expect(composed({ zones: [] }, looks).some((l) => l.window)).toBe(true);
  });
});

describe('what is brushed on figures', () => {
  it('is sealed from solvent though trust would spare a sprayed coat', () => {
    const wished = withLook(withLook({ ...FIRST_LOOKS, isForFigures: true }, 'second'), 'streaks');
    const list = wished.list.map((l) => (l.kind === 'second' ? { ...l, zones: ['hull'] } : l));
    const recipe = { ...bare, zones: ZONES, schools: { solvent: 'trusting' } };
    const made = withLayers(recipe, composed(recipe, { ...wished, list }));
    expect(made.layers.find((l) => l.name === 'Second colour')!.method).toBe('brush');
    expect(errorsOf(made)).toEqual([]);
  });
});

describe('a clear part', () => {
  it('gets no last coat of its own, whatever sheen its zone names: it is covered then', () => {
    const wished = withLook(FIRST_LOOKS, 'clear');
    const list = wished.list.map((l) => (l.kind === 'clear' ? { ...l, zones: ['deck'] } : l));
    const coats = composed({ zones: ZONES }, { ...wished, list }).filter((l) => l.id.startsWith('last-'));
    expect(coats.map((l) => [l.sheen, l.zones])).toEqual([['matt', []]]);
  });
});

describe('a masked second colour', () => {
  const maskOf = (zones: readonly string[]): readonly string[] => {
    const wished = withLook(FIRST_LOOKS, 'second');
    const looks = {
      ...wished,
      list: wished.list.map((l) => (l.kind === 'second' ? { ...l, zones: [...zones] } : l)),
    };
    return composed({ zones: ZONES }, looks).find((l) => l.id === 'second-mask')!.zones;
  };

  it('has the zones covered that it does not go on; as a part of all of them it is masked on them', () => {
    expect(maskOf(['deck'])).toEqual(['hull', 'glass']);
    expect(maskOf([])).toEqual([]);
  });
});

describe('each school changes what is composed', () => {
  // Everything that schools differ about, in one finish.
  const all = (
    ['texture', 'light', 'metal', 'chipping', 'markings', 'lining', 'lights', 'chips', 'dust'] as const
  ).reduce(withLook, FIRST_LOOKS);
  const recipe: Recipe = { id: 'r', name: 'All', zones: [], layers: [] };
  const of = (chosen: Recipe['schools']): string =>
    JSON.stringify(composed({ ...recipe, ...(chosen ? { schools: chosen } : {}) }, all));

  it.each(QUESTIONS.flatMap((q) => q.schools.slice(1).map((s) => [q.id, q.schools[0].id, s.id] as const)))(
    '%s: %s or %s',
    (question, usual, other) => {
      // Where a question is open by time, quick is the other side of it; a seal that trust saves must lie bare.
      if (question === 'solvent') {
        const plain = withLook(FIRST_LOOKS, 'lining');
        const make = (school: string): number =>
          composed({ ...recipe, schools: { solvent: school } }, plain).length;
        expect(make(other)).toBeLessThan(make(usual));
        return;
      }
      if (question === 'washes' && other === 'enamel') {
        const quick = { ...all, isQuick: true };
        const make = (school: string): string =>
          JSON.stringify(composed({ ...recipe, schools: { washes: school } }, quick));
        expect(make(other)).not.toBe(make(usual));
        return;
      }
      expect(of({ [question]: other })).not.toBe(of({ [question]: usual }));
    },
  );
});

describe('composing again over a hand’s work', () => {
  const looks = (['chipping', 'lining', 'streaks'] as const).reduce(withLook, FIRST_LOOKS);
  const recipe: Recipe = revised({ id: 'r', name: 'Hull', zones: [], layers: [] }, { looks }).recipe;

  it('knows its own layers again, however a file or a form has ordered what they hold', () => {
    const turned = (l: Layer): Layer => Object.fromEntries(Object.entries(l).toReversed()) as Layer;
    const stored = { ...recipe, layers: recipe.layers.map(turned) };
    const next = revised(stored, { looks: withLook(looks, 'mud') });
    expect(next.kept).toEqual([]);
    expect(next.changes.map((c) => c.is)).not.toContain('changed');
  });

  it('changes nothing where the wishes are the same', () => {
    const again = revised(recipe, { looks });
    expect(again.changes).toEqual([]);
    expect(again.recipe.layers).toEqual(recipe.layers);
  });

  it('keeps what was edited, leaves out what was taken out, and leaves in what was put in', () => {
    const edited = { ...recipe.layers.find((l) => l.id === 'streaks')!, minutes: 33 };
    const own = { ...recipe.layers[0]!, id: 'own', name: 'My own layer' };
    const mine: Recipe = {
      ...recipe,
      layers: [...recipe.layers.slice(0, 2), own, ...recipe.layers.slice(2)]
        .filter((l) => l.id !== 'lining-wipe')
        .map((l) => (l.id === 'streaks' ? edited : l)),
    };
    const next = revised(mine, { looks: withLook(looks, 'mud') });
    expect(next.recipe.layers.find((l) => l.id === 'streaks')).toEqual(edited);
    expect(next.recipe.layers.some((l) => l.id === 'lining-wipe')).toBe(false);
    expect(next.recipe.layers[2]).toEqual(own);
    expect(next.kept.map((l) => l.id).sort()).toEqual(['own', 'streaks']);
    expect(next.changes.map((c) => [c.is, c.layer.id])).toContainEqual(['added', 'mud']);
  });

  it('leaves what was moved by hand where the hand put it, and still drops it with its wish', () => {
    const looks = withLook(withLook(FIRST_LOOKS, 'details'), 'lights');
    const made = { ...bare, layers: composed(bare, looks), looks };
    const at = made.layers.findIndex((l) => l.id === 'lights');
    const [lights] = made.layers.splice(at, 1);
    made.layers.splice(
      made.layers.findIndex((l) => l.id === 'details'),
      0,
      lights!,
    );
    const order = (r: Recipe): string[] => r.layers.map((l: Layer) => l.id);
    expect(order(revised(made, { looks }).recipe)).toEqual(order(made));
    const more = revised(made, { looks: withLook(looks, 'dust') });
    expect(order(more.recipe).indexOf('lights')).toBeLessThan(order(more.recipe).indexOf('details'));
    expect(more.kept.map((l) => l.id)).toContain('lights');
    expect(order(revised(made, { looks: withoutLook(looks, 'lights') }).recipe)).not.toContain('lights');
  });

  it('lets what lies under tape or solvent dry until it bears them', () => {
    const looks = withLook(withLook(FIRST_LOOKS, 'second'), 'mud');
    const rules = checkCraft({ ...bare, layers: composed(bare, looks) }).map((f) => f.rule);
    expect(rules).not.toContain('tape-on-young');
    const young = composed(bare, looks).map((l) => (l.id.startsWith('base') ? { ...l, dryMinutes: 15 } : l));
    expect(checkCraft({ ...bare, layers: young }).map((f) => f.rule)).toContain('tape-on-young');
  });

  it('tells wishes that go against one another, and takes the cure', () => {
    const rules = (r: Recipe): string[] => checkCraft(r).map((f) => f.rule);
    const made = (looks: Looks, zones: Recipe['zones'] = []): Recipe => {
      const empty = { ...bare, zones };
      return { ...empty, layers: composed(empty, looks), looks };
    };
    const metal = made(withLook(FIRST_LOOKS, 'metal'), [ZONES[0]!, ZONES[1]!]);
    // The deck ends satin as it is.
    expect(
      checkCraft(metal)
        .filter((f) => f.rule === 'wish-metal-under-matt')
        .map((f) => f.place.zone),
    ).toEqual(['hull']);
    const { fix } = checkCraft(metal).find((f) => f.rule === 'wish-metal-under-matt')!;
    const cured = fix!.apply({ ...smallMuster(), units: [], recipes: [metal] }).recipes[0]!;
    expect(rules(cured)).not.toContain('wish-metal-under-matt');
    expect(
      cured.layers.some(
        (l) =>
          (l.sheen === 'satin' && l.zones.includes('hull')) || (l.sheen === 'satin' && l.zones.length === 0),
      ),
    ).toBe(true);
    expect(rules(made(withLook(withLook(FIRST_LOOKS, 'metal'), 'polish')))).not.toContain(
      'wish-metal-under-matt',
    );
    const chipped = { ...FIRST_LOOKS, list: FIRST_LOOKS.list.filter((l) => l.kind !== 'base') };
    expect(rules(made(withLook(chipped, 'chipping')))).toContain('wish-chips-without-colour');
    expect(rules(made(withLook(FIRST_LOOKS, 'clear'), ZONES))).toContain('wish-clear-everywhere');
    const onGlass = withLook(withLook(FIRST_LOOKS, 'clear'), 'rust');
    const both = {
      ...onGlass,
      list: onGlass.list.map((l) =>
        l.kind === 'clear' || l.kind === 'rust' ? { ...l, zones: [ZONES[0]!.id] } : l,
      ),
    };
    const told = checkCraft(made(both, ZONES)).find((f) => f.rule === 'wish-on-clear')!;
    const clear = told.fix!.apply({ ...smallMuster(), units: [], recipes: [made(both, ZONES)] }).recipes[0]!;
    expect(rules(clear)).not.toContain('wish-on-clear');
    expect(clear.looks!.list.map((l) => l.kind)).not.toContain('rust');
    expect(rules(made(FIRST_LOOKS))).toEqual([]);
  });

  it('tells what goes when a wish is dropped, with its minutes and drying', () => {
    const next = revised(recipe, { looks: withoutLook(looks, 'lining') });
    const gone = next.changes.filter((c) => c.is === 'gone').map((c) => c.layer.id);
    expect(gone).toEqual(expect.arrayContaining(['lining-on', 'lining-wipe']));
    expect(next.changes.filter((c) => c.is === 'gone').every((c) => c.minutes < 0)).toBe(true);
    expect(next.recipe.layers.every((l) => layerSchema.safeParse(l).success)).toBe(true);
  });
});
