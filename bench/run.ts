import { startSearch, type Problem, type SearchOptions, type Solution } from '#core/kernel';

export interface Run {
  readonly solution: Solution;
  /** until the first plan that passed the judge, milliseconds */
  readonly firstMs: number;
  readonly first: number | null;
  readonly seconds: number;
  readonly tried: number;
}

/** Searches for so many seconds, or until there is nothing left to do. */
export function run(problem: Problem, seconds: number, options: SearchOptions = {}): Run {
  const begin = performance.now();
  const gone = (): number => (performance.now() - begin) / 1000;
  const search = startSearch(problem, { seed: 1, progress: () => gone() / seconds, ...options });
  let firstMs = 0;
  let first: number | null = null;
  while (!search.isDone && gone() < seconds) {
    search.step(first === null ? 1 : 20);
    if (first !== null || search.best().cost === null) continue;
    firstMs = performance.now() - begin;
    first = search.best().cost!.total;
  }
  return { solution: search.best(), firstMs, first, seconds: gone(), tried: search.tried };
}
