/** The bench's instruments (simulated ones ship with the program): readings as they come, and the forecast. */
import { inject, Injectable, NgZone } from '@angular/core';
import { Observable } from 'rxjs';
import * as z from 'zod';
import type { Reading } from '#core/muster';

const readingSchema = z.object({
  at: z.string().regex(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/),
  celsius: z.number().min(-30).max(60),
  humidityPercent: z.number().min(1).max(100),
});
const forecastSchema = z.object({ hours: z.array(readingSchema).max(240) });

@Injectable({ providedIn: 'root' })
export class Instruments {
  private readonly zone = inject(NgZone);

  /** Readings of the thermo-hygrometer until unsubscribed; an error tells that it does not answer. */
  readings(): Observable<Reading> {
    return new Observable((subscriber) => {
      const source = new EventSource('/instruments/air');
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

  /** Three days by the hour from a local time on. @throws Error in words when there is none */
  async forecast(from: string): Promise<Reading[]> {
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
