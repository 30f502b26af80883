/**
 * What is risky at this bench: priors of the trade, each corrected by what the log has seen. All of the priors are common practice, no
 * source, or from memory where it says so.
 */
import type { ClockPoints } from '#core/climate';
import type { Problem } from '#core/kernel';
import { minutesUntil, nominalOf, originOf, type Layer, type Muster } from '#core/muster';
import { abilityOf, laneOf, type Plan, type PlanSession, type StepRef } from '#core/plan';
import { isFor, isWash } from '#core/recipe';
import { endedSteps, standing, type LogEntry } from '#core/log';
import { dryingLessons, handsLessons, productOf } from '#core/session';
import { keyOf, productUses, stepUses } from '#core/stores';
import { noRisks, type Factor, type Helper, type Risks, type Supply } from './risks';

/** The risks, and what each of them is called. */
export interface BenchRisks {
  readonly risks: Risks;
  readonly productNames: readonly string[];
  readonly workNames: readonly string[];
  readonly supplyNames: readonly string[];
  /** looks and measured pieces that they rest on */
  readonly looks: number;
}

const Z90 = 1.645;
/** Drying that nobody has looked at: by the book, or as the user says. Whoever plans with a figure has some reason to; so it is nearer than a make taken blindly (from memory). */
const NOMINAL: Factor = { mean: 0, sigma: 0.3 };
const YOURS: Factor = { mean: 0, sigma: 0.12 };
/** One evening’s drying against the next (from memory). */
const EVENING = 0.2;
/** A kind of work that was never measured, and one piece against the next (from memory). */
const WORK: Factor = { mean: 0, sigma: 0.3 };
const PIECE = 0.2;
/** All hands of a bench against the minutes of the recipes, before any were measured (from memory). */
const PACE = 0.15;
/** The first evening of a kind of work takes a quarter longer; what the log has seen is no longer new (from memory). */
const FIRST_TIME = 1.25;
/** After a lost evening the next is lost one time in three: people are ill, or away (from memory). */
const IN_ROWS = 1 / 3;
/** Error of the drying rate a day ahead (from memory). */
const AIR = 0.05;
/** Evenings lost where the user says nothing: about one in six; the weight of it is that of six evenings. */
const LOST = 1 / 6;
const LOST_WEIGHT = 6;
const CUT = 0.1;
/** Mending: what it takes on the average (common practice, no source). */
const MEND_MINUTES = 8;
const MEND_DRYING = 45;
/** A helper stays away from one evening in ten of theirs; it weighs as much as six of them (from memory). */
const ABSENT = 0.1;
const ABSENT_WEIGHT = 6;
/** How much more or less of a product is used than is reckoned (from memory). */
const USAGE = 0.25;
/** Nearly surely no more than that is used. */
const MOST_USED = Math.exp(2.5 * USAGE);
/** From running out to having more (from memory). */
const RESTOCK_MINUTES = 4 * 1440;
/** A prior of mending weighs as much as so many pieces done. */
const MEND_WEIGHT = 25;

/** How often a layer of a kind has to be mended before the log says otherwise (common practice, no source). */
const MENDED: readonly (readonly [string, (layer: Layer) => boolean, number])[] = [
  ['lift', (l) => l.task === 'lift', 0.1],
  ['decal', (l) => l.task === 'decal', 0.08],
  ['wash', isWash, 0.05],
  ['seal', isFor('seal'), 0.04],
  ['spray', (l) => l.method === 'airbrush' || l.method === 'can', 0.03],
  ['other', () => true, 0.02],
];

const kindOf = (layer: Layer): string => MENDED.find(([, holds]) => holds(layer))![0];

/**
 * @param problem in the order of whose operations the risks are given
 * @param steps every step of the problem by its id
 * @param plan its sessions tell which evenings were lost, its steps what the shelves will have to give
 * @param now minute from which on anything is open
 */
export function benchRisks(
  muster: Muster,
  problem: Problem,
  steps: ReadonlyMap<string, StepRef>,
  clocks: ReadonlyMap<string, ClockPoints>,
  plan: Plan,
  log: readonly LogEntry[],
  now: number,
): BenchRisks {
  const origin = originOf(muster);
  const lessons = dryingLessons(log, steps, clocks, origin);
  const hands = handsLessons(log, steps);
  const mended = mendedShares(log, steps);
  const products = new Map<string, { index: number; factor: Factor }>();
  const works = new Map<string, { index: number; factor: Factor }>();
  const isNew: number[] = [];
  const base = noRisks(problem.operations.length);
  problem.operations.forEach((o, i) => {
    const step = steps.get(o.id);
    if (!step || o.minutes === 0) return;
    const { layer } = step;
    if (layer.dryMinutes > 0) {
      const name = productOf(layer);
      const lesson = lessons.find((l) => l.family === layer.family && l.product === name);
      base.product[i] = indexed(products, `${layer.family}\n${name}`, () =>
        // Relative to what is planned with, which may have been learned already or be the user’s own figure.
        !lesson
          ? layer.dryFrom?.source === 'yours'
            ? YOURS
            : NOMINAL
          : against(lesson, layer.dryMinutes / Math.max(1e-6, nominalOf(layer, 'dryMinutes'))),
      );
    }
    const lesson = hands.find((h) => h.recipe === step.recipe.id && h.layer === layer.id);
    base.work[i] = indexed(works, `${step.recipe.id}\n${layer.name}`, () =>
      lesson ? against(lesson, layer.minutes / Math.max(1e-6, nominalOf(layer, 'minutes'))) : WORK,
    );
    // A first time that the recipe knows of is planned with more minutes already.
    isNew[base.work[i]!] = lesson || layer.isFirstTime ? 0 : 1;
    base.mendChance[i] = mended.get(kindOf(layer)) ?? 0;
    base.mendMinutes[i] = MEND_MINUTES;
    base.mendDrying[i] = MEND_DRYING;
  });
  const lost = lostShare(muster, log, plan.sessions, now);
  const shelf = suppliesOf(muster, problem, steps, plan, log, now);
  const nameOf = (key: string): string => key.slice(key.indexOf('\n') + 1);
  return {
    risks: {
      ...base,
      products: [...products.values()].map((p) => p.factor),
      evening: EVENING,
      works: [...works.values()].map((w) => w.factor),
      // What is measured of some tells of all.
      pace: hands.length > 0 ? PACE / 2 : PACE,
      piece: PIECE,
      isNew: Uint8Array.from(isNew),
      firstTime: FIRST_TIME,
      air: AIR,
      lost,
      // Where fewer are lost, fewer are cut short.
      cut: Math.min(0.3, (CUT * lost) / LOST),
      inRows: IN_ROWS,
      helpers: helpersOf(muster, problem, log, plan.sessions, now),
      supplies: shelf.supplies,
      supplyUse: shelf.uses,
      usage: USAGE,
      restock: RESTOCK_MINUTES,
    },
    supplyNames: shelf.names,
    productNames: [...products.keys()].map(nameOf),
    workNames: [...works.keys()].map(nameOf),
    looks: lessons.reduce((n, l) => n + l.looks, 0) + hands.reduce((n, h) => n + h.logged, 0),
  };
}

function indexed(
  map: Map<string, { index: number; factor: Factor }>,
  key: string,
  make: () => Factor,
): number {
  const known = map.get(key);
  if (known) return known.index;
  map.set(key, { index: map.size, factor: make() });
  return map.size - 1;
}

/** A median with its 90 % interval as a factor on what is planned. */
function against(
  { median, low, high }: { readonly median: number; readonly low: number; readonly high: number },
  planned: number,
): Factor {
  return { mean: Math.log(median / planned), sigma: Math.log(high / low) / 2 / Z90 };
}

/** By kind: the share that has to be mended; a Beta prior with what the log counts. */
function mendedShares(
  log: readonly LogEntry[],
  steps: ReadonlyMap<string, StepRef>,
): ReadonlyMap<string, number> {
  const done = new Map<string, number>();
  const mended = new Map<string, number>();
  for (const e of standing(log)) {
    const step = 'step' in e && e.step !== undefined ? steps.get(e.step) : undefined;
    if (!step || (e.kind !== 'done' && e.kind !== 'rework')) continue;
    const count = e.kind === 'done' ? done : mended;
    count.set(kindOf(step.layer), (count.get(kindOf(step.layer)) ?? 0) + 1);
  }
  return new Map(
    MENDED.map(([kind, , prior]) => [
      kind,
      (prior * MEND_WEIGHT + (mended.get(kind) ?? 0)) / (MEND_WEIGHT + (done.get(kind) ?? 0)),
    ]),
  );
}

/** The share of evenings on which nobody comes: as the user says, corrected by those since the first entry that left no trace. */
function lostShare(
  muster: Muster,
  log: readonly LogEntry[],
  sessions: readonly PlanSession[],
  now: number,
): number {
  const prior = muster.bench.lostEvenings ?? LOST;
  const origin = originOf(muster);
  const at = standing(log).flatMap((e) => (e.kind === 'forecast' ? [] : [minutesUntil(origin, e.at)]));
  const first = Math.min(...at);
  const past = sessions.filter((s) => s.end <= now && s.end > first);
  const kept = past.filter((s) => at.some((m) => m >= s.start - 30 && m <= s.end + 60));
  return (prior * LOST_WEIGHT + past.length - kept.length) / (LOST_WEIGHT + past.length);
}

/** Who helps, and who takes over when they stay away: the first of those who may do everything. */
function helpersOf(
  muster: Muster,
  problem: Problem,
  log: readonly LogEntry[],
  sessions: readonly PlanSession[],
  now: number,
): Helper[] {
  const resource = new Map((problem.resources ?? []).map((r, k) => [r.id, k]));
  const { people } = muster.bench;
  const first = people.find((p) => abilityOf(p) === 'all') ?? people[0];
  const instead = first && resource.get(laneOf(first.id));
  if (instead === undefined) return [];
  return people.flatMap((p): Helper[] => {
    const hands = resource.get(laneOf(p.id));
    if (p === first || hands === undefined) return [];
    return [{ hands, instead, absent: absentShare(p.name, muster, log, sessions, now) }];
  });
}

/** The share of evenings of theirs from which somebody stays away; learned only where the log names them at all. */
function absentShare(
  name: string,
  muster: Muster,
  log: readonly LogEntry[],
  sessions: readonly PlanSession[],
  now: number,
): number {
  const origin = originOf(muster);
  const at = standing(log).flatMap((e) =>
    e.kind === 'done' && e.people?.includes(name) ? [minutesUntil(origin, e.at)] : [],
  );
  const first = Math.min(...at);
  const theirs = sessions.filter(
    (s) => s.end <= now && s.end > first && s.steps.some((step) => step.doer?.who === name),
  );
  const came = theirs.filter((s) => at.some((m) => m >= s.start - 30 && m <= s.end + 60));
  return (ABSENT * ABSENT_WEIGHT + theirs.length - came.length) / (ABSENT_WEIGHT + theirs.length);
}

/** What on the shelf might not last, and what each step takes of it. */
function suppliesOf(
  muster: Muster,
  problem: Problem,
  steps: ReadonlyMap<string, StepRef>,
  plan: Plan,
  log: readonly LogEntry[],
  now: number,
): { supplies: Supply[]; names: string[]; uses: (readonly number[])[] } {
  const ended = endedSteps(log);
  const tight = productUses(muster, plan, ended).filter(
    (u) => u.product !== null && u.neededMl > 0 && u.neededMl * MOST_USED > u.leftMl,
  );
  const index = new Map(tight.map((u, k) => [keyOf(u.name), k]));
  const usesOf = stepUses(muster);
  return {
    names: tight.map((u) => u.name),
    // What the list already says to buy is bought by and by.
    supplies: tight.map((u) => ({
      ml: u.leftMl,
      boughtBy: u.runsOut ? now + RESTOCK_MINUTES : Infinity,
    })),
    uses: problem.operations.map((o) => {
      const step = index.size > 0 && !ended.has(o.id) ? steps.get(o.id) : undefined;
      return step
        ? usesOf(step).flatMap(({ name, ml }) => {
            const k = index.get(keyOf(name));
            return k === undefined ? [] : [k, ml];
          })
        : [];
    }),
  };
}
