/** From what the user owns to the kernel's problem: operations, lags on drying clocks, tools, rack, table dates. */
import { clockPoints, unfitness, type ClockPoints, type Need, type Spell } from '#core/climate';
import type { Problem, ProblemLag, ProblemOperation } from '#core/kernel';
import { familyOf, type Drying } from '#core/materials';
import {
  minutesSince,
  originOf,
  sessionsOf,
  spellsOf,
  type BenchSession,
  type Layer,
  type Muster,
  type Piece,
  type Recipe,
  type Unit,
  between,
} from '#core/muster';
import {
  bearsUseAfter,
  dryingOf,
  effectiveRecipe,
  linksOf,
  roundsOf,
  topLayers,
  waitsBetween,
  plannedMinutes,
} from '#core/recipe';
import { GRACE_DAYS, horizonDays } from './horizon';
import { loadOf } from './load';
import { handsOf } from './hands';
import { compressorOpen, daylightSpans } from './hours';
import { OUTDOORS } from './naming';
import { pinsOf, type Pinning } from './pins';
import { doneId, operationId, readyId, type StepRef } from './stepRef';
import {
  airbrushOf,
  BOOTH,
  CABINET,
  cabinetClocks,
  clockOf,
  COMPRESSOR,
  handleOf,
  handles,
  sprayTools,
  toolName,
} from './tools';
import type { Doer } from './who';
import { marginsOf, objectiveOf } from './wishes';

export interface Compiled {
  readonly problem: Problem;
  /** by operation id; the milestones (a piece done, a unit ready) are not among them */
  readonly steps: ReadonlyMap<string, StepRef>;
  readonly clocks: ReadonlyMap<string, ClockPoints>;
  /** what the user has said of single steps, by operation id */
  readonly pins: ReadonlyMap<string, Pinning>;
  /** who does each step, where that has been decided (`lanes`); else it is found out from the plan */
  readonly doers?: ReadonlyMap<string, Doer>;
  /** names of people by the operation that stands for an absence of theirs */
  readonly absences: ReadonlyMap<string, string>;
  /** the air over the plan's days */
  readonly spells: readonly Spell[];
}

const NEEDS = ['lacquer', 'paint', 'none'] as const satisfies readonly Need[];
/** Shares of the bench's air: a spatter takes all, a wet coat that needs clean air one. */
const AIR = 1000;

const CLOCKS = ['water', 'solvent', 'oxidation'] as const satisfies readonly Drying[];

/**
 * @param muster one in which `checkMuster` finds no error
 * @param now minute from which is planned; nothing is placed by it here, but what is said of sessions gone no longer binds
 * @param graceDays how many days beyond the last table date a late plan may run
 */
export function compile(muster: Muster, now = 0, graceDays = GRACE_DAYS): Compiled {
  const days = horizonDays(muster, graceDays);
  const horizon = days * 1440;
  const origin = originOf(muster);
  const begin = minutesSince(origin, muster.startsOn);
  const { bench } = muster;
  const hands = handsOf(muster, days);
  const spells = spellsOf(muster, days);
  const unfit = new Map(NEEDS.map((need) => [need, unfitSpells(need, spells, horizon)]));
  const isOutside = muster.recipes.some((r) => r.layers.some((l) => l.isOutdoors));
  /** as many as can ever be at it at once: where only the hours count */
  const crowd = Math.max(1, bench.people.length);
  const toolsOf = (layer: Layer): string[] => [
    ...(layer.method === 'airbrush' ? [airbrushOf(bench, layer)] : hands.isAlone ? ['table'] : []),
    ...(bench.boothPlaces !== undefined && ['airbrush', 'can'].includes(layer.method) && !layer.isOutdoors
      ? [BOOTH]
      : []),
    ...(layer.isOutdoors ? [OUTDOORS] : []),
  ];
  const onClock = (layer: Layer | null): { clock?: string } => {
    const clock = layer && clockOf(bench, layer);
    return clock === null ? {} : { clock };
  };
  // Only where something throws dust is the air of the bench a thing to share.
  const hasAir = muster.recipes.some((r) => r.layers.some((l) => l.air === 'contaminates'));
  const pilots = new Map(
    muster.units.flatMap((u) =>
      u.pieces.filter((p) => p.isPilot && p.recipe).map((p) => [p.recipe!, p] as const),
    ),
  );
  const sessions = sessionsOf(muster, days);
  const pins = pinsOf(muster, sessions, horizon, now, (pin) =>
    operationId({ id: pin.piece }, { id: pin.layer }, pin.round),
  );
  const steps = new Map<string, StepRef>();
  const operations: ProblemOperation[] = [];
  const lags: ProblemLag[] = [];
  const holds: NonNullable<Problem['holds']> = [];

  for (const unit of muster.units) {
    const earliest = Math.max(begin, unit.readyFrom ? minutesSince(origin, unit.readyFrom) : 0);
    for (const piece of unit.pieces) {
      const recipe = muster.recipes.find((r) => r.id === piece.recipe)!;
      compilePiece(unit, piece, effectiveRecipe(recipe, piece, unit.level), earliest);
    }
    operations.push({ id: readyId(unit), minutes: 0 });
  }

  function compilePiece(unit: Unit, piece: Piece, recipe: Recipe, earliest: number): void {
    const id = (index: number): string => operationId(piece, recipe.layers[index]!);
    const lastId = (index: number): string =>
      operationId(piece, recipe.layers[index]!, roundsOf(recipe.layers[index]!));
    recipe.layers.forEach((layer, layerIndex) => {
      const rounds = roundsOf(layer);
      const need = needOf(layer);
      for (let round = 1; round <= rounds; round++) {
        const own = operationId(piece, layer, round);
        const pinned = pins.of.get(own);
        const minutes = plannedMinutes(layer, piece.count);
        const soonest = Math.max(earliest, pinned?.within?.start ?? 0);
        const latest = pinned?.within ? endWithin(pinned.within, minutes, layer.pausable) : null;
        steps.set(own, {
          unit,
          piece,
          recipe,
          layer,
          layerIndex,
          round,
          rounds,
          clock: clockOf(bench, layer),
          tool: toolName(bench, layer),
        });
        operations.push({
          id: own,
          minutes,
          uses: [
            ...hands.usesOf(layer).map((resource) => ({ resource, amount: 1 })),
            ...toolsOf(layer).map((resource) => ({ resource, amount: 1 })),
            ...(unfit.get(need)!.length > 0 ? [{ resource: `fit-${need}`, amount: 1 }] : []),
            ...(hasAir && layer.air
              ? [{ resource: 'air', amount: layer.air === 'contaminates' ? AIR : 1 }]
              : []),
            ...(pinned?.shunned ?? []).map((resource) => ({ resource, amount: 1 })),
          ],
          family: loadOf(layer),
          ...(layer.pausable ? { pausable: true } : {}),
          ...(soonest > 0 ? { earliest: soonest } : {}),
          ...(latest === null ? {} : { latest }),
        });
      }
      waitsBetween(layer).forEach((wait, k) =>
        lags.push({
          from: operationId(piece, layer, k + 1),
          to: operationId(piece, layer, k + 2),
          min: wait,
          ...onClock(layer),
        }),
      );
      if (bench.cabinet && layer.inCabinet && dryingOf(layer) > 0 && piece.places > 0) {
        // It stands in the cabinet until it is dry.
        const out = `${lastId(layerIndex)}.out`;
        operations.push({ id: out, minutes: 0 });
        lags.push({ from: lastId(layerIndex), to: out, min: dryingOf(layer), ...onClock(layer) });
        holds.push({ resource: CABINET, amount: piece.places, from: lastId(layerIndex), to: out });
      }
      if (hasAir && layer.air === 'needs-clean') {
        // What throws dust keeps away until this is dry to the touch.
        const set = `${lastId(layerIndex)}.set`;
        operations.push({ id: set, minutes: 0 });
        lags.push({
          from: lastId(layerIndex),
          to: set,
          min: Math.min(dryingOf(layer), familyOf(layer.family).stages.touch),
          ...onClock(layer),
        });
        holds.push({ resource: 'air', amount: 1, from: lastId(layerIndex), to: set });
      }
    });
    for (const link of linksOf(recipe))
      lags.push({
        from: lastId(link.from),
        to: id(link.to),
        min: link.min,
        ...(link.max === Infinity ? {} : { max: link.max }),
        ...(link.prefer === Infinity ? {} : { prefer: link.prefer }),
        ...onClock(link.dries ? recipe.layers[link.from]! : null),
      });
    operations.push({ id: doneId(piece), minutes: 0 });
    for (const top of topLayers(recipe)) {
      const layer = recipe.layers[top]!;
      lags.push({ from: lastId(top), to: doneId(piece), min: dryingOf(layer), ...onClock(layer) });
    }
    // Before it may be used it rests longer than before the next coat.
    recipe.layers.forEach((layer, index) => {
      const min = bearsUseAfter(layer, piece);
      if (min > dryingOf(layer))
        lags.push({ from: lastId(index), to: readyId(unit), min, ...onClock(layer) });
    });
    lags.push({ from: doneId(piece), to: joinedAt(muster, unit, piece) ?? readyId(unit), min: 0 });
    for (const { layer, ...lag } of gluedOnto(muster, unit, piece, recipe))
      lags.push({ ...lag, ...onClock(layer) });
    const pilot = piece.isPilot ? undefined : pilots.get(piece.recipe!);
    if (pilot)
      recipe.layers.forEach((layer, index) => {
        if (layer.isPiloted) lags.push({ from: doneId(pilot), to: id(index), min: 0 });
      });
    const handle = handleOf(bench, piece);
    if (handle !== null && recipe.layers.length > 0)
      holds.push({ resource: handle, amount: piece.count, from: id(0), to: doneId(piece) });
    if (piece.places > 0)
      holds.push({ resource: 'rack', amount: piece.places, from: id(0), to: doneId(piece) });
  }

  const wish = muster.bench.wish ?? 'balanced';
  const units = muster.units.map((u) => ({
    id: u.id,
    ready: readyId(u),
    due: minutesSince(origin, u.table),
    weight: u.importance,
  }));
  const margins = marginsOf(wish, sessions, units);
  const used = new Set(lags.flatMap((l) => l.clock ?? []));
  const clocks = new Map<string, ClockPoints>([
    ...CLOCKS.map((d): [string, ClockPoints] => [d, clockPoints(d, spells, horizon)]),
    ...cabinetClocks(bench, CLOCKS, horizon),
  ]);
  const fits = NEEDS.filter((n) => unfit.get(n)!.length > 0);
  const lit = hands.calendars[0]!.open;
  const sprayed = [...steps.values()].flatMap((s) => (s.layer.method === 'airbrush' ? [s.layer] : []));
  const problem: Problem = {
    format: 'muster-problem/1',
    horizon,
    calendars: [
      ...hands.calendars,
      ...fits.map((n) => ({ id: `fit-${n}`, open: between(unfit.get(n)!, horizon) })),
      ...(bench.quiet?.length ? [{ id: COMPRESSOR, open: compressorOpen(lit, muster, days) }] : []),
      ...(isOutside ? [{ id: OUTDOORS, open: daylightSpans(muster, days) }] : []),
      ...pins.calendars,
    ],
    clocks: [
      ...[...clocks].filter(([id]) => used.has(id)).map(([id, points]) => ({ id, points })),
      ...margins.clocks,
    ],
    resources: [
      ...hands.resources,
      ...sprayTools(bench, sprayed),
      ...(hands.isAlone
        ? [{ id: 'table', capacity: 1, calendar: 'sessions', setup: { minutes: bench.layoutMinutes } }]
        : []),
      { id: 'rack', capacity: bench.rackPlaces },
      ...handles(bench),
      ...(bench.cabinet ? [{ id: CABINET, capacity: bench.cabinet.places }] : []),
      ...fits.map((n) => ({ id: `fit-${n}`, capacity: crowd, calendar: `fit-${n}` })),
      ...(isOutside ? [{ id: OUTDOORS, capacity: crowd, calendar: OUTDOORS }] : []),
      ...(hasAir ? [{ id: 'air', capacity: AIR }] : []),
      ...pins.resources,
    ],
    operations: [...operations, ...hands.operations, ...margins.operations],
    // Without a clock the kernel counts whole minutes.
    lags: [...lags.map((l) => (l.clock === undefined ? wholeMinutes(l) : l)), ...margins.lags],
    holds,
    units,
    objective: objectiveOf(wish),
    fixed: [...hands.fixed, ...margins.fixed],
  };
  return { problem, steps, clocks, spells, pins: pins.of, absences: hands.absences };
}

/** The operation that waits for a part: its seam. Null where it joins nothing, or only after the host's last layer. */
function joinedAt(muster: Muster, unit: Unit, piece: Piece): string | null {
  const host = piece.joins && unit.pieces.find((p) => p.id === piece.joins!.piece);
  const recipe = host && muster.recipes.find((r) => r.id === host.recipe);
  if (!host || !recipe) return null;
  const seam = seamOf(recipe, effectiveRecipe(recipe, host, unit.level), piece.joins!.layer);
  return seam ? operationId(host, seam) : null;
}

/**
 * A part is glued to what its host is by then: its gluing waits until all that the host's next layer rests on is on and dry. Where a window
 * closes on that, the part may be glued before. Nothing where the part has no layer that glues.
 */
function gluedOnto(
  muster: Muster,
  unit: Unit,
  piece: Piece,
  recipe: Recipe,
): { from: string; to: string; min: number; layer: Layer }[] {
  const glue = recipe.layers.findLast((l) => l.task === 'glue');
  const host = piece.joins && unit.pieces.find((p) => p.id === piece.joins!.piece);
  const whole = host && muster.recipes.find((r) => r.id === host.recipe);
  if (!glue || !host || !whole) return [];
  const own = effectiveRecipe(whole, host, unit.level);
  const seam = seamOf(whole, own, piece.joins!.layer);
  const at = seam ? own.layers.indexOf(seam) : own.layers.length;
  const beneath = seam
    ? linksOf(own).filter((l) => l.to === at && l.dries && l.max === Infinity)
    : topLayers(own).map((from) => ({ from, min: dryingOf(own.layers[from]!) }));
  return beneath.map(({ from, min }) => {
    const layer = own.layers[from]!;
    return { from: operationId(host, layer, roundsOf(layer)), to: operationId(piece, glue), min, layer };
  });
}

/** The layer of the host at which a part joins or, where the host leaves that one off, the next that it has. */
function seamOf(whole: Recipe, own: Recipe, layer: string): Layer | undefined {
  const at = whole.layers.findIndex((l) => l.id === layer);
  const has = new Map(own.layers.map((l) => [l.id, l]));
  const next = whole.layers.slice(Math.max(0, at)).find((l) => has.has(l.id));
  return next && has.get(next.id);
}

/** What is longer than the session that it is to begin in, and can be put down, goes on in the next. */
function endWithin({ start, end }: BenchSession, minutes: number, pausable: boolean): number | null {
  return pausable && minutes > end - start ? null : end;
}

/** Minimum up, closing down: never sooner, never later than said. */
function wholeMinutes(lag: ProblemLag): ProblemLag {
  const min = Math.ceil(lag.min);
  const max = lag.max === undefined ? undefined : Math.max(min, Math.floor(lag.max));
  const prefer =
    lag.prefer === undefined ? undefined : Math.min(Math.max(min, Math.floor(lag.prefer)), max ?? Infinity);
  return { ...lag, min, ...(max === undefined ? {} : { max }), ...(prefer === undefined ? {} : { prefer }) };
}

/** What a layer asks of the air. */
export function needOf(layer: Layer): Need {
  if (familyOf(layer.family).drying === 'none') return 'none';
  return layer.method === 'can' || familyOf(layer.family).binder === 'lacquer' ? 'lacquer' : 'paint';
}

/** When a layer of this need must not go on, joined and sorted. */
function unfitSpells(need: Need, spells: readonly Spell[], horizon: number): [number, number][] {
  const shut: [number, number][] = [];
  spells.forEach((spell, k) => {
    if (unfitness(need, spell.air) === null) return;
    const until = spells[k + 1]?.from ?? horizon;
    const last = shut[shut.length - 1];
    if (last && last[1] === spell.from) last[1] = until;
    else if (until > spell.from) shut.push([spell.from, until]);
  });
  return shut;
}

/** Days that the naive order gets for each unit, so that its lateness can be measured. */
const DAYS_A_UNIT = 21;

/** The same muster one unit after another, in order of table date: what the naive order would come to. */
export function oneAfterAnother(muster: Muster): Problem {
  const { problem, steps } = compile(muster, 0, GRACE_DAYS + DAYS_A_UNIT * muster.units.length);
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
