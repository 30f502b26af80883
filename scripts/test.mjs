/** `npm test`: from a fresh clone to every check passed. `npm test -- unit e2e` runs only the named ones. */
import { existsSync } from 'node:fs';
import { buildApp, installPackages, run } from './shell.mjs';

const CHROMIUM = process.env.CHROMIUM ?? '/usr/bin/chromium';

async function installChromium() {
  if (existsSync(CHROMIUM)) return;
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const sudo = process.getuid() === 0 ? [] : ['sudo'];
  const apt = (...args) => run([...sudo, 'apt-get'][0], [...sudo, 'apt-get', ...args].slice(1), { env });
  await apt('update');
  await apt('install', '-y', '--no-install-recommends', 'chromium');
}

const CHECKS = {
  format: () => run('npm', ['run', '-s', 'format:check']),
  lint: () => run('npm', ['run', '-s', 'lint']),
  types: () => run('npm', ['run', '-s', 'types']),
  unit: () => run('npm', ['run', '-s', 'unit']),
  components: () => run('npm', ['run', '-s', 'components']),
  build: () => buildApp({ always: true }),
  e2e: async () => {
    await installChromium();
    await buildApp();
    await run('npm', ['run', '-s', 'e2e']);
  },
};

const asked = process.argv.slice(2);
const unknown = asked.filter((name) => !(name in CHECKS));
if (unknown.length > 0) {
  console.error(`There is no check ${unknown.join(', ')}; known: ${Object.keys(CHECKS).join(', ')}.`);
  process.exit(2);
}
try {
  await installPackages();
  for (const [name, check] of Object.entries(CHECKS)) {
    if (asked.length > 0 && !asked.includes(name)) continue;
    const begun = Date.now();
    console.log(`\n— ${name}`);
    await check();
    console.log(`— ${name} passed, ${((Date.now() - begun) / 1000).toFixed(0)} s`);
  }
  console.log('\nEvery check passed.');
} catch (error) {
  console.error(`\n${error instanceof Error ? error.message : error}`);
  process.exit(1);
}
