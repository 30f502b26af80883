/** More hours at the bench, and more hands. */
import {
  addDays,
  dateTimeAfter,
  daysBetween,
  minutesSince,
  originOf,
  sessionsOf,
  type LocalDate,
  type Muster,
} from '#core/muster';
import { horizonDays } from '../horizon';
import { moment } from '../words';
import type { Offer } from './way';

const LONGER_MINUTES = 30;
const EXTRA = { from: '19:00', to: '22:00' } as const;

export const longerSessions: Offer = () => [
  {
    id: 'longer',
    costs: 'half an hour of every evening',
    label: `Every session of the week ${LONGER_MINUTES} min longer`,
    apply: (m) => ({
      ...m,
      bench: { ...m.bench, weekly: m.bench.weekly.map((w) => ({ ...w, to: laterBy(w.to, LONGER_MINUTES) })) },
    }),
  },
];

export const extraSession: Offer = ({ muster, from }) => {
  const day = firstFreeDay(muster, from);
  if (day === null) return [];
  const origin = originOf(muster);
  return [
    {
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
    },
  ];
};

export const helper: Offer = () => [
  {
    id: 'helper',
    costs: 'somebody else’s evenings',
    label: 'A second pair of hands',
    apply: (m) => ({
      ...m,
      bench: { ...m.bench, people: [...m.bench.people, { id: 'helper', name: 'Helper' }] },
    }),
  },
];

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
