/** From what the user owns to the kernel's problem: operations, lags on drying clocks, tools, rack, table dates. */
import { clockPoints, unfitness, type ClockPoints, type Need, type Spell } from '#core/climate';
import type { Problem, ProblemLag } from '#core/kernel';
import type { Drying } from '#core/materials';
import { minutesSince, originOf, sessionsOf, spellsOf, type Muster, between } from '#core/muster';
import { GRACE_DAYS, horizonDays } from './horizon';
import { AIR, pieceOf, together, type Ground } from './compilePiece';
import { handsOf } from './hands';
import { compressorOpen, daylightSpans } from './hours';
import { OUTDOORS } from './naming';
import { pinsOf, type Pinning } from './pins';
import { operationId, readyId, type StepRef } from './stepRef';
import { CABINET, cabinetClocks, COMPRESSOR, handles, sprayTools } from './tools';
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
  const ground: Ground = {
    muster,
    hands,
    isEverUnfit: (need) => unfit.get(need)!.length > 0,
    hasAir,
    pilots,
    pins: pins.of,
  };
  const { steps: placed, ...parts } = together(
    muster.units.map((unit) => {
      const earliest = Math.max(begin, unit.readyFrom ? minutesSince(origin, unit.readyFrom) : 0);
      const pieces = together(unit.pieces.map((piece) => pieceOf(ground, unit, piece, earliest)));
      return { ...pieces, operations: [...pieces.operations, { id: readyId(unit), minutes: 0 }] };
    }),
  );
  const steps = new Map(placed);
  const { operations, lags, holds } = parts;

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
    holds: [...holds],
    units,
    objective: objectiveOf(wish),
    fixed: [...hands.fixed, ...margins.fixed],
  };
  return { problem, steps, clocks, spells, pins: pins.of, absences: hands.absences };
}

/** Minimum up, closing down: never sooner, never later than said. */
function wholeMinutes(lag: ProblemLag): ProblemLag {
  const min = Math.ceil(lag.min);
  const max = lag.max === undefined ? undefined : Math.max(min, Math.floor(lag.max));
  const prefer =
    lag.prefer === undefined ? undefined : Math.min(Math.max(min, Math.floor(lag.prefer)), max ?? Infinity);
  return { ...lag, min, ...(max === undefined ? {} : { max }), ...(prefer === undefined ? {} : { prefer }) };
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
