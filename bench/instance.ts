import { existsSync, readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { parseProblem, type Problem } from '#core/kernel';

/** Reads one of the published instances. */
export function instance(name: string): Problem {
  const file = new URL(`../core/kernel/instances/${name}.json`, import.meta.url);
  const text = existsSync(file)
    ? readFileSync(file, 'utf8')
    : gunzipSync(readFileSync(new URL(`${file.href}.gz`))).toString('utf8');
  return parseProblem(JSON.parse(text));
}
