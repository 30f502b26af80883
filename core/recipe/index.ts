export { checkRecipe } from './checkRecipe';
export type { Finding, Place } from './finding';
export { circleOf, linksOf, restingOn, topLayers, workMinutes, zonesOf, type Link } from './links';
