/** Lamps and pleats: where a minute stands on the plan. Sessions take room by their length, the time between is folded. */
import type { PlanSession } from '#core/plan';

export interface Lamp {
  readonly session: PlanSession;
  readonly x: number;
  readonly width: number;
}

export interface Pleat {
  readonly x: number;
  readonly width: number;
  readonly minutes: number;
}

export interface TimeAxis {
  readonly lamps: readonly Lamp[];
  readonly pleats: readonly Pleat[];
  readonly width: number;
  /** pixels from the left for a minute, inside a session or between two */
  xOf(minute: number): number;
}

const PLEAT_WIDTH = 30;

export function timeAxis(sessions: readonly PlanSession[], pixelsPerMinute: number): TimeAxis {
  const lamps: Lamp[] = [];
  const pleats: Pleat[] = [];
  let x = 0;
  sessions.forEach((session, i) => {
    const before = sessions[i - 1];
    if (before) {
      pleats.push({ x, width: PLEAT_WIDTH, minutes: session.start - before.end });
      x += PLEAT_WIDTH;
    }
    const width = (session.end - session.start) * pixelsPerMinute;
    lamps.push({ session, x, width });
    x += width;
  });
  const width = x + PLEAT_WIDTH;
  return {
    lamps,
    pleats,
    width,
    xOf(minute) {
      // The last lamp that begins no later than the minute.
      let low = 0;
      let high = lamps.length;
      while (low < high) {
        const mid = (low + high) >> 1;
        if (lamps[mid]!.session.start <= minute) low = mid + 1;
        else high = mid;
      }
      const lamp = lamps[low - 1];
      if (!lamp) return lamps[0]?.x ?? 0;
      const { start, end } = lamp.session;
      if (minute <= end) return lamp.x + ((minute - start) / (end - start)) * lamp.width;
      const next = lamps[low];
      if (!next) return width;
      return lamp.x + lamp.width + ((minute - end) / (next.session.start - end)) * PLEAT_WIDTH;
    },
  };
}
