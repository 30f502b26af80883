export { parseProblem, ProblemError } from './document';
export type {
  Conflict,
  Cost,
  Fault,
  PlacedOperation,
  Problem,
  ProblemLag,
  ProblemOperation,
  ProblemResource,
  Solution,
  Status,
} from './document';
export { seededRandom, type Random } from './random';
export { KernelMistake } from './judged';
export { startSearch, type Search, type SearchOptions } from './solve';
export { settle } from './settle';
export { solveProblem, type SolveBudget } from './solveProblem';
export { validateSolution, type Judgement, type Violation } from './validate';
export { explainer, type ChainLink, type Explainer, type Reason, type ReasonKind } from './explain';
export { causeOf, causesIn, isCause, withoutCause, type Cause } from './causes';
export { movedOperations } from './moved';
export { FINE_MOVES, type FineMove } from './fineMoves';
export { MOVES, type Move } from './neighbourhoods';
