export {
  APART,
  couldVary,
  deal,
  dealOf,
  dealtRecipes,
  placesOf,
  DEFAULT_DEAL,
  swapped,
  VARIETY_WORDS,
  withDeal,
  withOptional,
  withTrait,
  type Dealt,
  type DealOptions,
  type Trait,
  type TraitValue,
} from './deal';
export {
  areaWords,
  briefsAlike,
  briefsOf,
  LEAST_ASYMMETRY,
  markOf,
  MOST_ALIKE,
  placedWords,
  STORY_WORDS,
  type Area,
  type Brief,
  type MarkKind,
  type Placed,
} from './brief';
export { allot, markedPieces, markingsWanted, sidesWanted, type Allotment, type Allotted } from './markings';
export { boxOf, FACES, FEATURE_WORDS, featuresOf, type Face } from './places';
