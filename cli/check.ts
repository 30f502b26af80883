/** `npm run -s check -- muster.json`: what keeps a muster from being planned. Exit 0: nothing; 1: findings; 2: no muster. */
import { MusterFileError, parseMuster } from '#core/exchange';
import { checkMuster, hasErrors } from '#core/plan';
import { fail, readArguments, readJson } from './arguments';

const { file } = readArguments(process.argv.slice(2), []);
let findings;
try {
  findings = checkMuster(parseMuster(readJson(file)));
} catch (error) {
  if (error instanceof MusterFileError) fail(2, error.message);
  throw error;
}
for (const f of findings) process.stdout.write(`${f.severity} ${f.rule}: ${f.where}: ${f.text} ${f.cure}\n`);
process.exit(hasErrors(findings) ? 1 : 0);
