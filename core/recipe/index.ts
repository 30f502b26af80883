export { checkCraft, CRAFT_RULES } from './checkCraft';
export { colourDistance } from './rules/cover';
export { QUESTIONS, schoolOf, withSchool, type Question, type School } from './schools';
export { checkRecipe } from './checkRecipe';
export { compareRecipes, type ComparedRow } from './compare';
export { factsOf, type RecipeFacts } from './facts';
export type { Finding, Fix, Place } from './finding';
export {
  circleOf,
  isOnZone,
  linksOf,
  opensAfter,
  restingOn,
  topLayers,
  withZoneTurned,
  zonesOf,
  type Link,
} from './links';
export { layerByBrush, recipeByBrush } from './byBrush';
export { effectiveRecipe, substituted } from './effective';
export { dryingOf, roundsOf, waitsBetween, workMinutes } from './rounds';
export {
  changesOf,
  composed,
  FIRST_LOOKS,
  LOOKS,
  lookFacts,
  revised,
  withLook,
  withoutLook,
  type LayerChange,
  type LookFacts,
  type Revision,
} from './compose';
