/** What the launchers share: running a command to its end, and making sure that packages and build are there. */
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const INSTALLED = 'node_modules/.installed-lock';

/** Runs a command with this terminal; rejects when it fails. */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) =>
      code === 0 ? resolve() : reject(new Error(`${command} ${args.join(' ')} ended with ${signal ?? code}`)),
    );
  });
}

/** `npm ci`, unless what is installed is what the lock file says. */
export async function installPackages() {
  const lock = createHash('sha256').update(readFileSync('package-lock.json')).digest('hex');
  if (existsSync(INSTALLED) && readFileSync(INSTALLED, 'utf8') === lock) return;
  await run('npm', ['ci', '--ignore-scripts']);
  writeFileSync(INSTALLED, lock);
}

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  return Math.max(0, ...readdirSync(path).map((name) => newest(join(path, name))));
}

/** Builds the app, unless the build is newer than all it is made from. */
export async function buildApp({ always = false } = {}) {
  const built = 'dist/web/index.html';
  const sources = ['app', 'core', 'demo', 'public', 'angular.json', 'package-lock.json'];
  if (!always && existsSync(built)) {
    const made = statSync(built).mtimeMs;
    if (sources.every((s) => newest(s) < made)) return;
  }
  mkdirSync('dist', { recursive: true });
  await run('npx', ['ng', 'build'], { env: { ...process.env, NG_CLI_ANALYTICS: 'false' } });
}
