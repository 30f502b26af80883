/** The spread of a unit’s day, drawn over the plan: it rises where a tenth of the futures are ready, is highest at the half, and ends at nine in ten. */
import { dayName, type PlanUnit } from '#core/plan';
import type { Origin } from '#core/muster';
import type { TimeAxis } from './timeAxis';

export interface Fan {
  /** up to the table date, and beyond it */
  readonly inTime: string;
  readonly late: string;
  readonly text: string;
}

const TOP = 1;
const BASE = 13;
/** So wide at the least that it can be seen. */
const LEAST = 6;

/** @param readyBy minutes by which it is ready in 1, 5 and 9 of ten futures; Infinity: not within the plan’s time */
export function fanOf(
  unit: Pick<PlanUnit, 'name' | 'due'>,
  readyBy: readonly [number, number, number],
  axis: Pick<TimeAxis, 'xOf' | 'width'>,
  origin: Origin,
): Fan {
  const x = (minute: number): number => (Number.isFinite(minute) ? axis.xOf(minute) : axis.width);
  const [soon, middle, late] = readyBy;
  const from = x(soon);
  const to = Math.max(x(late), from + LEAST);
  const peak = Math.min(to, Math.max(from, x(middle)));
  const due = x(unit.due);
  const heightAt = (at: number): number => {
    const share =
      at <= peak ? (at - from) / Math.max(1e-6, peak - from) : (to - at) / Math.max(1e-6, to - peak);
    return BASE - (BASE - TOP) * Math.min(1, Math.max(0, share));
  };
  const part = (a: number, b: number): string => {
    if (b - a < 0.5) return '';
    const top = peak > a && peak < b ? `L${round(peak)} ${TOP}` : '';
    return `M${round(a)} ${BASE}L${round(a)} ${round(heightAt(a))}${top}L${round(b)} ${round(heightAt(b))}L${round(b)} ${BASE}Z`;
  };
  return {
    inTime: part(from, Math.min(to, due)),
    late: part(Math.max(from, due), to),
    text: `${unit.name}: ${spreadWords(origin, readyBy)}`,
  };
}

/** The same in words. */
export function spreadWords(origin: Origin, [soon, middle, late]: readonly [number, number, number]): string {
  return `Ready by ${dayWords(origin, soon)} in 1 of 10 futures, ${dayWords(origin, middle)} in half of them, ${dayWords(origin, late)} in 9 of 10.`;
}

/** A day of the plan; beyond it there is none. */
function dayWords(origin: Origin, minute: number): string {
  return Number.isFinite(minute) ? dayName(origin, minute) : 'no day of this plan';
}

const round = (x: number): number => Math.round(x * 10) / 10;
