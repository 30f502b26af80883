/** The bench's clock: the real one, or a rehearsal that runs faster or jumps. Everything in the app asks it. */
import { Injectable, signal } from '@angular/core';
import { Subject } from 'rxjs';
import * as z from 'zod';
import { forget, recall, remember } from './tabMemory';

const speedSchema = z.union([z.literal(1), z.literal(20), z.literal(200)]);
const rehearsalSchema = z.strictObject({ from: z.number(), realFrom: z.number(), speed: speedSchema });

export type Speed = z.infer<typeof speedSchema>;
type Rehearsal = z.infer<typeof rehearsalSchema>;

const TICK_MS = 500;
/** A rehearsal belongs to its tab and outlives a reload, nothing more: the tab's own storage, not the database. */
const KEY = 'patient-muster rehearsal';

@Injectable({ providedIn: 'root' })
export class BenchClock {
  /** null: the real clock */
  readonly rehearsal = signal<Rehearsal | null>(kept());
  /** the moment it is, renewed twice a second */
  readonly now = signal(this.read());

  /** a rehearsal has come to its end: whatever belonged to it goes */
  readonly rehearsalEnded = new Subject<void>();

  constructor() {
    setInterval(() => this.now.set(this.read()), TICK_MS);
  }

  read(): Date {
    const r = this.rehearsal();
    return r === null ? new Date() : new Date(r.from + (Date.now() - r.realFrom) * r.speed);
  }

  /** Begins or goes on with a rehearsal at a moment. */
  rehearse(at: Date, speed: Speed = 1): void {
    const rehearsal: Rehearsal = { from: at.getTime(), realFrom: Date.now(), speed };
    this.rehearsal.set(rehearsal);
    remember(KEY, JSON.stringify(rehearsal));
    this.now.set(this.read());
  }

  setSpeed(speed: Speed): void {
    this.rehearse(this.read(), speed);
  }

  backToReal(): void {
    if (this.rehearsal() === null) return;
    this.rehearsal.set(null);
    forget(KEY);
    this.now.set(this.read());
    this.rehearsalEnded.next();
  }
}

function kept(): Rehearsal | null {
  const text = recall(KEY);
  if (text === null) return null;
  try {
    return rehearsalSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}
