import { startSearch, validateSolution, type Cost, type Problem } from '#core/kernel';
import { instance } from './instance';
import { figure, percent, table } from './table';

/** Seconds for each, as for the kernel that was blind to runs. */
const SECONDS = { 'rhythm-300-1': 10, 'rhythm-700-1': 20, 'rhythm-2400-1': 60 } as const;

/** What counted runs bring: beside the same search without them, its plan counted afterwards; means over so many seeds. */
export function rhythm(seeds: number): string {
  const rows = Object.entries(SECONDS).map(([name, seconds]) => {
    const problem = instance(name);
    const all = Array.from({ length: seeds }, (_, k) => k + 1);
    const mean = (costs: readonly Cost[], key: keyof Cost): number =>
      costs.reduce((sum, c) => sum + c[key], 0) / costs.length;
    const seeing = all.map((seed) => planned(problem, problem, seconds, seed));
    const blind = all.map((seed) => planned(problem, withoutRuns(problem), seconds, seed));
    return [
      name,
      figure(seconds),
      figure(mean(seeing, 'total'), 0),
      figure(mean(seeing, 'runs'), 0),
      figure(mean(seeing, 'tardiness'), 0),
      figure(mean(blind, 'total'), 0),
      figure(mean(blind, 'runs'), 0),
      figure(mean(blind, 'tardiness'), 0),
      percent(mean(seeing, 'total') / mean(blind, 'total')),
      percent(mean(seeing, 'runs') / mean(blind, 'runs')),
    ];
  });
  const head = ['instance', 's', 'total', 'runs', 'late', 'blind: total', 'runs', 'late', 'total', 'runs'];
  return table(head, rows);
}

/** How soon nobody is late, where the first plans are late and none need be. */
export function dates(names: readonly string[]): string {
  const rows = names.map((name) => {
    const problem = instance(name);
    const begin = performance.now();
    const gone = (): number => (performance.now() - begin) / 1000;
    const search = startSearch(problem, { seed: 1, progress: () => gone() / 20 });
    let first: number | null = null;
    while (!search.isDone && gone() < 20 && search.best().cost?.tardiness !== 0) {
      search.step(1);
      first ??= search.best().cost?.tardiness ?? null;
    }
    return [name, figure(first), figure(search.best().cost?.tardiness), figure(gone(), 2)];
  });
  return table(['instance', 'first plan late', 'late', 'after s'], rows);
}

function planned(judged: Problem, solved: Problem, seconds: number, seed: number): Cost {
  const begin = performance.now();
  const gone = (): number => (performance.now() - begin) / 1000;
  const search = startSearch(solved, { seed, progress: () => gone() / seconds });
  while (!search.isDone && gone() < seconds) search.step(20);
  return validateSolution(judged, search.best()).cost!;
}

function withoutRuns(problem: Problem): Problem {
  return {
    ...problem,
    resources: (problem.resources ?? []).map((r) => ({ ...r, runs: false })),
    objective: { ...problem.objective, runs: 0 },
  };
}
