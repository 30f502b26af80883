/** The world outside, as tokens: what tests and rehearsals may replace. */
import { InjectionToken } from '@angular/core';

/** The moment it is. */
export const NOW = new InjectionToken<() => Date>('now', { factory: () => () => new Date() });

/** A new id each time. */
export const NEW_ID = new InjectionToken<() => string>('new id', {
  factory: () => () => crypto.randomUUID(),
});
