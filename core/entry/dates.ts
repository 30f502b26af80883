/** Dates as people write them. */
import { isValid, nextDay, parse } from 'date-fns';
import { addDays, DATE_PATTERN, isRealDate, type LocalDate, type LocalDateTime } from '#core/muster';

/** Unambiguous forms, and the day before the month where only figures stand. */
const FORMS = [
  'yyyy-MM-dd',
  'yyyy/MM/dd',
  'd.M.yyyy',
  'd.M.yy',
  'd.M.',
  'd.M',
  'd/M/yyyy',
  'd/M/yy',
  'd/M',
  'd MMMM yyyy',
  'd MMM yyyy',
  'd MMMM',
  'd MMM',
  'MMMM d yyyy',
  'MMM d yyyy',
  'MMMM d',
  'MMM d',
];
const DAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
/** When nothing is said of the hour: before an evening's game. */
export const TABLE_TIME = '18:00';

/**
 * The date in a piece of text, without or with an hour; null where it is none. A day without a year is the next one.
 * @param today from where "next Saturday" and years are counted
 * @param monthFirst `3/4` is read as 4 March
 */
export function readDate(text: string, today: LocalDate, monthFirst = false): LocalDateTime | null {
  const clean = text
    .trim()
    .toLowerCase()
    .replace(/^(by|until|till|on|for|due|before)\s+/, '')
    .replace(/(\d)(st|nd|rd|th)\b/g, '$1')
    .replace(/\s+of\s+/g, ' ')
    .replace(/\s+/g, ' ');
  const hour = /(?:^|[ t,])(?:at )?([01]?\d|2[0-3])[:.]([0-5]\d)(?::\d\d)?$/.exec(clean);
  const hasColon = hour && clean.slice(hour.index).includes(':');
  const time = hasColon ? `${hour[1]!.padStart(2, '0')}:${hour[2]!}` : TABLE_TIME;
  const date = dayOf(
    (hasColon ? clean.slice(0, hour.index) : clean).replace(/[\s,]+$/, ''),
    today,
    monthFirst,
  );
  return date === null || !DATE_PATTERN.test(date) || !isRealDate(date) ? null : `${date}T${time}`;
}

function dayOf(text: string, today: LocalDate, monthFirst: boolean): LocalDate | null {
  const at = new Date(`${today}T00:00`);
  if (text === 'today') return today;
  if (text === 'tomorrow') return addDays(today, 1);
  const span = /^in (\d{1,3}) (day|week|month)s?$/.exec(text);
  if (span) {
    const n = Number(span[1]);
    return addDays(today, span[2] === 'day' ? n : span[2] === 'week' ? 7 * n : 30 * n);
  }
  const weekday = /^(?:next |this )?(sun|mon|tue|wed|thu|fri|sat)[a-z]*$/.exec(text);
  if (weekday) return written(nextDay(at, DAYS.indexOf(weekday[1]!) as 0 | 1 | 2 | 3 | 4 | 5 | 6));
  // A weekday before a full date says nothing new.
  const bare = text.replace(/^(sun|mon|tue|wed|thu|fri|sat)[a-z]*\.?,? (?=\d|[a-z])/, '');
  const forms = monthFirst ? FORMS.map((f) => f.replace('d/M', 'M/d')) : FORMS;
  for (const form of forms) {
    const found = parse(bare, form, at);
    if (!isValid(found)) continue;
    const day = written(found);
    return form.includes('y') || day >= today
      ? day
      : written(parse(bare, form, new Date(at.getFullYear() + 1, 0, 1)));
  }
  return null;
}

function written(date: Date): LocalDate {
  const two = (n: number): string => String(n).padStart(2, '0');
  return `${String(date.getFullYear()).padStart(4, '0')}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
