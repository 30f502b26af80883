/** Ways out when a table date is in danger: single changes of the muster, each to be planned and weighed. */
import {
  addDays,
  dateTimeAfter,
  daysBetween,
  minutesSince,
  originOf,
  sessionsOf,
  storesOf,
  USUAL_BOTTLE_ML,
  withoutLayer,
  withSuffix,
  type Layer,
  type LocalDate,
  type Muster,
  type Recipe,
  type Unit,
} from '#core/muster';
import { checkCraft, withSchool, isFor } from '#core/recipe';
import { horizonDays } from './horizon';
import { moment } from './words';

export interface WayOut {
  readonly id: string;
  readonly label: string;
  /** what it costs besides minutes of hands, in words */
  readonly costs: string;
  readonly apply: (muster: Muster) => Muster;
}

const LONGER_MINUTES = 30;
const EXTRA = { from: '19:00', to: '22:00' } as const;

/**
 * @param late ids of the units that are late or in danger, the worst first
 * @param from minute from which on help is needed
 * @param spares products that may run out before anybody sees it coming, the likeliest first
 */
export function waysOut(
  muster: Muster,
  late: readonly string[],
  from: number,
  spares: readonly string[] = [],
): WayOut[] {
  const ways: WayOut[] = [];
  const worst = muster.units.find((u) => u.id === late[0]);
  if (!worst) return ways;
  const origin = originOf(muster);
  ways.push({
    id: 'longer',
    costs: 'half an hour of every evening',
    label: `Every session of the week ${LONGER_MINUTES} min longer`,
    apply: (m) => ({
      ...m,
      bench: { ...m.bench, weekly: m.bench.weekly.map((w) => ({ ...w, to: laterBy(w.to, LONGER_MINUTES) })) },
    }),
  });
  const day = firstFreeDay(muster, from);
  if (day !== null)
    ways.push({
      id: 'extra',
      costs: 'an evening',
      label: `An extra session on ${moment(origin, minutesSince(origin, `${day}T${EXTRA.from}`))}, three hours`,
      apply: (m) => ({
        ...m,
        bench: {
          ...m.bench,
          exceptions: [
            ...m.bench.exceptions.filter((e) => e.date !== day),
            { id: `extra-${day}`, date: day, sessions: [EXTRA] },
          ],
        },
      }),
    });
  ways.push({
    id: 'helper',
    costs: 'somebody else’s evenings',
    label: 'A second pair of hands',
    apply: (m) => ({
      ...m,
      bench: { ...m.bench, people: [...m.bench.people, { id: 'helper', name: 'Helper' }] },
    }),
  });
  const levels = new Set(
    worst.pieces.flatMap(
      (p) => muster.recipes.find((r) => r.id === p.recipe)?.layers.flatMap((l) => l.level ?? []) ?? [],
    ),
  );
  for (const level of [...levels]
    .filter((n) => n < (worst.level ?? 4))
    .sort((a, b) => b - a)
    .slice(0, 2))
    ways.push({
      id: `level-${level}`,
      costs: `what ${worst.name} would show above that level`,
      label: `Finish ${worst.name} to level ${level} only`,
      apply: (m) => ({ ...m, units: m.units.map((u) => (u.id === worst.id ? { ...u, level } : u)) }),
    });
  for (const { recipe, layer } of optionalLayers(muster, worst).slice(0, 2))
    ways.push({
      id: `without-${recipe.id}-${layer.id}`,
      costs: 'that effect',
      label: `Leave “${layer.name}” off ${worst.name}`,
      apply: (m) => withShorterRecipe(m, worst.id, recipe.id, layer.id),
    });
  if (worst.pieces.some((p) => p.use === 'shipped' && !p.isPackedSoft))
    ways.push({
      id: 'packed-soft',
      costs: 'dents and prints, unless it is packed with care',
      label: `Pack ${worst.name} before it has hardened through`,
      apply: (m) => ({
        ...m,
        units: m.units.map((u) =>
          u.id === worst.id
            ? {
                ...u,
                pieces: u.pieces.map((p) => (p.use === 'shipped' ? { ...p, isPackedSoft: true } : p)),
              }
            : u,
        ),
      }),
    });
  const second = secondWave(worst);
  if (second.length > 0)
    ways.push({
      id: 'second-wave',
      costs: `${second.length} pieces come a week late`,
      label: `${second.length} of ${worst.pieces.length} pieces of ${worst.name} in a second wave, a week later`,
      apply: (m) => ({
        ...m,
        units: m.units.flatMap((u) => (u.id === worst.id ? inTwoWaves(u, second) : [u])),
      }),
    });
  if (muster.recipes.some((r) => r.layers.some((l) => l.substitute && !l.usesSubstitute)))
    ways.push({
      id: 'acrylic',
      costs: 'washes that can be wiped back',
      label: 'Acrylic washes instead of enamel and oil, where a substitute is set',
      apply: (m) => ({ ...m, recipes: m.recipes.map((r) => withSchool(r, 'washes', 'acrylic')) }),
    });
  ways.push({
    id: 'aids',
    costs: 'a fan, and dust kept away from it',
    label: 'Cool moving air on everything that it may dry',
    apply: (m) => ({ ...m, recipes: m.recipes.map((r) => withSchool(r, 'aids', 'cool')) }),
  });
  const dry = driedOnShelf(muster, worst);
  if (dry)
    ways.push({
      id: 'dry-shelf',
      costs: 'a dehumidifier at a shelf, and the power for it',
      label: `A dehumidified shelf (${DRY_SHELF_PERCENT} %) for what dries slowly on ${worst.name}`,
      apply: dry,
    });
  if (recipesOf(muster, worst).some((r) => r.schools?.['topcoat'] === 'dry'))
    ways.push({
      id: 'topcoat-hour',
      costs: 'the freedom to paint over the chipping medium on another day',
      label: `${worst.name}: paint over the chipping medium within the hour`,
      apply: (m) => ({
        ...m,
        recipes: m.recipes.map((r) =>
          recipesOf(m, worst).includes(r) && r.schools?.['topcoat'] === 'dry'
            ? withSchool(r, 'topcoat', 'hour')
            : r,
        ),
      }),
    });
  for (const name of spares.slice(0, 2)) {
    const product = storesOf(muster).products.find((p) => p.name === name);
    if (!product) continue;
    const ml = product.bottleMl ?? USUAL_BOTTLE_ML;
    ways.push({
      id: `spare-${product.id}`,
      costs: 'the price of a bottle',
      label: `A spare bottle of ${name} in the house`,
      apply: (m) => ({
        ...m,
        stores: {
          ...storesOf(m),
          products: storesOf(m).products.map((p) =>
            p.id === product.id ? { ...p, leftMl: p.leftMl + ml } : p,
          ),
        },
      }),
    });
  }
  ways.push({
    id: 'first',
    costs: 'margins of the other units',
    label: `${worst.name} before everything else`,
    apply: (m) => ({
      ...m,
      units: m.units.map((u) => ({
        ...u,
        importance: u.id === worst.id ? 5 : Math.max(1, u.importance - 2),
      })),
    }),
  });
  return ways;
}

const DRY_SHELF_PERCENT = 40;
/** What dries sooner than that need not be put anywhere. */
const SLOW_MINUTES = 60;

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

/** Ways out two at a time, of different kinds: what one alone does not bring, both may. */
export function inPairs(ways: readonly WayOut[]): WayOut[] {
  const kind = (w: WayOut): string => w.id.split('-')[0]!;
  return ways.flatMap((a, k) =>
    ways
      .slice(k + 1)
      .filter((b) => kind(a) !== kind(b))
      .map((b) => ({
        id: `${a.id}+${b.id}`,
        label: `${a.label} + ${b.label}`,
        costs: `${a.costs}, and ${b.costs}`,
        apply: (m: Muster) => b.apply(a.apply(m)),
      })),
  );
}

function laterBy(time: string, minutes: number): string {
  const [h, m] = time.split(':').map(Number);
  const total = Math.min(1440, h! * 60 + m! + minutes);
  return `${String(Math.floor(total / 60)).padStart(2, '0')}:${String(total % 60).padStart(2, '0')}`;
}

/** The first day on which the bench is shut so far. */
function firstFreeDay(muster: Muster, from: number): LocalDate | null {
  const days = horizonDays(muster);
  const origin = originOf(muster);
  const dateAt = (minute: number): LocalDate => dateTimeAfter(origin, minute).slice(0, 10);
  const busy = new Set(sessionsOf(muster, days).map((s) => dateAt(s.start)));
  for (let date = addDays(dateAt(from), 1); daysBetween(origin.date, date) < days; date = addDays(date, 1))
    if (!busy.has(date)) return date;
  return null;
}

/** Effects on top of the colours: what a hurried painter leaves off first. Ground, colour and seal stay. */
function isEffect(layer: Layer): boolean {
  return isFor('wash', 'powder', 'mark')(layer) || layer.family === 'ink' || layer.method === 'sponge';
}

/**
 * Effects of the unit's recipes that can be left off without breaking a craft rule that holds with them, what saves most first.
 */
export function optionalLayers(muster: Muster, unit: Unit): { recipe: Recipe; layer: Layer }[] {
  const found: { recipe: Recipe; layer: Layer; saves: number }[] = [];
  for (const recipe of muster.recipes) {
    const pieces = unit.pieces.filter((p) => p.recipe === recipe.id);
    if (pieces.length === 0) continue;
    const uses = [...new Set(pieces.flatMap((p) => p.use ?? []))];
    const faults = new Set(checkCraft(recipe, uses).map((f) => f.text));
    for (const layer of recipe.layers) {
      if (!isEffect(layer) || recipe.layers.some((l) => isTiedTo(l, layer.id))) continue;
      if (unit.pieces.some((p) => p.joins?.layer === layer.id || p.startsAt === layer.id)) continue;
      const shorter = withoutLayer(recipe, layer.id);
      if (checkCraft(shorter, uses).some((f) => !faults.has(f.text))) continue;
      found.push({ recipe, layer, saves: layer.minutes * layer.coats * pieces.length + layer.dryMinutes });
    }
  }
  return found.sort((a, b) => b.saves - a.saves);
}

function isTiedTo(layer: Layer, id: string): boolean {
  return layer.waitsFor.includes(id) || layer.window?.through === id || layer.judgeFrom === id;
}

/** The unit's pieces follow a copy of the recipe that has no such layer; other units keep theirs. */
function withShorterRecipe(muster: Muster, unit: string, recipe: string, layer: string): Muster {
  const whole = muster.recipes.find((r) => r.id === recipe);
  if (!whole) return muster;
  const id = `${recipe}~${unit}~${layer}`.slice(-80);
  const name = whole.layers.find((l) => l.id === layer)?.name ?? layer;
  const shorter: Recipe = {
    ...withoutLayer(whole, layer),
    id,
    name: withSuffix(whole.name, `, without ${name}`.slice(0, 60)),
  };
  return {
    ...muster,
    recipes: [...muster.recipes.filter((r) => r.id !== id), shorter],
    units: muster.units.map((u) =>
      u.id === unit
        ? { ...u, pieces: u.pieces.map((p) => (p.recipe === recipe ? { ...p, recipe: id } : p)) }
        : u,
    ),
  };
}

/** The later half of what stands by itself: no part of another piece, nothing that joins to it, no pilot. */
function secondWave(unit: Unit): string[] {
  const joined = new Set(unit.pieces.flatMap((p) => (p.joins ? [p.id, p.joins.piece] : [])));
  const free = unit.pieces.filter((p) => p.recipe !== null && !p.isPilot && !joined.has(p.id));
  if (unit.pieces.length < 2) return [];
  return free.slice(Math.ceil(free.length / 2)).map((p) => p.id);
}

const WEEK_DAYS = 7;

function inTwoWaves(unit: Unit, later: readonly string[]): Unit[] {
  const second: Unit = {
    ...unit,
    id: `${unit.id}~2`.slice(-80),
    name: withSuffix(unit.name, ', second wave'),
    table: `${addDays(unit.table.slice(0, 10), WEEK_DAYS)}${unit.table.slice(10)}`,
    pieces: unit.pieces.filter((p) => later.includes(p.id)),
  };
  return [{ ...unit, pieces: unit.pieces.filter((p) => !later.includes(p.id)) }, second];
}
