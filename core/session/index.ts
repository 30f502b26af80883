export { pieceCards, recipeOf, type PieceCard } from './card';
export { curesFor, type Cure } from './cures';
export { reworkId, withHistory, withoutOpenWindows, withReworks } from './history';
export {
  dryingLessons,
  handsLessons,
  productOf,
  withDryingLesson,
  withHandsLesson,
  withoutLessons,
  type DryingLesson,
  type HandsLesson,
} from './lessons';
export { layOut, leftBehind, type LaidOut, type LeftBehind } from './kit';
export {
  aheadOfClock,
  entryId,
  entrySchema,
  lastAct,
  LOG_FORMAT,
  logFileSchema,
  mergeLogs,
  MOST_MINUTES,
  PICTURE_CHARACTERS,
  standing,
  type EntryOf,
  type LogEntry,
} from './log';
export { tonight, type PutForward, type ShelfItem, type ShelfState, type Tonight } from './tonight';
