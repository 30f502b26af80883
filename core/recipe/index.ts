export { checkCraft, CRAFT_RULES } from './checkCraft';
export { colourDistance } from './rules/cover';
export { QUESTIONS, schoolOf, withSchool, type Question, type School } from './schools';
export { checkRecipe } from './checkRecipe';
export type { Finding, Fix, Place } from './finding';
export { circleOf, linksOf, opensAfter, restingOn, topLayers, zonesOf, type Link } from './links';
export { effectiveRecipe, substituted } from './effective';
export { dryingOf, roundsOf, waitsBetween, workMinutes } from './rounds';
