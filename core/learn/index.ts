export { dryingFactor, type DryingFactor, type DryingLook, type DryingPrior } from './drying';
export { factorForRun, HANDS_BEFOREHAND, layerFactors, type HandsLook, type LayerFactor } from './layers';
export { productFactors, type ProductFactor, type ProductLook } from './products';
