/**
 * `npm run mutation [-- muster session … every=6]`: changes the code line by line and counts how many changes the tests of its room notice.
 * Hours a room; with `every=6` a sixth of its lines, in stretches of ten spread over all files, and without what is done once as a module
 * loads (tables, schemas), for which each change needs every test. Specs that plan whole evenings over and over are left out: what is noticed
 * is noticed without them. Not in CI. The report lies in out/mutation.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { Stryker } from '@stryker-mutator/core';

/** Each room with the specs that are to notice. */
const ROOMS = {
  muster: { mutate: 'core/muster', specs: ['core/muster', 'core/session/about.spec.ts'] },
  recipe: { mutate: 'core/recipe', specs: ['core/recipe'] },
  plan: { mutate: 'core/plan', specs: ['core/plan'] },
  log: { mutate: 'core/log', specs: ['core/log'] },
  session: { mutate: 'core/session', specs: ['core/session'] },
  // The forecasts' specs need Angular's test bed, which such a run does not have.
  data: { mutate: 'app/data', specs: ['app/data'], without: ['forecasts.ts'] },
};
/** Share of the changes that must be noticed, percent. */
const WANTED = 75;

/** Lines that are changed together, or left alone together. */
const STRETCH = 10;

const given = process.argv.slice(2);
const every = Number(given.find((a) => a.startsWith('every='))?.slice(6) ?? 1);
if (!Number.isInteger(every) || every < 1) {
  console.error('every=… wants a whole number: of so many stretches of lines one is changed.');
  process.exit(2);
}
const asked = given.filter((a) => !a.startsWith('every='));
const unknown = asked.filter((name) => !(name in ROOMS));
if (unknown.length > 0) {
  console.error(`There is no room ${unknown.join(', ')}; known: ${Object.keys(ROOMS).join(', ')}.`);
  process.exit(2);
}
/** What is changed of a room: all of it, or of each file every so many-th stretch, begun elsewhere in each. */
function changedIn(room, without = []) {
  const left = ['!**/*.spec.ts', '!**/testing/**', '!**/testing.ts', '!**/index.ts'];
  if (every === 1) return [`${room}/**/*.ts`, ...left, ...without.map((f) => `!${room}/${f}`)];
  const files = readdirSync(room, { recursive: true })
    .filter((f) => f.endsWith('.ts') && !/[.]spec[.]ts$|testing|index[.]ts$/.test(f) && !without.includes(f))
    .map((f) => `${room}/${f}`)
    .sort();
  return files.flatMap((file, nth) => {
    const stretches = Math.ceil(readFileSync(file, 'utf8').split('\n').length / STRETCH);
    return Array.from({ length: stretches }, (_, k) => k)
      .filter((k) => (k + nth) % every === 0)
      .map((k) => `${file}:${k * STRETCH + 1}-${(k + 1) * STRETCH}`);
  });
}

let isShort = false;
for (const [name, { mutate, specs, without }] of Object.entries(ROOMS)) {
  if (asked.length > 0 && !asked.includes(name)) continue;
  process.env.MUTATION_SPECS = specs.join(',');
  const results = await new Stryker({
    testRunner: 'vitest',
    vitest: { configFile: 'scripts/mutation.vitest.config.ts', related: false },
    plugins: ['@stryker-mutator/vitest-runner'],
    mutate: changedIn(mutate, without),
    // The wording of a text is not what a test should hold fast.
    mutator: { excludedMutations: ['StringLiteral'] },
    coverageAnalysis: 'perTest',
    ignoreStatic: every > 1,
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
