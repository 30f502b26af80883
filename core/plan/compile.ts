/** From what the user owns to the kernel's problem: operations, lags on drying clocks, tools, rack, table dates. */
import { clockPoints, type ClockPoints, type Spell } from '#core/climate';
import type { Problem, ProblemLag, ProblemOperation } from '#core/kernel';
import { familyOf, type Drying } from '#core/materials';
import {
  minutesOfDay,
  minutesSince,
  originOf,
  sessionsOf,
  type Layer,
  type Muster,
  type Piece,
  type Recipe,
  type Unit,
} from '#core/muster';
import { linksOf, topLayers, workMinutes } from '#core/recipe';
import { GRACE_DAYS, horizonDays } from './horizon';

/** Which layer of which piece an operation stands for. */
export interface StepRef {
  readonly unit: Unit;
  readonly piece: Piece;
  readonly recipe: Recipe;
  readonly layer: Layer;
  readonly layerIndex: number;
}

export interface Compiled {
  readonly problem: Problem;
  /** by operation id; the milestones (a piece done, a unit ready) are not among them */
  readonly steps: ReadonlyMap<string, StepRef>;
  readonly clocks: ReadonlyMap<Drying, ClockPoints>;
}

/** Cost of a minute late, of set-up, past the better-by minute, and of being done later. */
const OBJECTIVE = { tardiness: 100, setup: 1, overrun: 0.5, completion: 0.01, makespan: 0 } as const;

const CLOCKS = ['water', 'solvent', 'oxidation'] as const satisfies readonly Drying[];

export function operationId(piece: Piece, layer: Layer): string {
  return `${piece.id}.${layer.id}`;
}
export function readyId(unit: Unit): string {
  return `${unit.id}.ready`;
}
function doneId(piece: Piece): string {
  return `${piece.id}.done`;
}

/**
 * @param muster one in which `checkMuster` finds no error
 * @param graceDays how many days beyond the last table date a late plan may run
 */
export function compile(muster: Muster, graceDays = GRACE_DAYS): Compiled {
  const days = horizonDays(muster, graceDays);
  const horizon = days * 1440;
  const origin = originOf(muster);
  const begin = minutesSince(origin, muster.startsOn);
  // What lies ready on the table is known where one person works; two would have to be told apart.
  const hasTable = muster.bench.people.length === 1;
  const steps = new Map<string, StepRef>();
  const operations: ProblemOperation[] = [];
  const lags: ProblemLag[] = [];
  const holds: NonNullable<Problem['holds']> = [];

  for (const unit of muster.units) {
    const earliest = Math.max(begin, unit.readyFrom ? minutesSince(origin, unit.readyFrom) : 0);
    for (const piece of unit.pieces) {
      const recipe = muster.recipes.find((r) => r.id === piece.recipe)!;
      compilePiece(unit, piece, recipe, earliest);
    }
    operations.push({ id: readyId(unit), minutes: 0 });
  }

  function compilePiece(unit: Unit, piece: Piece, recipe: Recipe, earliest: number): void {
    const id = (index: number): string => operationId(piece, recipe.layers[index]!);
    recipe.layers.forEach((layer, layerIndex) => {
      steps.set(id(layerIndex), { unit, piece, recipe, layer, layerIndex });
      operations.push({
        id: id(layerIndex),
        minutes: workMinutes(layer, piece.count),
        uses: [
          { resource: 'hands', amount: 1 },
          ...(layer.method === 'airbrush'
            ? [{ resource: 'airbrush', amount: 1 }]
            : hasTable
              ? [{ resource: 'table', amount: 1 }]
              : []),
        ],
        family: loadOf(layer),
        ...(layer.pausable ? { pausable: true } : {}),
        ...(earliest > 0 ? { earliest } : {}),
      });
    });
    for (const link of linksOf(recipe))
      lags.push({
        from: id(link.from),
        to: id(link.to),
        min: link.min,
        ...(link.max === Infinity ? {} : { max: link.max }),
        ...(link.prefer === Infinity ? {} : { prefer: link.prefer }),
        ...clockOf(link.dries ? recipe.layers[link.from]! : null),
      });
    operations.push({ id: doneId(piece), minutes: 0 });
    for (const top of topLayers(recipe)) {
      const layer = recipe.layers[top]!;
      lags.push({ from: id(top), to: doneId(piece), min: layer.dryMinutes, ...clockOf(layer) });
    }
    const host = piece.joins && unit.pieces.find((p) => p.id === piece.joins!.piece);
    lags.push({
      from: doneId(piece),
      to: host ? `${host.id}.${piece.joins!.layer}` : readyId(unit),
      min: 0,
    });
    if (piece.places > 0)
      holds.push({ resource: 'rack', amount: piece.places, from: id(0), to: doneId(piece) });
  }

  const used = new Set(lags.flatMap((l) => l.clock ?? []));
  const spells = spellsOf(muster, days);
  const clocks = new Map<Drying, ClockPoints>(CLOCKS.map((d) => [d, clockPoints(d, spells, horizon)]));
  const problem: Problem = {
    format: 'muster-problem/1',
    horizon,
    calendars: [{ id: 'sessions', open: sessionsOf(muster, days).map((s) => [s.start, s.end]) }],
    clocks: CLOCKS.filter((d) => used.has(d)).map((d) => ({ id: d, points: clocks.get(d)! })),
    resources: [
      { id: 'hands', capacity: muster.bench.people.length, calendar: 'sessions' },
      { id: 'airbrush', capacity: 1, calendar: 'sessions', setup: setupOf(muster, steps) },
      ...(hasTable
        ? [{ id: 'table', capacity: 1, calendar: 'sessions', setup: { minutes: muster.bench.layoutMinutes } }]
        : []),
      { id: 'rack', capacity: muster.bench.rackPlaces },
    ],
    operations,
    // Without a clock the kernel counts whole minutes.
    lags: lags.map((l) => (l.clock === undefined ? wholeMinutes(l) : l)),
    holds,
    units: muster.units.map((u) => ({
      id: u.id,
      ready: readyId(u),
      due: minutesSince(origin, u.table),
      weight: u.importance,
    })),
    objective: { ...OBJECTIVE },
  };
  return { problem, steps, clocks };
}

/** What an airbrush is loaded with, or what lies ready on the table: runs are layers with the same load. */
function loadOf(layer: Layer): string {
  return `${layer.family}: ${(layer.mixture.trim() || layer.name.trim()).toLowerCase()}`;
}

function clockOf(layer: Layer | null): { clock?: string } {
  const drying = layer === null ? 'none' : familyOf(layer.family).drying;
  return drying === 'none' ? {} : { clock: drying };
}

/** Minimum up, closing down: never sooner, never later than said. */
function wholeMinutes(lag: ProblemLag): ProblemLag {
  const min = Math.ceil(lag.min);
  const max = lag.max === undefined ? undefined : Math.max(min, Math.floor(lag.max));
  const prefer =
    lag.prefer === undefined ? undefined : Math.min(Math.max(min, Math.floor(lag.prefer)), max ?? Infinity);
  return { ...lag, min, ...(max === undefined ? {} : { max }), ...(prefer === undefined ? {} : { prefer }) };
}

/** The airbrush's changes: a colour after a dirty load needs a full clean, any other a change, the first a load. */
function setupOf(
  muster: Muster,
  steps: ReadonlyMap<string, StepRef>,
): NonNullable<NonNullable<Problem['resources']>[number]['setup']> {
  const { airbrush } = muster.bench;
  const loads = new Map<string, boolean>();
  for (const { layer } of steps.values())
    if (layer.method === 'airbrush') loads.set(loadOf(layer), familyOf(layer.family).isDirty);
  const between: [string, string, number][] = [];
  for (const [to] of loads) {
    between.push(['', to, airbrush.loadMinutes]);
    for (const [from, isDirty] of loads)
      if (isDirty && from !== to && airbrush.cleanMinutes !== airbrush.changeMinutes)
        between.push([from, to, airbrush.cleanMinutes]);
  }
  return { minutes: airbrush.changeMinutes, between, idle: airbrush.idleMinutes };
}

/** The bench's air, by day and by night, over the whole horizon. */
function spellsOf(muster: Muster, days: number): Spell[] {
  const { day, night, dayFrom, nightFrom } = muster.bench.climate;
  const from = minutesOfDay(dayFrom);
  const to = minutesOfDay(nightFrom);
  const daytimeAtMidnight = from > to;
  const spells: Spell[] = [{ from: 0, air: daytimeAtMidnight ? day : night }];
  for (let d = 0; d < days; d++)
    for (const change of [
      { at: from, air: day },
      { at: to, air: night },
    ].sort((a, b) => a.at - b.at))
      if (d * 1440 + change.at > 0) spells.push({ from: d * 1440 + change.at, air: change.air });
  if (from === to) return [{ from: 0, air: day }];
  return spells;
}

/** Days that the naive order gets for each unit, so that its lateness can be measured. */
const DAYS_A_UNIT = 21;

/** The same muster one unit after another, in order of table date: what the naive order would come to. */
export function oneAfterAnother(muster: Muster): Problem {
  const { problem, steps } = compile(muster, GRACE_DAYS + DAYS_A_UNIT * muster.units.length);
  const order = [...muster.units].sort((a, b) => a.table.localeCompare(b.table));
  const extra: ProblemLag[] = [];
  const hasBefore = new Set(problem.lags?.map((l) => l.to));
  order.forEach((unit, k) => {
    const before = order[k - 1];
    if (!before) return;
    for (const [id, step] of steps)
      if (step.unit.id === unit.id && !hasBefore.has(id))
        extra.push({ from: readyId(before), to: id, min: 0 });
  });
  return { ...problem, lags: [...(problem.lags ?? []), ...extra] };
}
