/** From the week and its exceptions to the sessions of real days. */
import type { Bench, DaysAway, Muster, Person, Session } from './document';
import { common, merged, type Minutes } from './spans';
import {
  addDays,
  minutesOfDay,
  minutesSince,
  weekdayOf,
  type LocalDate,
  type LocalDateTime,
  type Origin,
} from './localTime';

/** [start, end) in minutes from the midnight that begins the muster's first day. */
export interface BenchSession {
  readonly start: number;
  readonly end: number;
}

/** The first day of the muster, on the wall of its bench: all minutes count from its midnight. */
export function originOf(muster: Muster): Origin {
  return { date: muster.startsOn.slice(0, 10), zone: muster.bench.timeZone };
}

/** The sessions of one date, in order of time. */
export function sessionsOn(bench: Bench, date: LocalDate): Session[] {
  if (isAway(bench.away, date)) return [];
  const exceptions = bench.exceptions.filter((e) => e.date === date);
  const list =
    exceptions.length > 0
      ? exceptions.flatMap((e) => e.sessions)
      : bench.weekly.filter((w) => w.weekday === weekdayOf(date)).map(({ from, to }) => ({ from, to }));
  return [...list].sort((a, b) => minutesOfDay(a.from) - minutesOfDay(b.from));
}

/** Does a date lie in one of the spans, both ends included? */
export function isAway(away: readonly DaysAway[] | undefined, date: LocalDate): boolean {
  return away?.some((a) => a.from <= date && date <= a.to) ?? false;
}

/** A bench is never changed, only replaced: the sessions of each are laid out once. */
const laidOut = new WeakMap<Bench, Map<string, readonly BenchSession[]>>();

/** All sessions of `days` days from the muster's beginning; what has gone by then is cut away, what touches is joined. */
export function sessionsOf(muster: Muster, days: number): readonly BenchSession[] {
  let known = laidOut.get(muster.bench);
  if (!known) laidOut.set(muster.bench, (known = new Map()));
  const key = `${muster.startsOn} ${days}`;
  const sessions = known.get(key) ?? layOut(muster, days);
  known.set(key, sessions);
  return sessions;
}

function layOut(muster: Muster, days: number): BenchSession[] {
  const origin = originOf(muster);
  const begin = minutesSince(origin, muster.startsOn);
  const sessions: { start: number; end: number }[] = [];
  for (let day = 0; day < days; day++) {
    const date = addDays(origin.date, day);
    const minute = (time: string): number => minutesSince(origin, at(date, time));
    for (const { from, to } of sessionsOn(muster.bench, date)) {
      const start = Math.max(begin, minute(from));
      const end = minute(to);
      if (end <= start) continue;
      const before = sessions[sessions.length - 1];
      if (before && start <= before.end) before.end = Math.max(before.end, end);
      else sessions.push({ start, end });
    }
  }
  return sessions;
}

function at(date: LocalDate, time: string): LocalDateTime {
  return `${date}T${time}`;
}

/** Is the bench lit at this moment of the wall? */
export function isInSession(bench: Bench, at: LocalDateTime): boolean {
  const minute = minutesOfDay(at.slice(11));
  return sessionsOn(bench, at.slice(0, 10)).some(
    (s) => minutesOfDay(s.from) <= minute && minute < minutesOfDay(s.to),
  );
}

/** When one of the people is at the bench: its sessions, less what lies outside their own hours and the days on which they are away. */
export function presenceOf(muster: Muster, person: Person, days: number): readonly BenchSession[] {
  const sessions = sessionsOf(muster, days);
  if (!person.hours && !person.away?.length) return sessions;
  const origin = originOf(muster);
  const present: Minutes[] = [];
  for (let day = 0; day < days; day++) {
    const date = addDays(origin.date, day);
    if (isAway(person.away, date)) continue;
    for (const { from, to } of person.hours?.filter((h) => h.weekday === weekdayOf(date)) ?? [ALL_DAY])
      present.push([minutesSince(origin, at(date, from)), minutesSince(origin, at(date, to))]);
  }
  const lit = sessions.map(({ start, end }): Minutes => [start, end]);
  return common(lit, merged(present, days * 1440)).map(([start, end]) => ({ start, end }));
}

const ALL_DAY: Session = { from: '00:00', to: '24:00' };
