/** Whether there are hands, tools and hours for every layer that is in use: told at its place, with the cure. */
import {
  presenceOf,
  type Layer,
  type Muster,
  type Piece,
  type Recipe,
  common,
  type Minutes,
} from '#core/muster';
import {
  effectiveRecipe,
  layerByBrush,
  plannedMinutes,
  type Finding,
  type Place,
  layerFix,
  onRecipe,
  type RuleId,
} from '#core/recipe';
import { abilityOf, handsOf, mayDo } from './hands';
import { horizonDays } from './horizon';
import { compressorOpen, daylightSpans } from './hours';
import { handleOf, lacksNozzle } from './tools';
import { duration } from './words';

const BENCH: Place = {};

/** @param muster one that is sound; what is wrong with it by itself is told elsewhere */
export function checkWays(muster: Muster): Finding[] {
  const reversed = checkOrder(muster);
  if (muster.bench.people.length === 0) return reversed;
  const days = horizonDays(muster);
  const used = layersInUse(muster);
  const hours = hoursOf(
    muster,
    days,
    used.some((u) => u.layer.isOutdoors),
  );
  return [
    ...reversed,
    ...checkPeople(muster, days, used),
    ...used.flatMap((use) => checkLayer(muster, hours, use)),
    ...checkRoom(muster),
  ];
}

/** Spans that end before they begin hold for nothing. */
function checkOrder({ bench }: Muster): Finding[] {
  const lists = [
    { where: 'Bench, days away', what: 'days away', spans: bench.away ?? [], isDay: true },
    ...bench.people.flatMap((p) => [
      { where: `Bench, ${p.name}`, what: 'days away', spans: p.away ?? [], isDay: true },
      { where: `Bench, ${p.name}`, what: 'hours', spans: p.hours ?? [], isDay: false },
    ]),
  ];
  return lists.flatMap(({ where, what, spans, isDay }) =>
    spans
      .filter(({ from, to }) => (isDay ? to < from : to <= from))
      .map(({ from, to }): Finding => ({
        rule: 'span-reversed',
        severity: 'warning',
        place: BENCH,
        where,
        text: `The ${what} from ${from} to ${to} end before they begin, and hold for nothing.`,
        cure: 'Turn them round; what goes past midnight is two.',
      })),
  );
}

/** A layer with the longest time that it takes at one go on any piece. */
interface Use {
  readonly recipe: Recipe;
  readonly layer: Layer;
  readonly minutes: number;
}

function layersInUse(muster: Muster): Use[] {
  const found = new Map<string, Use>();
  const recipes = new Map(muster.recipes.map((r) => [r.id, r]));
  for (const unit of muster.units)
    for (const piece of unit.pieces) {
      const recipe = recipes.get(piece.recipe ?? '');
      if (!recipe) continue;
      for (const layer of effectiveRecipe(recipe, piece, unit.level).layers) {
        const key = `${recipe.id} ${layer.id}`;
        const minutes = layer.pausable ? 1 : plannedMinutes(layer, piece.count);
        if ((found.get(key)?.minutes ?? 0) < minutes) found.set(key, { recipe, layer, minutes });
      }
    }
  return [...found.values()];
}

/** The longest that hands are there at one go, in minutes: at all, beside the compressor, and by daylight. */
interface Longest {
  readonly there: number;
  readonly withCompressor: number;
  readonly byDaylight: number;
}

interface Hours {
  readonly all: Longest;
  /** of those who may do everything; null: nobody may */
  readonly skilled: Longest | null;
}

function hoursOf(muster: Muster, days: number, isOutside: boolean): Hours {
  const { calendars } = handsOf(muster, days);
  const all = calendars[0]!.open;
  const compressor = compressorOpen(all, muster, days);
  const daylight = isOutside ? daylightSpans(muster, days) : [];
  const longestOf = (hands: readonly Minutes[]): Longest => ({
    there: longest(hands),
    withCompressor: longest(common(hands, compressor)),
    byDaylight: longest(common(hands, daylight)),
  });
  const isAnySkilled = muster.bench.people.some((p) => abilityOf(p) === 'all');
  const skilled = calendars.find((c) => c.id === 'skilled')?.open ?? all;
  return { all: longestOf(all), skilled: isAnySkilled ? longestOf(skilled) : null };
}

const longest = (spans: readonly Minutes[]): number =>
  spans.reduce((most, [from, to]) => Math.max(most, to - from), 0);

function checkLayer(muster: Muster, hours: Hours, { recipe, layer, minutes }: Use): Finding[] {
  const place: Place = { recipe: recipe.id, layer: layer.id };
  const where = `${recipe.name}, layer “${layer.name}”`;
  const error = (rule: RuleId, text: string, cure: string): Finding[] => [
    { rule, severity: 'error', place, where, text, cure },
  ];
  if (layer.method === 'airbrush' && muster.bench.hasAirbrush === false) {
    const brushed = layerByBrush(layer);
    return [
      {
        rule: 'airbrush-none',
        severity: 'error',
        place,
        where,
        text: 'It is for the airbrush, and this bench has none.',
        cure: 'Put it on by brush, or say on the bench that there is an airbrush.',
        fix: onRecipe(recipe.id, {
          ...layerFix('By brush', layer, brushed),
          addsMinutes: (brushed.minutes - layer.minutes) * layer.coats,
        }),
      },
    ];
  }
  if (hours.all.there < minutes) return [];
  const hands = mayDo('careful', layer) ? hours.all : hours.skilled;
  if (hands === null || hands.there < minutes)
    return error(
      'layer-nobody-may',
      hands === null
        ? 'Nobody at this bench may do it: helpers spray nothing, and use no solvent and no blade.'
        : `Nobody who may do it is there for ${duration(minutes)} at one go.`,
      'Let somebody on the bench do everything, give them longer hours, or take a layer that helpers may do.',
    );
  if (layer.method === 'airbrush' && hands.withCompressor < minutes)
    return error(
      'quiet-over-all',
      `Quiet hours leave no session of ${duration(minutes)} in which the compressor may run.`,
      'Shorten the quiet hours, add a session outside them, or put it on by brush.',
    );
  if (layer.isOutdoors && hands.byDaylight < minutes)
    return error(
      'outdoors-no-daylight',
      `It is for outdoors, and no session has ${duration(minutes)} of daylight.`,
      'Add a session by day, or let it be done indoors with extraction.',
    );
  if (lacksNozzle(muster.bench, layer))
    return [
      {
        rule: 'nozzle-missing',
        severity: 'warning',
        place,
        where,
        text: `It asks for a ${layer.nozzleMm} mm nozzle, and no airbrush of this bench has one; it is planned for the one whose role fits best.`,
        cure: 'Give an airbrush that nozzle on the bench, or the layer another.',
      },
    ];
  return [];
}

function checkPeople(muster: Muster, days: number, used: readonly Use[]): Finding[] {
  const { people } = muster.bench;
  return people.flatMap((person): Finding[] => {
    const where = `Bench, ${person.name}`;
    const idle = (text: string, cure: string): Finding[] => [
      { rule: 'helper-idle', severity: 'warning', place: BENCH, where, text, cure },
    ];
    if (presenceOf(muster, person, days).length === 0)
      return idle(
        'is never there while the bench is lit, so nothing is planned for them.',
        'Give them hours within the sessions of the week, or take them off the bench.',
      );
    if (abilityOf(person) !== 'all' && used.length > 0 && !used.some((u) => mayDo('careful', u.layer)))
      return idle(
        'may do none of the layers in use: all of them are sprayed, or need solvent or a blade.',
        'Let them do everything, or give a recipe layers by brush.',
      );
    return [];
  });
}

/** Handles and cabinet that are too few for a single piece. */
function checkRoom(muster: Muster): Finding[] {
  const { bench } = muster;
  return muster.units.flatMap((unit) =>
    unit.pieces.flatMap((piece: Piece): Finding[] => {
      const place: Place = { unit: unit.id, piece: piece.id };
      const where = `${unit.name}, ${piece.name}`;
      const error = (rule: RuleId, text: string, cure: string): Finding => ({
        rule,
        severity: 'error',
        place,
        where,
        text,
        cure,
      });
      const found: Finding[] = [];
      const size = piece.size?.class ?? 'figure';
      const has = bench.handles?.[size];
      if (handleOf(bench, piece) !== null && has !== undefined && piece.count > has)
        found.push(
          error(
            'handles-too-few',
            `needs ${piece.count} ${piece.count === 1 ? 'handle' : 'handles'} of its size, and the bench has ${has}.`,
            'Make the tray smaller, or say on the bench that there are more handles.',
          ),
        );
      const dries = muster.recipes
        .find((r) => r.id === piece.recipe)
        ?.layers.some((l) => l.inCabinet && l.dryMinutes > 0);
      if (bench.cabinet && dries && piece.places > bench.cabinet.places)
        found.push(
          error(
            'cabinet-too-small',
            `needs ${piece.places} places, and the drying cabinet has ${bench.cabinet.places}.`,
            'Let its layers dry outside the cabinet, or make the tray smaller.',
          ),
        );
      return found;
    }),
  );
}
