/** Plays futures with room for other calls in between, alone or with a helper. */
import type { Forecast, Forecaster, Tally } from '#core/odds';

/** Another worker that plays futures of the same plan. */
export interface Helper {
  /** @returns what so many futures came to, the first given */
  played(from: number, futures: number): Promise<Tally>;
}

export interface Playing {
  readonly player: Pick<Forecaster, 'play' | 'told' | 'leave' | 'take' | 'units'>;
  /** so many in all, or as many as the milliseconds allow */
  readonly futures: number;
  readonly ms: number;
  readonly helper?: Helper | null;
  /** milliseconds that go by */
  readonly clock?: () => number;
  /** has somebody ended it? */
  readonly isEnded: () => boolean;
  /** hears what is known: soon, now and then, and at last */
  readonly tell: (forecast: Forecast, isLast: boolean) => void;
}

const SLICE_MS = 20;
/** Each time that odds are told all of them are drawn anew: those of many units less often. */
const TELL_MS = 200;
const TELL_MS_A_UNIT = 10;
/** Fewer futures say nothing. */
const LEAST_TOLD = 10;
/** So many are left to the helper at a time: it is asked seldom, and nobody waits long for its last. */
const LEFT_AT_ONCE = 8;

/** @returns what is known at last; null when it has been ended */
export async function playFutures(playing: Playing): Promise<Forecast | null> {
  const { player, isEnded, tell, clock = () => performance.now() } = playing;
  const end = clock() + playing.ms;
  let left = playing.futures;
  let played = 0;
  let isHelping = false;
  const share = async (helper: Helper): Promise<void> => {
    while (left > 0 && !isEnded()) {
      const count = Math.min(LEFT_AT_ONCE, left);
      left -= count;
      const tally = await helper.played(player.leave(count), count).catch(() => null);
      if (tally === null) {
        // It is gone: as many others are played in their place.
        left += count;
        return;
      }
      player.take(tally);
      played += count;
    }
  };
  if (playing.helper) {
    isHelping = true;
    void share(playing.helper).finally(() => (isHelping = false));
  }
  const tellMs = Math.max(TELL_MS, player.units * TELL_MS_A_UNIT);
  let told = -Infinity;
  for (;;) {
    const slice = clock() + SLICE_MS;
    while (left > 0 && clock() < slice) {
      left--;
      player.play();
      played++;
    }
    const isLast = (left === 0 && !isHelping) || clock() > end;
    if (isLast || (played >= LEAST_TOLD && clock() - told > tellMs)) {
      told = clock();
      const forecast = player.told();
      tell(forecast, isLast);
      if (isLast) return forecast;
    }
    await breathe();
    if (isEnded()) return null;
  }
}

/** Lets other calls in. */
export function breathe(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, 0));
}
