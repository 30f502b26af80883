/** Minutes and moments as a painter says them. */
import { dateTimeAfter, weekdayOf, type Origin } from '#core/muster';

const WEEKDAYS = ['', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** `19:30` */
export function clockTime(origin: Origin, minute: number): string {
  return dateTimeAfter(origin, minute).slice(11);
}

/** `Thu 6` */
export function dayName(origin: Origin, minute: number): string {
  const at = dateTimeAfter(origin, minute);
  return `${WEEKDAYS[weekdayOf(at)]} ${Number(at.slice(8, 10))}`;
}

/** Do both minutes lie on one date of the bench's wall? */
export function isSameDay(origin: Origin, a: number, b: number): boolean {
  return dateTimeAfter(origin, a).slice(0, 10) === dateTimeAfter(origin, b).slice(0, 10);
}

/** `Thu 6, 19:30` */
export function moment(origin: Origin, minute: number): string {
  return `${dayName(origin, minute)}, ${clockTime(origin, minute)}`;
}

/** `25 min`, `2 h`, `2 h 30 min`, `3 days`, `3 days 4 h`: never more than two units. */
export function duration(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  if (whole < 48 * 60) {
    const rest = whole % 60;
    return rest === 0 ? `${Math.floor(whole / 60)} h` : `${Math.floor(whole / 60)} h ${rest} min`;
  }
  const days = Math.floor(whole / 1440);
  const hours = Math.round((whole % 1440) / 60);
  if (hours === 24) return `${days + 1} days`;
  return hours === 0 ? `${days} days` : `${days} days ${hours} h`;
}

/** `a`, `a and b`, `a, b and 3 more` */
export function listed(names: readonly string[], most = 3): string {
  const unique = [...new Set(names)];
  if (unique.length <= 1) return unique[0] ?? '';
  if (unique.length <= most) return `${unique.slice(0, -1).join(', ')} and ${unique[unique.length - 1]}`;
  return `${unique.slice(0, most - 1).join(', ')} and ${unique.length - most + 1} more`;
}

/** `Ada 19:15–22:00, Bo 20:00–21:00`: who is there, the hours only of those who are not there throughout. */
export function thereWords(
  origin: Origin,
  session: { readonly start: number; readonly end: number },
  there: readonly { readonly name: string; readonly from: number; readonly to: number }[],
): string {
  return there
    .map(({ name, from, to }) =>
      from === session.start && to === session.end
        ? name
        : `${name} ${clockTime(origin, from)}–${clockTime(origin, to)}`,
    )
    .join(', ');
}

/** Lateness that differs by no more is the same: minutes are whole. */
const SAME = 1;

/**
 * What is proved of the dates of a plan in which somebody is late; null: nobody is, or all dates might still be kept.
 * @param late lateness of the plan, weighted minutes
 * @param least what no plan goes below, weighted minutes
 */
export function datesProved(late: number, least: number): string | null {
  if (late <= 0 || least <= 0) return null;
  return mayBeLessLate(late, least) ? 'no plan keeps every date' : 'no plan is better on dates';
}

/** Could another plan be less late, for all that is proved? Both in weighted minutes. */
export const mayBeLessLate = (late: number, least: number): boolean => late > least + SAME;
