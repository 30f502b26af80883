/** The whole muster as a JSON file, and back. */
import { pathText, type Fault } from '#core/kernel';
import { MUSTER_FORMAT, musterSchema, type Muster } from '#core/muster';

/** Thrown where a file is no muster; every fault names its path. */
export class MusterFileError extends Error {
  constructor(readonly faults: readonly Fault[]) {
    super(faults.map((f) => `${f.path}: ${f.text}`).join('\n'));
    this.name = 'MusterFileError';
  }
}

export function writeMuster(muster: Muster): string {
  return `${JSON.stringify(muster, null, 2)}\n`;
}

/**
 * Reads the text of a muster file.
 * @throws MusterFileError naming the path of everything that is wrong
 */
export function readMuster(text: string): Muster {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new MusterFileError([
      { path: 'file', text: `is no JSON: ${error instanceof Error ? error.message : String(error)}` },
    ]);
  }
  return parseMuster(value);
}

/** @throws MusterFileError naming the path of everything that is wrong */
export function parseMuster(value: unknown): Muster {
  const format =
    typeof value === 'object' && value !== null ? (value as { format?: unknown }).format : undefined;
  if (format !== MUSTER_FORMAT)
    throw new MusterFileError([
      {
        path: 'format',
        text: `is ${JSON.stringify(format) ?? 'missing'}, and this program reads "${MUSTER_FORMAT}"`,
      },
    ]);
  const read = musterSchema.safeParse(value);
  if (read.success) return read.data;
  throw new MusterFileError(
    read.error.issues.map((issue) => ({ path: pathText(issue.path) || 'file', text: issue.message })),
  );
}
