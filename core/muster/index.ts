export * from './document';
export * from './edit';
export { asNominal, estimateWords, nominalOf, withEstimate } from './estimate';
export * from './localTime';
export {
  isAway,
  isInSession,
  originOf,
  presenceOf,
  sessionsOf,
  sessionsOn,
  type BenchSession,
} from './sessions';
export { airAt, sortedReadings, spellsOf, type Reading } from './air';
export { differences, GoneError, touches, withEdits, type Change, type Edit, type Path } from './change';
export { admit, checked, faultWords, type Admitted } from './door';
export { mended, withoutLayer, type Mended } from './mend';
export {
  componentsOf,
  isThinner,
  mixOf,
  mixtureWords,
  paintShareOf,
  partsOf,
  TO_BE_CHOSEN,
  type Component,
  type Mix,
  type Mixed,
} from './mixture';
export { fromFirstFormat } from './migrate';
export { MOST_DAYS, unsound, type Fault } from './sound';
export { between, common, merged, without, type Minutes } from './spans';
export { amount, limitsOf, numberFault, whole, type Limits } from './limits';
export { faultLine, toFaults } from './faults';
export { musterJsonSchema } from './jsonSchema';
export { MusterFileError, parseMuster, readMuster, writeMuster } from './musterFile';
export { kitOf, withKit, withoutKit, withUnitOfKit } from './kits';
export { benchOf, EVENINGS, ROOMS, USUAL_BOTTLE_ML, type Evening, type RoomId } from './usual';
