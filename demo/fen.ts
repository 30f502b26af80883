/**
 * The demo: the Moth Fair at Candlewick Fen, a place of reed boats, lanterns and herons that carry riders. All of it is
 * invented, and so are its figures: they show the program, they teach nothing.
 */
import {
  addDays,
  mixtureWords,
  weekdayOf,
  type Layer,
  type LocalDate,
  type MadeOf,
  type Muster,
  type Piece,
  type Recipe,
  type Stores,
  type Unit,
} from '#core/muster';
import type { FamilyId, MethodId } from '#core/materials';

interface Extra {
  readonly coats?: number;
  readonly zones?: readonly string[];
  readonly mixture?: string;
  readonly window?: Partial<NonNullable<Layer['window']>>;
  readonly waitsFor?: readonly string[];
  readonly pausable?: boolean;
  readonly note?: string;
  readonly air?: Layer['air'];
  readonly level?: number;
  readonly judgeFrom?: string;
  readonly reach?: Layer['reach'];
  readonly madeOf?: MadeOf;
  readonly applicator?: string;
  readonly judgeBy?: string;
}

/** What the rules take a layer of the fen for, by its id. */
const TASKS: Readonly<Record<string, Layer['task']>> = {
  chip: 'lift',
  wipe: 'wipe',
  number: 'decal',
  name: 'decal',
  edges: 'polish',
};
const SHEENS = ['matt', 'satin', 'gloss'] as const;

/** The Monday on or after a date: the fair is planned from there. */
export function mondayFrom(date: LocalDate): LocalDate {
  return addDays(date, (8 - weekdayOf(date)) % 7);
}

/** @param monday first day of the plan, `YYYY-MM-DD` @param timeZone of the bench, IANA */
export function fenMuster(monday: LocalDate, timeZone = 'UTC'): Muster {
  return {
    format: 'patient-muster/2',
    name: 'Moth Fair at Candlewick Fen',
    startsOn: `${monday}T18:00`,
    bench: {
      timeZone,
      people: [{ id: 'me', name: 'First pair of hands' }],
      airbrush: { loadMinutes: 3, changeMinutes: 5, cleanMinutes: 11, idleMinutes: 40 },
      layoutMinutes: 2,
      rackPlaces: 44,
      weekly: [
        ...[1, 2, 3, 4, 5].map((weekday) => ({ id: `w${weekday}`, weekday, from: '19:15', to: '22:00' })),
        { id: 'w6', weekday: 6, from: '14:00', to: '18:00' },
      ],
      exceptions: [{ id: 'x1', date: addDays(monday, 10), sessions: [] }],
      climate: {
        day: { celsius: 19, humidityPercent: 55 },
        night: { celsius: 16, humidityPercent: 62 },
        dayFrom: '08:00',
        nightFrom: '21:00',
      },
    },
    recipes: [
      reedFolk(),
      puntHull(),
      lanternMast(),
      heron(),
      rider(),
      dredgerHull(),
      dredgerPart(),
      stall(),
      quay(),
    ],
    units: units(monday),
    stores: stores(),
  };
}

/** Shelves of the fen: enough of most, too little of some. */
function stores(): Stores {
  const bottle = (
    id: string,
    name: string,
    colour: string,
    family: FamilyId,
    bottleMl: number,
    leftMl: number,
    price: number,
  ): Stores['products'][number] => ({ id, name, family, colour, bottleMl, leftMl, price });
  return {
    products: [
      bottle('s-grey', 'grey primer', '#8d9294', 'primer', 60, 34, 8),
      bottle('s-black', 'black primer', '#33373a', 'primer', 60, 11, 8),
      bottle('s-satin', 'satin varnish', '#b7bfbf', 'varnish', 60, 22, 9),
      bottle('s-matt', 'matt varnish', '#b9bdb9', 'varnish', 60, 30, 9),
      bottle('s-gloss', 'gloss varnish', '#c4d2d4', 'varnish', 60, 18, 9),
      bottle('s-thinner', 'acrylic thinner', '#a8c4cc', 'setting', 200, 140, 7),
      {
        ...bottle('s-medium', 'chipping medium', '#7f86c9', 'medium', 35, 6, 6),
        character: 'Normal kind: two light coats, 0.7 mm; pools in corners if hurried.',
        verdict: 'with-care',
      },
      bottle('s-green', 'eel green', '#4d7a62', 'acrylic', 17, 9, 3),
      bottle('s-tar', 'tar brown', '#4b3a2d', 'acrylic', 17, 12, 3),
      bottle('s-rust', 'rust brown', '#8a4b2e', 'acrylic', 17, 5, 3),
      {
        ...bottle('s-cream', 'cream', '#e6dcc0', 'acrylic', 17, 14, 3),
        character: 'Covers in two coats over rust.',
        verdict: 'again',
        equivalents: [
          {
            id: 'mixed',
            madeOf: {
              parts: [
                { id: 'white', product: 's-x9', name: 'warm white', parts: 6 },
                { id: 'ochre', product: 's-x4', name: 'ochre', parts: 1 },
              ],
            },
          },
        ],
      },
      bottle('s-slate', 'slate blue', '#5d7386', 'acrylic', 17, 8, 3),
      bottle('s-lacquer', 'clear lacquer', '#aab3b3', 'lacquer', 40, 25, 8),
      bottle('s-wash', 'rust wash', '#4e2f20', 'enamel', 35, 20, 5),
      bottle('s-dark', 'dark wash', '#3c2f2a', 'enamel', 35, 16, 5),
      ...(
        [
          ['moss green', '#5f7148'],
          ['warm flesh', '#c08a63'],
          ['madder red', '#a3423b'],
          ['pale moss', '#9aa86f'],
          ['ochre', '#c98f3c'],
          ['pale blue grey', '#c8d1d6'],
          ['light plum', '#9a6a90'],
          ['straw', '#c7a257'],
          ['pale grey', '#d9dcd6'],
          ['warm white', '#e9e7de'],
          ['plum', '#6b3f63'],
          ['brass', '#b08a45'],
          ['saffron', '#d39b3a'],
          ['stone grey', '#8b8f8a'],
          ['bed green', '#38513f'],
          ['board grey', '#9c8f7c'],
        ] as const
      ).map(([name, colour], k) => bottle(`s-x${k}`, name, colour, 'acrylic', 17, 3 + ((k * 5) % 13), 3)),
    ],
    markings: [
      {
        id: 'm-fair',
        name: 'Fair numbers, sheet',
        unit: 'punts',
        perPiece: 4,
        left: 30,
        policy: 'every-side',
      },
      {
        id: 'm-name',
        name: 'Name boards, sheet',
        unit: 'patience',
        perPiece: 2,
        left: 2,
        policy: 'every-side',
      },
    ],
    consumables: [
      { id: 'c-swab', name: 'Cotton swabs', left: 30, perStep: 2, usedBy: 'enamel' },
      { id: 'c-sponge', name: 'Sponge bits', left: 10, perStep: 1, usedBy: 'sponge' },
      { id: 'c-cup', name: 'Airbrush cleaner, ml', left: 120, perStep: 1, usedBy: 'airbrush' },
    ],
    jars: [{ id: 'j-1', mixture: mixtureWords(LIGHT_CREAM), leftMl: 6, note: 'Swatch on the lid.' }],
  };
}

function layer(
  id: string,
  name: string,
  colour: string,
  family: FamilyId,
  method: MethodId,
  minutes: number,
  dryMinutes: number,
  extra: Extra = {},
): Layer {
  return {
    id,
    name,
    colour,
    family,
    method,
    zones: [...(extra.zones ?? [])],
    mixture: extra.madeOf ? mixtureWords(extra.madeOf) : (extra.mixture ?? ''),
    ...(extra.madeOf ? { madeOf: extra.madeOf } : {}),
    coats: extra.coats ?? 1,
    minutes,
    dryMinutes,
    window: extra.window
      ? { opensMinutes: null, closesMinutes: null, preferMinutes: null, through: null, ...extra.window }
      : null,
    waitsFor: [...(extra.waitsFor ?? [])],
    pausable: extra.pausable ?? false,
    note: extra.note ?? '',
    ...(TASKS[id] ? { task: TASKS[id] } : {}),
    ...(family === 'varnish' ? { sheen: SHEENS.find((s) => extra.mixture?.startsWith(s)) ?? 'wet' } : {}),
    ...(id === 'edges' ? { sheen: 'metal' as const } : {}),
    ...(extra.air ? { air: extra.air } : {}),
    ...(extra.level ? { level: extra.level } : {}),
    ...(extra.judgeFrom ? { judgeFrom: extra.judgeFrom } : {}),
    ...(extra.reach ? { reach: extra.reach } : {}),
    ...(extra.applicator ? { applicator: extra.applicator } : {}),
    ...(extra.judgeBy ? { judgeBy: extra.judgeBy } : {}),
  };
}

function recipe(id: string, name: string, zones: readonly string[], layers: Layer[]): Recipe {
  return { id, name, zones: zones.map((z) => ({ id: z.toLowerCase(), name: z })), layers };
}

/** Of the warm white's id see the shelf: its paints by the dozen are numbered. */
const LIGHT_CREAM: MadeOf = {
  parts: [
    { id: 'cream', product: 's-cream', name: 'cream', parts: 2 },
    { id: 'white', product: 's-x9', name: 'warm white', parts: 2 },
    { id: 'thin', product: 's-thinner', name: 'acrylic thinner', parts: 1 },
  ],
};
const GREY_PRIMER = 'grey primer, undiluted';
const BLACK_PRIMER = 'black primer, undiluted';
const SATIN = 'satin varnish 4:1';
const MATT = 'matt varnish 4:1';

/** Small figures on trays: minutes are for one figure. */
function reedFolk(): Recipe {
  return recipe(
    'reed-folk',
    'Reed folk, wet boots',
    ['Cloth', 'Skin', 'Base'],
    [
      layer('prime', 'Grey primer', '#8d9294', 'primer', 'airbrush', 0.8, 60, { mixture: GREY_PRIMER }),
      layer('zenith', 'Pale light from above', '#d9dcd6', 'acrylic', 'airbrush', 0.6, 15, {
        mixture: 'pale grey 4:1',
        reach: 'half',
      }),
      layer('smocks', 'Moss smocks', '#5f7148', 'acrylic', 'brush', 2.2, 20, {
        zones: ['cloth'],
        pausable: true,
        mixture: 'moss green',
      }),
      layer('skin', 'Faces and hands', '#c08a63', 'acrylic', 'brush', 1.6, 20, {
        zones: ['skin'],
        pausable: true,
        mixture: 'warm flesh',
      }),
      layer('sashes', 'Madder sashes', '#a3423b', 'acrylic', 'brush', 1.2, 20, {
        zones: ['cloth'],
        pausable: true,
        reach: 'traces',
        mixture: 'madder red',
      }),
      layer('mud', 'Fen mud', '#4a3b2c', 'paste', 'hand', 0.8, 720, { zones: ['base'], mixture: 'fen mud' }),
      layer('shade', 'Brown shade', '#5b4230', 'acrylic-wash', 'brush', 0.9, 40, {
        zones: ['cloth', 'skin'],
        mixture: 'brown shade',
      }),
      layer('lights', 'Edges and folds', '#9aa86f', 'acrylic', 'brush', 2.4, 15, {
        applicator: 'old flat brush, nearly dry',
        judgeBy: 'at arm’s length, under the lamp',
        zones: ['cloth', 'skin'],
        pausable: true,
        mixture: 'pale moss',
        reach: 'edges',
      }),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 0.5, 60, { mixture: MATT }),
      layer('boots', 'Wet shine on boots', '#cfe0e2', 'varnish', 'brush', 0.5, 60, {
        zones: ['base'],
        mixture: 'wet effect, undiluted',
        reach: 'traces',
      }),
    ],
  );
}

function puntHull(): Recipe {
  return recipe(
    'punt',
    'Punt, green over tar',
    ['Planks', 'Gunwale', 'Bilge'],
    [
      layer('prime', 'Black primer', '#33373a', 'primer', 'airbrush', 4, 60, { mixture: BLACK_PRIMER }),
      layer('tar', 'Tar brown', '#4b3a2d', 'acrylic', 'airbrush', 4, 15, { mixture: 'tar brown 3:1' }),
      layer('tar-seal', 'Satin seal', '#b7bfbf', 'varnish', 'airbrush', 3, 90, { mixture: SATIN }),
      layer('medium', 'Chipping medium', '#7f86c9', 'medium', 'airbrush', 2.5, 20, {
        coats: 2,
        zones: ['planks'],
        mixture: 'chipping medium, undiluted',
        window: { opensMinutes: 20, closesMinutes: 70, through: 'green' },
        note: 'Thin, no pools. Cool air only, never heat.',
      }),
      layer('green', 'Eel green', '#4d7a62', 'acrylic', 'airbrush', 3, 15, {
        zones: ['planks'],
        mixture: 'eel green 3:1',
        window: { opensMinutes: 15, closesMinutes: 60 },
      }),
      layer('chip', 'Lift chips with water', '#8fb0a0', 'work', 'brush', 8, 30, { zones: ['planks'] }),
      layer('chip-seal', 'Two light seals, hands off', '#b7bfbf', 'varnish', 'airbrush', 1.5, 240, {
        coats: 2,
        mixture: SATIN,
      }),
      layer('gunwale', 'Gunwale and cleats', '#c7a257', 'acrylic', 'brush', 7, 20, {
        zones: ['gunwale'],
        pausable: true,
        mixture: 'straw',
        reach: 'traces',
      }),
      layer('number', 'Fair numbers', '#d8ded8', 'setting', 'hand', 6, 60, { zones: ['planks'] }),
      layer('number-seal', 'Satin over numbers', '#b7bfbf', 'varnish', 'airbrush', 2, 240, {
        mixture: SATIN,
      }),
      layer('wash', 'Dark oil wash', '#3c2f2a', 'enamel', 'brush', 4, 0, {
        window: { opensMinutes: 40, closesMinutes: 180, preferMinutes: 80 },
        mixture: 'dark wash, ready-made',
      }),
      layer('wipe', 'Wipe the wash', '#6d5d52', 'work', 'hand', 5, 720),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 2, 60, { mixture: MATT }),
      layer('bilge', 'Wet bilge', '#a9c3c6', 'varnish', 'brush', 2, 120, {
        zones: ['bilge'],
        air: 'needs-clean',
        mixture: 'wet effect, undiluted',
        reach: 'traces',
      }),
    ],
  );
}

function lanternMast(): Recipe {
  return recipe(
    'mast',
    'Lantern mast, brass',
    ['Mast', 'Lantern'],
    [
      layer('prime', 'Black primer', '#33373a', 'primer', 'airbrush', 2, 60, { mixture: BLACK_PRIMER }),
      layer('brass', 'Brass', '#b08a45', 'metal', 'airbrush', 2, 20, {
        zones: ['lantern'],
        mixture: 'brass 3:1',
      }),
      layer('wood', 'Bleached wood', '#b9a58a', 'acrylic', 'brush', 3, 20, {
        zones: ['mast'],
        mixture: 'bone',
      }),
      layer('grain', 'Grain, dry-brushed', '#d6c7ae', 'acrylic', 'brush', 2, 10, {
        zones: ['mast'],
        mixture: 'pale bone',
        reach: 'edges',
      }),
      layer('glow', 'Glow in the panes', '#f0b64a', 'ink', 'brush', 3, 15, {
        zones: ['lantern'],
        mixture: 'amber ink',
        reach: 'most',
      }),
      layer('shade', 'Umber shade', '#5a4632', 'acrylic-wash', 'brush', 2, 40, { mixture: 'umber shade' }),
      layer('satin', 'Satin coat', '#b7bfbf', 'varnish', 'airbrush', 1.5, 60, { mixture: SATIN }),
    ],
  );
}

function heron(): Recipe {
  return recipe(
    'heron',
    'Marsh heron',
    ['Plumage', 'Legs'],
    [
      layer('prime', 'Grey primer', '#8d9294', 'primer', 'airbrush', 2.5, 60, { mixture: GREY_PRIMER }),
      layer('slate', 'Slate blue', '#5d7386', 'acrylic', 'airbrush', 2.5, 15, { mixture: 'slate blue 4:1' }),
      layer('breast', 'White breast', '#e9e7de', 'acrylic', 'airbrush', 2, 15, {
        zones: ['plumage'],
        mixture: 'warm white 4:1',
        reach: 'half',
      }),
      layer('legs', 'Ochre legs and bill', '#c98f3c', 'acrylic', 'brush', 3, 20, {
        zones: ['legs'],
        mixture: 'ochre',
      }),
      layer('stripes', 'Black stripes', '#23272a', 'ink', 'brush', 4, 15, {
        zones: ['plumage'],
        mixture: 'black ink',
        reach: 'traces',
      }),
      layer('shade', 'Blue-grey shade', '#3e4c59', 'acrylic-wash', 'brush', 2.5, 40, {
        mixture: 'blue-grey shade',
      }),
      layer('feathers', 'Feather edges', '#c8d1d6', 'acrylic', 'brush', 6, 15, {
        zones: ['plumage'],
        pausable: true,
        mixture: 'pale blue grey',
        reach: 'edges',
      }),
      layer('satin', 'Satin coat', '#b7bfbf', 'varnish', 'airbrush', 1.5, 240, { mixture: SATIN }),
      layer('streaks', 'Reed streaks', '#6a6a3e', 'oil', 'brush', 2, 0, {
        window: { opensMinutes: 10, closesMinutes: 120, preferMinutes: 45 },
        zones: ['legs'],
        mixture: 'reed oil, thinned',
        reach: 'traces',
      }),
      layer('draw', 'Draw the streaks out', '#8b8a5e', 'work', 'brush', 2.5, 720, { zones: ['legs'] }),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 1.2, 60, { mixture: MATT }),
    ],
  );
}

function rider(): Recipe {
  return recipe(
    'rider',
    'Heron rider',
    ['Cloak', 'Skin'],
    [
      layer('prime', 'Grey primer', '#8d9294', 'primer', 'airbrush', 1.2, 60, { mixture: GREY_PRIMER }),
      layer('cloak', 'Plum cloak', '#6b3f63', 'acrylic', 'airbrush', 1.2, 15, {
        zones: ['cloak'],
        mixture: 'plum 4:1',
      }),
      layer('skin', 'Face and hands', '#c08a63', 'acrylic', 'brush', 2, 20, {
        zones: ['skin'],
        mixture: 'warm flesh',
      }),
      layer('trim', 'Silver trim', '#b9bec2', 'metal', 'brush', 2, 20, {
        zones: ['cloak'],
        mixture: 'silver',
        reach: 'traces',
      }),
      layer('shade', 'Violet shade', '#3f2c42', 'acrylic-wash', 'brush', 1.5, 40, {
        mixture: 'violet shade',
      }),
      layer('folds', 'Cloak folds', '#9a6a90', 'acrylic', 'brush', 4, 15, {
        zones: ['cloak'],
        pausable: true,
        mixture: 'light plum',
        reach: 'edges',
      }),
      layer('eyes', 'Eyes', '#f1ece0', 'pen', 'hand', 1.5, 0, { zones: ['skin'], reach: 'traces' }),
      layer('satin', 'Satin coat', '#b7bfbf', 'varnish', 'airbrush', 0.8, 60, { mixture: SATIN }),
    ],
  );
}

/** The large piece: a group of three colours over the medium. */
function dredgerHull(): Recipe {
  return recipe(
    'dredger',
    'Dredger hull, cream worn to rust',
    ['Sides', 'Deck', 'Fittings'],
    [
      layer('texture', 'Weld and pitting paste', '#7b7468', 'paste', 'hand', 12, 720, {
        zones: ['sides'],
        mixture: 'texture paste',
      }),
      layer('prime', 'Black primer', '#33373a', 'primer', 'airbrush', 9, 60, { mixture: BLACK_PRIMER }),
      layer('rust', 'Rust, three tones', '#8a4b2e', 'acrylic', 'airbrush', 14, 20, {
        mixture: 'rust brown 3:1',
      }),
      layer('rust-seal', 'Clear lacquer', '#aab3b3', 'lacquer', 'airbrush', 7, 120, {
        mixture: 'clear lacquer 1:1',
      }),
      layer('medium', 'Chipping medium', '#7f86c9', 'medium', 'airbrush', 6, 22, {
        coats: 2,
        zones: ['sides', 'deck'],
        mixture: 'chipping medium, undiluted',
        window: { opensMinutes: 22, closesMinutes: 110, through: 'stripe' },
        note: 'Normal kind. Two light coats, no pools in corners; wick them at once.',
      }),
      layer('cream', 'Cream', '#e6dcc0', 'acrylic', 'airbrush', 10, 12, {
        zones: ['sides', 'deck'],
        mixture: 'cream 3:1',
      }),
      layer('cream-light', 'Cream, lighter above', '#f3ecd8', 'acrylic', 'airbrush', 7, 12, {
        zones: ['sides', 'deck'],
        madeOf: LIGHT_CREAM,
        reach: 'half',
      }),
      layer('stripe', 'Faded red stripe', '#b8564a', 'acrylic', 'airbrush', 7, 15, {
        zones: ['sides'],
        mixture: 'faded red 4:1',
        window: { opensMinutes: 15, closesMinutes: 60 },
        note: 'Loose stencil, no tape: tape tears a live chipping layer.',
        reach: 'traces',
      }),
      layer('chip', 'Lift chips', '#c9a27c', 'work', 'brush', 25, 30, {
        zones: ['sides', 'deck'],
        judgeFrom: 'wipe',
      }),
      layer('chip-seal', 'Two light seals, hands off', '#b7bfbf', 'varnish', 'airbrush', 4, 240, {
        coats: 2,
        mixture: SATIN,
        level: 1,
      }),
      layer('fittings', 'Chains, bollards, lamps', '#3f4649', 'acrylic', 'brush', 32, 20, {
        zones: ['fittings'],
        pausable: true,
        mixture: 'iron grey',
      }),
      layer('name', 'Name boards', '#2f4a63', 'setting', 'hand', 14, 60, { zones: ['sides'] }),
      layer('name-seal', 'Gloss over all', '#c4d2d4', 'varnish', 'airbrush', 6, 300, {
        mixture: 'gloss varnish 4:1',
        level: 2,
      }),
      layer('wash', 'Rust-brown pin wash', '#4e2f20', 'enamel', 'brush', 16, 0, {
        window: { opensMinutes: 45, closesMinutes: 180, preferMinutes: 75 },
        mixture: 'rust wash, ready-made',
        reach: 'recesses',
      }),
      layer('wipe', 'Wipe the wash', '#7a5a48', 'work', 'hand', 18, 720),
      layer('streaks', 'Rust streaks', '#9a552f', 'oil', 'brush', 14, 0, {
        zones: ['sides'],
        window: { opensMinutes: 15, closesMinutes: 150, preferMinutes: 60 },
        mixture: 'rust oil, thinned',
        reach: 'traces',
      }),
      layer('draw', 'Draw the streaks down', '#a8714d', 'work', 'brush', 14, 1440, { zones: ['sides'] }),
      layer('silt', 'Silt powder', '#8c8064', 'powder', 'hand', 12, 60, {
        zones: ['deck', 'sides'],
        air: 'contaminates',
        mixture: 'silt powder',
        reach: 'half',
      }),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 5, 60, { mixture: MATT, level: 3 }),
      layer('edges', 'Graphite on worn edges', '#7d8488', 'pen', 'hand', 10, 0, {
        zones: ['fittings'],
        reach: 'traces',
      }),
    ],
  );
}

function dredgerPart(): Recipe {
  return recipe(
    'dredger-part',
    'Dredger deckhouse and arm',
    ['Plates', 'Works'],
    [
      layer('prime', 'Black primer', '#33373a', 'primer', 'airbrush', 5, 60, { mixture: BLACK_PRIMER }),
      layer('rust', 'Rust, three tones', '#8a4b2e', 'acrylic', 'airbrush', 7, 20, {
        mixture: 'rust brown 3:1',
      }),
      layer('seal', 'Clear lacquer', '#aab3b3', 'lacquer', 'airbrush', 4, 120, {
        mixture: 'clear lacquer 1:1',
      }),
      layer('medium', 'Chipping medium', '#7f86c9', 'medium', 'airbrush', 3, 22, {
        coats: 2,
        mixture: 'chipping medium, undiluted',
        window: { opensMinutes: 22, closesMinutes: 80, through: 'cream' },
      }),
      layer('cream', 'Cream', '#e6dcc0', 'acrylic', 'airbrush', 6, 15, {
        mixture: 'cream 3:1',
        window: { opensMinutes: 15, closesMinutes: 60 },
      }),
      layer('chip', 'Lift chips', '#c9a27c', 'work', 'brush', 12, 30),
      layer('chip-seal', 'Two light seals, hands off', '#b7bfbf', 'varnish', 'airbrush', 2, 240, {
        coats: 2,
        mixture: SATIN,
      }),
      layer('works', 'Pipes, glass, gears', '#3f4649', 'acrylic', 'brush', 16, 20, {
        zones: ['works'],
        pausable: true,
        mixture: 'iron grey',
      }),
      layer('wash', 'Rust-brown pin wash', '#4e2f20', 'enamel', 'brush', 7, 0, {
        zones: ['plates'],
        window: { opensMinutes: 45, closesMinutes: 180, preferMinutes: 75 },
        mixture: 'rust wash, ready-made',
        reach: 'recesses',
      }),
      layer('wipe', 'Wipe the wash', '#7a5a48', 'work', 'hand', 8, 720, { zones: ['plates'] }),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 3, 60, { mixture: MATT }),
    ],
  );
}

function stall(): Recipe {
  return recipe(
    'stall',
    'Eel stall',
    ['Boards', 'Awning'],
    [
      layer('prime', 'Grey primer', '#8d9294', 'primer', 'airbrush', 4, 60, { mixture: GREY_PRIMER }),
      layer('boards', 'Weathered boards', '#9c8f7c', 'acrylic', 'airbrush', 4, 15, {
        zones: ['boards'],
        mixture: 'board grey 3:1',
      }),
      layer('awning', 'Saffron awning', '#d39b3a', 'acrylic', 'airbrush', 3, 15, {
        zones: ['awning'],
        mixture: 'saffron 3:1',
      }),
      layer('stripes', 'Awning stripes', '#f0e6cf', 'acrylic', 'brush', 8, 20, {
        zones: ['awning'],
        pausable: true,
        mixture: 'warm white',
        reach: 'traces',
      }),
      layer('grain', 'Board grain', '#c9bea9', 'acrylic', 'brush', 3, 10, {
        zones: ['boards'],
        mixture: 'bone',
        reach: 'edges',
      }),
      layer('wares', 'Eels and baskets', '#4f5c5a', 'acrylic', 'brush', 12, 20, {
        zones: ['boards'],
        pausable: true,
        mixture: 'eel brown',
      }),
      layer('shade', 'Umber shade', '#5a4632', 'acrylic-wash', 'brush', 4, 40, { mixture: 'umber shade' }),
      layer('chips', 'Sponged scuffs', '#d8cdb8', 'acrylic', 'sponge', 3, 10, {
        zones: ['boards'],
        mixture: 'bone',
        reach: 'traces',
      }),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 2, 60, { mixture: MATT }),
    ],
  );
}

/** Scenery with a poured-water base. */
function quay(): Recipe {
  return recipe(
    'quay',
    'Quay and fen water',
    ['Stone', 'Water'],
    [
      layer('ground', 'Ground and pebbles', '#6a5c48', 'paste', 'hand', 18, 720, {
        mixture: 'texture paste',
      }),
      layer('prime', 'Black primer', '#33373a', 'primer', 'airbrush', 7, 60, { mixture: BLACK_PRIMER }),
      layer('stone', 'Stone grey', '#8b8f8a', 'acrylic', 'airbrush', 7, 15, {
        zones: ['stone'],
        mixture: 'stone grey 3:1',
      }),
      layer('bed', 'Green water bed', '#38513f', 'acrylic', 'airbrush', 6, 15, {
        zones: ['water'],
        mixture: 'bed green 3:1',
      }),
      layer('dry', 'Stone edges, dry-brushed', '#c3c6bf', 'acrylic', 'brush', 6, 10, {
        zones: ['stone'],
        mixture: 'pale stone',
        reach: 'edges',
      }),
      layer('moss', 'Moss and stains', '#5b6b3a', 'acrylic-wash', 'brush', 7, 40, {
        zones: ['stone'],
        mixture: 'moss shade',
        reach: 'traces',
      }),
      layer('matt', 'Matt coat', '#b9bdb9', 'varnish', 'airbrush', 4, 240, { mixture: MATT }),
      layer('pour1', 'First pour, under 3 mm', '#7fa6a0', 'water', 'pour', 10, 1440, {
        zones: ['water'],
        note: 'Level table, dust cover, no draught.',
      }),
      layer('pour2', 'Second pour, under 3 mm', '#8fb6b0', 'water', 'pour', 10, 1440, {
        zones: ['water'],
        note: 'Only over the first when it is clear all through.',
      }),
      layer('reeds', 'Reeds and lilies', '#a7a455', 'work', 'hand', 15, 60),
    ],
  );
}

function piece(id: string, name: string, recipeId: string, extra: Partial<Piece> = {}): Piece {
  return { id, name, recipe: recipeId, count: 1, places: 1, joins: null, ...extra };
}

function units(monday: LocalDate): Unit[] {
  const unit = (
    id: string,
    name: string,
    day: number,
    time: string,
    importance: number,
    pieces: Piece[],
  ): Unit => ({
    id,
    name,
    table: `${addDays(monday, day)}T${time}`,
    readyFrom: null,
    importance,
    pieces,
  });
  const trays = ['Cutters, tray 1', 'Cutters, tray 2', 'Lamp lighters, tray 3'];
  const six = [1, 2, 3, 4, 5, 6];
  return [
    unit(
      'folk',
      'Reed folk',
      12,
      '13:00',
      3,
      trays.map((n, k) => piece(`folk${k + 1}`, n, 'reed-folk', { count: 6, places: 2 })),
    ),
    unit(
      'herons',
      'Heron riders',
      15,
      '19:00',
      3,
      six.flatMap((n) => [
        piece(`heron${n}`, `Heron ${n}`, 'heron', { places: 1 }),
        piece(`rider${n}`, `Rider ${n}`, 'rider', { joins: { piece: `heron${n}`, layer: 'matt' } }),
      ]),
    ),
    unit(
      'punts',
      'Lantern punts',
      18,
      '19:00',
      4,
      six.flatMap((n) => [
        piece(`punt${n}`, `Punt ${n}`, 'punt', { places: 2 }),
        piece(`mast${n}`, `Mast ${n}`, 'mast', { joins: { piece: `punt${n}`, layer: 'bilge' } }),
      ]),
    ),
    unit('market', 'Eel market', 21, '11:00', 2, [
      piece('quay', 'Quay', 'quay', { places: 4 }),
      ...['Smoke stall', 'Net stall', 'Lamp stall', 'Basket stall'].map((n, k) =>
        piece(`stall${k + 1}`, n, 'stall', { joins: { piece: 'quay', layer: 'reeds' } }),
      ),
    ]),
    unit('patience', 'Dredger “Old Patience”', 21, '19:00', 5, [
      piece('hull', 'Hull', 'dredger', { places: 4 }),
      piece('house', 'Deckhouse', 'dredger-part', { places: 2, joins: { piece: 'hull', layer: 'silt' } }),
      piece('arm', 'Bucket arm', 'dredger-part', { places: 2, joins: { piece: 'hull', layer: 'silt' } }),
    ]),
  ];
}
