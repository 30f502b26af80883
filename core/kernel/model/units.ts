/**
 * What a number stands for. All of them are plain numbers when the program runs; the compiler refuses one where another is asked for, so
 * that an operation cannot be taken for a resource, nor ticks of a drying clock for minutes. What is reckoned from them is a plain number
 * again, and fits anywhere.
 */

/** Place of an operation in the problem, from 0. */
export type OperationIndex = number & { readonly of?: 'operation' };

/** Place of a resource in the problem, from 0. */
export type ResourceIndex = number & { readonly of?: 'resource' };

/** A moment of the plan, in whole minutes since its beginning; not how long something takes. */
export type Minute = number & { readonly of?: 'minute' };

/** Whole minutes of drying in the air that the clock is made for. */
export type Ticks = number & { readonly of?: 'tick' };
