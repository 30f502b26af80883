/** Less of a unit by its date: a lower level, packed soft, or a part of it a week later. */
import { addDays, withSuffix, type Unit } from '#core/muster';
import type { Offer } from './way';

/** A unit without a level is finished to this one. */
const FULL_LEVEL = 4;
const MOST_LEVELS = 2;
const WEEK_DAYS = 7;

export const lowerLevel: Offer = ({ muster, worst }) => {
  const levels = new Set(
    worst.pieces.flatMap(
      (p) => muster.recipes.find((r) => r.id === p.recipe)?.layers.flatMap((l) => l.level ?? []) ?? [],
    ),
  );
  return [...levels]
    .filter((n) => n < (worst.level ?? FULL_LEVEL))
    .sort((a, b) => b - a)
    .slice(0, MOST_LEVELS)
    .map((level) => ({
      id: `level-${level}`,
      costs: `what ${worst.name} would show above that level`,
      label: `Finish ${worst.name} to level ${level} only`,
      apply: (m) => ({ ...m, units: m.units.map((u) => (u.id === worst.id ? { ...u, level } : u)) }),
    }));
};

export const packedSoft: Offer = ({ worst }) =>
  worst.pieces.some((p) => p.use === 'shipped' && !p.isPackedSoft)
    ? [
        {
          id: 'packed-soft',
          costs: 'dents and prints, unless it is packed with care',
          label: `Pack ${worst.name} before it has hardened through`,
          apply: (m) => ({ ...m, units: m.units.map((u) => (u.id === worst.id ? softly(u) : u)) }),
        },
      ]
    : [];

export const secondWave: Offer = ({ worst }) => {
  const later = laterHalf(worst);
  if (later.length === 0) return [];
  return [
    {
      id: 'second-wave',
      costs: `${later.length} pieces come a week late`,
      label: `${later.length} of ${worst.pieces.length} pieces of ${worst.name} in a second wave, a week later`,
      apply: (m) => ({
        ...m,
        units: m.units.flatMap((u) => (u.id === worst.id ? inTwoWaves(u, later) : [u])),
      }),
    },
  ];
};

function softly(unit: Unit): Unit {
  return {
    ...unit,
    pieces: unit.pieces.map((p) => (p.use === 'shipped' ? { ...p, isPackedSoft: true } : p)),
  };
}

/** The later half of what stands by itself: no part of another piece, nothing that joins to it, no pilot. */
function laterHalf(unit: Unit): string[] {
  const joined = new Set(unit.pieces.flatMap((p) => (p.joins ? [p.id, p.joins.piece] : [])));
  const free = unit.pieces.filter((p) => p.recipe !== null && !p.isPilot && !joined.has(p.id));
  if (unit.pieces.length < 2) return [];
  return free.slice(Math.ceil(free.length / 2)).map((p) => p.id);
}

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
