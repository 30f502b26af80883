export { amountOf, type Amount } from './amount';
export { areaOf, shareOf, SIZES } from './area';
export { cupsFor, mixOf, type Component, type CupPlan, type Mix } from './mix';
export { materialsOf, type Material } from './materials';
