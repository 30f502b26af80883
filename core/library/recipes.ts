/**
 * Complete recipes over generic products, to begin from. Between them they use every stage of the trade and each school in which
 * practitioners differ. Minutes are for a hand-sized piece, drying is nominal: common practice, no source.
 */
import type { Look, LookKind, Looks, LookStrength, Recipe } from '#core/muster';
import { composed, FIRST_LOOKS } from '#core/recipe';

/** A wish: what, how much, in which colour, on which zones; none: all of them. */
type Wish = readonly [LookKind, LookStrength, string, ...string[]];

/** A recipe is a set of wishes: its layers are what is composed of them, so that each wish can be taken up and dropped. */
function wished(
  id: string,
  name: string,
  zones: readonly string[],
  wishes: readonly Wish[],
  schools: NonNullable<Recipe['schools']>,
  asked: Partial<Looks> = {},
): Recipe {
  const list: Look[] = wishes.map(([kind, strength, colour, ...on], k) => ({
    id: wishes.findIndex((w) => w[0] === kind) === k ? kind : `${kind}${k + 1}`,
    kind,
    strength,
    colour,
    zones: on,
  }));
  const looks: Looks = { ...FIRST_LOOKS, ...asked, list };
  const bare: Recipe = {
    id: `library-${id}`,
    name,
    zones: zones.map((z) => ({ id: z.toLowerCase().replaceAll(' ', '-'), name: z })),
    layers: [],
    schools,
  };
  return { ...bare, looks, layers: composed(bare, looks) };
}

export const LIBRARY: readonly Recipe[] = [
  wished(
    'tray',
    'Tray of figures, quick',
    ['Cloth', 'Skin'],
    [
      ['ground', 'normal', '#8d9294'],
      ['light', 'normal', '#d9dcd6'],
      ['base', 'normal', '#5f7148', 'cloth'],
      ['base', 'normal', '#c08a63', 'skin'],
      ['shade', 'normal', '#3d2c20'],
      ['lights', 'normal', '#a9b78a'],
    ],
    { washes: 'acrylic', metals: 'brushed', realism: 'table' },
    { isQuick: true, isForFigures: true },
  ),
  wished(
    'sandwich',
    'Chipped over rust, within the hour',
    ['Hull', 'Fittings'],
    [
      ['texture', 'normal', '#7b7468', 'hull'],
      ['ground', 'normal', '#33373a'],
      ['chipping', 'normal', '#8a4b2e', 'hull'],
      ['base', 'normal', '#e6dcc0', 'hull'],
      ['details', 'normal', '#8c7a55', 'fittings'],
      ['lining', 'normal', '#2e1a10'],
      ['chips', 'trace', '#5b2f1c', 'hull'],
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
  wished(
    'whitewash',
    'Late whitewash over a sealed finish',
    ['All round'],
    [
      ['ground', 'normal', '#8d9294'],
      ['base', 'normal', '#4d5f43'],
      ['whitewash', 'normal', '#e7e5dc'],
    ],
    { sandwich: 'medium', aids: 'patience' },
  ),
  wished(
    'spray',
    'Chips with decanted hairspray',
    ['Hull'],
    [
      ['ground', 'normal', '#33373a'],
      ['chipping', 'normal', '#5a6065'],
      ['base', 'normal', '#6d7f55'],
    ],
    { topcoat: 'wet', sandwich: 'spray', chips: 'medium', metals: 'brushed' },
  ),
  wished(
    'dry-sandwich',
    'Chips when thoroughly dry',
    ['Hull'],
    [
      ['ground', 'normal', '#8d9294'],
      ['chipping', 'normal', '#6a4a38'],
      ['base', 'normal', '#41607a'],
    ],
    { topcoat: 'dry', 'under-medium': 'bare', chips: 'medium', solvent: 'trusting' },
    { sheen: 'satin' },
  ),
  wished(
    'crackle',
    'Peeling planks by crackle',
    ['Planks'],
    [
      ['ground', 'normal', '#8d9294'],
      ['chipping', 'normal', '#8a7a66'],
      ['base', 'normal', '#c9b98a'],
      ['shade', 'normal', '#3a3128'],
    ],
    { sandwich: 'crackle', washes: 'acrylic' },
  ),
  wished(
    'decals',
    'Markings on gloss, chipped through',
    ['Body', 'Glass'],
    [
      ['ground', 'normal', '#8d9294'],
      ['base', 'normal', '#8f3a34', 'body'],
      ['clear', 'normal', '#9fb3b8', 'glass'],
      ['markings', 'normal', '#e8e4d8', 'body'],
      ['chips', 'normal', '#d9c7a2', 'body'],
      ['lining', 'normal', '#20140e', 'body'],
    ],
    { decals: 'gloss', markings: 'markings-first', chips: 'sponge', 'wash-surface': 'gloss' },
  ),
  wished(
    'decals-matt',
    'Markings on matt with softener',
    ['Body'],
    [
      ['ground', 'normal', '#e8e8e4'],
      ['base', 'normal', '#a9c4d0'],
      ['markings', 'normal', '#e8e4d8'],
    ],
    { decals: 'matt' },
  ),
  wished(
    'freehand',
    'Freehand and masked stripes, chipped first',
    ['Body', 'Stripe'],
    [
      ['ground', 'normal', '#8d9294'],
      ['base', 'normal', '#7d868a'],
      ['second', 'normal', '#d8b23a', 'stripe'],
      ['chips', 'normal', '#2b2421'],
      ['markings', 'normal', '#f0ece0', 'body'],
    ],
    { decals: 'freehand', markings: 'chips-first', chips: 'brush', 'chips-and-wash': 'chips-after' },
  ),
  wished(
    'steel',
    'Bare steel, deliberately unvarnished',
    ['Steel', 'Leather'],
    [
      ['ground', 'normal', '#33373a'],
      ['base', 'normal', '#6b4a30', 'leather'],
      ['filter', 'normal', '#2f2118', 'leather'],
      ['metal', 'normal', '#a8adb2', 'steel'],
      ['polish', 'normal', '#6d7276', 'steel'],
    ],
    { metals: 'bare' },
  ),
  wished(
    'airbrushed-metal',
    'Smooth metal, sealed, with oil streaks',
    ['Plates'],
    [
      ['ground', 'normal', '#33373a'],
      ['metal', 'normal', '#9da3a8'],
      ['filter', 'trace', '#5a4a30'],
      ['rust', 'normal', '#8a4b2e'],
      ['streaks', 'normal', '#7a3f22'],
    ],
    { metals: 'sprayed', washes: 'enamel', realism: 'life' },
    { sheen: 'satin' },
  ),
  wished(
    'dust',
    'Dust, mud and sealed powders',
    ['Upper', 'Lower'],
    [
      ['ground', 'normal', '#8d9294'],
      ['base', 'normal', '#c2ad84'],
      ['lining', 'normal', '#3a2718'],
      ['dust', 'heavy', '#d8c9a4', 'lower'],
      ['mud', 'heavy', '#5b4a36', 'lower'],
      ['wet', 'trace', '#2a231c', 'lower'],
    ],
    { powders: 'always', aids: 'cool' },
  ),
  wished(
    'powder-open',
    'Dry pigments left open, for display',
    ['Body'],
    [
      ['ground', 'normal', '#33373a'],
      ['base', 'normal', '#60676b'],
      ['dust', 'normal', '#b3a58c'],
    ],
    { powders: 'never', 'wash-surface': 'matt' },
  ),
  wished(
    'salt',
    'Salt mask, face by face',
    ['Plates'],
    [
      ['ground', 'normal', '#33373a'],
      ['chipping', 'normal', '#7c4528'],
      ['base', 'normal', '#b8b3a2'],
    ],
    { sandwich: 'salt', chips: 'medium' },
  ),
  wished(
    'pond',
    'Base with clear water',
    ['Ground', 'Water'],
    [
      ['texture', 'normal', '#6a5c48'],
      ['ground', 'normal', '#33373a'],
      ['base', 'normal', '#7a684c', 'ground'],
      ['base', 'normal', '#38513f', 'water'],
      ['lights', 'normal', '#c3b79a', 'ground'],
      ['tufts', 'normal', '#7d8a4e', 'ground'],
      ['water', 'normal', '#7fa8a4', 'water'],
    ],
    { aids: 'cabinet' },
  ),
  wished(
    'parts',
    'Part glued late on a bared joint',
    ['Part', 'Joint'],
    [
      ['ground', 'normal', '#8d9294'],
      ['base', 'normal', '#557089'],
      ['details', 'normal', '#d8c27a', 'part'],
      ['late', 'normal', '#557089', 'joint'],
    ],
    { aids: 'patience' },
  ),
];
