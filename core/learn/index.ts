export { dryingFactor, type DryingFactor, type DryingLook, type DryingPrior } from './drying';
export { factorForRun, layerFactors, type HandsLook, type LayerFactor } from './layers';
export { productFactors, type ProductFactor, type ProductLook } from './products';
