/** Drying clocks of one future: the planned ones, faster or slower day by day. */
import type { Clock } from './course';
import { normal, STREAM } from './draws';

const DAY = 1440;
/** The forecast is as good as the climate after so many days. */
const HORIZON_DAYS = 7;

/** Ticks at a minute of a clock as planned. */
export function plannedTicks({ minutes, ticks }: Clock, minute: number): number {
  if (minutes.length === 1) return minute;
  const k = segment(minutes, minute);
  return ticks[k]! + ((ticks[k + 1]! - ticks[k]!) * (minute - minutes[k]!)) / (minutes[k + 1]! - minutes[k]!);
}

function plannedMinute({ minutes, ticks }: Clock, goal: number): number {
  if (minutes.length === 1) return goal;
  const k = segment(ticks, goal);
  return minutes[k]! + ((minutes[k + 1]! - minutes[k]!) * (goal - ticks[k]!)) / (ticks[k + 1]! - ticks[k]!);
}

function segment(list: Float64Array, value: number): number {
  let low = 0;
  let high = list.length - 2;
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (list[mid]! <= value) low = mid;
    else high = mid - 1;
  }
  return low;
}

/** The minute by which so many ticks have gone by since another, on a clock as planned. */
export function plannedAfter(clock: Clock, from: number, ticks: number): number {
  return plannedMinute(clock, plannedTicks(clock, from) + ticks);
}

export class Air {
  /** what each day’s drying is multiplied by; 1 as forecast */
  private readonly rate: Float64Array;
  /** by clock: planned ticks, and ticks of this future, at the beginning of each day */
  private readonly planned: readonly Float64Array[];
  private readonly real: readonly Float64Array[];

  constructor(
    private readonly clocks: readonly Clock[],
    private readonly days: number,
  ) {
    this.rate = new Float64Array(days + 1).fill(1);
    this.planned = clocks.map((c) =>
      Float64Array.from({ length: days + 2 }, (_, d) => plannedTicks(c, d * DAY)),
    );
    this.real = this.planned.map((p) => Float64Array.from(p));
  }

  /** @param spread error of the forecast a day ahead @param now minute from which it is counted */
  draw(seed: number, future: number, spread: number, now: number): void {
    for (let d = 0; d <= this.days; d++) {
      const ahead = Math.min(HORIZON_DAYS, Math.max(0, d - Math.floor(now / DAY)));
      this.rate[d] =
        spread === 0 ? 1 : Math.exp(spread * Math.sqrt(ahead) * normal(seed, future, STREAM.air, d));
    }
    this.planned.forEach((planned, c) => {
      const real = this.real[c]!;
      real[0] = planned[0]!;
      for (let d = 0; d <= this.days; d++)
        real[d + 1] = real[d]! + this.rate[d]! * (planned[d + 1]! - planned[d]!);
    });
  }

  /** The minute by which so many ticks have gone by. @param clock −1: plain minutes */
  after(clock: number, from: number, ticks: number): number {
    if (clock < 0) return from + ticks;
    const points = this.clocks[clock]!;
    const planned = this.planned[clock]!;
    const real = this.real[clock]!;
    let d = Math.min(this.days, Math.floor(from / DAY));
    const goal = real[d]! + this.rate[d]! * (plannedTicks(points, from) - planned[d]!) + ticks;
    while (d < this.days && real[d + 1]! < goal) d++;
    return plannedMinute(points, planned[d]! + (goal - real[d]!) / this.rate[d]!);
  }
}
