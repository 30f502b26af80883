/** `npm run demo`: installs and builds what is missing, serves the app with the demo muster, ends on Ctrl-C. */
import { spawn } from 'node:child_process';
import { buildApp, installPackages } from './shell.mjs';

await installPackages();
await buildApp();
const server = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts', '--demo'], { stdio: 'inherit' });
// A terminal sends Ctrl-C to both; a supervisor only to this process. Either way the server goes first.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => server.kill('SIGTERM'));
server.on('exit', (code) => process.exit(code ?? 0));
