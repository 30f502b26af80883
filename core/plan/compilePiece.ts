/** One piece as the kernel's problem has it: its steps, what waits for what, and what it takes up meanwhile. */
import type { Need } from '#core/climate';
import type { Problem, ProblemLag, ProblemOperation } from '#core/kernel';
import { familyOf } from '#core/materials';
import type { Bench, BenchSession, Layer, Muster, Piece, Recipe, Unit } from '#core/muster';
import {
  bearsUseAfter,
  dryingOf,
  effectiveRecipe,
  linksOf,
  plannedMinutes,
  roundsOf,
  topLayers,
  waitsBetween,
} from '#core/recipe';
import type { Hands } from './hands';
import { gluedOnto, joinedAt } from './joins';
import { loadOf } from './load';
import { OUTDOORS } from './naming';
import type { Pinning } from './pins';
import { doneId, operationId, readyId, type StepRef } from './stepRef';
import { airbrushOf, BOOTH, CABINET, clockOf, handleOf, toolName } from './tools';

type Hold = NonNullable<Problem['holds']>[number];

/** What a bench is like for every piece on it. */
export interface Ground {
  readonly muster: Muster;
  readonly hands: Hands;
  /** is there a time when the air is unfit for work of this kind? */
  readonly isEverUnfit: (need: Need) => boolean;
  /** something throws dust, so that the air of the bench is a thing to share */
  readonly hasAir: boolean;
  /** by recipe the piece on which it is tried first */
  readonly pilots: ReadonlyMap<string, Piece>;
  /** what the user has said of single steps */
  readonly pins: ReadonlyMap<string, Pinning>;
}

/** A part of the problem. */
export interface Part {
  readonly steps: readonly (readonly [string, StepRef])[];
  readonly operations: readonly ProblemOperation[];
  readonly lags: readonly ProblemLag[];
  readonly holds: readonly Hold[];
}

const NOTHING: Part = { steps: [], operations: [], lags: [], holds: [] };

/** Shares of the bench's air: a spatter takes all, a wet coat that needs clean air one. */
export const AIR = 1000;

interface Own {
  readonly unit: Unit;
  readonly piece: Piece;
  /** as this piece follows it */
  readonly recipe: Recipe;
  /** minute from which it may be begun */
  readonly earliest: number;
}

/** Everything that one piece brings into the problem. @param earliest minute from which it may be begun */
export function pieceOf(ground: Ground, unit: Unit, piece: Piece, earliest: number): Part {
  const { muster } = ground;
  const whole = muster.recipes.find((r) => r.id === piece.recipe)!;
  const own: Own = { unit, piece, recipe: effectiveRecipe(whole, piece, unit.level), earliest };
  return together([
    ...own.recipe.layers.flatMap((layer, k) => [
      roundsOn(ground, own, layer, k),
      inCabinet(ground, own, layer),
      inCleanAir(ground, own, layer),
    ]),
    linked(ground, own),
    finished(ground, own),
    joined(ground, own),
    piloted(ground, own),
    heldBy(ground, own),
  ]);
}

export function together(parts: readonly Part[]): Part {
  return {
    steps: parts.flatMap((p) => p.steps),
    operations: parts.flatMap((p) => p.operations),
    lags: parts.flatMap((p) => p.lags),
    holds: parts.flatMap((p) => p.holds),
  };
}

const lastRound = ({ piece }: Pick<Own, 'piece'>, layer: Layer): string =>
  operationId(piece, layer, roundsOf(layer));

/** By which clock a layer dries. */
function onClock(bench: Bench, layer: Layer | null): { clock?: string } {
  const clock = layer && clockOf(bench, layer);
  return clock === null ? {} : { clock };
}

/** One layer, face by face or again until it looks right, and the waits between. */
function roundsOn(ground: Ground, own: Own, layer: Layer, layerIndex: number): Part {
  const { bench } = ground.muster;
  const { unit, piece, recipe } = own;
  const rounds = roundsOf(layer);
  const each = Array.from({ length: rounds }, (_, k) => k + 1);
  const ref = { unit, piece, recipe, layer, layerIndex, rounds, clock: clockOf(bench, layer) };
  return {
    steps: each.map((round) => [
      operationId(piece, layer, round),
      { ...ref, round, tool: toolName(bench, layer) },
    ]),
    operations: each.map((round) => work(ground, own, layer, operationId(piece, layer, round))),
    lags: waitsBetween(layer).map((min, k) => ({
      from: operationId(piece, layer, k + 1),
      to: operationId(piece, layer, k + 2),
      min,
      ...onClock(bench, layer),
    })),
    holds: [],
  };
}

function work(ground: Ground, { piece, earliest }: Own, layer: Layer, id: string): ProblemOperation {
  const { hands, hasAir, pins } = ground;
  const pinned = pins.get(id);
  const need = needOf(layer);
  const minutes = plannedMinutes(layer, piece.count);
  const soonest = Math.max(earliest, pinned?.within?.start ?? 0);
  const latest = pinned?.within ? endWithin(pinned.within, minutes, layer.pausable) : null;
  const one = (resource: string): { resource: string; amount: number } => ({ resource, amount: 1 });
  return {
    id,
    minutes,
    uses: [
      ...hands.usesOf(layer).map(one),
      ...toolsOf(ground, layer).map(one),
      ...(ground.isEverUnfit(need) ? [one(`fit-${need}`)] : []),
      ...(hasAir && layer.air ? [{ resource: 'air', amount: layer.air === 'contaminates' ? AIR : 1 }] : []),
      ...(pinned?.shunned ?? []).map(one),
    ],
    family: loadOf(layer),
    ...(layer.pausable ? { pausable: true } : {}),
    ...(soonest > 0 ? { earliest: soonest } : {}),
    ...(latest === null ? {} : { latest }),
  };
}

function toolsOf({ muster: { bench }, hands }: Ground, layer: Layer): string[] {
  const isSprayed = layer.method === 'airbrush' || layer.method === 'can';
  return [
    ...(layer.method === 'airbrush' ? [airbrushOf(bench, layer)] : hands.isAlone ? ['table'] : []),
    ...(bench.boothPlaces !== undefined && isSprayed && !layer.isOutdoors ? [BOOTH] : []),
    ...(layer.isOutdoors ? [OUTDOORS] : []),
  ];
}

/** It stands in the cabinet until it is dry. */
function inCabinet({ muster: { bench } }: Ground, own: Own, layer: Layer): Part {
  if (!bench.cabinet || !layer.inCabinet || dryingOf(layer) <= 0 || own.piece.places <= 0) return NOTHING;
  const from = lastRound(own, layer);
  const out = `${from}.out`;
  return {
    steps: [],
    operations: [{ id: out, minutes: 0 }],
    lags: [{ from, to: out, min: dryingOf(layer), ...onClock(bench, layer) }],
    holds: [{ resource: CABINET, amount: own.piece.places, from, to: out }],
  };
}

/** What throws dust keeps away until this is dry to the touch. */
function inCleanAir({ muster: { bench }, hasAir }: Ground, own: Own, layer: Layer): Part {
  if (!hasAir || layer.air !== 'needs-clean') return NOTHING;
  const from = lastRound(own, layer);
  const set = `${from}.set`;
  const min = Math.min(dryingOf(layer), familyOf(layer.family).stages.touch);
  return {
    steps: [],
    operations: [{ id: set, minutes: 0 }],
    lags: [{ from, to: set, min, ...onClock(bench, layer) }],
    holds: [{ resource: 'air', amount: 1, from, to: set }],
  };
}

/** Which layer waits for which. */
function linked({ muster: { bench } }: Ground, own: Own): Part {
  const { layers } = own.recipe;
  return {
    ...NOTHING,
    lags: linksOf(own.recipe).map((link) => ({
      from: lastRound(own, layers[link.from]!),
      to: operationId(own.piece, layers[link.to]!),
      min: link.min,
      ...(link.max === Infinity ? {} : { max: link.max }),
      ...(link.prefer === Infinity ? {} : { prefer: link.prefer }),
      ...onClock(bench, link.dries ? layers[link.from]! : null),
    })),
  };
}

/** When it is done, and when it may be used: before that it rests longer than before the next coat. */
function finished({ muster: { bench } }: Ground, own: Own): Part {
  const { unit, piece, recipe } = own;
  const done = doneId(piece);
  const rests = recipe.layers.flatMap((layer) => {
    const min = bearsUseAfter(layer, piece);
    return min > dryingOf(layer)
      ? [{ from: lastRound(own, layer), to: readyId(unit), min, ...onClock(bench, layer) }]
      : [];
  });
  const dries = topLayers(recipe).map((top) => {
    const layer = recipe.layers[top]!;
    return { from: lastRound(own, layer), to: done, min: dryingOf(layer), ...onClock(bench, layer) };
  });
  return { ...NOTHING, operations: [{ id: done, minutes: 0 }], lags: [...dries, ...rests] };
}

/** It goes into its unit, or onto the piece that it is a part of. */
function joined({ muster }: Ground, { unit, piece, recipe }: Own): Part {
  return {
    ...NOTHING,
    lags: [
      { from: doneId(piece), to: joinedAt(muster, unit, piece) ?? readyId(unit), min: 0 },
      ...gluedOnto(muster, unit, piece, recipe).map(({ layer, ...lag }) => ({
        ...lag,
        ...onClock(muster.bench, layer),
      })),
    ],
  };
}

/** What is tried on the pilot first waits until the pilot is done. */
function piloted({ pilots }: Ground, { piece, recipe }: Own): Part {
  const pilot = piece.isPilot ? undefined : pilots.get(piece.recipe!);
  if (!pilot) return NOTHING;
  return {
    ...NOTHING,
    lags: recipe.layers
      .filter((layer) => layer.isPiloted)
      .map((layer) => ({ from: doneId(pilot), to: operationId(piece, layer), min: 0 })),
  };
}

/** Handles and places on the rack, from its first layer until it is done. */
function heldBy({ muster: { bench } }: Ground, { piece, recipe }: Own): Part {
  const [first] = recipe.layers;
  if (!first) return NOTHING;
  const handle = handleOf(bench, piece);
  const span = { from: operationId(piece, first), to: doneId(piece) };
  return {
    ...NOTHING,
    holds: [
      ...(handle === null ? [] : [{ resource: handle, amount: piece.count, ...span }]),
      ...(piece.places > 0 ? [{ resource: 'rack', amount: piece.places, ...span }] : []),
    ],
  };
}

/** What is longer than the session that it is to begin in, and can be put down, goes on in the next. */
function endWithin({ start, end }: BenchSession, minutes: number, pausable: boolean): number | null {
  return pausable && minutes > end - start ? null : end;
}

/** What a layer asks of the air. */
export function needOf(layer: Layer): Need {
  if (familyOf(layer.family).drying === 'none') return 'none';
  return layer.method === 'can' || familyOf(layer.family).binder === 'lacquer' ? 'lacquer' : 'paint';
}
