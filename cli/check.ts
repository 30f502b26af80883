/**
 * `npm run -s check -- muster.json [--json]`: what is wrong with a muster, by rule and place, with the cure.
 * Exit 0: no errors; 1: errors; 2: no muster.
 */

import { MusterFileError, parseMuster } from '#core/muster';
import { checkMuster } from '#core/plan';
import type { Finding } from '#core/recipe';
import { fail, readArguments, readJson } from './arguments';

const args = process.argv.slice(2);
const asJson = args.includes('--json');
const { file } = readArguments(
  args.filter((a) => a !== '--json'),
  [],
);
const findings = read();
process.stdout.write(
  asJson ? `${JSON.stringify(findings.map(plain), null, 1)}\n` : findings.map(line).join(''),
);
process.exit(findings.some((f) => f.severity === 'error') ? 1 : 0);

function read(): Finding[] {
  try {
    return checkMuster(parseMuster(readJson(file)));
  } catch (error) {
    if (error instanceof MusterFileError) fail(2, error.message);
    throw error;
  }
}

function line(f: Finding): string {
  return `${f.severity} ${f.rule}: ${f.where}: ${f.text} ${f.cure}\n`;
}

function plain({ fix, ...rest }: Finding): object {
  return fix
    ? { ...rest, fix: { label: fix.label, addsMinutes: fix.addsMinutes, addsDryMinutes: fix.addsDryMinutes } }
    : rest;
}
