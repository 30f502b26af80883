/** What the log has to teach: looks at drying and measured minutes, each against the nominal figure. */
import { ticksAt, type ClockPoints } from '#core/climate';
import {
  factorForRun,
  layerFactors,
  productFactors,
  type LayerFactor,
  type ProductFactor,
} from '#core/learn';
import type { FamilyId } from '#core/materials';
import {
  asNominal,
  minutesUntil,
  nominalOf,
  withEstimate,
  type Layer,
  type Origin,
  type Muster,
} from '#core/muster';
import type { StepRef } from '#core/plan';
import { dryingOf, workMinutes } from '#core/recipe';
import { standing, type LogEntry } from './log';

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
  const entries = standing(log);
  const ended = new Map(
    entries.flatMap((e) => (e.kind === 'done' ? [[e.step, minutesUntil(origin, e.at)] as const] : [])),
  );
  const looks = entries.flatMap((e) => {
    if (e.kind !== 'dry' && e.kind !== 'not-dry') return [];
    const step = steps.get(e.step);
    const end = ended.get(e.step);
    if (!step || end === undefined) return [];
    const need = dryingOf(asNominal(step.layer, 'dryMinutes'));
    const points = step.clock === null ? undefined : clocks.get(step.clock);
    const at = minutesUntil(origin, e.at);
    const ticks = points ? ticksAt(points, at) - ticksAt(points, end) : at - end;
    if (need <= 0 || ticks <= 0) return [];
    return [
      {
        product: productOf(step.layer),
        family: step.layer.family,
        share: ticks / need,
        wasDry: e.kind === 'dry',
      },
    ];
  });
  return productFactors(looks).map((f) => ({ ...f, family: f.family as FamilyId }));
}

/** Measured minutes only: what was ticked off without a clock teaches nothing. */
export function handsLessons(log: readonly LogEntry[], steps: ReadonlyMap<string, StepRef>): HandsLesson[] {
  const about = new Map<string, { recipe: string; layer: string }>();
  const looks = standing(log).flatMap((e) => {
    const step = e.kind === 'done' && e.isMeasured ? steps.get(e.step) : undefined;
    if (e.kind !== 'done' || !step || e.minutes <= 0) return [];
    const of = `${step.recipe.name}, ${step.layer.name}, ${step.piece.size?.class ?? 'size not given'}`;
    about.set(of, { recipe: step.recipe.id, layer: step.layer.id });
    const planned = workMinutes(asNominal(step.layer, 'minutes'), step.piece.count);
    return [{ of, nth: e.nth ?? 1, ratio: e.minutes / planned }];
  });
  return layerFactors(looks).map((f) => ({ ...f, ...about.get(f.of)! }));
}

const RANGE = { dry: [1, 86_400], hands: [0.1, 1440] } as const;
const within = ([low, high]: readonly [number, number], x: number): number =>
  Math.max(low, Math.min(high, x));

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
  const by = factorForRun(lesson, Math.max(1, pieces));
  return withLayers(muster, (l, recipe) =>
    recipe === lesson.recipe && l.id === lesson.layer
      ? withEstimate(
          l,
          'minutes',
          within(RANGE.hands, Math.round(nominalOf(l, 'minutes') * by * 10) / 10),
          lesson.logged,
        )
      : l,
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
