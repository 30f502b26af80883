/** When a layer may go on besides the sessions: quiet hours of the compressor, daylight and dry air for what is done outdoors. */
import { daylight } from '#core/climate';
import {
  addDays,
  instantAfter,
  minutesOfDay,
  minutesSince,
  minutesUntil,
  originOf,
  type Muster,
  merged,
  without,
  type Minutes,
} from '#core/muster';

/** The minutes in which no compressor may run. */
export function quietSpans(muster: Muster, days: number): [number, number][] {
  const origin = originOf(muster);
  const spans: Minutes[] = [];
  for (let day = -1; day < days; day++) {
    const date = addDays(origin.date, day);
    for (const { from, to } of muster.bench.quiet ?? []) {
      const isOver = minutesOfDay(to) <= minutesOfDay(from);
      const end = isOver ? addDays(date, 1) : date;
      spans.push([minutesSince(origin, `${date}T${from}`), minutesSince(origin, `${end}T${to}`)]);
    }
  }
  return merged(spans, days * 1440);
}

/** The minutes of daylight: from sunrise to sunset where the place is known, else the day as the bench's climate has it. */
export function daylightSpans(muster: Muster, days: number): [number, number][] {
  const origin = originOf(muster);
  const { place, climate } = muster.bench;
  const spans: Minutes[] = [];
  for (let day = 0; day < days; day++) {
    const date = addDays(origin.date, day);
    if (!place) {
      spans.push([
        minutesSince(origin, `${date}T${climate.dayFrom}`),
        minutesSince(origin, `${date}T${climate.nightFrom}`),
      ]);
      continue;
    }
    const noon = minutesSince(origin, `${date}T12:00`);
    const sun = daylight(Date.parse(instantAfter(origin, noon)), place.latitude, place.longitude);
    if (!sun) continue;
    const minute = (ms: number): number => minutesUntil(origin, new Date(ms).toISOString());
    spans.push([Math.ceil(minute(sun.from)), Math.floor(minute(sun.to))]);
  }
  return merged(spans, days * 1440);
}

/** Sessions in which the compressor may run. */
export function compressorOpen(
  sessions: readonly Minutes[],
  muster: Muster,
  days: number,
): [number, number][] {
  return without(sessions, quietSpans(muster, days));
}
