/**
 * What is risky at this bench: priors of the trade, each corrected by what the log has seen. All of the priors are common practice, no
 * source, or from memory where it says so.
 */
import type { ClockPoints } from '#core/climate';
import type { Problem } from '#core/kernel';
import { minutesUntil, nominalOf, originOf, type Layer, type Muster } from '#core/muster';
import { abilityOf, laneOf, type Plan, type PlanSession, type StepRef } from '#core/plan';
import { HANDS_BEFOREHAND } from '#core/learn';
import { isFor, isWash } from '#core/recipe';
import { endedSteps, standing, type LogEntry } from '#core/log';
import { dryingLessons, handsLessons, productOf, type HandsLesson } from '#core/session';
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
const { factorSigma, personSigma, curve, firstTime, firstSigma } = HANDS_BEFOREHAND;
/** All hands of a bench against the minutes of the recipes, before any were measured: as one person differs from another. */
const PACE: Factor = { mean: 0, sigma: personSigma };
/** A kind of work that was never measured: what else there is, of people and layers together. */
const WORK: Factor = { mean: 0, sigma: Math.sqrt(factorSigma ** 2 - personSigma ** 2) };
/** One piece against the next (from memory). */
const PIECE = 0.2;
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
const MENDED: readonly (readonly [(layer: Layer) => boolean, number])[] = [
  [(l) => l.task === 'lift', 0.1],
  [(l) => l.task === 'decal', 0.08],
  [isWash, 0.05],
  [isFor('seal'), 0.04],
  [(l) => l.method === 'airbrush' || l.method === 'can', 0.03],
  [() => true, 0.02],
];

const kindOf = (layer: Layer): number => MENDED.findIndex(([holds]) => holds(layer));

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
  const pace = paceOf(hands);
  const mended = mishapsOf(log, steps);
  const products = new Map<string, { index: number; factor: Factor }>();
  const works = new Map<string, { index: number; factor: Factor }>();
  const isNew: number[] = [];
  const slopes: number[] = [];
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
      lesson
        ? against(lesson, layer.minutes / Math.max(1e-6, nominalOf(layer, 'minutes')))
        : // Whoever has set the minutes knows these hands.
          { ...WORK, mean: layer.minutesFrom?.source === 'yours' ? 0 : pace.mean },
    );
    // What the log has seen is no longer new; a first time that the recipe knows of is planned with more minutes already.
    isNew[base.work[i]!] = lesson || layer.isFirstTime ? 0 : 1;
    slopes[base.work[i]!] = Math.log2(lesson?.curve ?? curve);
    const mishap = kindOf(layer);
    base.mishap[i] = mishap;
    base.mendChance[i] = mended[mishap]!.chance;
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
      slopes: Float64Array.from(slopes),
      mishaps: mended.map((m) => m.sigma),
      pace: pace.sigma,
      piece: PIECE,
      isNew: Uint8Array.from(isNew),
      firstTime: { mean: Math.log(firstTime), sigma: firstSigma },
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

/**
 * What is measured of some kinds of work tells of all: each of them is the bench's pace and something of its own. What a lesson thought
 * beforehand is taken out of it, so that it does not count once for each.
 */
function paceOf(lessons: readonly Pick<HandsLesson, 'median' | 'low' | 'high'>[]): Factor {
  let precision = 1 / PACE.sigma ** 2;
  let sum = 0;
  for (const lesson of lessons) {
    const { mean, sigma } = against(lesson, 1);
    const seen = 1 / sigma ** 2 - 1 / factorSigma ** 2;
    if (seen <= 0) continue;
    const looks = mean / sigma ** 2 / seen;
    const weight = 1 / (WORK.sigma ** 2 + 1 / seen);
    precision += weight;
    sum += weight * looks;
  }
  return { mean: sum / precision, sigma: Math.sqrt(1 / precision) };
}

/** A share that has to be mended, and the spread of its logarithm. */
interface Mishap {
  readonly chance: number;
  readonly sigma: number;
}

/** By kind: a Beta prior with what the log counts; its mean, and a log-normal of the same spread. */
function mishapsOf(log: readonly LogEntry[], steps: ReadonlyMap<string, StepRef>): readonly Mishap[] {
  const done = MENDED.map(() => 0);
  const mended = MENDED.map(() => 0);
  for (const e of standing(log)) {
    const step = 'step' in e && e.step !== undefined ? steps.get(e.step) : undefined;
    if (!step || (e.kind !== 'done' && e.kind !== 'rework')) continue;
    (e.kind === 'done' ? done : mended)[kindOf(step.layer)]!++;
  }
  return MENDED.map(([, prior], k) => {
    const weight = MEND_WEIGHT + done[k]!;
    const chance = Math.min(0.95, (prior * MEND_WEIGHT + mended[k]!) / weight);
    // The variance of a Beta against the square of its mean.
    const spread = (1 - chance) / chance / (weight + 1);
    return { chance, sigma: Math.sqrt(Math.log(1 + spread)) };
  });
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
  const tight = productUses(muster, plan, log).filter(
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
