export { writeCalendar } from './calendar';
export { writePlanCsv } from './csv';
export { MusterFileError, parseMuster, readMuster, writeMuster } from './musterFile';
export { readReadings, ReadingsError } from './readings';
export { writeShoppingCsv } from './shopping';
export { writeLogCsv } from './logCsv';
