/** What each row of the plan draws: blocks of hands-on work, tides after them, gates. Pixels only; no time of day. */
import { duration, type Plan, type PlanStep, type PlanUnit } from '#core/plan';
import { opensAfter } from '#core/recipe';
import { tidePaths, type TidePaths } from '../ui/tidePath';
import type { TimeAxis } from './timeAxis';

export interface Block {
  readonly step: PlanStep;
  readonly x: number;
  readonly width: number;
  /** cleaning or loading before it */
  readonly setupX: number;
  readonly setupWidth: number;
  readonly tide: TidePaths;
  readonly label: string | null;
  readonly labelLevel: 0 | 1;
  readonly gate: {
    readonly opens: number;
    readonly closes: number;
    readonly isSoft: boolean;
    readonly text: string;
  } | null;
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
  readonly blocks: readonly Block[];
}

const UNIT_HEIGHT = 90;
const PIECE_HEIGHT = 70;
const FOOT = 20;
const LEAST_BLOCK = 2.5;
const LETTER = 6.6;

/** @param open ids of the units whose pieces have a row of their own */
export function rowsOf(plan: Plan, axis: TimeAxis, open: ReadonlySet<string>): Row[] {
  const rows: Row[] = [];
  let y = 0;
  const add = (unit: PlanUnit, piece: Row['piece'], steps: readonly PlanStep[], withGates: boolean): void => {
    const height = piece ? PIECE_HEIGHT : UNIT_HEIGHT;
    const base = height - FOOT;
    const tideHeight = piece ? 24 : 34;
    const key = piece ? `${unit.id}/${piece.id}` : unit.id;
    rows.push({
      key,
      unit,
      piece,
      y,
      height,
      base,
      tideHeight,
      blocks: blocksOf(steps, axis, base, tideHeight, withGates),
    });
    y += height;
  };
  for (const unit of plan.units) {
    const steps = [...plan.steps.values()]
      .filter((s) => s.unit.id === unit.id)
      .sort((a, b) => a.start - b.start);
    const isOpen = open.has(unit.id);
    add(unit, null, steps, false);
    if (!isOpen) continue;
    for (const piece of steps[0]?.unit.pieces ?? []) {
      const own = steps.filter((s) => s.piece.id === piece.id);
      const recipe = own[0]?.recipe.name ?? '';
      const detail = piece.count > 1 ? `${piece.count} figures · ${recipe}` : recipe;
      add(unit, { id: piece.id, name: piece.name, detail }, own, true);
    }
  }
  return rows;
}

function blocksOf(
  steps: readonly PlanStep[],
  axis: TimeAxis,
  base: number,
  tideHeight: number,
  withGates: boolean,
): Block[] {
  const labelEnd: [number, number] = [-Infinity, -Infinity];
  let before: PlanStep | null = null;
  return steps.map((step) => {
    const x = axis.xOf(step.start);
    const end = axis.xOf(step.end);
    const width = Math.max(LEAST_BLOCK, end - x);
    const setupX = axis.xOf(step.start - step.setup);
    const isRun = before !== null && before.layer.id === step.layer.id && before.recipe.id === step.recipe.id;
    before = step;
    let label: string | null = null;
    let labelLevel: 0 | 1 = 0;
    if (!isRun) {
      const room = step.layer.name.length * LETTER;
      const level = labelEnd[0] + 6 <= x ? 0 : labelEnd[1] + 6 <= x ? 1 : null;
      if (level !== null) {
        label = step.layer.name;
        labelLevel = level;
        labelEnd[level] = x + room;
      }
    }
    const { tide } = step;
    return {
      step,
      x,
      width,
      setupX,
      setupWidth: x - setupX,
      tide: tidePaths(
        {
          from: x + width,
          wet: Math.max(x + width, axis.xOf(tide.wetUntil)),
          workable: Math.max(x + width, axis.xOf(tide.workableUntil)),
          dry: Math.max(x + width, axis.xOf(tide.dryAt)),
        },
        base,
        tideHeight,
      ),
      label,
      labelLevel,
      gate: withGates ? gateOf(step, axis) : null,
    };
  });
}

/** The gate of a step in pixels, with its nominal minutes. */
export function gateOf(step: PlanStep, axis: TimeAxis): Block['gate'] {
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
