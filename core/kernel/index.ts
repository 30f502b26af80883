export { parseProblem, ProblemError } from './document/document';
export type {
  Conflict,
  ConflictKind,
  Lift,
  Cost,
  Fault,
  PlacedOperation,
  Problem,
  ProblemLag,
  ProblemOperation,
  ProblemResource,
  Solution,
  Status,
} from './document/document';
export { seededRandom, type Random } from './model/random';
export { KernelMistake } from './document/judged';
export type { Search, SearchOptions } from './answer/search';
export { startSearch } from './answer/solve';
export { settle } from './place/settle';
export { inHours } from './answer/inHours';
export { leastSums, type Sums } from './prove/least';
export { solveProblem, type SolveBudget } from './answer/solveProblem';
export { validateSolution, type Judgement, type Violation } from './document/validate';
export { explainer, type ChainLink, type Explainer, type Reason, type ReasonKind } from './answer/explain';
export { causeOf, causesIn, isCause, withoutCause, type Cause } from './answer/causes';
export { movedOperations } from './answer/moved';
export { MOVES, type Move } from './search/moves';
