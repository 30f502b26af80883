export { curesFor, type Cure } from './cures';
export { reworkId, withHistory, withoutOpenWindows, withReworks } from './history';
export {
  entrySchema,
  LOG_FORMAT,
  logFileSchema,
  mergeLogs,
  standing,
  type EntryOf,
  type LogEntry,
} from './log';
export { tonight, type ShelfItem, type ShelfState, type Tonight } from './tonight';
