export { aboutStep, type About } from './about';
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
  fromFirstLog,
  lastAct,
  LOG_FORMAT,
  logFileSchema,
  mergeLogs,
  MOST_MINUTES,
  PICTURE_CHARACTERS,
  readLogFile,
  standing,
  withoutRepeats,
  type EntryOf,
  type LogEntry,
} from './log';
export { begunPieces } from './begun';
export { budgetOf, type Budget } from './budget';
export {
  hasHistory,
  pose,
  shownOf,
  solvedPlan,
  handNames,
  withHands,
  type HandNames,
  type Posed,
  type Shown,
  type Solved,
} from './solved';
export { tonight, type ShelfItem, type ShelfState, type Tonight } from './tonight';
