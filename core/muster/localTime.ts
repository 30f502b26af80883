/**
 * Three ways to say when: a wall-clock time at the bench (`2027-03-04T19:30`, what people write), an instant
 * (`2027-03-04T18:30:00Z`, what a log keeps), and minutes since a plan's origin (what is computed with, and what paint dries by).
 * The origin knows the bench's time zone, so that clocks put forward or back, and a bench that travels, are right.
 */
import { tzOffset } from '@date-fns/tz';

/** `YYYY-MM-DD` */
export type LocalDate = string;
/** `YYYY-MM-DDTHH:mm` */
export type LocalDateTime = string;
/** `YYYY-MM-DDTHH:mm:ssZ`: the same moment everywhere */
export type Instant = string;

/** Minute 0 of a plan: the midnight that begins this date on the bench's wall. */
export interface Origin {
  readonly date: LocalDate;
  /** IANA name of the bench's time zone, such as `Europe/Vienna` */
  readonly zone: string;
}

const YEAR = '2[01]\\d{2}';
const DATE = `${YEAR}-(0[1-9]|1[0-2])-(0[1-9]|[12]\\d|3[01])`;
const CLOCK = '([01]\\d|2[0-3]):[0-5]\\d';
export const DATE_PATTERN = new RegExp(`^${DATE}$`);
export const DATE_TIME_PATTERN = new RegExp(`^${DATE}T${CLOCK}$`);
export const INSTANT_PATTERN = new RegExp(`^${DATE}T${CLOCK}:[0-5]\\dZ$`);
/** `24:00` ends a day */
export const TIME_PATTERN = new RegExp(`^(${CLOCK}|24:00)$`);

const DAY_MINUTES = 1440;
const MINUTE_MS = 60_000;

/** Days since 1970-01-01 of a calendar date, by UTC so that no zone can interfere. */
function dayNumber(date: LocalDate): number {
  const utc = Date.UTC(Number(date.slice(0, 4)), Number(date.slice(5, 7)) - 1, Number(date.slice(8, 10)));
  return Math.round(utc / (DAY_MINUTES * MINUTE_MS));
}

function dateOf(day: number): LocalDate {
  return new Date(day * DAY_MINUTES * MINUTE_MS).toISOString().slice(0, 10);
}

/** Does the calendar have this day, and does the program plan for it (2000 to 2199)? There is no 30 February. */
export function isRealDate(date: LocalDate): boolean {
  return DATE_PATTERN.test(date.slice(0, 10)) && dateOf(dayNumber(date)) === date.slice(0, 10);
}

/** Is this the name of a time zone? */
export function isTimeZone(zone: string): boolean {
  return zone !== '' && !Number.isNaN(tzOffset(zone, new Date(0)));
}

/** Minutes past midnight of `HH:mm`. */
export function minutesOfDay(time: string): number {
  const [hours, minutes] = time.split(':').map(Number);
  return hours! * 60 + minutes!;
}

/** The date so many days later. */
export function addDays(date: LocalDate, days: number): LocalDate {
  return dateOf(dayNumber(date) + days);
}

/** Days from one calendar date to another. */
export function daysBetween(from: LocalDate, to: LocalDate): number {
  return dayNumber(to) - dayNumber(from);
}

/** ISO weekday of a date: 1 = Monday … 7 = Sunday. */
export function weekdayOf(date: LocalDate): number {
  return ((((dayNumber(date) + 3) % 7) + 7) % 7) + 1;
}

/**
 * Minutes from the origin to a wall-clock time at the bench; a date alone is its midnight. A time that the wall skips in spring is taken
 * an hour later, one that it shows twice in autumn is the first of the two.
 */
export function minutesSince(origin: Origin, at: LocalDate | LocalDateTime): number {
  return utcMinute(origin.zone, at) - utcMinute(origin.zone, origin.date);
}

/** The bench's wall clock so many minutes after the origin. */
export function dateTimeAfter(origin: Origin, minutes: number): LocalDateTime {
  const utc = utcMinute(origin.zone, origin.date) + Math.floor(minutes);
  return wallText(utc + offsetAt(origin.zone, utc));
}

/** Minutes from the origin to an instant; the seconds are a fraction. */
export function minutesUntil(origin: Origin, instant: Instant): number {
  return Date.parse(instant) / MINUTE_MS - utcMinute(origin.zone, origin.date);
}

/** The instant so many minutes after the origin. */
export function instantAfter(origin: Origin, minutes: number): Instant {
  return instantOf(new Date((utcMinute(origin.zone, origin.date) + minutes) * MINUTE_MS));
}

/** A moment of the machine's clock, to the second. */
export function instantOf(moment: Date): Instant {
  return `${new Date(Math.floor(moment.getTime() / 1000) * 1000).toISOString().slice(0, 19)}Z`;
}

/** What the wall of a zone shows at an instant. */
export function wallTime(zone: string, instant: Instant): LocalDateTime {
  const utc = Math.floor(Date.parse(instant) / MINUTE_MS);
  return wallText(utc + offsetAt(zone, utc));
}

/** The instant at which the wall of a zone shows this time; see `minutesSince` for the two nights of the clock. */
export function instantOfWall(zone: string, at: LocalDateTime): Instant {
  return instantOf(new Date(utcMinute(zone, at) * MINUTE_MS));
}

function wallText(minute: number): LocalDateTime {
  const day = Math.floor(minute / DAY_MINUTES);
  const rest = minute - day * DAY_MINUTES;
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${dateOf(day)}T${two(Math.floor(rest / 60))}:${two(rest % 60)}`;
}

/** Minutes of UTC since 1970 at which the wall of a zone shows this time. */
function utcMinute(zone: string, at: LocalDate | LocalDateTime): number {
  const wall = dayNumber(at) * DAY_MINUTES + (at.length > 10 ? minutesOfDay(at.slice(11)) : 0);
  const before = offsetAt(zone, wall - DAY_MINUTES);
  const after = offsetAt(zone, wall + DAY_MINUTES);
  if (before === after || offsetAt(zone, wall - before) === before) return wall - before;
  return offsetAt(zone, wall - after) === after ? wall - after : wall - before;
}

/** Days without a change of the clock, by zone: asking for an offset costs microseconds, and a plan asks a hundred thousand times. */
const steadyDays = new Map<string, Map<number, number | null>>();

/** Minutes by which the wall of a zone is ahead of UTC at a minute of UTC. */
function offsetAt(zone: string, utc: number): number {
  const day = Math.floor(utc / DAY_MINUTES);
  let days = steadyDays.get(zone);
  if (!days) steadyDays.set(zone, (days = new Map<number, number | null>()));
  let steady = days.get(day);
  if (steady === undefined) {
    const first = offsetOf(zone, day * DAY_MINUTES);
    steady = first === offsetOf(zone, (day + 1) * DAY_MINUTES) ? first : null;
    days.set(day, steady);
  }
  return steady ?? offsetOf(zone, utc);
}

/** @throws RangeError when there is no such zone */
function offsetOf(zone: string, utc: number): number {
  const offset = tzOffset(zone, new Date(utc * MINUTE_MS));
  if (Number.isNaN(offset)) throw new RangeError(`“${zone}” is no time zone.`);
  return offset;
}
