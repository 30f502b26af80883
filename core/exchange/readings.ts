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
  const parsed = Papa.parse<Record<string, string>>(text.trim(), {
    header: true,
    skipEmptyLines: true,
    transformHeader: (h) => h.trim().toLowerCase(),
  });
  const columns = parsed.meta.fields ?? [];
  const missing = COLUMNS.filter((c) => !columns.includes(c));
  if (missing.length > 0)
    throw new ReadingsError([
      `line 1: no column “${missing.join('”, “')}”; needed are ${COLUMNS.join(', ')}`,
    ]);
  const faults: string[] = [];
  const readings = parsed.data.map((row, k): Reading => {
    const line = k + 2;
    const written = (row['time'] ?? '').trim().replace(' ', 'T');
    const at = written.slice(0, 16);
    const celsius = Number(row['celsius'] || NaN);
    const humidityPercent = Number(row['humidity_percent'] || NaN);
    const isMoment = DATE_TIME_PATTERN.test(at) && isRealDate(at) && !Number.isNaN(offsetOf(written));
    if (!isMoment) faults.push(`line ${line}: “${row['time']}” is no time (YYYY-MM-DD HH:mm)`);
    if (!(celsius >= -30 && celsius <= 60))
      faults.push(`line ${line}: ${row['celsius']} °C is not between −30 and 60 °C`);
    if (!(humidityPercent >= 1 && humidityPercent <= 100))
      faults.push(`line ${line}: ${row['humidity_percent']} % humidity is not between 1 and 100 %`);
    return { at: faults.length > 0 ? at : instantIn(written, zone), celsius, humidityPercent };
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

/** Seconds are dropped; `…Z` and `…+02:00` say their own zone. */
function instantIn(written: string, zone: string): string {
  const at = written.slice(0, 16);
  const offset = offsetOf(written);
  return offset === null
    ? instantOfWall(zone, at)
    : instantOf(new Date(Date.parse(`${at}:00Z`) - offset * 60_000));
}

/** Minutes ahead of UTC that a time says of itself; null where it says nothing, NaN where there is no such offset. */
function offsetOf(written: string): number | null {
  const [, sign, hours, minutes] = /(?:Z|([+-])(\d\d):?(\d\d))$/i.exec(written.slice(16)) ?? [];
  if (!/(Z|[+-]\d\d:?\d\d)$/i.test(written.slice(16))) return null;
  if (sign === undefined) return 0;
  const ahead = Number(hours) * 60 + Number(minutes);
  return ahead > 18 * 60 || Number(minutes) > 59 ? NaN : sign === '-' ? -ahead : ahead;
}
