/** Readings of the bench's air from CSV: a heading line, then `time,celsius,humidity_percent`; our own columns, any order. */
import Papa from 'papaparse';
import type { Reading } from '#core/muster';
import { DATE_TIME_PATTERN, instantOf, instantOfWall, isRealDate } from '#core/muster';

export class ReadingsError extends Error {
  constructor(readonly faults: readonly string[]) {
    super(faults.join('\n'));
    this.name = 'ReadingsError';
  }
}

const COLUMNS = ['time', 'celsius', 'humidity_percent'] as const;
const MOST_FAULTS = 8;

/**
 * @param zone the bench's: times in the file are of its wall clock, unless they end in Z or an offset
 * @returns the readings as they stand in the file, seconds cut off
 * @throws ReadingsError naming the lines that are wrong; nothing is taken from such a file
 */
export function readReadings(text: string, zone: string): Reading[] {
  const parsed = Papa.parse<Row>(text, {
    header: true,
    transformHeader: (h) => h.trim().toLowerCase(),
    // Above the headings nothing is counted as a line of the file that is not one.
    skipFirstNLines: blankLinesAbove(text),
  });
  const columns = parsed.meta.fields ?? [];
  const missing = COLUMNS.filter((c) => !columns.includes(c));
  if (missing.length > 0)
    throw new ReadingsError([
      `line 1: no column “${missing.join('”, “')}”; needed are ${COLUMNS.join(', ')}`,
    ]);
  const faults: string[] = [];
  // Where semicolons stand between the columns, a comma stands for the decimal point.
  const hasDecimalCommas = parsed.meta.delimiter === ';';
  const figure = (text: string): number => {
    const plain = hasDecimalCommas ? text.replace(',', '.') : text;
    return /^[+-]?\d+(\.\d+)?$/.test(plain) ? Number(plain) : NaN;
  };
  const firstLine = blankLinesAbove(text) + 2;
  const readings = parsed.data.flatMap((row, k): Reading[] => {
    const cell = (column: (typeof COLUMNS)[number]): string => (row[column] ?? '').trim();
    if (COLUMNS.every((c) => cell(c) === '') && !row.__parsed_extra) return [];
    const line = firstLine + k;
    if (row.__parsed_extra)
      faults.push(
        `line ${line}: has more cells than the headings; with decimal commas put semicolons between the columns`,
      );
    const at = instantIn(cell('time'), zone);
    const celsius = figure(cell('celsius'));
    const humidityPercent = figure(cell('humidity_percent'));
    if (at === null) faults.push(`line ${line}: “${cell('time')}” is no time (YYYY-MM-DD HH:mm)`);
    if (!(celsius >= -30 && celsius <= 60))
      faults.push(`line ${line}: ${cell('celsius') || 'nothing'} °C is not between −30 and 60 °C`);
    if (!(humidityPercent >= 1 && humidityPercent <= 100))
      faults.push(
        `line ${line}: ${cell('humidity_percent') || 'nothing'} % humidity is not between 1 and 100 %`,
      );
    return [{ at: at ?? '', celsius, humidityPercent }];
  });
  if (readings.length === 0) faults.push('line 2: there are no readings');
  if (faults.length > 0)
    throw new ReadingsError(
      faults.length > MOST_FAULTS
        ? [...faults.slice(0, MOST_FAULTS), `and ${faults.length - MOST_FAULTS} more`]
        : faults,
    );
  return readings;
}

type Row = Partial<Record<string, string>> & { readonly __parsed_extra?: string };

function blankLinesAbove(text: string): number {
  return /^(?:[^\S\n]*\n)*/.exec(text)![0].split('\n').length - 1;
}

const MOMENT =
  /^(\d{4}-\d\d-\d\d)[T ](\d{1,2}):(\d\d)(?::\d\d(?:\.\d+)?)?(?:\s*([ap])\.?m\.?)?\s*(?:Z|([+-])(\d\d):?(\d\d))?$/i;

/** Seconds are dropped; `…Z` and `…+02:00` say their own zone, `10:00 PM` the half of its day. @returns null where it is no time */
function instantIn(written: string, zone: string): string | null {
  const found = MOMENT.exec(written);
  if (!found) return null;
  const [, date, hours, minutes, half, sign, ahead, aheadMinutes] = found;
  const hour = half === undefined ? Number(hours) : hourOfHalf(Number(hours), half);
  if (hour === null) return null;
  const at = `${date}T${String(hour).padStart(2, '0')}:${minutes}`;
  if (!DATE_TIME_PATTERN.test(at) || !isRealDate(at)) return null;
  if (sign === undefined)
    return /Z$/i.test(written) ? instantOf(new Date(`${at}:00Z`)) : instantOfWall(zone, at);
  const offset = Number(ahead) * 60 + Number(aheadMinutes);
  if (offset > 18 * 60 || Number(aheadMinutes) > 59) return null;
  return instantOf(new Date(Date.parse(`${at}:00Z`) - (sign === '-' ? -offset : offset) * 60_000));
}

/** 12 AM is midnight, 12 PM noon; null where a half of the day has no such hour. */
function hourOfHalf(hour: number, half: string): number | null {
  if (hour < 1 || hour > 12) return null;
  return (hour % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
}
