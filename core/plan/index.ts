export { checkMuster, MUSTER_CHECKS } from './checkMuster';
export { hasErrors } from './hasErrors';
export { compile, oneAfterAnother, type Compiled } from './compile';
export { doneId, operationId, readyId, type StepRef } from './stepRef';
export { horizonDays } from './horizon';
export { withReserve } from './reserve';
export { daylightOn } from './hours';
export {
  barePlan,
  present,
  sessionFrom,
  WET_SHARE,
  worstLateness,
  type Gate,
  type Plan,
  type PlanSession,
  type PlanStep,
  type PlanUnit,
  type Tide,
} from './present';
export { inPairs, optionalLayers, waysOut, type WayOut } from './waysOut';
export { waveOf, type Wave, type WaveInput, type WaveLimit } from './wave';
export { strengthWords } from './strengths';
export { coveredIn, coveredOf, goesOn, type Covered } from './covered';
export { checkPlan, planFix, type PlanFinding } from './checkPlan';
export { needOf } from './compilePiece';
export { loadOf } from './load';
export { abilityOf, mayDo } from './hands';
export { laneOf, withLanes } from './lanes';
export { AIRBRUSH, airbrushOf, BOOTH } from './tools';
export { CUP_ML, deedWords, factsOfRun, type RunFacts, type RunMix } from './runFacts';
export { pinned } from './pins';
export { handsOnMinutes } from './handsOn';
export { runsOf, swapsOf } from './runs';
export { eveningOf, type Evening } from './evening';
export { BARE, conflictInWords, conflictWords, type Naming } from './conflicts';
export { causeWords, lateBecause, whyOf, type ReasonWords, type Why } from './reasons';
export { runSheet, type RunEntry, type RunSheet } from './runSheet';
export {
  clockTime,
  datesProved,
  dayName,
  duration,
  listed,
  mayBeLessLate,
  moment,
  thereWords,
} from './words';
