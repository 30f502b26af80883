/** What a field may hold, as its schema says it: written once, told while it is typed. */
import * as z from 'zod';

export interface Limits {
  readonly min: number;
  readonly max: number;
  /** more than `min`, which itself is too little */
  readonly isAbove: boolean;
  readonly isWhole: boolean;
  /** may be left empty */
  readonly isOptional: boolean;
}

/** A check of a number, as Zod keeps it. */
interface Check {
  readonly check: string;
  readonly value: number;
  readonly inclusive: boolean;
}

/** The limits of a field for a number. @throws Error for any other schema: a mistake of the program */
export function limitsOf(schema: z.ZodType): Limits {
  let inner: unknown = schema;
  let isOptional = false;
  while (inner instanceof z.ZodOptional || inner instanceof z.ZodNullable) {
    isOptional = true;
    inner = inner.unwrap();
  }
  if (!(inner instanceof z.ZodNumber)) throw new Error('These are the limits of a number only.');
  const checks = (inner.def.checks ?? []).map((c) => c._zod.def as unknown as Check);
  const lower = checks.find((c) => c.check === 'greater_than');
  const upper = checks.find((c) => c.check === 'less_than');
  return {
    min: lower?.value ?? -Infinity,
    max: upper?.value ?? Infinity,
    isAbove: lower?.inclusive === false,
    isWhole: inner instanceof z.ZodNumberFormat,
    isOptional,
  };
}

/**
 * Why a number can't stand there, in words; null where it can.
 * @param value null: the field is empty
 * @param unit as it stands beside the field
 */
export function numberFault(value: number | null, limits: Limits, unit = ''): string | null {
  const { min, max, isAbove, isWhole, isOptional } = limits;
  if (value === null) return isOptional ? null : 'Needs a number.';
  if (!Number.isFinite(value)) return 'That is no number.';
  if (isWhole && !Number.isInteger(value)) return 'Needs a whole number.';
  const last = unit ? ` ${unit}` : '';
  if (isAbove && (value <= min || value > max)) return `More than ${min}, up to ${max}${last}.`;
  return value < min || value > max ? `Between ${min} and ${max}${last}.` : null;
}

/** A whole number between two, both allowed. */
export const whole = (min: number, max: number): z.ZodNumber => z.int().min(min).max(max);
/** Any number between two, both allowed. */
export const amount = (min: number, max: number): z.ZodNumber => z.number().min(min).max(max);
