/** The same finish, drying quicker or waiting less. */
import type { Layer, Muster, Recipe, Unit } from '#core/muster';
import { isFor, withSchool } from '#core/recipe';
import type { Offer } from './way';

const DRY_SHELF_PERCENT = 40;
/** What dries sooner than that need not be put anywhere. */
const SLOW_MINUTES = 60;

export const acrylicWashes: Offer = ({ muster }) =>
  muster.recipes.some((r) => r.layers.some((l) => l.substitute && !l.usesSubstitute))
    ? [
        {
          id: 'acrylic',
          costs: 'washes that can be wiped back',
          label: 'Acrylic washes instead of enamel and oil, where a substitute is set',
          apply: (m) => ({ ...m, recipes: m.recipes.map((r) => withSchool(r, 'washes', 'acrylic')) }),
        },
      ]
    : [];

export const movingAir: Offer = () => [
  {
    id: 'aids',
    costs: 'a fan, and dust kept away from it',
    label: 'Cool moving air on everything that it may dry',
    apply: (m) => ({ ...m, recipes: m.recipes.map((r) => withSchool(r, 'aids', 'cool')) }),
  },
];

export const dryShelf: Offer = ({ muster, worst }) => {
  const dry = driedOnShelf(muster, worst);
  if (dry === null) return [];
  return [
    {
      id: 'dry-shelf',
      costs: 'a dehumidifier at a shelf, and the power for it',
      label: `A dehumidified shelf (${DRY_SHELF_PERCENT} %) for what dries slowly on ${worst.name}`,
      apply: dry,
    },
  ];
};

export const topcoatWithinTheHour: Offer = ({ muster, worst }) => {
  const waits = (r: Recipe): boolean => r.schools?.['topcoat'] === 'dry';
  if (!recipesOf(muster, worst).some(waits)) return [];
  return [
    {
      id: 'topcoat-hour',
      costs: 'the freedom to paint over the chipping medium on another day',
      label: `${worst.name}: paint over the chipping medium within the hour`,
      apply: (m) => {
        const own = recipesOf(m, worst);
        return {
          ...m,
          recipes: m.recipes.map((r) => (own.includes(r) && waits(r) ? withSchool(r, 'topcoat', 'hour') : r)),
        };
      },
    },
  ];
};

function recipesOf(muster: Muster, unit: Unit): Recipe[] {
  const ids = new Set(unit.pieces.map((p) => p.recipe));
  return muster.recipes.filter((r) => ids.has(r.id));
}

/** The bench with a shelf of dry air at the room’s warmth; null where it has a cabinet, is dry as it is, or nothing may go there. */
function driedOnShelf(muster: Muster, unit: Unit): ((m: Muster) => Muster) | null {
  const { bench } = muster;
  const { celsius, humidityPercent } = bench.climate.day;
  if (bench.cabinet || humidityPercent <= DRY_SHELF_PERCENT + 5) return null;
  const goesThere = (l: Layer): boolean =>
    l.dryMinutes >= SLOW_MINUTES && !l.window && !isFor('release', 'work', 'mark')(l);
  const recipes = new Set(recipesOf(muster, unit).map((r) => r.id));
  if (!muster.recipes.some((r) => recipes.has(r.id) && r.layers.some(goesThere))) return null;
  return (m) => ({
    ...m,
    bench: {
      ...m.bench,
      cabinet: {
        places: m.bench.rackPlaces,
        celsius: Math.max(10, celsius),
        humidityPercent: DRY_SHELF_PERCENT,
      },
    },
    recipes: m.recipes.map((r) =>
      recipes.has(r.id)
        ? { ...r, layers: r.layers.map((l) => (goesThere(l) ? { ...l, inCabinet: true } : l)) }
        : r,
    ),
  });
}
