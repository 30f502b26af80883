export { allotments, allottedWords, recipesWithMarkings } from './allotments';
export { cupLeft, cupWords, plannedCup, sharedOut, type Cup, type Part } from './cup';
export { goodUntil, isPast, jarFor, jarsOf, labelOf, type JarNow } from './jars';
export { shortBy, shortOf, type Equivalent, type RunShort } from './tonight';
export {
  consumableUses,
  markingUses,
  keyOf,
  missingWords,
  productUses,
  shoppingList,
  stepUses,
  namesPaint,
  unnamedUses,
  type Unnamed,
  type ConsumableUse,
  type MarkingUse,
  type ProductUse,
  type Shortage,
} from './usage';
