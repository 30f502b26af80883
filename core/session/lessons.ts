/** What the log has to teach: looks at drying and measured minutes, each against the nominal figure. */
import { ticksAt, type ClockPoints } from '#core/climate';
import {
  factorForRun,
  layerFactors,
  productFactors,
  type LayerFactor,
  type ProductFactor,
  type ProductLook,
} from '#core/learn';
import type { FamilyId } from '#core/materials';
import {
  asNominal,
  minutesUntil,
  nominalOf,
  originOf,
  withEstimate,
  type Layer,
  type Origin,
  type Muster,
} from '#core/muster';
import { operationId, WET_SHARE, type StepRef } from '#core/plan';
import { dryingOf, roundsOf, workMinutes } from '#core/recipe';
import { WILL_NOT_LIFT } from './trouble';
import { standing, type LogEntry } from '#core/log';

export interface DryingLesson extends ProductFactor {
  readonly family: FamilyId;
}

export interface HandsLesson extends LayerFactor {
  readonly recipe: string;
  readonly layer: string;
}

/** What a layer counts as for drying: its mixture, or where nothing is mixed its own name. */
export function productOf(layer: Layer): string {
  return layer.mixture === '' ? layer.name : layer.mixture;
}

/**
 * @param steps every step of the muster by id
 * @param clocks drying clocks by what carries the drying; without one a minute is a minute
 */
export function dryingLessons(
  log: readonly LogEntry[],
  steps: ReadonlyMap<string, StepRef>,
  clocks: ReadonlyMap<string, ClockPoints>,
  origin: Origin,
): DryingLesson[] {
  return productFactors(looksAtCoats(log, steps, clocks, origin)).map((f) => ({
    ...f,
    family: f.family as FamilyId,
  }));
}

/**
 * What the log has seen of coats, each against the clock of its own coat: touched without a mark, gone over or not yet, lifted while its
 * window stood, or found shut. They are moments of one drying: each is a censored look at the same factor.
 */
function looksAtCoats(
  log: readonly LogEntry[],
  steps: ReadonlyMap<string, StepRef>,
  clocks: ReadonlyMap<string, ClockPoints>,
  origin: Origin,
): ProductLook[] {
  const holds = standing(log);
  const isTooLate = (e: LogEntry): boolean => e.kind === 'rework' && e.trouble === WILL_NOT_LIFT;
  const shut = new Set(holds.flatMap((e) => (isTooLate(e) && 'step' in e ? [e.step] : [])));
  /** when each step was last done, as the log goes on */
  const ended = new Map<string, number>();
  const looks: ProductLook[] = [];
  /** @param share of its nominal drying at which it was to be so */
  const look = (step: StepRef, end: number, at: number, wasSo: boolean, share: number): void => {
    const gone = shareDried(step, clocks, end, at);
    if (gone === null || share <= 0) return;
    looks.push({
      product: productOf(step.layer),
      family: step.layer.family,
      share: gone / share,
      wasDry: wasSo,
      // What went on in one evening from one mix dried side by side.
      coat: `${step.layer.name}, evening ${Math.floor(end / DAY)}`,
    });
  };
  for (const e of holds) {
    const step = 'step' in e && e.step !== undefined ? steps.get(e.step) : undefined;
    if (!step) continue;
    const at = minutesUntil(origin, e.at);
    // It could be worked when it was begun, or it was found to have shut.
    const isWorked = e.kind === 'done' && !shut.has(e.step);
    if (isWorked || isTooLate(e))
      for (const { base, closes } of windowsOver(step, steps)) {
        const end = ended.get(base.id);
        const begun = e.kind === 'done' ? at - e.minutes : at;
        if (end !== undefined) look(base.step, end, begun, isTooLate(e), closes);
      }
    if (e.kind === 'done') ended.set(e.step, at);
    const end = 'step' in e && e.step !== undefined ? ended.get(e.step) : undefined;
    if (end === undefined) continue;
    if (e.kind === 'dry' || e.kind === 'not-dry') look(step, end, at, e.kind === 'dry', 1);
    else if (e.kind === 'touch-dry') look(step, end, at, true, WET_SHARE);
  }
  return looks;
}

/** The coats beneath a step whose window its work ends, and at which share of their drying each window shuts. */
function windowsOver(
  { recipe, piece, layerIndex, round }: StepRef,
  steps: ReadonlyMap<string, StepRef>,
): { readonly base: { readonly id: string; readonly step: StepRef }; readonly closes: number }[] {
  if (round > 1) return [];
  return recipe.layers.slice(0, layerIndex).flatMap((layer, k) => {
    const nominal = asNominal(layer, 'dryMinutes');
    const closes = layer.window?.closesMinutes ?? null;
    const last = layer.window?.through ?? recipe.layers[k + 1]?.id;
    const id = operationId(piece, layer, roundsOf(layer));
    const step = steps.get(id);
    return closes !== null && step && last === recipe.layers[layerIndex]?.id && dryingOf(nominal) > 0
      ? [{ base: { id, step }, closes: closes / dryingOf(nominal) }]
      : [];
  });
}

const DAY = 1440;

/** Which share of its nominal drying had gone by between two minutes, in the air that was; null where nothing dries, or no time passed. */
export function shareDried(
  { layer, clock }: Pick<StepRef, 'layer' | 'clock'>,
  clocks: ReadonlyMap<string, ClockPoints>,
  from: number,
  to: number,
): number | null {
  const need = dryingOf(asNominal(layer, 'dryMinutes'));
  const points = clock === null ? undefined : clocks.get(clock);
  const ticks = points ? ticksAt(points, to) - ticksAt(points, from) : to - from;
  return need > 0 && ticks > 0 ? ticks / need : null;
}

/** Measured minutes only: what was ticked off without a clock teaches nothing. */
export function handsLessons(log: readonly LogEntry[], steps: ReadonlyMap<string, StepRef>): HandsLesson[] {
  const about = new Map<string, { recipe: string; layer: string }>();
  /** the day on which each layer was done for the first time */
  const firstDay = new Map<string, string>();
  const looks = standing(log).flatMap((e) => {
    const step = e.kind === 'done' && e.isMeasured ? steps.get(e.step) : undefined;
    if (e.kind !== 'done' || !step || e.minutes <= 0) return [];
    const of = `${step.recipe.name}, ${step.layer.name}, ${step.piece.size?.class ?? 'size not given'}`;
    about.set(of, { recipe: step.recipe.id, layer: step.layer.id });
    const planned = workMinutes(asNominal(step.layer, 'minutes'), step.piece.count);
    const layer = `${step.recipe.id} ${step.layer.id}`;
    const day = e.at.slice(0, 10);
    if (!firstDay.has(layer)) firstDay.set(layer, day);
    const who = e.people?.length === 1 ? e.people[0]! : null;
    return [
      {
        of,
        nth: e.nth ?? 1,
        ratio: e.minutes / planned,
        isFirst: firstDay.get(layer) === day,
        ...(who === null ? {} : { who }),
      },
    ];
  });
  return layerFactors(looks).map((f) => ({ ...f, ...about.get(f.of)! }));
}

/** How much longer a layer takes somebody than the bench’s mean, by `paceKey`. */
export type Paces = ReadonlyMap<string, number>;

export const paceKey = (who: string, recipe: string, layer: string): string => `${who}\n${recipe}\n${layer}`;

/** Sizes of one layer together, each by how often it was measured; empty where the bench is told not to use its lessons. */
export function pacesOf(
  muster: Muster,
  log: readonly LogEntry[],
  steps: ReadonlyMap<string, StepRef>,
): Paces {
  if (muster.bench.usesLessons === false || muster.bench.people.length < 2) return new Map();
  const sums = new Map<string, { logarithm: number; logged: number }>();
  for (const { recipe, layer, people } of handsLessons(log, steps))
    for (const { who, factor, logged } of people) {
      if (logged === 0) continue;
      const key = paceKey(who, recipe, layer);
      const sum = sums.get(key) ?? { logarithm: 0, logged: 0 };
      sums.set(key, { logarithm: sum.logarithm + logged * Math.log(factor), logged: sum.logged + logged });
    }
  return new Map([...sums].map(([key, { logarithm, logged }]) => [key, Math.exp(logarithm / logged)]));
}

const RANGE = { dry: [1, 86_400], hands: [0.1, 1440] } as const;
const within = ([low, high]: readonly [number, number], x: number): number =>
  Math.max(low, Math.min(high, x));

/** Do the looks tell anything? Only where the nominal figure lies outside what is likely is it left. */
export function isTelling({ low, high }: { readonly low: number; readonly high: number }): boolean {
  return low > 1 || high < 1;
}

/**
 * The muster as this bench has shown it to be, to plan with: every figure that the log tells to be otherwise, windows included, which open
 * and shut by the same clock as the coat dries. Figures that the user has set stay; so does everything where the bench is told not to use
 * its lessons. The user's own muster is not changed by it.
 * @param compiled its steps and clocks, asked for only where there is something to learn from
 */
export function taught(
  muster: Muster,
  log: readonly LogEntry[],
  compiled: () => {
    readonly steps: ReadonlyMap<string, StepRef>;
    readonly clocks: ReadonlyMap<string, ClockPoints>;
  },
): Muster {
  const hasWindow = muster.recipes.some((r) => r.layers.some((l) => l.window?.closesMinutes != null));
  const teaches = (e: LogEntry): boolean =>
    e.kind === 'dry' ||
    e.kind === 'not-dry' ||
    e.kind === 'touch-dry' ||
    (e.kind === 'rework' && e.trouble === WILL_NOT_LIFT) ||
    (e.kind === 'done' && (e.isMeasured === true || hasWindow));
  if (muster.bench.usesLessons === false || !log.some(teaches)) return muster;
  const { steps, clocks } = compiled();
  const drying = dryingLessons(log, steps, clocks, originOf(muster)).filter(isTelling);
  const hands = handsLessons(log, steps).filter(isTelling);
  const pieces = new Map<string, number>();
  for (const { recipe, layer } of steps.values()) {
    const key = `${recipe.id} ${layer.id}`;
    pieces.set(key, (pieces.get(key) ?? 0) + 1);
  }
  return withLayers(muster, (layer, recipe) => {
    const dry = drying.find((d) => d.family === layer.family && d.product === productOf(layer));
    const dried = dry && layer.dryFrom?.source !== 'yours' ? driedAs(layer, dry) : layer;
    const hand = hands.find((h) => h.recipe === recipe && h.layer === layer.id);
    return hand && layer.minutesFrom?.source !== 'yours'
      ? handledAs(dried, hand, pieces.get(`${recipe} ${layer.id}`) ?? 1)
      : dried;
  });
}

/** The layer with its drying as learned, and its window by the same clock. */
function driedAs(layer: Layer, { median, looks }: DryingLesson): Layer {
  const nominal = nominalOf(layer, 'dryMinutes');
  if (nominal <= 0) return layer;
  const by = (minutes: number): number => within(RANGE.dry, Math.round(minutes * median));
  const { window } = layer;
  const learned = withEstimate(layer, 'dryMinutes', by(nominal), looks);
  return window === null
    ? learned
    : {
        ...learned,
        window: {
          ...window,
          opensMinutes: window.opensMinutes === null ? null : Math.round(window.opensMinutes * median),
          closesMinutes: window.closesMinutes === null ? null : by(window.closesMinutes),
          preferMinutes: window.preferMinutes === null ? null : by(window.preferMinutes),
        },
      };
}

function handledAs(layer: Layer, lesson: HandsLesson, pieces: number): Layer {
  const minutes = nominalOf(layer, 'minutes') * factorForRun(lesson, Math.max(1, pieces));
  return withEstimate(layer, 'minutes', within(RANGE.hands, Math.round(minutes * 10) / 10), lesson.logged);
}

/** The muster with the learned drying on every layer of that product; layers with a closing window keep theirs. */
export function withDryingLesson(muster: Muster, lesson: DryingLesson): Muster {
  return withLayers(muster, (l) =>
    l.family === lesson.family &&
    productOf(l) === lesson.product &&
    nominalOf(l, 'dryMinutes') > 0 &&
    l.window?.closesMinutes == null
      ? withEstimate(
          l,
          'dryMinutes',
          within(RANGE.dry, Math.round(nominalOf(l, 'dryMinutes') * lesson.median)),
          lesson.looks,
        )
      : l,
  );
}

/** The muster with the learned minutes on that layer, as a run of so many pieces takes them on average. */
export function withHandsLesson(muster: Muster, lesson: HandsLesson, pieces: number): Muster {
  return withLayers(muster, (l, recipe) =>
    recipe === lesson.recipe && l.id === lesson.layer ? handledAs(l, lesson, pieces) : l,
  );
}

/** Every figure nominal again that this bench has taught; the user's own stay. */
export function withoutLessons(muster: Muster): Muster {
  return withLayers(muster, (l) => {
    const dry = l.dryFrom?.source === 'learned' ? asNominal(l, 'dryMinutes') : l;
    return dry.minutesFrom?.source === 'learned' ? asNominal(dry, 'minutes') : dry;
  });
}

function withLayers(muster: Muster, change: (layer: Layer, recipe: string) => Layer): Muster {
  return {
    ...muster,
    recipes: muster.recipes.map((r) => ({ ...r, layers: r.layers.map((l) => change(l, r.id)) })),
  };
}
