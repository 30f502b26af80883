/** The bench's clock: the real one, or a rehearsal that runs faster or jumps. Everything in the app asks it. */
import { Injectable, signal } from '@angular/core';

export type Speed = 1 | 20 | 200;

interface Rehearsal {
  readonly from: number;
  readonly realFrom: number;
  readonly speed: Speed;
}

const TICK_MS = 500;

@Injectable({ providedIn: 'root' })
export class BenchClock {
  /** null: the real clock */
  readonly rehearsal = signal<Rehearsal | null>(null);
  /** the moment it is, renewed twice a second */
  readonly now = signal(new Date());

  constructor() {
    setInterval(() => this.now.set(this.read()), TICK_MS);
  }

  read(): Date {
    const r = this.rehearsal();
    return r === null ? new Date() : new Date(r.from + (Date.now() - r.realFrom) * r.speed);
  }

  /** Begins or goes on with a rehearsal at a moment. */
  rehearse(at: Date, speed: Speed = 1): void {
    this.rehearsal.set({ from: at.getTime(), realFrom: Date.now(), speed });
    this.now.set(this.read());
  }

  setSpeed(speed: Speed): void {
    this.rehearse(this.read(), speed);
  }

  backToReal(): void {
    this.rehearsal.set(null);
    this.now.set(this.read());
  }
}
