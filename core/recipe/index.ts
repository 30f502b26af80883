export { RULE_SCOPES, type RuleId, type RuleScope } from './registry';
export { checkCraft, CRAFT_RULES, isSilenced } from './checkCraft';
export { checkSchools } from './checkSchools';
export { underSchool } from './underSchool';
export { withZones } from './withZones';
export { zoneShares } from './zoneShares';
export { QUESTIONS, schoolOf, withSchool, type Question, type School } from './schools';
export { isFor, isPaint, isSeal, isSolvent, isWash, isWashable } from './kinds';
export { checkRecipe } from './checkRecipe';
export { compareRecipes, type ComparedRow } from './compare';
export { factsOf, type RecipeFacts } from './facts';
export { layerFix, onRecipe, type Finding, type Fix, type Place, type RecipeFix } from './finding';
export {
  circleOf,
  isOnZone,
  layersOn,
  linksOf,
  namedZones,
  opensAfter,
  restingOn,
  topLayers,
  withZoneTurned,
  zonesOf,
  zonesToSee,
  type Link,
} from './links';
export { layerByBrush } from './byBrush';
export { recipeByBrush } from './recipeByBrush';
export { maskOrders, withTouch, zonesTouch, type MaskOrder } from './maskOrder';
export { lastChances, takenBackOf, type TakenBack } from './takenBack';
export { maskingOf, masksOf, type Mask } from './masks';
export { effectiveRecipe, plainName, strengthOn, STRENGTH_MINUTES, substituted, trialOf } from './effective';
export { bearsUseAfter, curedAfter } from './rest';
export { dryingOf, hands, plannedMinutes, roundsOf, waitsBetween, workMinutes } from './rounds';
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
