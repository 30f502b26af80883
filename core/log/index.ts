export {
  aheadOfClock,
  entryId,
  entrySchema,
  fromFirstLog,
  lastAct,
  LOG_FORMAT,
  logFileSchema,
  mergeLogs,
  MOST_MINUTES,
  PICTURE_CHARACTERS,
  readLogFile,
  standing,
  type EntryOf,
  type LogEntry,
} from './log';
export { afterReopening, DECIDING_KINDS, newEntries } from './admission';
export { corrections, endedSteps, hasHistory, type Ended } from './ended';
export type { Deed, New } from './unwritten';
