import type { Choice } from './choiceField';

/** Places at which a finish could stop, whole and sealed, in words. */
export const LEVELS: readonly Choice[] = [
  { value: '1', text: 'level 1, table-ready' },
  { value: '2', text: 'level 2, weathered' },
  { value: '3', text: 'level 3, all of it' },
];
