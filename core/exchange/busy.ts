/** A busy calendar (RFC 5545): when its owner is taken up elsewhere, as spans on the bench's wall clock. */
import ICAL from 'ical.js';
import {
  addDays,
  dateTimeAfter,
  instantOfWall,
  isTimeZone,
  minutesOfDay,
  minutesUntil,
  sessionsOn,
  type LocalDate,
  type Muster,
  type NewId,
  type Session,
} from '#core/muster';

export interface BusySpan {
  /** minutes from the midnight that begins `from` */
  readonly start: number;
  readonly end: number;
  readonly name: string;
}

export interface Busy {
  readonly spans: readonly BusySpan[];
  /** events that could not be understood, by name */
  readonly faults: readonly string[];
}

/** Of one event no more are looked at: a thousand years of daily standing meetings. */
const MOST_REPEATS = 20_000;
const DAY = 1440;

/**
 * What a calendar says of the days from `from` on, `days` of them.
 * @param zone the bench's; events without a zone of their own are of its wall clock
 * @throws Error in words when the text is no calendar
 */
export function readBusy(text: string, zone: string, from: LocalDate, days: number): Busy {
  let calendar: ICAL.Component;
  try {
    calendar = new ICAL.Component(ICAL.parse(text) as unknown[]);
  } catch {
    throw new Error('This is no calendar (.ics); nothing was changed.');
  }
  const origin = { date: from, zone };
  const zones = new Map(
    calendar
      .getAllSubcomponents('vtimezone')
      .map((c) => [String(c.getFirstPropertyValue('tzid')), new ICAL.Timezone(c)]),
  );
  const spans: BusySpan[] = [];
  const faults: string[] = [];
  const minuteOf = (time: ICAL.Time, tzid: string | null): number => {
    if (time.isDate) return minutesUntil(origin, instantOfWall(zone, `${time.toString()}T00:00`));
    const known = tzid === null ? undefined : zones.get(tzid);
    const wall = time.toString().slice(0, 16);
    const isUtc = time.zone === ICAL.Timezone.utcTimezone || time.toString().endsWith('Z');
    const at = isUtc
      ? `${wall}:00Z`
      : known
        ? new Date(Date.parse(`${wall}:00Z`) - known.utcOffset(time) * 1000).toISOString().slice(0, 19) + 'Z'
        : instantOfWall(tzid !== null && isTimeZone(tzid) ? tzid : zone, wall);
    return minutesUntil(origin, at);
  };
  // An occurrence that was moved stands as an event of its own, named by the moment it was moved from.
  const all = calendar
    .getAllSubcomponents('vevent')
    .map((c) => new ICAL.Event(c, { strictExceptions: true }));
  const moved = new Map<string, Set<string>>();
  for (const e of all)
    if (e.isRecurrenceException()) {
      const own = moved.get(e.uid) ?? new Set();
      moved.set(e.uid, own.add(e.recurrenceId.toString()));
    }
  for (const event of all) {
    const { component } = event;
    const name = event.summary ?? '';
    const says = (key: string): string => String(component.getFirstPropertyValue(key) ?? '').toUpperCase();
    if (says('transp') === 'TRANSPARENT' || says('status') === 'CANCELLED') continue;
    try {
      const tzid = component.getFirstProperty('dtstart')?.getFirstParameter('tzid') ?? null;
      const begin = minuteOf(event.startDate, tzid);
      const length = event.endDate
        ? minuteOf(event.endDate, component.getFirstProperty('dtend')?.getFirstParameter('tzid') ?? tzid) -
          begin
        : event.startDate.isDate
          ? DAY
          : 0;
      const take = (start: number): void => {
        const end = start + length;
        if (end > 0 && start < days * DAY && length > 0) spans.push({ start, end, name });
      };
      if (!event.isRecurring() || event.isRecurrenceException()) {
        take(begin);
        continue;
      }
      const repeats = event.iterator();
      for (let n = 0; ; n++) {
        if (n === MOST_REPEATS) throw new Error('repeats too often');
        const next = repeats.next() as ICAL.Time | null | undefined;
        if (!next) break;
        const start = minuteOf(next, tzid);
        if (start >= days * DAY) break;
        if (!moved.get(event.uid)?.has(next.toString())) take(start);
      }
    } catch {
      faults.push(name || 'an event without a name');
    }
  }
  return { spans: spans.sort((a, b) => a.start - b.start), faults };
}

export interface Cut {
  readonly muster: Muster;
  /** sessions that lost some of their time, and that are gone whole */
  readonly shortened: number;
  readonly gone: number;
}

/** Shorter than this nobody sits down. */
const LEAST_MINUTES = 20;

/** The muster with its sessions cut where the calendar says busy: each date concerned becomes an exception of the bench. */
export function cutByBusy(
  muster: Muster,
  spans: readonly BusySpan[],
  from: LocalDate,
  days: number,
  newId: NewId,
): Cut {
  const origin = { date: from, zone: muster.bench.timeZone };
  const exceptions = new Map(muster.bench.exceptions.map((e) => [e.date, e]));
  let shortened = 0;
  let gone = 0;
  for (let d = 0; d < days; d++) {
    const date = addDays(from, d);
    const sessions = sessionsOn(muster.bench, date);
    if (sessions.length === 0) continue;
    const midnight = minutesUntil(origin, instantOfWall(origin.zone, `${date}T00:00`));
    const taken = spans
      .filter((s) => s.end > midnight && s.start < midnight + DAY)
      .map((s) => [wallMinutes(origin, s.start, midnight), wallMinutes(origin, s.end, midnight)] as const);
    if (taken.length === 0) continue;
    const left = sessions.map((s) => without(s, taken));
    if (left.every((parts, k) => parts.length === 1 && same(parts[0]!, sessions[k]!))) continue;
    left.forEach((parts, k) => {
      if (parts.length === 0) gone++;
      else if (parts.length > 1 || !same(parts[0]!, sessions[k]!)) shortened++;
    });
    exceptions.set(date, { id: exceptions.get(date)?.id ?? newId(), date, sessions: left.flat() });
  }
  return {
    muster: { ...muster, bench: { ...muster.bench, exceptions: [...exceptions.values()] } },
    shortened,
    gone,
  };
}

/** Minutes of the day on the wall, kept within that day. */
function wallMinutes(origin: { date: LocalDate; zone: string }, minute: number, midnight: number): number {
  if (minute <= midnight) return 0;
  const at = dateTimeAfter(origin, minute);
  const date = dateTimeAfter(origin, midnight).slice(0, 10);
  return at.slice(0, 10) === date ? minutesOfDay(at.slice(11)) : DAY;
}

function without(session: Session, taken: readonly (readonly [number, number])[]): Session[] {
  let parts: (readonly [number, number])[] = [[minutesOfDay(session.from), minutesOfDay(session.to)]];
  for (const [a, b] of taken)
    parts = parts.flatMap(([from, to]) =>
      b <= from || a >= to
        ? [[from, to] as const]
        : ([[from, Math.min(a, to)] as const, [Math.max(b, from), to] as const] as const).filter(
            ([x, y]) => y - x >= LEAST_MINUTES,
          ),
    );
  return parts.map(([from, to]) => ({ from: timeOf(from), to: timeOf(to) }));
}

function same(a: Session, b: Session): boolean {
  return a.from === b.from && a.to === b.to;
}

function timeOf(minutes: number): string {
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
