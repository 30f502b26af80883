/** The bench's instruments (simulated ones ship with the program): readings as they come, and the forecast. */
import { inject, Injectable, NgZone } from '@angular/core';
import { toObservable } from '@angular/core/rxjs-interop';
import { Observable, switchMap } from 'rxjs';
import * as z from 'zod';
import { INSTANT_PATTERN, type Instant, type Reading } from '#core/muster';
import { BenchClock } from './benchClock';

const readingSchema = z.object({
  at: z.string().regex(INSTANT_PATTERN),
  celsius: z.number().min(-30).max(60),
  humidityPercent: z.number().min(1).max(100),
});
const forecastSchema = z.object({ hours: z.array(readingSchema).max(240) });

@Injectable({ providedIn: 'root' })
export class Instruments {
  private readonly zone = inject(NgZone);
  private readonly clock = inject(BenchClock);
  private readonly rehearsals = toObservable(this.clock.rehearsal);

  /**
   * Readings of the thermo-hygrometer until unsubscribed, by the clock of the rehearsal while there is one; an error tells that it
   * does not answer.
   */
  readings(): Observable<Reading> {
    return this.rehearsals.pipe(
      switchMap((r) =>
        this.stream(r ? this.clock.read().getTime() - Date.now() : 0, r === null ? 1 : r.speed),
      ),
    );
  }

  private stream(aheadMs: number, speed: number): Observable<Reading> {
    return new Observable((subscriber) => {
      const source = new EventSource(`/instruments/air?ahead_ms=${Math.round(aheadMs)}&speed=${speed}`);
      source.addEventListener('reading', (event) => {
        const read = readingSchema.safeParse(parsed(event.data));
        if (read.success) this.zone.run(() => subscriber.next(read.data));
      });
      source.addEventListener('error', () => {
        if (source.readyState === EventSource.CLOSED)
          this.zone.run(() => subscriber.error(new Error('The thermo-hygrometer does not answer.')));
      });
      return () => source.close();
    });
  }

  /** Three days by the hour from a moment on. @throws Error in words when there is none */
  async forecast(from: Instant): Promise<Reading[]> {
    const response = await fetch(`/instruments/forecast?from=${encodeURIComponent(from)}`).catch(() => null);
    if (!response?.ok) throw new Error('The forecast does not answer. Is the program’s own server running?');
    const read = forecastSchema.safeParse(await response.json());
    if (!read.success) throw new Error('The forecast cannot be read.');
    return read.data.hours;
  }
}

function parsed(text: unknown): unknown {
  try {
    return JSON.parse(String(text));
  } catch {
    return null;
  }
}
