/** What a schema finds wrong, told as the user calls things. */
import { toDotPath, type $ZodIssue } from 'zod/v4/core';
import type { Fault } from './sound';

/** Fields whose name in a file is not what the screen calls them. */
const FIELDS: Readonly<Record<string, string>> = {
  table: 'its table date',
  readyFrom: 'the day from which it is ready',
  count: 'its number of figures',
  places: 'its rack places',
  recipe: 'its recipe',
  joins: 'what it joins',
  size: 'its size',
  importance: 'how much it matters',
  budgetHours: 'the hours that it may cost',
  name: 'its name',
  minutes: 'the minutes of hands',
  dryMinutes: 'its drying',
  window: 'its window',
  colour: 'its colour',
  family: 'its family',
  method: 'how it is put on',
  coats: 'its coats',
  startsOn: 'the beginning of the plan',
  from: 'its beginning',
  to: 'its end',
  date: 'its date',
};

/** @param value the whole that was read, for the names of what stands in it */
export function toFaults(issues: readonly $ZodIssue[], value: unknown): Fault[] {
  return issues.flatMap((issue): Fault[] => {
    if (issue.code !== 'unrecognized_keys') {
      const path = toDotPath(issue.path) || 'file';
      return [{ path, text: issue.message, of: ofPath(issue.path, value) }];
    }
    return issue.keys.map((key) => ({
      path: toDotPath([...issue.path, key]),
      text: 'is no field that is known here; is it misspelt?',
      of: [...namesOn(issue.path, value), `“${key}”`].join(': '),
    }));
  });
}

/** `Salt pan, Hull: its number of figures` */
function ofPath(path: readonly PropertyKey[], value: unknown): string {
  const names = namesOn(path, value).join(', ');
  const last = [...path].reverse().find((key) => typeof key === 'string');
  const field = last === undefined ? '' : (FIELDS[last] ?? `“${last}”`);
  return [names, field].filter((part) => part !== '').join(': ') || 'the file';
}

/** Names of all that the path leads through; of a muster itself none. */
function namesOn(path: readonly PropertyKey[], value: unknown): string[] {
  const names: string[] = [];
  let at: unknown = value;
  for (const key of path) {
    at = typeof at === 'object' && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined;
    const name = typeof at === 'object' && at !== null ? (at as { name?: unknown }).name : undefined;
    if (typeof name === 'string' && name.trim() !== '') names.push(name.slice(0, 60));
  }
  return names;
}

/** A fault as a line of a list: what it is of, what is wrong, and where it stands in a file. */
export function faultLine({ path, text, of }: Fault): string {
  return of === undefined ? `${path}: ${text}` : `${of} ${text} (${path})`;
}
