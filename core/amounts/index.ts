export { amountOf, type Amount } from './amount';
export { areaOf, shareOf, SIZES } from './area';
export { cupsFor, type CupPlan } from './mix';
export { materialsOf, type Material } from './materials';
