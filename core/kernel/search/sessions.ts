import type { Schedule } from '../place/schedule';
import type { Span } from './moves';

/** Spans of time in which work is done: the open intervals that the most operations know; days where all is open. */
export function sessionsOf(schedule: Schedule): Span[] {
  const { model } = schedule;
  const open = model.open.find((o) => o !== null);
  const last = schedule.makespan();
  const spans: Span[] = [];
  if (open) {
    for (let k = 0; k < open.from.length && open.from[k]! < last; k++)
      spans.push({ from: open.from[k]!, to: open.to[k]! });
  }
  if (spans.length > 1) return spans;
  const width = Math.max(1, Math.ceil(last / 8));
  return Array.from({ length: 8 }, (_, k) => ({ from: k * width, to: (k + 1) * width }));
}
