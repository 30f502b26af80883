/** Two recipes side by side: what they share, and in what a layer differs. */
import { maskingOf } from './masks';
import { familyOf, methodOf, REACH } from '#core/materials';
import type { Layer, Recipe } from '#core/muster';

export interface ComparedRow {
  readonly left: Layer | null;
  readonly right: Layer | null;
  /** in words, what differs between the two; empty where they are alike or one is missing */
  readonly differs: readonly string[];
}

/** From the bottom up. Layers answer to one another by id, else by name and family, in the same order. */
export function compareRecipes(left: Recipe, right: Recipe): ComparedRow[] {
  const a = left.layers;
  const b = right.layers;
  const alike = (i: number, k: number): boolean => answers(a[i]!, b[k]!);
  // Longest common subsequence: lengths from each pair of places to the end.
  const long = Array.from({ length: a.length + 1 }, () => new Array<number>(b.length + 1).fill(0));
  for (let i = a.length - 1; i >= 0; i--)
    for (let k = b.length - 1; k >= 0; k--)
      long[i]![k] = alike(i, k) ? long[i + 1]![k + 1]! + 1 : Math.max(long[i + 1]![k]!, long[i]![k + 1]!);
  const rows: ComparedRow[] = [];
  let i = 0;
  let k = 0;
  while (i < a.length || k < b.length) {
    if (i < a.length && k < b.length && alike(i, k)) {
      const [l, r] = [a[i++]!, b[k++]!];
      rows.push({ left: l, right: r, differs: differencesOf(l, r) });
    } else if (k >= b.length || (i < a.length && long[i + 1]![k]! >= long[i]![k + 1]!))
      rows.push({ left: a[i++]!, right: null, differs: [] });
    else rows.push({ left: null, right: b[k++]!, differs: [] });
  }
  return rows;
}

function answers(a: Layer, b: Layer): boolean {
  return a.id === b.id || (a.family === b.family && a.name.toLowerCase() === b.name.toLowerCase());
}

function differencesOf(a: Layer, b: Layer): string[] {
  const windowOf = ({ window: w }: Layer): string =>
    w === null
      ? 'no window'
      : `from ${w.opensMinutes ?? 0}, better by ${w.preferMinutes ?? '–'}, until ${w.closesMinutes ?? '–'} min`;
  const figures: [string, string, string][] = [
    ['name', a.name, b.name],
    ['product', familyOf(a.family).name, familyOf(b.family).name],
    ['put on by', methodOf(a.method).name, methodOf(b.method).name],
    ['mixture', a.mixture || 'as it is', b.mixture || 'as it is'],
    ['coats', String(a.coats), String(b.coats)],
    ['hands', `${a.minutes} min`, `${b.minutes} min`],
    ['drying', `${a.dryMinutes} min`, `${b.dryMinutes} min`],
    ['window', windowOf(a), windowOf(b)],
    ['colour', a.colour, b.colour],
    ['sheen', a.sheen ?? 'not said', b.sheen ?? 'not said'],
    ['film', a.film ?? 'normal', b.film ?? 'normal'],
    ['covers', REACH[a.reach ?? 'all'].name, REACH[b.reach ?? 'all'].name],
    ['masked with', maskingOf(a)?.name ?? '', maskingOf(b)?.name ?? ''],
    ['note', a.note, b.note],
  ];
  return figures
    .filter(([, x, y]) => x !== y)
    .map(([what, x, y]) => (what === 'note' ? 'the note' : `${what}: ${x} → ${y}`));
}
