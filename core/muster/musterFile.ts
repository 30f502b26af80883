/** The whole muster as a JSON file, and back. */
import { MUSTER_FORMAT, type Muster } from './document';
import { checked } from './door';
import { faultLine } from './faults';
import { fromFirstFormat } from './migrate';
import type { Fault } from './sound';

/** Thrown where a file is no muster; every fault names its path. */
export class MusterFileError extends Error {
  constructor(readonly faults: readonly Fault[]) {
    super(faults.map(faultLine).join('\n'));
    this.name = 'MusterFileError';
  }
}

export function writeMuster(muster: Muster): string {
  return `${JSON.stringify(muster, null, 2)}\n`;
}

const FIRST_FORMAT = 'patient-muster/1';

/**
 * Reads the text of a muster file.
 * @param zone time zone of a file of the first format, which does not say its own
 * @throws MusterFileError naming the path of everything that is wrong
 */
export function readMuster(text: string, zone = 'UTC'): Muster {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new MusterFileError([
      { path: 'file', text: `is no JSON: ${error instanceof Error ? error.message : String(error)}` },
    ]);
  }
  return parseMuster(value, zone);
}

/**
 * A document of today's format or the first. The first let references dangle; they are cut on the way in.
 * @throws MusterFileError naming the path of everything that is wrong
 */
export function parseMuster(value: unknown, zone = 'UTC'): Muster {
  const format =
    typeof value === 'object' && value !== null ? (value as { format?: unknown }).format : undefined;
  if (format === FIRST_FORMAT) return sound(fromFirstFormat(value, zone));
  if (format === MUSTER_FORMAT) return sound(value);
  const isNewer = typeof format === 'string' && /^patient-muster\/\d+$/.test(format);
  throw new MusterFileError([
    {
      path: 'format',
      text: `is ${JSON.stringify(format) ?? 'missing'}${isNewer ? ', of a newer program' : ''}, and this program reads "${FIRST_FORMAT}" and "${MUSTER_FORMAT}"`,
    },
  ]);
}

function sound(value: unknown): Muster {
  const read = checked(value);
  if (!read.ok) throw new MusterFileError(read.faults);
  return read.muster;
}
