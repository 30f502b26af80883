/** The bench's air over time: what was measured or forecast where there is a reading, the day-and-night climate elsewhere. */
import type { Air, Spell } from '#core/climate';
import type { Muster } from './document';
import { addDays, dateTimeAfter, minutesOfDay, minutesSince, minutesUntil } from './localTime';
import { originOf } from './sessions';

export type Reading = NonNullable<Muster['bench']['readings']>[number];

const HOUR = 60;
/** Between readings up to so far apart the air is drawn as a straight line; beyond, the climate holds. */
const BRIDGED_MINUTES = 6 * HOUR;

/** Spells from minute 0 of the muster's first day, sorted, each until the next begins. */
export function spellsOf(muster: Muster, days: number): Spell[] {
  const origin = originOf(muster);
  const horizon = days * 1440;
  const points = sortedReadings(muster.bench.readings ?? []).map((r) => ({
    at: Math.floor(minutesUntil(origin, r.at)),
    air: { celsius: r.celsius, humidityPercent: r.humidityPercent },
  }));
  const measured: Spell[] = [];
  const bare: { from: number; to: number }[] = [];
  let known = 0;
  points.forEach((p, i) => {
    const next = points[i + 1];
    if (p.at > known) bare.push({ from: known, to: Math.min(p.at, horizon) });
    const gap = next ? next.at - p.at : HOUR;
    const isBridged = next !== undefined && gap <= BRIDGED_MINUTES;
    const until = p.at + (isBridged ? gap : HOUR);
    for (let t = p.at; t < until && t < horizon; t += HOUR)
      if (t + HOUR > 0)
        measured.push({
          from: Math.max(0, t),
          air: isBridged ? between(p.air, next.air, (t - p.at) / gap) : p.air,
        });
    known = Math.max(known, until);
  });
  if (known < horizon) bare.push({ from: known, to: horizon });
  const all = [...measured];
  for (const b of bare) if (b.to > b.from) all.push(...climateSpells(muster, b.from, b.to));
  return all.filter((s) => s.from < horizon).sort((a, b) => a.from - b.from);
}

/** The air at a minute. */
export function airAt(spells: readonly Spell[], minute: number): Air {
  let low = 0;
  let high = spells.length - 1;
  while (low < high) {
    const mid = (low + high + 1) >> 1;
    if (spells[mid]!.from <= minute) low = mid;
    else high = mid - 1;
  }
  return spells[low]!.air;
}

/** By time; of two at one moment the later in the list holds. */
export function sortedReadings(readings: readonly Reading[]): Reading[] {
  const byTime = new Map(readings.map((r) => [r.at, r]));
  return [...byTime.values()].sort((a, b) => a.at.localeCompare(b.at));
}

function between(a: Air, b: Air, share: number): Air {
  return {
    celsius: a.celsius + (b.celsius - a.celsius) * share,
    humidityPercent: a.humidityPercent + (b.humidityPercent - a.humidityPercent) * share,
  };
}

/** Day and night by turns in [from, to). */
function climateSpells(muster: Muster, from: number, to: number): Spell[] {
  const { day, night, dayFrom, nightFrom } = muster.bench.climate;
  const dawn = minutesOfDay(dayFrom);
  const dusk = minutesOfDay(nightFrom);
  const months = muster.bench.climate.months;
  const origin = originOf(muster);
  /** The air of a part of the day in the month of a minute, within what the formulas hold for. */
  const inMonth = (air: Air, t: number): Air => {
    const shift = months?.[Number(dateTimeAfter(origin, t).slice(5, 7)) - 1];
    if (!shift) return air;
    return {
      celsius: air.celsius + shift.celsius,
      humidityPercent: Math.min(99, Math.max(1, air.humidityPercent + shift.humidityPercent)),
    };
  };
  const midnight = (day: number): number => minutesSince(origin, addDays(origin.date, day));
  const firstDay = Math.floor(from / 1440) - 1;
  if (dawn === dusk) {
    const spells: Spell[] = [{ from, air: inMonth(day, from) }];
    for (let d = firstDay; months && midnight(d) < to; d++)
      if (midnight(d) > from) spells.push({ from: midnight(d), air: inMonth(day, midnight(d)) });
    return spells;
  }
  const isDay = (t: number): boolean => {
    const m = minutesOfDay(dateTimeAfter(origin, t).slice(11));
    return dawn < dusk ? m >= dawn && m < dusk : m >= dawn || m < dusk;
  };
  const spells: Spell[] = [{ from, air: inMonth(isDay(from) ? day : night, from) }];
  for (let d = firstDay; midnight(d) < to; d++)
    for (const time of dawn < dusk ? [dayFrom, nightFrom] : [nightFrom, dayFrom]) {
      const t = minutesSince(origin, `${addDays(origin.date, d)}T${time}`);
      if (t > from && t < to) spells.push({ from: t, air: inMonth(isDay(t) ? day : night, t) });
    }
  return spells;
}
