/**
 * `npm run mutation [-- muster session …]`: changes the code line by line and counts how many changes the tests of its room notice.
 * Minutes to an hour a room; not in CI. The report lies in out/mutation.
 */
import { Stryker } from '@stryker-mutator/core';

/** Each room with the specs that are to notice. */
const ROOMS = {
  muster: { mutate: 'core/muster', specs: ['core/muster', 'core/session/about.spec.ts'] },
  recipe: { mutate: 'core/recipe', specs: ['core/recipe'] },
  plan: { mutate: 'core/plan', specs: ['core/plan'] },
  log: { mutate: 'core/log', specs: ['core/log'] },
  session: { mutate: 'core/session', specs: ['core/session'] },
  data: { mutate: 'app/data', specs: ['app/data'] },
};
/** Share of the changes that must be noticed, percent. */
const WANTED = 75;

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in ROOMS));
if (unknown.length > 0) {
  console.error(`There is no room ${unknown.join(', ')}; known: ${Object.keys(ROOMS).join(', ')}.`);
  process.exit(2);
}
let isShort = false;
for (const [name, { mutate, specs }] of Object.entries(ROOMS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  process.env.MUTATION_SPECS = specs.join(',');
  const results = await new Stryker({
    testRunner: 'vitest',
    vitest: { configFile: 'scripts/mutation.vitest.config.ts', related: false },
    plugins: ['@stryker-mutator/vitest-runner'],
    mutate: [`${mutate}/**/*.ts`, '!**/*.spec.ts', '!**/testing/**', '!**/testing.ts', '!**/index.ts'],
    // The wording of a text is not what a test should hold fast.
    mutator: { excludedMutations: ['StringLiteral'] },
    coverageAnalysis: 'perTest',
    concurrency: Number(process.env.MUTATION_CONCURRENCY ?? 2),
    timeoutMS: 20_000,
    reporters: ['clear-text', 'json'],
    clearTextReporter: { allowColor: false, logTests: false, reportTests: false, reportMutants: true },
    jsonReporter: { fileName: `out/mutation/${name}.json` },
    tempDirName: 'out/stryker',
    ignorePatterns: ['dist', 'out', '.angular', 'docs', 'test-results'],
    checkers: [],
  }).runMutationTest();
  const noticed = results.filter((r) => r.status === 'Killed' || r.status === 'Timeout').length;
  const counted = results.filter((r) =>
    ['Killed', 'Timeout', 'Survived', 'NoCoverage'].includes(r.status),
  ).length;
  const share = (100 * noticed) / Math.max(1, counted);
  console.log(`${name}: ${noticed} of ${counted} changes noticed, ${share.toFixed(1)} %`);
  isShort ||= share < WANTED;
}
process.exit(isShort ? 1 : 0);
