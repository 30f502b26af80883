/** `npm run -s solve -- problem.json --seconds 5 [--seed 1] [--iterations N] [--out solution.json]` */
import { writeFileSync } from 'node:fs';
import { parseProblem, ProblemError, solveProblem, startSearch, type Solution } from '#core/kernel';
import { BARE, conflictWords } from '#core/plan';
import { fail, readArguments, readJson } from './arguments';

const BAD_DOCUMENT = 2;
const UNKNOWN = 3;

const { file, numbers, out } = readArguments(process.argv.slice(2), ['seconds', 'seed', 'iterations']);
let problem;
try {
  problem = parseProblem(readJson(file));
} catch (error) {
  if (error instanceof ProblemError) fail(BAD_DOCUMENT, error.message);
  throw error;
}
const solution = run();
const { conflict } = solution;
// The file says in words, too, why there is no plan.
const told =
  conflict === null
    ? solution
    : { ...solution, conflict: { ...conflict, message: conflictWords(conflict, BARE) } };
const text = `${JSON.stringify(told, null, 1)}\n`;
if (out === null) process.stdout.write(text);
else writeFileSync(out, text);
process.exit(solution.status === 'unknown' ? UNKNOWN : 0);

function run(): Solution {
  const seed = numbers.get('seed') ?? 1;
  const iterations = numbers.get('iterations');
  if (iterations !== undefined) return solveProblem(problem!, { seed, iterations });
  const budget = (numbers.get('seconds') ?? 5) * 1000;
  const begun = performance.now();
  const progress = (): number => (performance.now() - begun) / budget;
  const search = startSearch(problem!, { seed, progress });
  while (!search.isDone && progress() < 1) search.step(20);
  return search.best();
}
