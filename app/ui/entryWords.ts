/** The kinds of log entries as the screens call them. */
import type { LogEntry } from '#core/log';

export const ENTRY_WORDS: Readonly<Record<LogEntry['kind'], string>> = {
  done: 'done',
  dry: 'was dry',
  'touch-dry': 'could be touched',
  'not-dry': 'not dry yet',
  skipped: 'skipped',
  rework: 'rework',
  verdict: 'pilot',
  stopped: 'stopped for the evening',
  noted: 'note',
  picture: 'picture',
  jar: 'jar of left-over mix',
  looked: 'looked over',
  placed: 'marks put on',
  forecast: 'odds that were given',
  clock: 'clock put right',
  'taken-back': 'taken back',
};

/** What several entries are, counted by kind: “done × 3, rework × 3”; one alone without its number. */
export function countedWords(entries: readonly LogEntry[]): string {
  const counts = new Map<string, number>();
  for (const e of entries) counts.set(ENTRY_WORDS[e.kind], (counts.get(ENTRY_WORDS[e.kind]) ?? 0) + 1);
  return [...counts].map(([word, n]) => (n === 1 ? word : `${word} × ${n}`)).join(', ');
}
