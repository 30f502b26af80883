/** Odds as painters say them: never a percentage, never a decimal. */

/** @param share 0 to 1 @returns “9 in 10”, “a coin’s toss”, “hardly ever” */
export function oddsWords(share: number): string {
  if (!Number.isFinite(share)) return 'not known';
  if (share >= 0.995) return 'as good as certain';
  if (share >= 0.965) return '29 in 30';
  if (share >= 0.925) return '19 in 20';
  if (share > 0.45 && share < 0.55) return 'a coin’s toss';
  if (share <= 0.005) return 'hardly ever';
  if (share < 0.035) return '1 in 30';
  if (share < 0.075) return '1 in 20';
  return `${Math.round(share * 10)} in 10`;
}

/** What a change makes of the odds that every date holds, in words; empty where either is not known. */
export function oddsChange(before: number | null, after: number | null): string {
  if (before === null || after === null) return '';
  const [was, is] = [oddsWords(before), oddsWords(after)];
  if (was === is) return `every date: ${is}, as before`;
  return `every date: ${was} → ${is}`;
}
