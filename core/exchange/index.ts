export { writeCalendar } from './calendar';
export { writePlanCsv } from './csv';
export { readReadings, ReadingsError } from './readings';
export { writeShoppingCsv } from './shopping';
export { writeLogCsv } from './logCsv';
export { readArchive, writeArchive, type Archive } from './archive';
export { cutByBusy, readBusy, type Busy, type BusySpan, type Cut } from './busy';
export { readRecipe, writeRecipe } from './recipeFile';
