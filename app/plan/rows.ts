/** What each row of the plan draws: runs as bodies, tides after them, gates. Pixels only; no time of day. */
import {
  coveredOf,
  duration,
  listed,
  runsOf,
  sessionFrom,
  type Plan,
  type PlanSession,
  type PlanStep,
  type PlanUnit,
} from '#core/plan';
import { opensAfter } from '#core/recipe';
import { tidePaths, type TidePaths } from '../ui/tidePath';
import type { TimeAxis } from './timeAxis';

/** What one run puts on the pieces of a row: one body, however many steps it has. */
export interface Body {
  /** its first step */
  readonly id: string;
  readonly steps: readonly PlanStep[];
  readonly x: number;
  readonly width: number;
  /** its ground line and how high it stands: half as high as others where two people are at work on the unit at once */
  readonly base: number;
  readonly height: number;
  /** filled where hands are at work, and the seams between two pieces */
  readonly fill: string;
  readonly seams: string;
  /** cleaning or loading before it, as a path */
  readonly setups: string;
  /** of the piece that dries longest */
  readonly tide: TidePaths;
  readonly label: { readonly text: string; readonly x: number; readonly level: 0 | 1 } | null;
  readonly gates: readonly Gate[];
  /** from where to where anything of it is drawn */
  readonly from: number;
  readonly to: number;
}

export interface Gate {
  readonly opens: number;
  readonly closes: number;
  readonly isSoft: boolean;
  /** its nominal minutes; empty where there is no room for them */
  readonly text: string;
}

export interface Row {
  readonly key: string;
  readonly unit: PlanUnit;
  /** null: the whole unit in one row */
  readonly piece: { readonly id: string; readonly name: string; readonly detail: string } | null;
  readonly y: number;
  readonly height: number;
  /** y of the ground line within the row */
  readonly base: number;
  readonly tideHeight: number;
  /** from left to right; reckoned when they are first asked for */
  readonly tiles: () => readonly Tile[];
  /** masks on its pieces, by when they are put on; reckoned when they are first asked for */
  readonly covers: () => readonly CoverBand[];
}

/** From where to where something of a row is masked. */
export interface CoverBand {
  readonly key: string;
  readonly x: number;
  readonly width: number;
  readonly text: string;
}

/** Bodies that are drawn together. */
export interface Tile {
  readonly key: number;
  readonly bodies: readonly Body[];
  /** from where to where anything of them is drawn */
  readonly from: number;
  readonly to: number;
}

const UNIT_HEIGHT = 94;
const PIECE_HEIGHT = 86;
/** below the ground line: hands, and the figures of gates */
const FOOT = 26;
const LEAST_BODY = 2.5;
/** No letter of a label is wider on average, with a little air after it. */
const LETTER = 6.9;
const AIR = 8;

/** @param open ids of the units whose pieces have a row of their own */
export function rowsOf(plan: Plan, axis: TimeAxis, open: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  const numberOf = runNumbers(plan);
  let y = 0;
  const add = (unit: PlanUnit, piece: Row['piece'], steps: readonly PlanStep[]): void => {
    const height = piece ? PIECE_HEIGHT : UNIT_HEIGHT;
    const place = { base: height - FOOT, tideHeight: piece ? 24 : 34 };
    let tiles: readonly Tile[] | null = null;
    let covers: readonly CoverBand[] | null = null;
    rows.push({
      key: piece ? `${unit.id}/${piece.id}` : unit.id,
      unit,
      piece,
      y,
      height,
      ...place,
      tiles: () =>
        (tiles ??= tilesOf(
          labelled(
            placed(groupsOf(steps, numberOf), axis, place).map(({ group, at }) =>
              bodyOf(group, axis, at, piece !== null),
            ),
          ),
        )),
      covers: () => (covers ??= coverBands(steps, axis)),
    });
    y += height;
  };
  const byUnit = new Map<string, PlanStep[]>();
  for (const step of plan.steps.values()) {
    const known = byUnit.get(step.unit.id);
    if (known) known.push(step);
    else byUnit.set(step.unit.id, [step]);
  }
  for (const unit of plan.units) {
    const steps = (byUnit.get(unit.id) ?? []).sort((a, b) => a.start - b.start);
    add(unit, null, steps);
    if (!open.has(unit.id)) continue;
    for (const piece of steps[0]?.unit.pieces ?? []) {
      const own = steps.filter((s) => s.piece.id === piece.id);
      const recipe = own[0]?.recipe.name ?? '';
      const detail = piece.count > 1 ? `${piece.count} figures · ${recipe}` : recipe;
      add(unit, { id: piece.id, name: piece.name, detail }, own);
    }
  }
  return rows;
}

/** Of each mask one band, from its first piece to its last. */
function coverBands(steps: readonly PlanStep[], axis: TimeAxis): CoverBand[] {
  return coveredOf(steps).flatMap(({ recipe, mask, zones, pieces }): CoverBand[] => {
    const ends = pieces.map((p) => p.to ?? p.from);
    const x = axis.xOf(Math.min(...pieces.map((p) => p.from)));
    const width = Math.max(LEAST_BODY, axis.xOf(Math.max(...ends)) - x);
    const what = zones.length > 0 ? listed(zones) : 'parts';
    return [{ key: `${recipe.id} ${mask.layer.id}`, x, width, text: `masked: ${what}` }];
  });
}

/**
 * The number of the run that a step is of, told session by session as it is asked for: who opens a plan sees few of them.
 * What goes on over two sessions is a run of the first.
 */
function runNumbers({ sessions }: Plan): (step: PlanStep) => number | undefined {
  const known = new Map<PlanSession, ReadonlyMap<string, number>>();
  let n = 0;
  const numbersOf = (session: PlanSession): ReadonlyMap<string, number> => {
    let numbers = known.get(session);
    if (!numbers) {
      numbers = new Map(runsOf(session.steps).flatMap((run) => (n++, run.map((step) => [step.id, n]))));
      known.set(session, numbers);
    }
    return numbers;
  };
  return (step) => {
    const session = sessions[sessionFrom(sessions, step.start - step.setup)];
    return session && numbersOf(session).get(step.id);
  };
}

/** The steps by run, in order of time; of two people at once each has their own. */
function groupsOf(
  steps: readonly PlanStep[],
  numberOf: (step: PlanStep) => number | undefined,
): PlanStep[][] {
  const groups: PlanStep[][] = [];
  const last = new Map<string, { readonly number: number; readonly group: PlanStep[] }>();
  for (const step of steps) {
    const number = numberOf(step);
    const who = step.doer?.who ?? '';
    const known = last.get(who);
    if (number !== undefined && known?.number === number) {
      known.group.push(step);
      continue;
    }
    const group = [step];
    groups.push(group);
    if (number === undefined) last.delete(who);
    else last.set(who, { number, group });
  }
  return groups;
}

type Place = Pick<Row, 'base' | 'tideHeight'>;

/** Where each group stands: those that are worked on at once share the height, one above the other. */
function placed(
  groups: readonly PlanStep[][],
  axis: TimeAxis,
  place: Place,
): { readonly group: readonly PlanStep[]; readonly at: Place }[] {
  const half = (place.tideHeight - 2) / 2;
  const lanes: Place[] = [
    { base: place.base, tideHeight: half },
    { base: place.base - half - 2, tideHeight: half },
  ];
  const spans = groups.map((g) => [axis.xOf(g[0]!.start), axis.xOf(g[g.length - 1]!.end)] as const);
  const lane: (0 | 1 | null)[] = groups.map(() => null);
  let open: { readonly k: number; readonly until: number }[] = [];
  spans.forEach(([from, to], k) => {
    open = open.filter((o) => o.until > from + OVERLAP);
    const [other] = open;
    if (other) {
      lane[other.k] ??= 0;
      lane[k] = open.some((o) => lane[o.k] === 0) ? 1 : 0;
    }
    open.push({ k, until: to });
  });
  return groups.map((group, k) => ({ group, at: lane[k] === null ? place : lanes[lane[k]!]! }));
}

/** Pixels by which two bodies may run into one another: what is as narrow is widened to be seen. */
const OVERLAP = LEAST_BODY;

function bodyOf(
  steps: readonly PlanStep[],
  axis: TimeAxis,
  { base, tideHeight }: Pick<Row, 'base' | 'tideHeight'>,
  withGates: boolean,
): Body {
  const first = steps[0]!;
  const last = steps.reduce((a, b) => (b.tide.dryAt >= a.tide.dryAt ? b : a));
  const x = axis.xOf(first.start);
  const top = base - tideHeight;
  let fill = '';
  let seams = '';
  let setups = '';
  let end = x;
  steps.forEach((step, k) => {
    const from = axis.xOf(step.start);
    const to = Math.max(from + LEAST_BODY, axis.xOf(step.end));
    fill += `M${px(from)} ${top}H${px(to)}V${base}H${px(from)}Z`;
    if (k > 0) seams += `M${px(from)} ${top}V${base}`;
    if (step.setup > 0) setups += `M${px(axis.xOf(step.start - step.setup))} ${top + 6}H${px(from)}V${base}`;
    end = Math.max(end, to);
  });
  const { tide } = last;
  const from = Math.max(axis.xOf(last.start) + LEAST_BODY, axis.xOf(last.end));
  const dry = Math.max(from, axis.xOf(tide.dryAt));
  return {
    id: first.id,
    steps,
    x,
    width: end - x,
    base,
    height: tideHeight,
    fill,
    seams,
    setups,
    tide: tidePaths(
      {
        from,
        wet: Math.max(from, axis.xOf(tide.wetUntil)),
        workable: Math.max(from, axis.xOf(tide.workableUntil)),
        dry,
      },
      base,
      tideHeight,
    ),
    label: null,
    gates: withGates ? steps.flatMap((step) => gateOf(step, axis) ?? []) : [],
    from: axis.xOf(first.start - first.setup),
    to: Math.max(end, dry),
  };
}

/** Pixels of a tile: what begins within them is drawn together. */
const TILE = 400;

function tilesOf(bodies: readonly Body[]): Tile[] {
  const tiles = new Map<number, Body[]>();
  for (const body of bodies) {
    const key = Math.floor(body.x / TILE);
    const known = tiles.get(key);
    if (known) known.push(body);
    else tiles.set(key, [body]);
  }
  return [...tiles].map(([key, own]) => ({
    key,
    bodies: own,
    from: Math.min(...own.map((b) => b.from)),
    to: Math.max(...own.map((b) => b.to)),
  }));
}

function px(x: number): string {
  return x.toFixed(1);
}

/** Each body gets its name where that runs into no other, on one of two levels; where neither has room it is told when it is picked. */
function labelled(bodies: readonly Body[]): Body[] {
  const ends: [number, number] = [-Infinity, -Infinity];
  let before = '';
  return withGateFigures(bodies).map((body) => {
    const { name } = body.steps[0]!.layer;
    const text = body.steps.length > 1 ? `${name} × ${body.steps.length}` : name;
    // The same name again right beside the first says nothing.
    const isRepeated = name === before && body.x < Math.max(...ends);
    const level = ends[0] <= body.x ? 0 : ends[1] <= body.x ? 1 : null;
    if (level === null || isRepeated) return body;
    before = name;
    const width = text.length * LETTER + AIR;
    ends[level] = body.x + width;
    return { ...body, label: { text, x: body.x, level }, to: Math.max(body.to, body.x + width) };
  });
}

/** The figures of a gate stand between its posts, unless those of the gate before reach as far. */
function withGateFigures(bodies: readonly Body[]): Body[] {
  let end = -Infinity;
  return bodies.map((body) => {
    if (body.gates.length === 0) return body;
    const gates = body.gates.map((gate) => {
      const middle = (gate.opens + gate.closes) / 2;
      const half = (gate.text.length * LETTER + AIR) / 2;
      if (middle - half < end) return { ...gate, text: '' };
      end = middle + half;
      return gate;
    });
    return { ...body, gates };
  });
}

/** The gate of a step in pixels, with its nominal minutes. */
export function gateOf(step: PlanStep, axis: TimeAxis): Gate | null {
  const { gate } = step;
  const window = step.layer.window;
  if (!gate || !window) return null;
  const shut = gate.closes ?? gate.prefer;
  if (shut === null) return null;
  const opens = Math.ceil(opensAfter(step.layer));
  const closes = window.closesMinutes ?? window.preferMinutes!;
  return {
    opens: axis.xOf(gate.opens),
    closes: axis.xOf(shut),
    isSoft: gate.closes === null,
    text:
      closes < 60 || closes % 60 !== 0 ? `${opens}–${closes} min` : `${duration(opens)}–${duration(closes)}`,
  };
}

/** The step of a body that stands at `x`, or nearest to it. */
export function stepAt(body: Body, axis: TimeAxis, x: number): PlanStep {
  let best = body.steps[0]!;
  let least = Infinity;
  for (const step of body.steps) {
    const from = axis.xOf(step.start);
    const to = axis.xOf(step.end);
    const distance = x < from ? from - x : x > to ? x - to : 0;
    if (distance >= least) continue;
    least = distance;
    best = step;
  }
  return best;
}
