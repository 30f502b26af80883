export { dryingFactor, type DryingFactor, type DryingLook } from './drying';
export { handsFactor, type HandsFactor } from './hands';
