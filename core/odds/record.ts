/** What was forecast and what came: the odds that were given, kept in the log, against the units that were ready. */
import { endedSteps, standing, type EntryOf, type LogEntry } from '#core/log';
import { oddsWords } from './words';

export type Given = EntryOf<'forecast'>['units'][number];

/** The first odds that a unit was given for its date, and what came of it. */
export interface Judged {
  readonly name: string;
  readonly share: number;
  readonly wasReady: boolean;
}

export interface Kept {
  readonly judged: readonly Judged[];
  /** units that were given odds and whose date is still to come */
  readonly open: number;
}

const MINUTE_MS = 60_000;

/** @param now in the log's instants: what is due later is open, unless it is ready already */
export function judged(log: readonly LogEntry[], now: string): Kept {
  const first = new Map<string, Given>();
  for (const e of standing(log))
    if (e.kind === 'forecast')
      // Another date is another promise.
      for (const u of e.units) if (!first.has(`${u.unit} ${u.due}`)) first.set(`${u.unit} ${u.due}`, u);
  const given = [...first.values()];
  if (given.length === 0) return { judged: [], open: 0 };
  const ended = endedSteps(log);
  const told = given.map((u) => ({ u, ready: readyAt(u, ended) }));
  const over = told.filter(({ u, ready }) => ready !== null || u.due <= now);
  return {
    judged: over.map(({ u, ready }) => ({
      name: u.name,
      share: u.share,
      wasReady: ready !== null && ready <= Date.parse(u.due),
    })),
    open: told.length - over.length,
  };
}

/** When the last of its coats was dry; null: not all of them are on. */
function readyAt(unit: Given, ended: ReturnType<typeof endedSteps>): number | null {
  let latest = -Infinity;
  for (const { step, dry } of unit.last) {
    const entry = ended.get(step);
    if (!entry) return null;
    latest = Math.max(latest, Date.parse(entry.at) + (entry.kind === 'done' ? dry * MINUTE_MS : 0));
  }
  return unit.last.length === 0 ? null : latest;
}

/** “Of 11 units given 9 in 10, 10 were ready”, what was given most first. */
export function recordWords({ judged: units }: Kept): string[] {
  const byWords = new Map<string, { share: number; given: number; came: number }>();
  for (const { share, wasReady } of units) {
    const words = oddsWords(share);
    const line = byWords.get(words) ?? { share, given: 0, came: 0 };
    byWords.set(words, { share, given: line.given + 1, came: line.came + (wasReady ? 1 : 0) });
  }
  return [...byWords]
    .sort((a, b) => b[1].share - a[1].share)
    .map(
      ([words, { given, came }]) =>
        `Of ${given} ${given === 1 ? 'unit' : 'units'} given ${words}, ${came} ${came === 1 ? 'was' : 'were'} ready.`,
    );
}

/** How far all odds were off, on the scale of their logarithm: a normal prior about nought, so that few units move little (from memory). */
const PRIOR_SPREAD = 0.7;

/**
 * What has come corrects what is said: all odds move by one amount on the logarithm of the odds, the most likely under its prior.
 * @returns a share corrected; the same where nothing has come yet
 */
export function correction(units: readonly Pick<Judged, 'share' | 'wasReady'>[]): (share: number) => number {
  let by = 0;
  for (let turn = 0; turn < 30; turn++) {
    // Newton's method on the logarithm of the posterior, which is concave.
    let slope = -by / PRIOR_SPREAD ** 2;
    let bend = -1 / PRIOR_SPREAD ** 2;
    for (const { share, wasReady } of units) {
      const p = moved(share, by);
      slope += (wasReady ? 1 : 0) - p;
      bend -= p * (1 - p);
    }
    by -= slope / bend;
  }
  // What every future says the same of, a date that is past above all, is no matter of odds.
  return (share) => (units.length === 0 || share <= 0 || share >= 1 ? share : moved(share, by));
}

/** Of what has come nothing was more certain than one in two hundred: else one surprise would move all. */
const CERTAIN = 0.005;

function moved(share: number, by: number): number {
  const p = Math.min(1 - CERTAIN, Math.max(CERTAIN, share));
  return 1 / (1 + Math.exp(-(Math.log(p / (1 - p)) + by)));
}
