import { describe, expect, it } from 'vitest';
import * as z from 'zod';
import { benchSchema, layerSchema, pieceSchema, unitSchema } from './document';
import { amount, limitsOf, numberFault, whole } from './limits';

describe('the limits of a field', () => {
  it('are those of the schema', () => {
    expect(limitsOf(unitSchema.shape.importance)).toEqual({
      min: 1,
      max: 5,
      isAbove: false,
      isWhole: true,
      isOptional: false,
    });
    expect(limitsOf(layerSchema.shape.nozzleMm)).toMatchObject({
      min: 0,
      max: 2,
      isAbove: true,
      isOptional: true,
    });
    expect(limitsOf(benchSchema.shape.boothPlaces)).toMatchObject({ min: 1, max: 20, isOptional: true });
    expect(limitsOf(z.number().nullable())).toMatchObject({ isOptional: true, min: -Infinity });
  });

  it('are of numbers only', () => {
    expect(() => limitsOf(pieceSchema.shape.name)).toThrow('number');
  });
});

describe('a number', () => {
  it.each([
    [0, whole(1, 9), 'Between 1 and 9 places.'],
    [10, whole(1, 9), 'Between 1 and 9 places.'],
    [2.5, whole(1, 9), 'Needs a whole number.'],
    [NaN, whole(1, 9), 'That is no number.'],
    [Infinity, amount(1, 9), 'That is no number.'],
    [null, amount(1, 9), 'Needs a number.'],
    [0, z.number().gt(0).max(2), 'More than 0, up to 2 places.'],
    [3, z.number().gt(0).max(2), 'More than 0, up to 2 places.'],
    [null, amount(1, 9).optional(), null],
    [2, z.number().gt(0).max(2), null],
    [9, whole(1, 9), null],
    [1, whole(1, 9), null],
  ])('%s in %#: %s', (value, schema, fault) => {
    expect(numberFault(value, limitsOf(schema), 'places')).toBe(fault);
    // What the field says is what the schema says.
    const parsed = schema.safeParse(value ?? undefined);
    expect(parsed.success).toBe(fault === null);
  });
});
