/** The world outside, as tokens: what tests and rehearsals may replace. */
import { inject, InjectionToken } from '@angular/core';
import { BenchClock } from './benchClock';

/** The moment it is at the bench: real, or rehearsed. */
export const NOW = new InjectionToken<() => Date>('now', {
  factory: () => {
    const clock = inject(BenchClock);
    return () => clock.read();
  },
});

/** A new id each time. */
export const NEW_ID = new InjectionToken<() => string>('new id', {
  factory: () => () => crypto.randomUUID(),
});
