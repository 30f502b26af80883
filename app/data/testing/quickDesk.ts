/** A planning desk on the thread of the test, whose time goes by in readings: what it plans depends on nothing but its orders. */
import type { Remote } from 'comlink';
import { PlanningDesk } from '../../workers/planningDesk';
import type { Desk, OpenDesk } from '../desk';

/** At this pace an order of six seconds ends after some twenty readings of the clock. */
const MS_A_READING = 400;

/** @param msAReading milliseconds that go by with each look at the clock: the more, the fewer tries */
export function quickDesk(msAReading = MS_A_READING): OpenDesk {
  return () => {
    let ms = 0;
    const desk = new PlanningDesk(() => (ms += msAReading));
    // As comlink does it: each call is answered later, and none on the caller's stack.
    const remote = new Proxy(desk, {
      get: (target, name) => {
        const member: unknown = Reflect.get(target, name);
        if (typeof member !== 'function') return member;
        return async (...args: unknown[]): Promise<unknown> => {
          await Promise.resolve();
          return (member as (...args: unknown[]) => unknown).apply(target, args);
        };
      },
    });
    return { remote: remote as unknown as Remote<PlanningDesk> as Desk['remote'], close: () => desk.stop() };
  };
}
