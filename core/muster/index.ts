export * from './document';
export * from './edit';
export { asNominal, estimateWords, nominalOf, withEstimate } from './estimate';
export * from './localTime';
export { originOf, sessionsOf, sessionsOn, type BenchSession } from './sessions';
export { airAt, sortedReadings, spellsOf, type Reading } from './air';
