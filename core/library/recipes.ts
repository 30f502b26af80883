/**
 * Complete recipes over generic products, to begin from. Between them they use every stage of the trade and each school in which
 * practitioners differ. Minutes are for a hand-sized piece, drying is nominal: common practice, no source.
 */
import type { Layer, Recipe } from '#core/muster';
import { familyOf, type FamilyId, type MethodId } from '#core/materials';

type Extra = Partial<Omit<Layer, 'id' | 'family' | 'method'>>;

function l(
  id: string,
  name: string,
  colour: string,
  family: FamilyId,
  method: MethodId,
  minutes: number,
  extra: Extra = {},
): Layer {
  return {
    id,
    name,
    colour,
    family,
    method,
    zones: [],
    mixture: '',
    coats: 1,
    minutes,
    dryMinutes: familyOf(family).dryMinutes,
    window: null,
    waitsFor: [],
    pausable: false,
    note: '',
    ...extra,
  };
}

const primer = (shade: 'grey' | 'black' | 'white', minutes = 5): Layer =>
  l(
    'prime',
    `${shade[0]!.toUpperCase()}${shade.slice(1)} primer`,
    { grey: '#8d9294', black: '#33373a', white: '#e8e8e4' }[shade],
    'primer',
    'airbrush',
    minutes,
    {
      mixture: `${shade} primer, undiluted`,
    },
  );
const seal = (id: string, sheen: 'matt' | 'satin' | 'gloss', extra: Extra = {}): Layer =>
  l(
    id,
    `${sheen[0]!.toUpperCase()}${sheen.slice(1)} coat`,
    { matt: '#b9bdb9', satin: '#b7bfbf', gloss: '#c4d2d4' }[sheen],
    'varnish',
    'airbrush',
    4,
    {
      mixture: `${sheen} varnish 4:1`,
      sheen,
      dryMinutes: 240,
      ...extra,
    },
  );
const work = (id: string, name: string, minutes: number, task: Layer['task'], extra: Extra = {}): Layer =>
  l(id, name, '#9a958c', 'work', 'hand', minutes, { dryMinutes: 0, task, ...extra });
const wash = (id: string, name: string, colour: string, extra: Extra = {}): Layer =>
  l(id, name, colour, 'enamel', 'brush', 8, {
    dryMinutes: 0,
    window: { opensMinutes: 45, closesMinutes: 180, preferMinutes: 75, through: null },
    mixture: `${name.toLowerCase()}, ready-made`,
    substitute: {
      name: `${name}, acrylic`,
      family: 'acrylic-wash',
      method: 'brush',
      coats: 2,
      minutes: 5,
      dryMinutes: 40,
    },
    ...extra,
  });
const wipe = (extra: Extra = {}): Layer =>
  work('wipe', 'Wipe the wash', 8, 'wipe', { dryMinutes: 720, ...extra });
const medium = (opens: number, closes: number | null, extra: Extra = {}): Layer =>
  l('medium', 'Chipping medium', '#7f86c9', 'medium', 'airbrush', 3, {
    coats: 2,
    mixture: 'chipping medium, undiluted',
    dryMinutes: Math.min(20, opens),
    nozzleMm: 0.7,
    window: { opensMinutes: opens, closesMinutes: closes, preferMinutes: null, through: null },
    note: 'Thin, no pools; wick them at once. Cool air only, never heat.',
    ...extra,
  });
const lift = (extra: Extra = {}): Layer =>
  work('lift', 'Moisten and lift chips', 15, 'lift', { dryMinutes: 30, ...extra });

function recipe(
  id: string,
  name: string,
  zones: readonly string[],
  layers: Layer[],
  schools?: Recipe['schools'],
): Recipe {
  return {
    id: `library-${id}`,
    name,
    zones: zones.map((z) => ({ id: z.toLowerCase().replaceAll(' ', '-'), name: z })),
    layers,
    ...(schools ? { schools } : {}),
  };
}

export const LIBRARY: readonly Recipe[] = [
  recipe(
    'tray',
    'Tray of figures, quick',
    ['Cloth', 'Skin'],
    [
      work('clean', 'Clean, trim mould lines', 3, 'coat', { pausable: true }),
      primer('grey', 1),
      l('zenith', 'Light from above', '#d9dcd6', 'acrylic', 'airbrush', 0.8, {
        mixture: 'pale grey 4:1',
        reach: 'half',
      }),
      l('cloth', 'Cloth', '#5f7148', 'acrylic', 'brush', 3, { zones: ['cloth'], pausable: true, coats: 2 }),
      l('skin', 'Faces and hands', '#c08a63', 'acrylic', 'brush', 2, { zones: ['skin'], pausable: true }),
      l('shade', 'Overall shade', '#3d2c20', 'acrylic-wash', 'brush', 1, {
        mixture: 'brown wash, water 1:4',
        coats: 2,
        judgeFrom: 'lights',
      }),
      l('lights', 'Lights by dry brush', '#a9b78a', 'acrylic', 'brush', 2, {
        dryMinutes: 10,
        level: 1,
        reach: 'edges',
      }),
      seal('matt', 'matt', { dryMinutes: 60, level: 2 }),
    ],
    { washes: 'acrylic', metals: 'brushed', realism: 'table' },
  ),
  recipe(
    'sandwich',
    'Chipped over rust, within the hour',
    ['Hull', 'Fittings'],
    [
      l('grit', 'Pitting and texture', '#7b7468', 'paste', 'hand', 8, { zones: ['hull'] }),
      primer('black'),
      l('rust', 'Rust, three tones', '#8a4b2e', 'acrylic', 'airbrush', 9, {
        mixture: 'rust brown 3:1',
        coats: 2,
      }),
      seal('under', 'satin', { dryMinutes: 120 }),
      medium(20, 60, { zones: ['hull'] }),
      l('top', 'Topcoat', '#e6dcc0', 'acrylic', 'airbrush', 8, {
        zones: ['hull'],
        mixture: 'cream 3:1',
        coats: 2,
      }),
      lift({ zones: ['hull'], judgeFrom: 'wipe' }),
      l('correct', 'Correct chips by brush', '#5b2f1c', 'acrylic', 'brush', 8, {
        zones: ['hull'],
        mixture: 'chip brown, water 1:2',
        pausable: true,
        reach: 'traces',
      }),
      l('fittings', 'Fittings', '#3f4649', 'acrylic', 'brush', 10, { zones: ['fittings'], pausable: true }),
      seal('seals', 'satin', { coats: 2, minutes: 2, level: 1 }),
      wash('wash', 'Rust-brown wash', '#2e1a10'),
      wipe(),
      seal('matt', 'matt', { dryMinutes: 60, level: 2 }),
    ],
    {
      solvent: 'strict',
      topcoat: 'hour',
      sandwich: 'medium',
      'under-medium': 'sealed',
      chips: 'mix',
      'chips-and-wash': 'chips-first',
      'wash-surface': 'satin',
    },
  ),
  recipe(
    'whitewash',
    'Late whitewash over a sealed finish',
    ['All round'],
    [
      primer('grey'),
      l('base', 'Base green', '#4d5f43', 'acrylic', 'airbrush', 8, { mixture: 'base green 3:1', coats: 2 }),
      seal('under', 'satin'),
      l('white', 'Washable white', '#e7e5dc', 'washable', 'brush', 8, { coats: 2, film: 'thin' }),
      work('rub', 'Rub off with a damp brush', 10, 'lift', { dryMinutes: 60 }),
      seal('fix', 'matt', { dryMinutes: 60 }),
    ],
    { sandwich: 'medium', aids: 'patience' },
  ),
  recipe(
    'spray',
    'Chips with decanted hairspray',
    ['Hull'],
    [
      primer('black'),
      l('metal', 'Dark metal', '#5a6065', 'metal', 'brush', 6, {
        note: 'Brushed metal; sealed before the spray.',
      }),
      seal('under', 'gloss', { dryMinutes: 180 }),
      medium(5, 30, {
        name: 'Decanted spray, very light coats',
        mixture: 'decanted spray, undiluted',
        coats: 3,
        minutes: 2,
        note: 'Decant outdoors; it degasses: no flame. Never heat.',
      }),
      l('top', 'Topcoat, acrylic-thinned', '#6d7f55', 'acrylic', 'airbrush', 8, {
        mixture: 'field green 3:1',
        coats: 2,
      }),
      lift(),
      seal('seals', 'satin', { coats: 2, minutes: 2 }),
      seal('matt', 'matt', { dryMinutes: 60 }),
    ],
    { topcoat: 'wet', sandwich: 'spray', chips: 'medium', metals: 'brushed' },
  ),
  recipe(
    'dry-sandwich',
    'Chips when thoroughly dry',
    ['Hull'],
    [
      primer('grey'),
      l('base', 'Base', '#6a4a38', 'acrylic', 'airbrush', 7, { mixture: 'rust brown 3:1', coats: 2 }),
      medium(720, null),
      l('top', 'Topcoat', '#41607a', 'acrylic', 'airbrush', 8, { mixture: 'harbour blue 3:1', coats: 2 }),
      lift(),
      seal('seals', 'satin', { coats: 2, minutes: 2 }),
    ],
    { topcoat: 'dry', 'under-medium': 'bare', chips: 'medium', solvent: 'trusting' },
  ),
  recipe(
    'crackle',
    'Peeling planks by crackle',
    ['Planks'],
    [
      primer('grey'),
      l('wood', 'Weathered wood', '#8a7a66', 'acrylic', 'brush', 8, { coats: 2 }),
      seal('under', 'satin', { dryMinutes: 120 }),
      l('crackle', 'Crackle', '#cfc7b4', 'crackle', 'brush', 6, {
        mixture: 'crackle, undiluted',
        dryMinutes: 20,
        window: { opensMinutes: 20, closesMinutes: 60, preferMinutes: null, through: null },
        note: 'A film, not wet, not dry: then one coat only.',
      }),
      l('top', 'Faded paint, one coat', '#c9b98a', 'acrylic', 'airbrush', 6, { mixture: 'straw 3:1' }),
      seal('seal', 'satin'),
      l('shade', 'Dirt in the cracks', '#3a3128', 'acrylic-wash', 'brush', 5, {
        mixture: 'dark brown, water 1:4',
      }),
      seal('matt', 'matt', { dryMinutes: 60 }),
    ],
    { sandwich: 'crackle', washes: 'acrylic' },
  ),
  recipe(
    'decals',
    'Markings on gloss, chipped through',
    ['Body', 'Glass'],
    [
      work('mask', 'Mask the glass', 6, 'mask', { zones: ['glass'] }),
      primer('grey'),
      l('base', 'Base colour', '#8f3a34', 'acrylic', 'airbrush', 8, { mixture: 'brick red 3:1', coats: 2 }),
      work('unmask', 'Unmask', 3, 'unmask', { zones: ['glass'] }),
      l('glass', 'Glass frames', '#23282b', 'acrylic', 'brush', 5, { zones: ['glass'] }),
      seal('gloss', 'gloss', { dryMinutes: 60 }),
      l('set', 'Setting solution', '#d8ded8', 'setting', 'brush', 2, { zones: ['body'], dryMinutes: 5 }),
      work('decal', 'Decals', 12, 'decal', {
        zones: ['body'],
        dryMinutes: 20,
        note: 'Trim the carrier film; soak a minute; dab dry.',
      }),
      l('soften', 'Softening solution', '#d0d8d4', 'setting', 'brush', 2, {
        zones: ['body'],
        dryMinutes: 60,
        task: 'softener',
      }),
      seal('second', 'gloss', { level: 1 }),
      l('chips', 'Chips by sponge, light then dark', '#d9c7a2', 'acrylic', 'sponge', 8, {
        zones: ['body'],
        dryMinutes: 15,
        note: 'Turn the sponge each dab.',
        reach: 'traces',
      }),
      seal('over-chips', 'satin'),
      wash('wash', 'Dark pin wash', '#20140e'),
      wipe(),
      seal('matt', 'matt', { dryMinutes: 60, level: 2 }),
    ],
    { decals: 'gloss', markings: 'markings-first', chips: 'sponge', 'wash-surface': 'gloss' },
  ),
  recipe(
    'decals-matt',
    'Markings on matt with softener',
    ['Body'],
    [
      primer('white'),
      l('base', 'Pale blue', '#a9c4d0', 'acrylic', 'airbrush', 7, { mixture: 'pale blue 4:1', coats: 2 }),
      seal('flat', 'matt', { dryMinutes: 60 }),
      l('set', 'Setting solution', '#d8ded8', 'setting', 'brush', 2, { dryMinutes: 5 }),
      work('decal', 'Decals', 12, 'decal', { dryMinutes: 20 }),
      l('soften', 'Softening solution', '#d0d8d4', 'setting', 'brush', 2, {
        dryMinutes: 60,
        task: 'softener',
      }),
      seal('matt', 'matt', { dryMinutes: 60 }),
    ],
    { decals: 'matt' },
  ),
  recipe(
    'freehand',
    'Freehand and masked stripes, chipped first',
    ['Body'],
    [
      primer('grey'),
      l('base', 'Base grey', '#7d868a', 'acrylic', 'airbrush', 7, { mixture: 'mid grey 3:1', coats: 2 }),
      l('chips', 'Chips by brush', '#2b2421', 'acrylic', 'brush', 12, {
        mixture: 'chip brown, water 1:2',
        pausable: true,
        reach: 'traces',
      }),
      work('putty', 'Mask the stripe with putty', 8, 'putty'),
      l('stripe', 'Stripe', '#d8b23a', 'acrylic', 'airbrush', 5, {
        mixture: 'ochre yellow 4:1',
        coats: 3,
        film: 'thin',
      }),
      work('unmask', 'Unmask while it is young', 4, 'unmask'),
      l('number', 'Numbers freehand', '#f0ece0', 'ink', 'brush', 10, { pausable: true, reach: 'traces' }),
      seal('matt', 'matt', { dryMinutes: 60 }),
      l('crisp', 'Crisp last chips', '#1e1a18', 'acrylic', 'brush', 6, { reach: 'traces' }),
      seal('last', 'matt', { dryMinutes: 60 }),
    ],
    { decals: 'freehand', markings: 'chips-first', 'chips-and-wash': 'chips-after', chips: 'brush' },
  ),
  recipe(
    'steel',
    'Bare steel, deliberately unvarnished',
    ['Steel', 'Leather'],
    [
      primer('black'),
      l('leather', 'Leather', '#6b4a30', 'acrylic', 'brush', 6, { zones: ['leather'], coats: 2 }),
      l('filter', 'Brown glaze', '#2f2118', 'acrylic-wash', 'brush', 4, {
        zones: ['leather'],
        mixture: 'brown, medium 1:1',
        passes: { expected: 3, waitMinutes: 30 },
      }),
      seal('matt', 'matt', { zones: ['leather'], dryMinutes: 60 }),
      l('steel', 'Polished steel', '#a8adb2', 'metal', 'airbrush', 6, {
        zones: ['steel'],
        mixture: 'steel 3:1',
        coats: 2,
        sheen: 'metal',
      }),
      l('graphite', 'Graphite on edges', '#6d7276', 'pen', 'hand', 4, {
        zones: ['steel'],
        task: 'polish',
        sheen: 'metal',
      }),
    ],
    { metals: 'bare' },
  ),
  recipe(
    'airbrushed-metal',
    'Smooth metal, sealed, with oil streaks',
    ['Plates'],
    [
      primer('black'),
      l('metal', 'Airbrushed metal', '#9da3a8', 'metal', 'airbrush', 7, {
        mixture: 'silver 3:1',
        coats: 2,
        nozzleMm: 0.4,
      }),
      seal('seal', 'satin'),
      l('dots', 'Dot filter in oils', '#5a4a30', 'oil', 'brush', 8, {
        dryMinutes: 0,
        mixture: 'oil dots, by eye',
        window: { opensMinutes: 10, closesMinutes: 180, preferMinutes: 60, through: null },
        reach: 'traces',
      }),
      work('blend', 'Blend, dry sponge over tide marks', 8, 'wipe', { dryMinutes: 1440 }),
      l('streaks', 'Rust streaks, dark first', '#7a3f22', 'oil', 'brush', 8, {
        dryMinutes: 0,
        mixture: 'rust oil, thinned',
        window: { opensMinutes: 10, closesMinutes: 120, preferMinutes: 45, through: null },
        reach: 'traces',
      }),
      work('draw', 'Draw them down the way water runs', 8, 'wipe', { dryMinutes: 1440 }),
      seal('matt', 'matt', { dryMinutes: 60 }),
    ],
    { metals: 'sprayed', washes: 'enamel', realism: 'life' },
  ),
  recipe(
    'dust',
    'Dust, mud and sealed powders',
    ['Upper', 'Lower'],
    [
      l('mud', 'Mud texture', '#5b4a36', 'paste', 'hand', 8, { zones: ['lower'] }),
      primer('grey'),
      l('base', 'Sand', '#c2ad84', 'acrylic', 'airbrush', 7, { mixture: 'sand 3:1', coats: 2 }),
      seal('satin', 'satin'),
      wash('wash', 'Umber wash', '#3a2718'),
      wipe(),
      l('dust', 'Dust, one to five', '#d8c9a4', 'acrylic', 'airbrush', 4, {
        zones: ['lower'],
        mixture: 'dust, acrylic thinner 1:5',
        reach: 'half',
      }),
      l('powder', 'Powders with fixer', '#8c7a58', 'powder', 'hand', 6, {
        zones: ['lower'],
        air: 'contaminates',
        reach: 'half',
      }),
      l('flick', 'Flicked mud', '#4b3b28', 'spirit-mud', 'brush', 3, {
        zones: ['lower'],
        task: 'spatter',
        air: 'contaminates',
        dryMinutes: 240,
      }),
      seal('matt', 'matt', { dryMinutes: 60 }),
      l('wet', 'Wet mud and oil stains', '#2a231c', 'varnish', 'brush', 4, {
        zones: ['lower'],
        sheen: 'wet',
        air: 'needs-clean',
        mixture: 'gloss wet effect, undiluted',
        reach: 'traces',
      }),
    ],
    { powders: 'always', aids: 'cool' },
  ),
  recipe(
    'powder-open',
    'Dry pigments left open, for display',
    ['Body'],
    [
      primer('black'),
      l('base', 'Lead grey', '#60676b', 'acrylic', 'airbrush', 6, { mixture: 'lead grey 3:1', coats: 2 }),
      seal('matt', 'matt', { dryMinutes: 60 }),
      l('pigment', 'Soot and dust', '#b3a58c', 'powder', 'hand', 6, { air: 'contaminates', reach: 'half' }),
    ],
    { powders: 'never', 'wash-surface': 'matt' },
  ),
  recipe(
    'salt',
    'Salt mask, face by face',
    ['Plates'],
    [
      primer('black'),
      l('rust', 'Rust', '#7c4528', 'acrylic', 'airbrush', 6, { mixture: 'rust brown 3:1', coats: 2 }),
      seal('seal', 'satin', { dryMinutes: 120 }),
      work('salt', 'Wet, strew salt, turn when dry', 8, 'mask', {
        masking: 'salt',
        faces: { count: 2, waitMinutes: 90 },
        dryMinutes: 120,
        judgeFrom: 'rinse',
        note: 'Until every drop of water is gone.',
      }),
      l('top', 'One very thin light coat', '#b8b3a2', 'acrylic', 'airbrush', 5, {
        mixture: 'light grey 4:1',
        film: 'thin',
        note: '20 psi at most.',
      }),
      work('off', 'Brush the salt off', 4, 'unmask'),
      work('rinse', 'Rinse, let dry', 6, 'rinse', { dryMinutes: 120 }),
      seal('matt', 'matt', { dryMinutes: 60 }),
    ],
    { chips: 'medium' },
  ),
  recipe(
    'pond',
    'Base with clear water',
    ['Ground', 'Water'],
    [
      l('ground', 'Ground and pebbles', '#6a5c48', 'paste', 'hand', 10),
      primer('black', 4),
      l('earth', 'Earth', '#7a684c', 'acrylic', 'airbrush', 5, { zones: ['ground'], mixture: 'earth 3:1' }),
      l('bed', 'Water bed', '#38513f', 'acrylic', 'airbrush', 4, {
        zones: ['water'],
        mixture: 'bed green 3:1',
      }),
      l('brush', 'Edges, dry-brushed', '#c3b79a', 'acrylic', 'brush', 4, {
        zones: ['ground'],
        dryMinutes: 10,
        reach: 'edges',
      }),
      seal('matt', 'matt', { dryMinutes: 60 }),
      l('water', 'Clear water', '#7fa8a4', 'water', 'pour', 6, {
        zones: ['water'],
        depthMm: 6,
        passes: { expected: 2, waitMinutes: 1440 },
        mixture: 'water effect, undiluted',
        note: 'Level table, dust cover.',
      }),
      work('tufts', 'Tufts and rim', 8, 'coat', { zones: ['ground'], dryMinutes: 60 }),
    ],
    { aids: 'cabinet' },
  ),
  recipe(
    'parts',
    'Part glued late on a bared joint',
    ['Part', 'Joint'],
    [
      primer('grey', 3),
      l('base', 'Base colour', '#557089', 'acrylic', 'airbrush', 4, { mixture: 'slate blue 4:1', coats: 2 }),
      l('details', 'Details from the kit’s list', '#d8c27a', 'acrylic', 'brush', 10, {
        pausable: true,
        note: 'Lamps, handles, undersides, the second of a pair.',
        reach: 'traces',
      }),
      seal('satin', 'satin', { dryMinutes: 60 }),
      work('bare', 'Bare the joint', 3, 'bare', { zones: ['joint'] }),
      work('glue', 'Glue, hold', 4, 'glue', { zones: ['joint'], dryMinutes: 60 }),
      seal('matt', 'matt', { dryMinutes: 60 }),
      work('inspect', 'Inspect against the list and the picture', 5, 'coat'),
    ],
  ),
];
