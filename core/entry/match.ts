/** Which recipe is meant. */
import type { Named } from './draft';

const LEAST = 0.5;
/** Words that say nothing of which recipe it is. */
const STOP = new Set(['a', 'an', 'and', 'the', 'of', 'on', 'in', 'with', 'by', 'as', 'recipe']);

/** The recipe whose name has the most of the words, each of which may be the beginning of one; null where none has half of them. */
export function matchRecipe<T extends Named>(text: string, recipes: readonly T[]): T | null {
  const asked = wordsOf(text);
  if (asked.length === 0) return null;
  const exact = recipes.find((r) => r.name.toLowerCase() === text.trim().toLowerCase());
  if (exact) return exact;
  let best: T | null = null;
  let most = 0;
  for (const recipe of recipes) {
    const own = wordsOf(recipe.name);
    const hits = asked.filter((word) =>
      own.some((w) => w === word || (word.length > 2 && w.startsWith(word))),
    );
    // Of two names that have as many of the words the shorter one is nearer.
    const score = hits.length / asked.length - own.length / 1000;
    if (hits.length / asked.length >= LEAST && score > most) [best, most] = [recipe, score];
  }
  return best;
}

function wordsOf(text: string): string[] {
  const words = text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];
  return words.filter((w) => !STOP.has(w));
}
