/** Lists narrowed by words, as every list of the app does it: each word must stand somewhere in what speaks of the thing. */

export function narrowed<T>(list: readonly T[], typed: string, speakOf: (thing: T) => string): T[] {
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return [...list];
  return list.filter((thing) => {
    const text = speakOf(thing).toLowerCase();
    return words.every((w) => text.includes(w));
  });
}

/** How many there are of each kind. */
export function countBy<T, K>(list: readonly T[], kindOf: (thing: T) => K): ReadonlyMap<K, number> {
  const counts = new Map<K, number>();
  for (const thing of list) counts.set(kindOf(thing), (counts.get(kindOf(thing)) ?? 0) + 1);
  return counts;
}
