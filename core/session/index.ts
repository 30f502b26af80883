export { aboutStep, airOf, type About } from './about';
export { pieceCards, recipeOf, type PieceCard } from './card';
export { reworkId, withApprovals, withHistory, withoutOpenWindows, withReworks } from './history';
export {
  dryingLessons,
  handsLessons,
  isTelling,
  pacesOf,
  productOf,
  taught,
  withDryingLesson,
  withHandsLesson,
  withoutLessons,
  type DryingLesson,
  type HandsLesson,
} from './lessons';
export { driesLongest, layOut, leftBehind, type LaidOut, type LeftBehind } from './kit';
export { begunPieces } from './begun';
export { budgetOf, type Budget } from './budget';
export {
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
export { doneDeeds, passesLeft, timingOf, waitedFor, type Mixed, type Timing } from './acts';
export { agenda, type Agenda } from './agenda';
export { goneBy, type GoneBy } from './goneBy';
export { alarmsOf, dueAlarms, nextAlarm, type Alarm } from './alarms';
export { restingCoats, shelfAt, type Resting, type ShelfRow, type ShelfState } from './shelf';
export { stripOf, type Strip, type StripRun } from './strip';
export { eyeTasks, howFar, meanMiss, surfaceAt, type EyeAnswer, type EyeTask } from './eye';
export { fogOn, isAnswered, isDue, surpriseSchema, surprisesOf, type Surprise } from './surprises';
export { comingUp } from './comingUp';
export { curesFor, ownCures, reworkEntry, type Cure, type PieceCure } from './trouble';
export { nextTimeNotes, type NextTime } from './nextTime';
export { addedMinutes, pilotsBegun, pilotState, type Judged, type PilotState } from './pilot';
export { lastDone, lookedEntry, lookOver, onTable, type LookItem, type LookOver } from './lookOver';
export {
  decalSchema,
  decalsFor,
  deedOf,
  nextDecalDeed,
  withDeedDone,
  type Decal,
  type DecalDeed,
} from './decals';
export { unitRecord, type RecordLayer, type UnitRecord } from './unitRecord';
export { drawnEntry, markOn, placedMarks, tickedEntry, type MarkPlace, type PlacedMark } from './placedMarks';
export { recipesOf, referencesOf, referenceWords, type ReferenceShown } from './references';
export { pictureDue } from './pictureDue';
