export { AIDS, FILMS, filmFactor, THICKNESS, type Aid, type Film } from './film';
export { MASKING_IDS, maskingFacts, type Masking, type MaskingId } from './maskings';
export { cautionsFor, DEFER } from './cautions';
export {
  FAMILIES,
  FAMILY_IDS,
  familyOf,
  type Binder,
  type Body,
  type Drying,
  type Family,
  type FamilyId,
  type Hazard,
  type Role,
  type Texture,
} from './families';
export { METHOD_IDS, METHODS, methodOf, type Method, type MethodId } from './methods';
export {
  dilution,
  over,
  parseRatio,
  plus,
  rational,
  sharesOf,
  times,
  toNumber,
  type Ratio,
  type Rational,
} from './ratio';
export { REACH, REACHES, type Reach, type ReachFacts } from './reach';
export { sprayGuide, sprayWords, type SprayGuide } from './spray';
export {
  AmountError,
  barToPsi,
  dropsOf,
  ML_PER,
  psiToBar,
  psiToKpa,
  toMillilitres,
  VOLUME_UNITS,
  type VolumeUnit,
} from './units';
