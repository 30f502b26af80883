import type { Verdict } from '#core/muster';

/** What one thinks of a product, in words. */
export const VERDICT_WORDS: Readonly<Record<Verdict, string>> = {
  again: 'again',
  'with-care': 'with care',
  never: 'never again',
};
