import type { Offer } from './way';

const MOST_IMPORTANT = 5;

/** That unit before all others. */
export const first: Offer = ({ worst }) => [
  {
    id: 'first',
    costs: 'margins of the other units',
    label: `${worst.name} before everything else`,
    apply: (m) => ({
      ...m,
      units: m.units.map((u) => ({
        ...u,
        importance: u.id === worst.id ? MOST_IMPORTANT : Math.max(1, u.importance - 2),
      })),
    }),
  },
];
