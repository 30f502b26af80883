/** The form of a muster file for other programs: JSON Schema, draft 2020-12. */
import * as z from 'zod';
import { MUSTER_FORMAT, musterSchema } from './document';

/** What only the program checks (that a date is of the calendar, that references hold) is not in it. */
export function musterJsonSchema(): Record<string, unknown> {
  return {
    $id: `urn:patient-muster:${MUSTER_FORMAT.replace('/', ':')}`,
    title: 'A muster of Patient Muster',
    ...z.toJSONSchema(musterSchema, { unrepresentable: 'any' }),
  };
}
