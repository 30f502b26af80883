/** The views, in the order in which an evening goes through them. */
export interface View {
  readonly path: string;
  readonly name: string;
  /** in a few words, for the finder and the help */
  readonly about: string;
  /** stands in the row of views */
  readonly isMain: boolean;
}

export const VIEWS: readonly View[] = [
  { path: '/plan', name: 'Plan', about: 'which evening does what, and why', isMain: true },
  { path: '/tonight', name: 'Tonight', about: 'at the bench, run by run', isMain: true },
  { path: '/sheet', name: 'Run sheet', about: 'a session on paper', isMain: true },
  { path: '/muster', name: 'Muster', about: 'units, pieces and table dates', isMain: true },
  { path: '/recipes', name: 'Recipes', about: 'layers, windows, rules', isMain: true },
  { path: '/bench', name: 'Bench', about: 'people, tools, hours, air', isMain: true },
  { path: '/stores', name: 'Stores', about: 'paints, jars, shopping', isMain: true },
  { path: '/wave', name: 'Wave', about: 'how many go through a window together', isMain: true },
  { path: '/log', name: 'Log', about: 'what was done, and what it taught', isMain: true },
  { path: '/unit', name: 'Unit', about: 'no two alike, nothing forgotten', isMain: false },
  { path: '/findings', name: 'What to look at', about: 'all that the checks have found', isMain: false },
  { path: '/musters', name: 'All musters', about: 'open, duplicate, archive, bin', isMain: false },
  { path: '/help', name: 'Help', about: 'words of the bench, and keys', isMain: false },
];
