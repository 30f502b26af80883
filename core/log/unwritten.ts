/** What is about to be written: the log gives it its id and its circumstances. */
import type { LogEntry } from './log';

/** An entry that is not written yet: the log gives it its id and its circumstances. */
export type New<T> = T extends LogEntry ? Omit<T, 'id' | 'at' | 'act' | 'about'> : never;

/** What is to be written, and when it happened. */
export interface Deed {
  readonly entry: New<LogEntry>;
  readonly at: Date;
}
