/** The one door for every change: edits are made, references mended, the whole is checked, and only then is it a muster. */
import { withEdits, type Edit } from './change';
import { musterSchema, type Muster } from './document';
import { toFaults } from './faults';
import { mended } from './mend';
import { unsound, type Fault } from './sound';

export type Admitted =
  | { readonly ok: true; readonly muster: Muster; readonly notes: readonly string[] }
  | { readonly ok: false; readonly faults: readonly Fault[] };

/**
 * @param muster a sound one
 * @throws GoneError where what an edit is meant for is not there any more
 */
export function admit(muster: Muster, edits: readonly Edit[]): Admitted {
  const { muster: after, notes } = mended(muster, withEdits(muster, edits));
  const read = checked(after);
  return read.ok ? { ...read, notes } : read;
}

/** A whole document from elsewhere: the schema first, then what must hold between its parts. */
export function checked(value: unknown): Admitted {
  const read = musterSchema.safeParse(value);
  if (!read.success) return { ok: false, faults: toFaults(read.error.issues, value) };
  const faults = unsound(read.data);
  return faults.length > 0 ? { ok: false, faults } : { ok: true, muster: read.data, notes: [] };
}

/** A fault as one sentence for the field at which it arose. */
export function faultWords(faults: readonly Fault[]): string {
  const [first] = faults;
  if (!first) return '';
  const text = first.text.charAt(0).toUpperCase() + first.text.slice(1);
  return /[.!?]$/.test(text) ? text : `${text}.`;
}
