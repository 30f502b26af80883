/** Words that a language has rules for: weekdays, months, plurals. */

const LANGUAGE = 'en-GB';
/** A Monday. */
const MONDAY = Date.UTC(2024, 0, 1);
const DAY_MS = 86_400_000;
const PLURAL = new Intl.PluralRules(LANGUAGE);
const weekdays = {
  long: new Intl.DateTimeFormat(LANGUAGE, { weekday: 'long', timeZone: 'UTC' }),
  short: new Intl.DateTimeFormat(LANGUAGE, { weekday: 'short', timeZone: 'UTC' }),
};
const DATE = new Intl.DateTimeFormat(LANGUAGE, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  timeZone: 'UTC',
});

/** @param weekday 1 = Monday … 7 = Sunday */
export function weekdayName(weekday: number, width: 'long' | 'short' = 'long'): string {
  return weekdays[width].format(MONDAY + (weekday - 1) * DAY_MS);
}

const months = new Intl.DateTimeFormat(LANGUAGE, { month: 'long', timeZone: 'UTC' });

/** @param month 1 = January … 12 = December */
export function monthName(month: number): string {
  return months.format(Date.UTC(2024, month - 1, 1));
}

/** `1 piece`, `3 pieces`; a plural of its own where adding an s does not make it. */
export function many(count: number, one: string, others = `${one}s`): string {
  return `${count} ${PLURAL.select(count) === 'one' ? one : others}`;
}

/** `2.7`, `under 0.1`: an amount to a tenth, and never nothing where there is some. */
export function tenths(amount: number): string {
  return amount > 0 && amount < 0.1 ? 'under 0.1' : amount.toFixed(1);
}

/** `Tue 16 Mar, 19:00` of a wall-clock time. */
export function dateTimeWords(at: string): string {
  return `${DATE.format(Date.parse(`${at.slice(0, 10)}T00:00Z`)).replace(',', '')}, ${at.slice(11, 16)}`;
}
