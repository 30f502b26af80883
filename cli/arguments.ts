/** What the commands share: reading arguments and files, and failing with a message and an exit code. */
import { readFileSync } from 'node:fs';

export interface Arguments {
  readonly file: string;
  readonly numbers: ReadonlyMap<string, number>;
  readonly out: string | null;
}

/** Says what is wrong on standard error and ends the process. */
export function fail(code: number, message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(code);
}

/** Reads `FILE [--number N …] [--out FILE]`; ends the process with 2 on anything else. */
export function readArguments(args: readonly string[], numeric: readonly string[]): Arguments {
  const numbers = new Map<string, number>();
  let file: string | null = null;
  let out: string | null = null;
  for (let k = 0; k < args.length; k++) {
    const arg = args[k]!;
    const name = arg.replace(/^--/, '');
    if (arg === '--out') {
      out = args[++k] ?? fail(2, '--out needs a file name');
    } else if (arg.startsWith('--') && numeric.includes(name)) {
      const value = Number(args[++k]);
      if (!Number.isFinite(value) || value < 0) fail(2, `${arg} needs a number of 0 or more`);
      numbers.set(name, value);
    } else if (arg.startsWith('--') || file !== null) {
      fail(2, `unknown argument ${arg}; known: FILE ${numeric.map((n) => `--${n} N`).join(' ')} --out FILE`);
    } else file = arg;
  }
  return { file: file ?? fail(2, 'no file given'), numbers, out };
}

/** Parses a JSON file; ends the process with 2 where it can't be read. */
export function readJson(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as unknown;
  } catch (error) {
    return fail(2, `${file}: ${error instanceof Error ? error.message : String(error)}`);
  }
}
