export { appearanceOf, type Mark, type Sight } from './appearance';
export { differenceOf, labOf, luminanceOf } from './colour';
export { canOvershoot, effectsOf, isEffect, overshotColour, type Effect } from './contrast';
export { filmOfCard, productOf, productsByName, reachOf, SURFACES, type Surface } from './paint';
export { ARM_MM, smallestSeenMm } from './sight';
