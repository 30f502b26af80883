/** Ways out when a table date is in danger: single changes of the muster, each to be planned and weighed. */
import { addDays, originOf, sessionsOf, type Muster } from '#core/muster';
import { withSchool } from '#core/recipe';
import { horizonDays } from './horizon';
import { moment } from './words';

export interface WayOut {
  readonly id: string;
  readonly label: string;
  readonly apply: (muster: Muster) => Muster;
}

const LONGER_MINUTES = 30;
const EXTRA = { from: '19:00', to: '22:00' } as const;

/** @param late ids of the units that are late, the worst first @param from minute from which on help is needed */
export function waysOut(muster: Muster, late: readonly string[], from: number): WayOut[] {
  const ways: WayOut[] = [];
  const worst = muster.units.find((u) => u.id === late[0]);
  if (!worst) return ways;
  const origin = originOf(muster);
  ways.push({
    id: 'longer',
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
      label: `An extra session on ${moment(origin, day * 1440 + 19 * 60)}, three hours`,
      apply: (m) => ({
        ...m,
        bench: {
          ...m.bench,
          exceptions: [
            ...m.bench.exceptions.filter((e) => e.date !== addDays(origin, day)),
            { id: `extra-${day}`, date: addDays(origin, day), sessions: [EXTRA] },
          ],
        },
      }),
    });
  ways.push({
    id: 'helper',
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
      label: `Finish ${worst.name} to level ${level} only`,
      apply: (m) => ({ ...m, units: m.units.map((u) => (u.id === worst.id ? { ...u, level } : u)) }),
    });
  if (muster.recipes.some((r) => r.layers.some((l) => l.substitute && !l.usesSubstitute)))
    ways.push({
      id: 'acrylic',
      label: 'Acrylic washes instead of enamel and oil, where a substitute is set',
      apply: (m) => ({ ...m, recipes: m.recipes.map((r) => withSchool(r, 'washes', 'acrylic')) }),
    });
  ways.push({
    id: 'aids',
    label: 'Cool moving air on everything that it may dry',
    apply: (m) => ({ ...m, recipes: m.recipes.map((r) => withSchool(r, 'aids', 'cool')) }),
  });
  ways.push({
    id: 'first',
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

function laterBy(time: string, minutes: number): string {
  const [h, m] = time.split(':').map(Number);
  const total = Math.min(1440, h! * 60 + m! + minutes);
  return `${String(Math.floor(total / 60)).padStart(2, '0')}:${String(total % 60).padStart(2, '0')}`;
}

/** The first day on which the bench is shut so far. */
function firstFreeDay(muster: Muster, from: number): number | null {
  const days = horizonDays(muster);
  const busy = new Set(sessionsOf(muster, days).map((s) => Math.floor(s.start / 1440)));
  for (let d = Math.floor(from / 1440) + 1; d < days; d++) if (!busy.has(d)) return d;
  return null;
}
