/** What a step is, in words: what a log entry carries so that it can be read from itself alone. */
import { airAt, minutesUntil, originOf, spellsOf, type Instant, type Muster } from '#core/muster';
import { horizonDays, operationId, type StepRef } from '#core/plan';
import { effectiveRecipe, roundsOf } from '#core/recipe';
import type { LogEntry } from '#core/log';

export type About = NonNullable<LogEntry['about']>;

/** @param step id of a step or of a rework on one; null where the muster has no such step */
export function aboutStep(muster: Muster, step: string): About | null {
  const [id] = step.split('!');
  for (const unit of muster.units)
    for (const piece of unit.pieces) {
      if (!id?.startsWith(`${piece.id}.`)) continue;
      const recipe = muster.recipes.find((r) => r.id === piece.recipe);
      if (!recipe) continue;
      for (const layer of effectiveRecipe(recipe, piece, unit.level).layers)
        for (let round = 1; round <= roundsOf(layer); round++)
          if (operationId(piece, layer, round) === id) return factsOf({ unit, piece, recipe, layer });
    }
  return null;
}

/** The facts of a layer on a piece that outlive both. */
export function factsOf({
  unit,
  piece,
  recipe,
  layer,
}: Pick<StepRef, 'unit' | 'piece' | 'recipe' | 'layer'>): About {
  return {
    unit: unit.name,
    piece: piece.name,
    recipe: recipe.name,
    layer: layer.name,
    family: layer.family,
    method: layer.method,
    mixture: layer.mixture,
    coats: layer.coats,
    ...(layer.film ? { film: layer.film } : {}),
  };
}

/** The air of the bench at a moment, as an entry carries it: by its readings where there are any, else by its climate; null where neither is known. */
export function airOf(muster: Muster): (at: Instant) => LogEntry['air'] | null {
  const origin = originOf(muster);
  const spells = spellsOf(muster, horizonDays(muster));
  return (at) => {
    const air = spells.length > 0 ? airAt(spells, Math.max(0, minutesUntil(origin, at))) : null;
    return (
      air && {
        celsius: Math.round(air.celsius * 10) / 10,
        humidityPercent: Math.max(1, Math.round(air.humidityPercent)),
      }
    );
  };
}
