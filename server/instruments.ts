/** Simulated instruments on the bench: a thermo-hygrometer as server-sent events, a three-day forecast by the hour. */
import { Router } from 'express';
import * as z from 'zod';
import { simulatedAir } from '#core/climate';
import { INSTANT_PATTERN, instantOf, isRealDate } from '#core/muster';

export interface InstrumentOptions {
  readonly seed: number;
  /** the moment it is */
  readonly now: () => Date;
  /** between two readings sent, milliseconds */
  readonly everyMs: number;
}

/** A rehearsal's clock: so far ahead of the real one when the stream begins, and so much faster from then on. */
const clockSchema = z.object({
  ahead_ms: z.coerce.number().int().min(-1e13).max(1e13).default(0),
  speed: z.coerce.number().min(1).max(1000).default(1),
});

const fromSchema = z.strictObject({
  from: z.string().regex(INSTANT_PATTERN).refine(isRealDate).optional(),
});

const HOUR_MS = 3_600_000;
const FORECAST_HOURS = 72;

export function instruments({ seed, now, everyMs }: InstrumentOptions): Router {
  const router = Router();
  const reading = (at: Date): object => ({ at: instantOf(at), ...simulatedAir(seed, wallMinute(at)) });

  router.get('/air', (request, response) => {
    const clock = clockSchema.safeParse(request.query);
    if (!clock.success) {
      response.status(400).type('text').send('ahead_ms and speed: whole milliseconds, and 1 to 1000');
      return;
    }
    const { ahead_ms: ahead, speed } = clock.data;
    const begun = now().getTime();
    const moment = (): Date => new Date(begun + ahead + (now().getTime() - begun) * speed);
    response.set({
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      Connection: 'keep-alive',
    });
    const send = (): boolean =>
      response.write(`event: reading\ndata: ${JSON.stringify(reading(moment()))}\n\n`);
    send();
    const timer = setInterval(send, everyMs);
    request.on('close', () => clearInterval(timer));
  });

  // The hours asked for may lie elsewhere than now: a demo muster begins on the coming Monday.
  router.get('/forecast', (request, response) => {
    const asked = fromSchema.safeParse(request.query);
    if (!asked.success) {
      response.status(400).type('text').send('from: is no instant from 2000 to 2199 (YYYY-MM-DDTHH:mm:ssZ)');
      return;
    }
    const from = asked.data.from === undefined ? now() : new Date(asked.data.from);
    const first = Math.floor(from.getTime() / HOUR_MS) * HOUR_MS;
    response.set('Cache-Control', 'no-store').json({
      hours: Array.from({ length: FORECAST_HOURS }, (_, h) => reading(new Date(first + h * HOUR_MS))),
    });
  });
  return router;
}

function wallMinute(at: Date): number {
  return Math.floor(at.getTime() / 60_000) - at.getTimezoneOffset();
}
