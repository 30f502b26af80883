/** Files with something wrong in them: each is refused in words or comes out sound, and what comes out can be checked and compiled. */
import { fenMuster } from '#demo/fen';
import { readReadings, ReadingsError } from '#core/exchange';
import { seededRandom, type Random } from '#core/kernel';
import { checked, type Muster, MusterFileError, readMuster, writeMuster } from '#core/muster';
import { checkMuster, compile, hasErrors } from '#core/plan';
import { LOG_FORMAT, logFileSchema, readLogFile } from '#core/log';
import { smallMuster } from '../core/plan/testing';
import type { Verdict } from './verdict';

export type FileKind = 'muster' | 'log' | 'readings';

/** Of each kind so many mutated files. */
export function tortureFiles(kind: FileKind, count: number, from = 0): Verdict {
  const faults: string[] = [];
  let refused = 0;
  let taken = 0;
  for (let seed = from; seed < from + count; seed++) {
    const random = seededRandom(seed);
    const text = mutated(SOURCES[kind](random), random);
    try {
      if (READERS[kind](text)) taken++;
      else refused++;
    } catch (error) {
      faults.push(
        `${kind}, seed ${seed}: ${error instanceof Error ? `${error.name}: ${error.message}` : String(error)}`,
      );
    }
  }
  return { faults, told: `${count} files of kind ${kind}: ${refused} refused in words, ${taken} taken` };
}

const READINGS = [
  'time,celsius,humidity_percent',
  ...Array.from({ length: 12 }, (_, h) => `2027-03-01 ${10 + h}:00,18.5,60`),
];
const LOG = {
  format: LOG_FORMAT,
  entries: [
    {
      id: 'a',
      at: '2027-03-01T19:00:00Z',
      kind: 'done',
      step: 'p1.prime',
      minutes: 5,
      isMeasured: true,
      nth: 1,
      people: ['Me'],
    },
    {
      id: 'b',
      at: '2027-03-01T19:10:00Z',
      kind: 'not-dry',
      step: 'p1.prime',
      moreMinutes: 10,
      air: { celsius: 20, humidityPercent: 50 },
    },
    {
      id: 'c',
      at: '2027-03-01T19:20:00Z',
      kind: 'rework',
      step: 'p1.prime',
      trouble: 't',
      cure: 'c',
      minutes: 4,
      dryMinutes: 5,
    },
    { id: 'd', at: '2027-03-01T19:30:00Z', kind: 'clock', entries: ['a'], byMinutes: -30 },
    { id: 'e', at: '2027-03-01T19:40:00Z', kind: 'taken-back', entry: 'b' },
    { id: 'f', at: '2027-03-01T19:50:00Z', kind: 'picture', data: 'data:image/png;base64,AAAA' },
  ],
};

const SOURCES: Readonly<Record<FileKind, (random: Random) => string>> = {
  muster: (random) => writeMuster(random() < 0.2 ? fenMuster('2027-03-01') : smallMuster()),
  log: (random) =>
    JSON.stringify(
      random() < 0.3
        ? {
            format: 'patient-muster-log/1',
            entries: LOG.entries.map((e) => ({ ...e, at: e.at.slice(0, 16) })),
          }
        : LOG,
    ),
  readings: () => READINGS.join('\n'),
};

/** @returns whether the file was taken. @throws whatever is no refusal in words */
const READERS: Readonly<Record<FileKind, (text: string) => boolean>> = {
  muster: (text) => {
    let muster: Muster;
    try {
      muster = readMuster(text, 'Europe/Vienna');
    } catch (error) {
      if (error instanceof MusterFileError && error.faults.length > 0) return false;
      throw error;
    }
    if (!checked(muster).ok) throw new Error('an unsound muster was taken');
    const findings = checkMuster(muster);
    if (hasErrors(findings)) return true;
    noNaN(compile(muster).problem, 'problem');
    return true;
  },
  log: (text) => {
    let entries;
    try {
      entries = readLogFile(text, 'Europe/Vienna');
    } catch (error) {
      if (error instanceof Error && /nothing is changed\.$/i.test(error.message)) return false;
      throw error;
    }
    if (!logFileSchema.safeParse({ format: LOG_FORMAT, entries }).success)
      throw new Error('an unsound log was taken');
    for (const e of entries) if (Number.isNaN(Date.parse(e.at))) throw new Error(`no moment: ${e.at}`);
    return true;
  },
  readings: (text) => {
    try {
      for (const r of readReadings(text, 'Europe/Vienna')) {
        noNaN(r, 'reading');
        if (Number.isNaN(Date.parse(r.at))) throw new Error(`no moment: ${r.at}`);
      }
    } catch (error) {
      if (error instanceof ReadingsError && error.faults.length > 0) return false;
      throw error;
    }
    return true;
  },
};

function noNaN(value: unknown, path: string): void {
  if (typeof value === 'number' && Number.isNaN(value)) throw new Error(`NaN at ${path}`);
  if (typeof value === 'object' && value !== null)
    for (const [key, v] of Object.entries(value)) noNaN(v, `${path}.${key}`);
}

const JUNK: readonly unknown[] = [
  null,
  true,
  '',
  ' ',
  'x'.repeat(500),
  '__proto__',
  '2026-99-99T99:99',
  '0207-03-01T12:00',
  '20277-03-01T12:00',
  '2077-03-01T12:00',
  '2027-02-30',
  '24:00',
  '-1:00',
  '=1+1',
  '\u0000',
  '🚤'.repeat(70),
  -1,
  0,
  0.5,
  1e9,
  1e308,
  -1e308,
  9007199254740993,
  [],
  {},
  [[]],
  [null],
  { id: 'p1' },
];

/** One to three things wrong with a file: in its tree where it is JSON, in its letters otherwise. */
function mutated(text: string, random: Random): string {
  const int = (n: number): number => Math.floor(random() * n);
  const pick = <T>(list: readonly T[]): T => list[int(list.length)]!;
  if (!text.startsWith('{') || random() < 0.15) {
    for (let k = 1 + int(3); k > 0; k--) {
      const at = int(text.length);
      const way = int(4);
      if (way === 0) text = text.slice(0, at);
      else if (way === 1) text = text.slice(0, at) + String(pick(JUNK)) + text.slice(at + int(6));
      else if (way === 2)
        text = text.slice(0, at) + pick([',', '"', '\n', '{', '\r', ';', '\uFF1D', '9']) + text.slice(at);
      else text = text.slice(0, at) + text.slice(at + 1 + int(20));
    }
    return text;
  }
  const tree = JSON.parse(text) as object;
  for (let k = 1 + int(3); k > 0; k--) {
    const spots: [Record<string, unknown>, string][] = [];
    const walk = (node: unknown): void => {
      if (typeof node !== 'object' || node === null) return;
      for (const [key, value] of Object.entries(node)) {
        spots.push([node as Record<string, unknown>, key]);
        walk(value);
      }
    };
    walk(tree);
    if (spots.length === 0) break;
    const [node, key] = pick(spots);
    const [other, otherKey] = pick(spots);
    const way = int(6);
    if (way === 0) node[key] = pick(JUNK);
    else if (way === 1) node[key] = structuredClone(other[otherKey]);
    else if (way === 2 && Array.isArray(node)) node.splice(Number(key), 1);
    else if (way === 2) Reflect.deleteProperty(node, key);
    else if (way === 3 && Array.isArray(node)) node.push(structuredClone(node[Number(key)]));
    else if (way === 4) node[`${key}x`] = node[key];
    else node[key] = typeof node[key] === 'number' ? node[key] * pick([-1, 0, 1000, 1e6, 1.5]) : pick(JUNK);
  }
  return JSON.stringify(tree);
}
