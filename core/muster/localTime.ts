/**
 * Dates and times as they stand on the wall: `2027-03-04T19:30`, no zone. Arithmetic is done as if every day had 24
 * hours; the two nights a year when clocks are put forward or back are an hour off in the drying, nothing else.
 */
import { format } from 'date-fns';

/** `YYYY-MM-DD` */
export type LocalDate = string;
/** `YYYY-MM-DDTHH:mm` */
export type LocalDateTime = string;

export const DATE_PATTERN = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])$/;
export const DATE_TIME_PATTERN = /^\d{4}-(0[1-9]|1[0-2])-(0[1-9]|[12]\d|3[01])T([01]\d|2[0-3]):[0-5]\d$/;
/** `24:00` ends a day */
export const TIME_PATTERN = /^(([01]\d|2[0-3]):[0-5]\d|24:00)$/;

const DAY_MINUTES = 1440;

/** Days since 1970-01-01 of a calendar date, by UTC so that no zone can interfere. */
function dayNumber(date: LocalDate): number {
  return Math.round(Date.parse(`${date.slice(0, 10)}T00:00:00Z`) / (DAY_MINUTES * 60_000));
}

/** Does the calendar have this day? (There is no 30 February.) */
export function isRealDate(date: LocalDate): boolean {
  return DATE_PATTERN.test(date.slice(0, 10)) && dateOf(dayNumber(date)) === date.slice(0, 10);
}

function dateOf(day: number): LocalDate {
  return new Date(day * DAY_MINUTES * 60_000).toISOString().slice(0, 10);
}

/** Minutes past midnight of `HH:mm`. */
export function minutesOfDay(time: string): number {
  const [hours, minutes] = time.split(':').map(Number);
  return hours! * 60 + minutes!;
}

/** Minutes from the midnight that begins `origin` to a date or date and time. */
export function minutesSince(origin: LocalDate, at: LocalDate | LocalDateTime): number {
  const days = dayNumber(at) - dayNumber(origin);
  return days * DAY_MINUTES + (at.length > 10 ? minutesOfDay(at.slice(11)) : 0);
}

/** The date and time so many minutes after the midnight that begins `origin`. */
export function dateTimeAfter(origin: LocalDate, minutes: number): LocalDateTime {
  const whole = Math.floor(minutes);
  const day = Math.floor(whole / DAY_MINUTES);
  const rest = whole - day * DAY_MINUTES;
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${dateOf(dayNumber(origin) + day)}T${two(Math.floor(rest / 60))}:${two(rest % 60)}`;
}

/** The date so many days later. */
export function addDays(date: LocalDate, days: number): LocalDate {
  return dateOf(dayNumber(date) + days);
}

/** ISO weekday of a date: 1 = Monday … 7 = Sunday. */
export function weekdayOf(date: LocalDate): number {
  return ((((dayNumber(date) + 3) % 7) + 7) % 7) + 1;
}

/** The wall clock of a moment, by the machine's own zone. */
export function localDateTime(moment: Date): LocalDateTime {
  return format(moment, "yyyy-MM-dd'T'HH:mm");
}
