export { appearanceOf, type Mark, type Sight } from './appearance';
export { differenceOf, labOf } from './colour';
export { canOvershoot, effectsOf, isEffect, LOST, overshotColour, PLAIN, type Effect } from './contrast';
export { mixtureColour } from './mixture';
export { filmOfCard, productOf, productsByName, reachOf, SURFACES, type Surface } from './paint';
