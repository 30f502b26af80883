import { effect, signal, untracked, type Signal } from '@angular/core';

/**
 * Follows `source` so many frames later. Parts of a view that the same news changes are drawn in turn with it: the page never stands
 * still for all of them. To be called where things may be injected.
 */
export function framesLater<T>(source: Signal<T>, frames: number): Signal<T> {
  const late = signal(untracked(source));
  effect((onCleanup) => {
    const value = source();
    let left = frames;
    const next = (): void => {
      if (left-- === 0) late.set(value);
      else handle = requestAnimationFrame(next);
    };
    let handle = 0;
    next();
    onCleanup(() => cancelAnimationFrame(handle));
  });
  return late.asReadonly();
}
