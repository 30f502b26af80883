/** A muster to live with: a few units of the library's recipes, on a bench that is like others. Everything in it is invented. */
import {
  benchOf,
  EVENINGS,
  MUSTER_FORMAT,
  ROOMS,
  type Evening,
  type Muster,
  type Piece,
  type Recipe,
  type Unit,
} from '#core/muster';
import type { Random } from '#core/kernel';
import { LIBRARY } from '#core/library';
import { recipeByBrush } from '#core/recipe';
import { pickOne, whole } from './chance';

/** Marks ids: what is said to the painter never holds one. */
export const ID_MARK = 'zqx';

const NAMES = [
  'Reed barge',
  'Heron rider',
  'Lantern keeper',
  'Eel trap',
  'Marsh hut',
  'Punt',
  'Stilt walker',
];
/** A Monday before each change of the clock in Europe, and one in between. */
const FIRST_DAYS = ['2027-03-22', '2027-10-25', '2027-06-07'];
const EVERY_EVENING: readonly Evening[] = [1, 2, 3, 4, 5].map((weekday) => ({
  weekday,
  from: '19:00',
  to: '22:00',
}));
const LATE_EVENINGS: readonly Evening[] = [2, 5, 6].map((weekday) => ({
  weekday,
  from: '21:00',
  to: '23:59',
}));

/** @param mostSteps about this number of steps at most */
export function campaignMuster(random: Random, mostSteps: number): Muster {
  const firstDay = pickOne(random, FIRST_DAYS);
  const hasAirbrush = random() < 0.85;
  const library = hasAirbrush ? LIBRARY : LIBRARY.map(recipeByBrush);
  const recipes = Array.from({ length: 1 + whole(random, 2) }, (_, k): Recipe => ({
    ...pickOne(random, library),
    id: `${ID_MARK}r${k}`,
  })).map((recipe, k, all) => ({
    ...recipe,
    name: all.findIndex((r) => r.name === recipe.name) === k ? recipe.name : `${recipe.name} ${k + 1}`,
  }));
  const units: Unit[] = [];
  let steps = 0;
  for (let u = 0; u < 4 && steps < mostSteps; u++) {
    const recipe = pickOne(random, recipes);
    const name = `${pickOne(random, NAMES)} ${u + 1}`;
    const pieces: Piece[] = [];
    for (let p = 0; p < 1 + whole(random, 4) && (steps === 0 || steps < mostSteps); p++) {
      pieces.push({
        id: `${ID_MARK}p${u}-${p}`,
        name: `${name}, piece ${p + 1}`,
        recipe: recipe.id,
        count: 1 + whole(random, 3),
        places: 1,
        joins: null,
        ...(p === 0 && random() < 0.2 ? { isPilot: true } : {}),
        ...(random() < 0.3 ? { use: 'played' as const } : {}),
      });
      steps += recipe.layers.length;
    }
    units.push({
      id: `${ID_MARK}u${u}`,
      name,
      table: `${dayAfter(firstDay, 8 + whole(random, 21))}T12:00`,
      readyFrom: null,
      importance: 1 + whole(random, 5),
      pieces,
    });
  }
  const evenings = pickOne(random, [EVENINGS, EVERY_EVENING, EVERY_EVENING, LATE_EVENINGS]);
  const bench = benchOf('Europe/Vienna', evenings, hasAirbrush, pickOne(random, ROOMS).id);
  const mixtures = [...new Set(recipes.flatMap((r) => r.layers.map((l) => l.mixture)))].filter(
    (m) => m !== '',
  );
  return {
    format: MUSTER_FORMAT,
    name: 'A season at the fen',
    startsOn: `${firstDay}T18:00`,
    bench: {
      ...bench,
      hasExtraction: true,
      people: random() < 0.75 ? bench.people : [...bench.people, { id: `${ID_MARK}h`, name: 'Helper' }],
      climate:
        random() < 0.5 ? bench.climate : { ...bench.climate, night: { celsius: 9, humidityPercent: 88 } },
    },
    recipes,
    units,
    stores: {
      products: mixtures.slice(0, 3).map((name, k) => ({
        id: `${ID_MARK}s${k}`,
        name,
        family: 'acrylic' as const,
        colour: '#808080',
        bottleMl: 17,
        leftMl: whole(random, 60),
      })),
      markings: [],
      consumables: [],
      jars: [],
    },
  };
}

export function dayAfter(day: string, days: number): string {
  return new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
}
