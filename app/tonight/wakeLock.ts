/** Keeps the screen lit while it is asked for, again after the page has been hidden. */
import { Injectable } from '@angular/core';

interface Lock {
  release(): Promise<void>;
}

@Injectable({ providedIn: 'root' })
export class WakeLock {
  private lock: Lock | null = null;
  private isWanted = false;

  constructor() {
    document.addEventListener('visibilitychange', () => {
      if (this.isWanted && document.visibilityState === 'visible') void this.hold();
    });
  }

  async hold(): Promise<void> {
    this.isWanted = true;
    const { wakeLock } = navigator as { wakeLock?: { request(kind: 'screen'): Promise<Lock> } };
    this.lock = (await wakeLock?.request('screen').catch(() => null)) ?? null;
  }

  async release(): Promise<void> {
    this.isWanted = false;
    await this.lock?.release();
    this.lock = null;
  }
}
