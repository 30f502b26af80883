/** The world outside, as tokens: what tests and rehearsals may replace. */
import { inject, InjectionToken } from '@angular/core';
import { instantOf, wallTime, type LocalDate } from '#core/muster';
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

/** The machine's time zone, IANA: that of a new bench, and of what older files and databases kept. */
export const ZONE = new InjectionToken<string>('time zone', {
  factory: () => Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC',
});

/** This tab, told apart from the others of the browser. */
export const TAB = new InjectionToken<string>('tab', { factory: () => crypto.randomUUID() });

/** Does the address ask for the demo, where nothing is kept yet? */
export const WANTS_DEMO = new InjectionToken<boolean>('wants demo', {
  factory: () => new URLSearchParams(globalThis.location?.search ?? '').has('demo'),
});

/** The day it is on the wall of a bench: not that of UTC, which turns at another hour. */
export const TODAY = new InjectionToken<(zone: string) => LocalDate>('today', {
  factory: () => {
    const now = inject(NOW);
    return (zone) => wallTime(zone, instantOf(now())).slice(0, 10);
  },
});

/** Processors of this machine, as far as it tells. */
export const CORES = new InjectionToken<number>('cores', {
  factory: () => globalThis.navigator?.hardwareConcurrency ?? 1,
});

/** Milliseconds of quiet after which a change is planned: a burst of keystrokes is one change. */
export const PLANNING_PAUSE_MS = new InjectionToken<number>('planning pause', { factory: () => 350 });
