/** Older musters brought up to the format of today. */
import { musterSchema } from './document';
import { instantOfWall } from './localTime';
import { mended } from './mend';

/** What `patient-muster/1` lacks: a time zone, and readings of the air as instants. */
type Fields = Record<string, unknown>;

/**
 * A `patient-muster/1` as `patient-muster/2`: its wall-clock times are those of the given zone, and references, which
 * the first format let dangle, are cut where they lead nowhere. What is no such document is left as it is,
 * for the schema to judge.
 * @param zone IANA name
 */
export function fromFirstFormat(value: unknown, zone: string): unknown {
  if (!isFields(value) || !isFields(value['bench'])) return value;
  const { bench } = value;
  const readings = bench['readings'];
  const today = {
    ...value,
    format: 'patient-muster/2',
    bench: {
      timeZone: zone,
      ...bench,
      ...(Array.isArray(readings) ? { readings: readings.map((r: unknown) => asInstant(r, zone)) } : {}),
    },
  };
  const read = musterSchema.safeParse(today);
  return read.success ? mended(null, read.data).muster : today;
}

function asInstant(reading: unknown, zone: string): unknown {
  if (!isFields(reading) || typeof reading['at'] !== 'string') return reading;
  return {
    ...reading,
    at: /^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(reading['at'])
      ? instantOfWall(zone, reading['at'])
      : reading['at'],
  };
}

function isFields(value: unknown): value is Fields {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
