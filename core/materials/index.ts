export { AIDS, FILMS, filmFactor, type Aid, type Film } from './film';
export { cautionsFor, DEFER } from './cautions';
export {
  FAMILIES,
  FAMILY_IDS,
  familyOf,
  type Drying,
  type Family,
  type FamilyId,
  type Texture,
} from './families';
export { METHOD_IDS, METHODS, methodOf, type Method, type MethodId } from './methods';
