/** What a finish can be wished to have, in the painter's words, with a colour to begin with. */
import type { Look, LookKind, Looks } from '#core/muster';

export interface LookFacts {
  readonly kind: LookKind;
  readonly name: string;
  /** what is asked for, in a few words */
  readonly about: string;
  readonly colour: string;
  /** there is one for the whole piece, without zones */
  readonly isWhole?: true;
  /** none of its layers leaves a colour */
  readonly isColourless?: true;
}

type Extra = Pick<LookFacts, 'isWhole' | 'isColourless'>;

const look = (kind: LookKind, name: string, colour: string, about: string, extra: Extra = {}): LookFacts => ({
  kind,
  name,
  colour,
  about,
  ...extra,
});

/** In the order in which one thinks of them: from the ground up. */
export const LOOKS: readonly LookFacts[] = [
  look('texture', 'Texture and damage', '#7b7468', 'grit, cast metal, dents, before the primer'),
  look('ground', 'Ground', '#8d9294', 'the colour of the primer', { isWhole: true }),
  look('light', 'Light from above', '#d9dcd6', 'a pale colour sprayed down over the ground'),
  look('base', 'Base colour', '#6d7f55', 'heavier: lighter on top and in panel centres'),
  look('metal', 'Metal', '#7f868a', 'metallic paint'),
  look('chipping', 'Chipped, showing beneath', '#8a4b2e', 'what shows where the base colour is lifted off'),
  look('whitewash', 'Temporary whitewash', '#e7e5dc', 'washable paint, rubbed off where it wears'),
  look('second', 'Masked second colour', '#2f4a66', 'stripes, patches, hulls of two colours'),
  look('details', 'Details', '#3f4649', 'fittings, lamps, ropes, handles'),
  look('markings', 'Markings', '#e8e4d8', 'decals, or painted'),
  look('lining', 'Lines and recesses', '#2e1a10', 'a wash led along panel lines and corners'),
  look('shade', 'Overall shade', '#3d2c20', 'a wash over all of it'),
  look('lights', 'Lit edges', '#d8d2b8', 'dry brush and highlights'),
  look('filter', 'Tint', '#7a6a48', 'a thin glaze that pulls the tones together'),
  look('chips', 'Chips by hand', '#4a3328', 'scratches and scuffs where things get hit'),
  look('rust', 'Rust', '#8a4b2e', 'patches, old dark and new bright'),
  look('streaks', 'Streaks', '#5b2f1c', 'rain and rust drawn down'),
  look('dust', 'Dust', '#a99a7c', 'in the low places and on the feet'),
  look('mud', 'Mud', '#5d4a35', 'thick and wet, at the bottom'),
  look('clear', 'Clear parts', '#9fb3b8', 'kept covered until all is done', { isColourless: true }),
  look(
    'late',
    'A part glued late',
    '#8d9294',
    'its joint bared of paint, glued, touched up before the last coat',
    { isColourless: true },
  ),
  look('polish', 'Polished metal', '#b9bcbe', 'graphite or metal powder on the edges, after the last coat'),
  look('wet', 'Wet spots', '#c4d2d4', 'oil, water, fuel, after the last coat'),
  look('tufts', 'Tufts and rim', '#7d8a4e', 'grass, stones, the painted edge of a base'),
  look('water', 'Clear water', '#7fa8a4', 'poured at the very end; heavier: deeper'),
];

const FACTS: ReadonlyMap<LookKind, LookFacts> = new Map(LOOKS.map((l) => [l.kind, l]));

export function lookFacts(kind: LookKind): LookFacts {
  return FACTS.get(kind)!;
}

/** Where a recipe that is to be composed begins: a ground, a base colour, a matt last coat. */
export const FIRST_LOOKS: Looks = {
  list: [
    { id: 'ground', kind: 'ground', zones: [], strength: 'normal', colour: lookFacts('ground').colour },
    { id: 'base', kind: 'base', zones: [], strength: 'normal', colour: lookFacts('base').colour },
  ],
  sheen: 'matt',
  noSolvents: false,
  noAirbrush: false,
  isQuick: false,
};

/** A look more, under an id that is made of its kind. */
export function withLook(looks: Looks, kind: LookKind): Looks {
  const ids = new Set(looks.list.map((l) => l.id));
  let id: string = kind;
  for (let n = 2; ids.has(id); n++) id = `${kind}${n}`;
  const added: Look = { id, kind, zones: [], strength: 'normal', colour: lookFacts(kind).colour };
  return { ...looks, list: [...looks.list, added] };
}

export function withoutLook(looks: Looks, id: string): Looks {
  return { ...looks, list: looks.list.filter((l) => l.id !== id) };
}
